"""Reads directions back into notes: tables and patterns of its own, nothing of how they were made."""

import re
from dataclasses import dataclass, field, replace
from fractions import Fraction

from clear_steps.core.score import Technique

T = Technique


@dataclass(frozen=True)
class ReadNote:
    string: int
    fret: int
    dead: bool = False
    finger: str = ""
    techniques: frozenset[T] = frozenset()
    half_tones: Fraction | None = None
    released: bool = False
    own: frozenset[str] = frozenset()


Moment = tuple[ReadNote, ...]


@dataclass
class ReadChunk:
    moments: list[Moment] = field(default_factory=list)
    onsets: list[list[tuple[int, Fraction]]] = field(default_factory=list)  # by bar: beat and share of it


@dataclass(frozen=True)
class Table:
    """How one language says it; patterns are anchored where they are used."""

    techniques: dict[str, T]
    fingers: dict[str, str]
    string: str
    fret: str
    open: str
    dead: str
    bent_to: str
    bent_quarter: str
    bent_quarters: str
    released: tuple[str, str]
    own: str
    starts: str
    all_of_it: str
    every_one: str
    with_: str
    on_top: str
    all_of_that: str
    also: str
    times: str
    numbers: dict[str, int]
    again: str
    moved: str
    named: str
    stays: str
    stopped: str
    same: str
    moved_frets: str
    moved_strings: str
    up: str
    thicker: str
    but: str
    count: str
    next_bar: str
    hands: tuple[str, str]
    half: str


_TO_TWELVE = {
    "en": "no one two three four five six seven eight nine ten eleven twelve",
    "es": "cero un dos tres cuatro cinco seis siete ocho nueve diez once doce",
}
_EN_NUMBERS = {word: at for at, word in enumerate(_TO_TWELVE["en"].split())} | {"twice": 2}
_ES_NUMBERS = {word: at for at, word in enumerate(_TO_TWELVE["es"].split())} | {"una": 1}
_EN_FINGER, _ES_FINGER = r"(?:\w+ finger|thumb)", r"(?:dedo \d|meñique|pulgar)"
ENGLISH = Table(
    techniques={
        "hammered on": T.HAMMER_ON,
        "pulled off": T.PULL_OFF,
        "slid to": T.SLIDE,
        "slid to and picked": T.SHIFT_SLIDE,
        "slid into from below": T.SLIDE_IN_BELOW,
        "slid into from above": T.SLIDE_IN_ABOVE,
        "slid out upwards": T.SLIDE_OUT_UP,
        "slid out downwards": T.SLIDE_OUT_DOWN,
        "bent before it sounds": T.PRE_BEND,
        "as a unison bend": T.UNISON_BEND,
        "with vibrato": T.VIBRATO,
        "trilled": T.TRILL,
        "as a grace note": T.GRACE,
        "palm-muted": T.PALM_MUTE,
        "left to ring": T.LET_RING,
        "cut short": T.STACCATO,
        "accented": T.ACCENT,
        "tremolo-picked": T.TREMOLO,
        "tremolo-picked as fast as it goes": T.FREE_TREMOLO,
        "as a harmonic": T.NATURAL_HARMONIC,
        "as a touched harmonic": T.TOUCHED_HARMONIC,
        "as an artificial harmonic": T.ARTIFICIAL_HARMONIC,
        "as a pinch harmonic": T.PINCH_HARMONIC,
        "tapped": T.TAP,
        "slapped": T.SLAP,
        "raked": T.RAKE,
        "with a dip of the bar": T.WHAMMY_DIP,
        "with pick and fingers": T.PICK_AND_FINGERS,
    },
    fingers={"1st finger": "1", "2nd finger": "2", "3rd finger": "3", "little finger": "4", "thumb": "T"},
    string=r"((?:\d+(?:st|nd|rd|th)(?:, | and )?)+) strings?(?:, | )",
    fret=r"(\d+)(?:st|nd|rd|th) fret",
    open="open",
    dead="dead",
    bent_to=r"bent to the sound of the (\d+)(?:st|nd|rd|th) fret",
    bent_quarter="bent a quarter tone",
    bent_quarters=r"bent (\d+(?:/\d+)?) quarter tones",
    released=("then let down", "let down from the bend"),
    own=r'"([^"]*)"',
    starts=r"it starts on .* of bar \d+",
    all_of_it="all of it ",
    every_one=r"(?:, |^)(?:that one|both|all) ",
    with_=r" with (?=\d+(?:st|nd|rd|th)[ ,])",
    on_top="at the same time ",
    all_of_that="all of that",
    also=r"the ((?:\d+\w\w(?:, | and )?)+) strings? also, ",
    times=r", (?:(twice)|(\w+) times)$",
    numbers=_EN_NUMBERS,
    again=r"(.+) again$",
    moved=r"the same shape (\w+) frets? (higher|lower)$",
    named=r"([^:]+): (?=\d|the same)",
    stays=rf"(?:, |^)leaving the {_EN_FINGER}(?:(?:, | and ){_EN_FINGER})* down",
    stopped=r"(?:, |^)stopping the .* strings?",
    same="the same as ",
    moved_frets=r", (\w+) frets? (higher|lower)",
    moved_strings=r", (\w+) strings? (thicker|thinner)",
    up="higher",
    thicker="thicker",
    but=r"but on (?:(the .+?|a point after )(?: of )?)?beat (\d+)(?: of bar (\d+))?: ",
    count="count ",
    next_bar="in the next bar count ",
    hands=("strum ", "pick "),
    half="&",
)
SPANISH = replace(
    ENGLISH,
    techniques={
        "ligado ascendente": T.HAMMER_ON,
        "ligado descendente": T.PULL_OFF,
        "deslizando hasta ahí": T.SLIDE,
        "deslizando hasta ahí y pulsando": T.SHIFT_SLIDE,
        "entrando desde abajo": T.SLIDE_IN_BELOW,
        "entrando desde arriba": T.SLIDE_IN_ABOVE,
        "saliendo hacia arriba": T.SLIDE_OUT_UP,
        "saliendo hacia abajo": T.SLIDE_OUT_DOWN,
        "estirando antes de que suene": T.PRE_BEND,
        "estirando al unísono": T.UNISON_BEND,
        "con vibrato": T.VIBRATO,
        "con trino": T.TRILL,
        "como nota de adorno": T.GRACE,
        "apagando con la palma": T.PALM_MUTE,
        "dejando sonar": T.LET_RING,
        "cortando la nota": T.STACCATO,
        "con acento": T.ACCENT,
        "en trémolo": T.TREMOLO,
        "en trémolo lo más rápido posible": T.FREE_TREMOLO,
        "como armónico": T.NATURAL_HARMONIC,
        "como armónico tocado": T.TOUCHED_HARMONIC,
        "como armónico artificial": T.ARTIFICIAL_HARMONIC,
        "como armónico de púa": T.PINCH_HARMONIC,
        "golpeando con la mano derecha": T.TAP,
        "con golpe del pulgar": T.SLAP,
        "arrastrando la púa": T.RAKE,
        "hundiendo la palanca": T.WHAMMY_DIP,
        "con púa y dedos": T.PICK_AND_FINGERS,
    },
    fingers={"dedo 1": "1", "dedo 2": "2", "dedo 3": "3", "meñique": "4", "pulgar": "T"},
    string=r"((?:\d+\.ª(?:, | y )?)+) cuerdas?(?:, | )",
    fret=r"traste (\d+)",
    open="al aire",
    dead=r"apagadas?",
    bent_to=r"estirando hasta el sonido del traste (\d+)",
    bent_quarter="estirando un cuarto de tono",
    bent_quarters=r"estirando (\d+(?:/\d+)?) cuartos de tono",
    released=("y soltando", "soltando lo estirado"),
    own=r"«([^»]*)»",
    starts=r"empieza en .* del compás \d+",
    all_of_it="todo ",
    every_one=r"(?:, |^)(?:esa|las dos|todas) ",
    with_=r" con (?=\d+\.ª)",
    on_top="a la vez ",
    all_of_that="todo eso",
    also=r"en la ((?:\d+\.ª(?:, | y )?)+) cuerdas? además, ",
    times=r", ()(\w+) veces$",
    numbers=_ES_NUMBERS,
    again=r"(.+) otra vez$",
    moved=r"la misma forma (\w+) trastes? hacia (el puente|la cejuela)$",
    named=r"([^:]+): (?=\d|la misma)",
    stays=rf"(?:, |^)sin levantar {_ES_FINGER}(?:(?:, | y ){_ES_FINGER})*",
    stopped=r"(?:, |^)callando la .* cuerdas?",
    same="igual que ",
    moved_frets=r", (\w+) trastes? hacia (el puente|la cejuela)",
    moved_strings=r", (\w+) cuerdas? más (graves?|agudas?)",
    up="el puente",
    thicker="grave",
    but=r"pero en (?:(.+?) del )?(?:el )?tiempo (\d+)(?: del compás (\d+))?: ",
    count="cuenta ",
    next_bar="en el compás siguiente cuenta ",
    hands=("rasguea ", "pulsa "),
    half="y",
)
_SHARES = {"e": Fraction(1, 4), "a": Fraction(3, 4), "t": Fraction(1, 3), "l": Fraction(2, 3)}


class Reader:
    """Reads the sentences of a part's chunks one after the other."""

    def __init__(self, table: Table, beats: dict[str, list[float]] | None = None) -> None:
        self.table = table
        self.known: dict[str, ReadChunk] = {}
        self.chords: dict[str, Moment] = {}

    def chunk(self, name: str, sentences: tuple[str, ...]) -> ReadChunk:
        t, chunk = self.table, ReadChunk()
        self.common: frozenset[T] = frozenset()
        self.string: int | None = None
        counted = True  # what is the same as another is counted as that, unless it is counted anew
        for sentence in sentences:
            assert sentence.endswith("."), sentence
            text = sentence[0].lower() + sentence[1:-1]
            if re.fullmatch(t.starts, text) and not chunk.moments:
                continue
            if text.startswith(t.same) and not chunk.moments:
                chunk, counted = self._same(text.removeprefix(t.same)), False
            elif text.startswith(t.all_of_it) and not text.startswith(t.all_of_that):
                self.common = frozenset(self._techniques(text.removeprefix(t.all_of_it)))
            elif text.startswith((t.count, t.next_bar)):
                if not counted:
                    chunk.onsets, counted = [], True
                self._count(chunk, text)
            elif text.startswith(t.hands):
                continue
            elif match := re.match(t.but, text):
                self.common = frozenset()
                at = self._moment_at(chunk, match)
                self.string = None
                rest = re.sub(t.stopped, "", re.sub(t.stays, "", text[match.end() :]))
                chunk.moments[at] = self._notes(rest)
                self._changed = at
            elif chunk.onsets and self._said_more(text):  # after a `but`
                chunk.moments[self._changed] = self._goes_on(chunk.moments[self._changed], text)
            else:
                # The first letter of a chord's name is a capital anyway.
                self._phrases(chunk, sentence[:-1])
        if not any(name.startswith((f"{each} again", f"{each}, ")) for each in self.known):
            self.known[name] = chunk
        return chunk

    def _phrases(self, chunk: ReadChunk, text: str) -> None:
        t = self.table
        for phrase in text.split("; "):
            lower = phrase[0].lower() + phrase[1:]
            times = 1
            if match := re.search(t.times, phrase):
                times = 2 if match[1] else t.numbers.get(match[2]) or int(match[2])
                phrase, lower = phrase[: match.start()], lower[: match.start()]
            chord = ""
            if lower == t.all_of_that:
                chunk.moments += chunk.moments[-1:] * (times - 1)
                continue
            lower = re.sub(t.stopped, "", re.sub(t.stays, "", lower))
            if not lower:
                continue
            if self._said_more(lower):
                chunk.moments[-1] = self._goes_on(chunk.moments[-1], lower)
                self._remember(chunk)
                continue
            if match := re.match(t.named, phrase):
                chord, phrase = match[1], phrase[match.end() :]
            phrase = re.sub(t.stopped, "", re.sub(t.stays, "", phrase))
            lower = phrase[0].lower() + phrase[1:]
            if match := re.fullmatch(t.moved, lower):
                by = t.numbers[match[1]] * (1 if match[2] == t.up else -1)
                moment = tuple(replace(note, fret=note.fret + by) for note in chunk.moments[-1])
                self.string = None
            elif match := re.fullmatch(t.again, phrase):
                key = next((key for key in self.chords if key.lower() == match[1].lower()), "")
                assert key, (phrase, list(self.chords))
                moment = self.chords[key]
                moment = tuple(replace(note, techniques=note.techniques | self.common) for note in moment)
                self.string = moment[0].string if len(moment) == 1 else None
            else:
                moment = self._notes(phrase[0].lower() + phrase[1:])
            self._chord = chord
            chunk.moments += [moment] * times
            self._remember(chunk)

    def _said_more(self, text: str) -> bool:
        t = self.table
        return text.startswith(t.on_top) or any(
            re.match(each, text) for each in (t.every_one, t.stays, t.stopped, t.also)
        )

    def _goes_on(self, moment: Moment, text: str) -> Moment:
        """More notes of a moment, and what is done to all of them."""
        t, every = self.table, frozenset[T]()
        text = re.sub(t.stopped, "", re.sub(t.stays, "", text))
        if match := re.search(t.every_one, text):
            every = frozenset(self._techniques(text[match.end() :]))
            text = text[: match.start()]
        if match := re.match(t.also, text):
            strings = {int(number) for number in re.findall(r"\d+", match[1])}
            words = text[match.end() :].split(", ")
            return tuple(self._also(note, words) if note.string in strings else note for note in moment)
        notes = self._notes(text.removeprefix(t.on_top)) if text else ()
        self.string = None if notes else self.string
        return tuple(replace(note, techniques=note.techniques | every) for note in (*moment, *notes))

    def _remember(self, chunk: ReadChunk) -> None:
        if self._chord:
            moment = chunk.moments[-1]
            plain = (replace(note, techniques=note.techniques - self.common) for note in moment)
            self.chords[self._chord] = tuple(plain)

    def _notes(self, text: str) -> Moment:
        t, every = self.table, frozenset[T]()
        if match := re.search(t.every_one, text):
            every = frozenset(self._techniques(text[match.end() :]))
            text = text[: match.start()]
        notes = []
        for group in re.split(t.with_, text):
            strings, rest = [self.string], group
            if match := re.match(t.string, group):
                strings = [int(number) for number in re.findall(r"\d+", match[1])]
                rest = group[match.end() :]
            for string in strings:
                assert string is not None, text
                note = self._note(string, rest.split(", "))
                notes.append(replace(note, techniques=note.techniques | every | self.common))
        self.string = notes[0].string if len(notes) == 1 else None
        return tuple(notes)

    def _note(self, string: int, words: list[str]) -> ReadNote:
        return self._also(ReadNote(string, 0), words, told=False)

    def _also(self, note: ReadNote, words: list[str], told: bool = True) -> ReadNote:
        t = self.table
        for number, word in enumerate(words, start=1 if told else 0):
            if not number and re.fullmatch(t.dead, word):
                note = replace(note, dead=True)
            elif not number and word == t.open:
                continue
            elif not number:
                match = re.fullmatch(t.fret, word)
                assert match, words
                note = replace(note, fret=int(match[1]))
            elif word in t.fingers:
                note = replace(note, finger=t.fingers[word])
            elif word in t.techniques:
                note = replace(note, techniques=note.techniques | {t.techniques[word]})
            elif match := re.fullmatch(t.bent_to, word):
                note = replace(note, half_tones=Fraction(int(match[1]) - note.fret))
            elif word == t.bent_quarter:
                note = replace(note, half_tones=Fraction(1, 2))
            elif match := re.fullmatch(t.bent_quarters, word):
                note = replace(note, half_tones=Fraction(match[1]) / 2)
            elif word in t.released:
                note = replace(note, released=True)
            elif match := re.fullmatch(t.own, word):
                note = replace(note, own=note.own | {match[1]})
            else:
                raise AssertionError(f"cannot be read: {word!r} in {words}")
        return note

    def _techniques(self, text: str) -> list[T]:
        found = []
        phrases = sorted(self.table.techniques, key=len, reverse=True)
        while text:
            phrase = next(each for each in phrases if text.startswith(each))
            found.append(self.table.techniques[phrase])
            text = re.sub(r"^(?:, | and | y )", "", text[len(phrase) :])
        return found

    def _same(self, text: str) -> ReadChunk:
        t = self.table
        name = max((each for each in self.known if text.startswith(each)), key=len)
        rest, chunk = text[len(name) :], self.known[name]
        moments = list(chunk.moments)
        if match := re.fullmatch(t.moved_frets, rest):
            by = t.numbers[match[1]] * (1 if match[2] == t.up else -1)
            moments = [
                tuple(replace(note, fret=note.fret + by if note.fret else 0) for note in moment)
                for moment in moments
            ]
        elif match := re.fullmatch(t.moved_strings, rest):
            by = t.numbers[match[1]] * (1 if match[2].startswith(t.thicker) else -1)
            moments = [tuple(replace(note, string=note.string + by) for note in row) for row in moments]
        else:
            assert not rest, rest
        return ReadChunk(moments, [list(row) for row in chunk.onsets])

    def _count(self, chunk: ReadChunk, text: str) -> None:
        t = self.table
        counts = text.removeprefix(t.next_bar).removeprefix(t.count)
        if text.startswith(t.next_bar) or not chunk.onsets:
            chunk.onsets.append([])
        row = chunk.onsets[-1]
        beat = row[-1][0] if row else 0
        for word in counts.split():
            if word.startswith("("):
                beat = int(word[1:-1])
            elif word.isdigit():
                beat = int(word)
                row.append((beat, Fraction(0)))
            elif word != "-":
                share = Fraction(1, 2) if word == t.half else _SHARES.get(word) or Fraction(word[1:])
                row.append((beat, share))

    def _moment_at(self, chunk: ReadChunk, match: re.Match[str]) -> int:
        """Which moment a `but` means: by its beat, and by its bar where there are several."""
        places = [(bar, *place) for bar, row in enumerate(chunk.onsets) for place in row]
        first = min(self.first_bar, int(match[3])) if match[3] else 0
        bar = int(match[3]) - first if match[3] else 0
        share = self._share(match[1])
        return places.index((bar, int(match[2]), share))

    first_bar = 0  # of the chunk that is read

    def _share(self, words: str | None) -> Fraction:
        if not words:
            return Fraction(0)
        signs = {"the e": "e", "the a": "a", "the second third": "t", "the last third": "l"}
        signs |= {"la «e»": "e", "la «a»": "a", "el segundo tercio": "t", "el último tercio": "l"}
        if words in ("the &", "la «y»"):
            return Fraction(1, 2)
        if words in signs:
            return _SHARES[signs[words]]
        if match := re.fullmatch(r"el punto (\d+)/(\d+)", words):
            return Fraction(int(match[1]), int(match[2]))
        match = re.fullmatch(r"the (\d+)\w\w (\w+)", words)
        assert match, words
        shares = {"fifth": 5, "sixth": 6, "seventh": 7, "eighth": 8, "ninth": 9, "twelfth": 12}
        return Fraction(int(match[1]) - 1, shares[match[2]])
