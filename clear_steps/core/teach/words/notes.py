"""What is done at one moment, in words."""

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass, field, replace
from fractions import Fraction
from math import ceil

from clear_steps.core.score import TECHNIQUES, Technique
from clear_steps.core.teach.words.catalogue import Catalogue
from clear_steps.core.teach.words.facts import MomentFact, NoteFact
from clear_steps.core.teach.words.names import Names, chord_in
from clear_steps.core.teach.words.rhythm import Timing, place_words

FRET = "{fret}"
_TO_THE_BEAT = 2
_CLAUSE, _SHORT = 16, 5  # words
MOST_WORDS = 25  # of a sentence
_ENGLISH = "en"


@dataclass
class Voice:
    """One who tells a part in a language, and what was told already: it is not told again."""

    catalogue: Catalogue
    names: Names = Names.LETTERS
    shapes: set[str] = field(default_factory=set)
    changes: set[tuple[str, str]] = field(default_factory=set)
    patterns: dict[object, tuple[int, ...]] = field(default_factory=dict)  # with the strings of their basses
    to_the_beat: int = _TO_THE_BEAT
    position: int = 0
    manner: frozenset[Technique] = frozenset()  # of all notes of the chunk
    others: frozenset[tuple[object, ...]] | None = None  # that the pattern told last has beside its grip
    string_named: bool = False  # in this chunk
    bent: bool = False  # a bend was told: the next is told shorter
    strings: tuple[int, ...] = ()  # of the moved grip told last
    between: object = None  # what was told last to come before each place of a grip that is moved
    extent: Fraction | None = None  # of the pattern told last, in quarters

    def say(self, message: str, **values: str | int) -> str:
        """A message of the language."""
        return self.catalogue.say(message, **values)

    def chord(self, name: str) -> str:
        """A chord's name as the student calls it."""
        return chord_in(name, self.names)

    def on_string(self, string: int, what: str) -> str:
        """`3rd string 7, 5`; from then on, in a chunk, `4th 7`."""
        message = "short-string" if self.string_named else "on-string"
        self.string_named = True
        return self.say(message, string=string, what=what)

    def fingers(self, fingers: Sequence[str]) -> str:
        """`the index and the middle finger`."""
        return self.catalogue.listed(
            self.say("the-finger", finger=self.say(f"finger-{finger}")) for finger in fingers
        )

    def timed(self, said: str, moment: MomentFact, timing: Timing) -> str:
        """What is said of a moment with when it comes and how long it lasts."""
        if timing.place is not None:
            place = place_words(timing.place, moment.metre, self.catalogue)
            said = self._beside(said, "after-rest" if timing.rest else "at-place", place=place)
        return self.say("lasting", what=said, beats=timing.beats) if timing.beats else said

    def repeated(self, said: str, times: int) -> str:
        """`7 twice`, `open 6th twice, muted`."""
        return self._beside(said, "note-times", times=times)

    def _beside(self, said: str, message: str, **values: str | int) -> str:
        """Said right behind the note, before what is done to it."""
        note, comma, manner = said.partition(", ")
        return self.say(message, what=note, **values) + comma + manner


def fret_words(note: NoteFact, voice: Voice, finger: str = "") -> str:
    """A note on a string that was named: `7`, `open`, `hammer to 7`, `10 with vibrato`."""
    if note.dead:
        return done_words(voice.say("dead"), note, voice, finger)
    fret = str(note.fret) if note.fret else voice.say("open")
    return done_words(fret, note, voice, finger)


def done_words(fret: str, note: NoteFact, voice: Voice, finger: str = "") -> str:
    """A note called so, with what is done to it: `open 6th, muted`."""
    own = note.techniques - ({Technique.PRE_BEND} if note.half_tones else set())
    said = [said_of(each, voice) for each in sorted(own)]
    leading = [phrase for phrase in said if FRET in phrase]
    words = leading[0].replace(FRET, fret) if leading else fret
    if note.half_tones:
        words = _bent(words, note, voice)
    elif note.released:
        words = voice.say("released-to", fret=fret)
    more = [phrase for phrase in said if FRET not in phrase]
    more += [phrase.replace(FRET, fret) for phrase in leading[1:]]
    more += [voice.say("released")] if note.half_tones and note.released else []
    more += [f"“{name}”" for name in sorted(note.own)]
    more += [voice.say("with-finger", finger=voice.say(f"finger-{finger}"))] if finger else []
    more += [voice.say("optional")] if note.optional else []
    more += [voice.say("uncertain")] if note.uncertain else []
    return ", ".join([words, *more])


def said_of(technique: Technique, voice: Voice) -> str:
    """What a teacher says of a note that is played so; `{fret}` where its fret goes."""
    return TECHNIQUES[technique].said_in(voice.catalogue.language)


def _bent(words: str, note: NoteFact, voice: Voice) -> str:
    assert note.half_tones is not None
    before = "pre" if Technique.PRE_BEND in note.techniques else ""
    if note.half_tones.denominator == 1:
        message = "bent-again" if voice.bent and not before else f"{before}bent-to"
        voice.bent = True
        return voice.say(message, what=words, fret=note.fret + int(note.half_tones))
    quarters = note.half_tones * 2
    if quarters == 1:
        return voice.say(f"{before}bent-quarter", what=words)
    return voice.say(f"{before}bent-quarters", what=words, quarters=str(quarters))


def gathered(pieces: Iterable[str]) -> Iterator[str]:
    """Pieces joined by commas to clauses that are about as long as one another and not too long."""
    own = list(pieces)
    words = sum(len(piece.split()) for piece in own)
    room = words / ceil(words / _CLAUSE) if words else _CLAUSE
    clause = ""
    for piece in own:
        longer = f"{clause}, {piece}" if clause else piece
        if clause and len(longer.split()) > max(room + 1, _SHORT):
            yield clause
            clause = piece
        else:
            clause = longer
    if clause:
        yield clause


def own_finger(note: NoteFact, position: int) -> str:
    """The finger that is said with a note of a place of the hand: one that the teacher wrote and that is not
    the place's."""
    if not note.pinned or not note.finger or not note.fret:
        return ""
    return "" if note.finger == str(note.fret - position + 1) else note.finger


def more_words(moment: MomentFact, voice: Voice) -> Iterator[str]:
    """What is written of a moment beside its notes."""
    if moment.dynamic:
        yield voice.say(f"dynamic-{moment.dynamic}")
    if moment.dip is not None:
        yield voice.say("dip", quarters=str(moment.dip * 2), tones=_tones(moment.dip))
    if moment.free:
        yield voice.say("free")
    if moment.uncertain:
        yield voice.say("uncertain-rhythm")
    if moment.stopped:
        yield voice.say("stopped", strings=strings_words(moment.stopped, voice))
    if moment.remark:
        yield f"“{moment.remark}”"


def _tones(half_tones: Fraction) -> int:
    return int(half_tones) if half_tones.denominator == 1 else 0


def strings_words(strings: Sequence[int], voice: Voice) -> str:
    """`the 3rd string`, `strings 3, 2 and 1`."""
    if len(strings) == 1:
        return voice.say("the-string", string=strings[0])
    return voice.say("strings", strings=voice.catalogue.listed(map(str, strings)))


def together(moment: MomentFact, voice: Voice) -> str:
    """Several notes at once, each with its string: `3rd 7 and 2nd 8 together, accented`."""
    alike = done_alike(moment.notes)
    notes = [replace(note, techniques=frozenset()) if alike else note for note in moment.notes]
    said = [
        voice.say("short-string", string=note.string, what=fret_words(note, voice, _pinned(note)))
        for note in notes
    ]
    words = voice.say("together", notes=voice.catalogue.listed(said))
    return done_words(words, moment.notes[0], voice) if alike else words


def done_alike(notes: Sequence[NoteFact]) -> bool:
    """Whether all are played in one manner that says nothing of a fret."""
    first = notes[0]
    if first.half_tones or first.released or any(note.manner != first.manner for note in notes):
        return False
    return not first.own and not any(FRET in TECHNIQUES[each].said_in(_ENGLISH) for each in first.techniques)


def frets_together(moment: MomentFact, voice: Voice) -> str:
    """`7 and 6`, `slide to 9 and 8`: notes at once on strings that were named; empty where each is played in
    a manner of its own."""
    first = moment.notes[0]
    if any(note.manner != first.manner for note in moment.notes) or first.half_tones or first.released:
        return ""
    if any(note.dead or _pinned(note) for note in moment.notes):
        return ""
    frets = [str(note.fret) if note.fret else voice.say("open") for note in moment.notes]
    return done_words(voice.catalogue.listed(frets), first, voice)


def _pinned(note: NoteFact) -> str:
    return note.finger if note.pinned else ""


def spoken_words(moment: MomentFact, voice: Voice) -> str:
    """A moment by itself, to be read while it sounds."""
    if moment.held:
        said = ", ".join(fret_words(note, voice) for note in moment.notes)
        words = voice.say("held-on", what=said) if said else ""
    elif len(moment.notes) == 1:
        note = moment.notes[0]
        words = voice.say("on-string", string=note.string, what=fret_words(note, voice, _pinned(note)))
    else:
        words = together(moment, voice)
    return "; ".join(filter(None, [words, *more_words(moment, voice)]))
