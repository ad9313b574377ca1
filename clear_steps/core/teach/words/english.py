"""How it is said in English."""

from collections.abc import Sequence
from fractions import Fraction

from clear_steps.core.figures import As
from clear_steps.core.score import Metre, PickingFinger, Stroke, Technique
from clear_steps.core.score.words import beat_words, listed, number_words, ordinal
from clear_steps.core.teach.setting_up import Compare, Turn
from clear_steps.core.teach.words.facts import NoteFact

_T = Technique
_FINGERS = {"1": "1st finger", "2": "2nd finger", "3": "3rd finger", "4": "little finger", "T": "thumb"}
_STROKES = {Stroke.DOWN: "down", Stroke.UP: "up"}
_PICKING = {
    PickingFinger.THUMB: "thumb",
    PickingFinger.INDEX: "index",
    PickingFinger.MIDDLE: "middle",
    PickingFinger.RING: "ring",
    PickingFinger.LITTLE: "little",
}

_TECHNIQUES = {
    _T.HAMMER_ON: "hammered on",
    _T.PULL_OFF: "pulled off",
    _T.SLIDE: "slid to",
    _T.SHIFT_SLIDE: "slid to and picked",
    _T.SLIDE_IN_BELOW: "slid into from below",
    _T.SLIDE_IN_ABOVE: "slid into from above",
    _T.SLIDE_OUT_UP: "slid out upwards",
    _T.SLIDE_OUT_DOWN: "slid out downwards",
    _T.PRE_BEND: "bent before it sounds",
    _T.UNISON_BEND: "as a unison bend",
    _T.VIBRATO: "with vibrato",
    _T.TRILL: "trilled",
    _T.GRACE: "as a grace note",
    _T.PALM_MUTE: "palm-muted",
    _T.LET_RING: "left to ring",
    _T.STACCATO: "cut short",
    _T.ACCENT: "accented",
    _T.TREMOLO: "tremolo-picked",
    _T.FREE_TREMOLO: "tremolo-picked as fast as it goes",
    _T.NATURAL_HARMONIC: "as a harmonic",
    _T.TOUCHED_HARMONIC: "as a touched harmonic",
    _T.ARTIFICIAL_HARMONIC: "as an artificial harmonic",
    _T.PINCH_HARMONIC: "as a pinch harmonic",
    _T.TAP: "tapped",
    _T.SLAP: "slapped",
    _T.RAKE: "raked",
    _T.WHAMMY_DIP: "with a dip of the bar",
    _T.PICK_AND_FINGERS: "with pick and fingers",
}
_EVERY = {1: "that one", 2: "both"}


class English:
    """The phrases."""

    def technique(self, technique: Technique) -> str:
        """What is done to a note."""
        return _TECHNIQUES[technique]

    def begins(self, beat: str, bar: int) -> str:
        """Where a chunk begins."""
        return f"it starts on {beat} of bar {bar}"

    def beat(self, onset: Fraction, metre: Metre) -> str:
        """A place in a bar."""
        return beat_words(onset, metre)

    def in_bar(self, beat: str, bar: int) -> str:
        """A place in one of several bars."""
        return f"{beat} of bar {bar}"

    def all_of_it(self, techniques: Sequence[str]) -> str:
        """What holds for every note."""
        return f"all of it {listed(techniques)}"

    def strings(self, strings: Sequence[int]) -> str:
        """The strings of a note or of several alike."""
        return f"{listed([ordinal(each) for each in strings])} string{'s' if len(strings) > 1 else ''}"

    def place(self, strings: Sequence[int], note: NoteFact) -> str:
        """String, fret and finger, each named."""
        string = self.strings(strings)
        if note.dead or not note.fret:
            return f"{string} {'dead' if note.dead else 'open'}"
        return ", ".join(filter(None, (string, f"{ordinal(note.fret)} fret", _FINGERS.get(note.finger))))

    def every_one(self, count: int, techniques: Sequence[str]) -> str:
        """What is done to all notes of a moment."""
        return f"{_EVERY.get(count, 'all')} {listed(techniques)}"

    def manner(self, note: NoteFact) -> list[str]:
        """What is done to it."""
        found = [_TECHNIQUES[each] for each in sorted(note.techniques)]
        if note.half_tones:
            found.append(_bent(note.fret, note.half_tones))
        if note.released:
            found.append("then let down" if note.half_tones else "let down from the bend")
        return found + [f'"{name}"' for name in sorted(note.own)]

    def with_(self, notes: Sequence[str]) -> str:
        """Notes struck at once."""
        return " with ".join(notes)

    def on_top(self, notes: str) -> str:
        """The rest of a chord that takes two sentences."""
        return f"at the same time {notes}"

    def also(self, strings: Sequence[int], manner: Sequence[str]) -> str:
        """What did not fit where a note was told."""
        return f"the {self.strings(strings)} also, {', '.join(manner)}"

    def all_of_that(self) -> str:
        """A chord that took several sentences."""
        return "all of that"

    def times(self, phrase: str, count: int) -> str:
        """The same several times."""
        return f"{phrase}, {'twice' if count == 2 else f'{number_words(count)} times'}"

    def again(self, chord: str) -> str:
        """A chord that was told before."""
        return f"{chord} again"

    def moved_shape(self, by: int) -> str:
        """The shape before, moved along the neck."""
        return f"the same shape {_frets(by)}"

    def stays(self, fingers: Sequence[str]) -> str:
        """Fingers that hold on."""
        names = listed([_FINGERS[finger] for finger in fingers])
        return f"leaving the {names} down"

    def stopped(self, strings: Sequence[int]) -> str:
        """Strings that must not ring on."""
        return f"stopping the {self.strings(strings)}"

    def like(self, name: str, how: As, by: int) -> str:
        """A chunk that is an earlier one."""
        if how is As.EQUAL:
            return f"the same as {name}"
        if how is As.MOVED:
            return f"the same as {name}, {_frets(by)}"
        strings = f"{number_words(abs(by))} string{'s' if abs(by) > 1 else ''}"
        return f"the same as {name}, {strings} {'thicker' if by > 0 else 'thinner'}"

    def but(self, where: str, what: str) -> str:
        """A moment of it that is other."""
        return f"but on {where}: {what}"

    def count(self, counts: str, first: bool) -> str:
        """What is counted aloud in a bar."""
        return f"count {counts}" if first else f"in the next bar count {counts}"

    def sign(self, sign: str) -> str:
        """A count as it is spoken."""
        return sign

    def strokes(self, strokes: Sequence[Sequence[Stroke]]) -> str:
        """Strokes, those of one beat together."""
        return f"strum {', '.join('-'.join(_STROKES[each] for each in beat) for beat in strokes)}"

    def turn(self, turn: Turn, name: str) -> str:
        """A string tuned to another note."""
        tones = f"{number_words(abs(turn.by))} half tone{'s' if abs(turn.by) > 1 else ''}"
        other = self.strings([turn.other])
        how = {
            Compare.UNISON: f"until it sounds as the open {other}",
            Compare.OCTAVE_BELOW: f"until its touched 12th fret sounds as the open {other}",
            Compare.OCTAVE_ABOVE: f"until it is an octave above the open {other}",
            Compare.PRESSED: f"until it sounds as the {other} at the {ordinal(turn.fret)} fret",
            Compare.PRESSES: f"until its {ordinal(turn.fret)} fret sounds as the open {other}",
            Compare.TONE: "by a reference tone",
        }[turn.compare]
        slowly = ", slowly: it may break" if turn.tight else ""
        way = "up" if turn.by > 0 else "down"
        return f"{self.strings([turn.string])} {way} {tones} to {name}, {how}{slowly}"

    def capo(self, fret: int) -> str:
        """Where the capo sits; 0: nowhere."""
        return f"capo at the {ordinal(fret)} fret: frets count from there" if fret else "no capo"

    def sounds(self, by: int) -> str:
        """How far the song sounds from the guitar as it is tuned."""
        if by == 0:
            return "it sounds as high as your guitar does now"
        tones = f"{number_words(abs(by))} half tone{'s' if abs(by) > 1 else ''}"
        return f"it sounds {tones} {'higher' if by > 0 else 'lower'} than your guitar does now"

    def off_pitch(self, cents: int) -> str:
        """That a recording is between two half tones."""
        way = "higher" if cents > 0 else "lower"
        return f"the recording is {abs(cents)} cents {way}: tune every string to the tones"

    def picking(self, fingers: Sequence[Sequence[PickingFinger]]) -> str:
        """Fingers of the picking hand."""
        return f"pick {', '.join(' and '.join(_PICKING[each] for each in row) for row in fingers)}"


def _bent(fret: int, half_tones: Fraction) -> str:
    if half_tones.denominator == 1:
        return f"bent to the sound of the {ordinal(fret + int(half_tones))} fret"
    quarters = half_tones * 2
    if quarters == 1:
        return "bent a quarter tone"
    return f"bent {quarters} quarter tones"


def _frets(by: int) -> str:
    frets = f"{number_words(abs(by))} fret{'s' if abs(by) > 1 else ''}"
    return f"{frets} {'higher' if by > 0 else 'lower'}"
