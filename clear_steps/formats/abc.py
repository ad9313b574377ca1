"""ABC notation, through music21: a tune's pitches, placed on the neck."""

import re
from collections import Counter
from contextlib import redirect_stderr
from fractions import Fraction
from io import StringIO
from typing import Any

from clear_steps.core.errors import ClearStepsError, Problem, ReadError
from clear_steps.core.score import COMMON_TIME, Metre, Technique
from clear_steps.formats.assembly import assembled
from clear_steps.formats.pitched import Imported, PitchedMeasure, PitchedNote, PitchedPart, PitchedSong

MAX_CHARACTERS = 200_000
_LONG_NUMBER = re.compile(r"\d{3,9}")
_FIELD = re.compile(r"[A-Za-z]:")
_SHAPES = {
    "L": re.compile(r"1(?:/\d{1,2})?"),
    "M": re.compile(r"(?:C\|?|none|\(?\d{1,2}(?:\+\d{1,2}){0,5}\)?/\d{1,2})?"),
}
_EXAMPLES = {"L": "1/8", "M": "6/8"}
# Music21 reads about a thousand notes a second.
_MOST = {
    "changes of key": 12,
    "changes of voice": 60,
    "repeats": 250,
    "open slurs": 24,
    "notes in a bar": 250,
    "notes": 1_000,
}
_SLUR = re.compile(r"\((?!\d)")
_WORDS_IN_MUSIC = re.compile(r'"[^"]*"|%.*')
_NO_NOTE = re.compile(r"pitch information from note: +(\S+), assuming C")
_KEY = re.compile(r"^K:", re.MULTILINE)
_INLINE_VOICE = re.compile(r"^\[V: *([^\]\s]+)[^\]]*\] *", re.MULTILINE)
_OVERLAY = re.compile(r"&[^|\]]*")
_TITLE = re.compile(r"^T:(.*)", re.MULTILINE)
_LENGTH_OR_METRE = re.compile(r"^[LM]:", re.MULTILINE)
_TUNE = re.compile(r"^X:", re.MULTILINE)


def read_abc(content: bytes) -> Imported:
    """The first tune in an ABC file; raises ReadError."""
    text = content.decode("utf-8-sig", "replace")
    if len(text) > MAX_CHARACTERS:
        raise _wrong(f"the file has {len(text):,} characters; expected at most {MAX_CHARACTERS:,}")
    if not _KEY.search(text):
        raise _wrong("no K: line was found; expected an ABC tune with X:, T:, M:, L: and K: lines")
    tunes = _tunes_in(text)
    others = len(tunes) - 1
    left_out = [f"{others} more tune{'s' if others > 1 else ''} in the file"] if others > 0 else []
    text = tunes[0] if tunes else text
    _check_music(text)
    text, overlaid = _without_overlays(_voices_on_lines(text))
    if not _LENGTH_OR_METRE.search(text):
        text = _KEY.sub("L:1/8\nK:", text, count=1)  # what the notation's standard takes then
    left_out += [f"{overlaid} x a further voice written with &"] if overlaid else []
    # music21 costs half a second to load, and only imports need it.
    from music21 import converter

    try:
        with redirect_stderr(StringIO()) as complaints:
            # Not `parse`, which opens a text that looks like a path.
            score: Any = converter.parseData(text, format="abc")  # music21's own untyped stream
        pitched = pitched_of_score(score, [*left_out, *_invented(complaints.getvalue())])
    except ReadError:
        raise
    # music21 lets through whatever its parsing meets, from KeyError to its own classes.
    except Exception as cause:
        said = f"{type(cause).__name__}: {cause}"[:200]
        raise _wrong(f"the tune cannot be read ({said}); expected ABC notation") from cause
    return assembled(pitched)


def _voices_on_lines(text: str) -> str:
    """`[V:1] ...` as a `V:1` line of its own: music21 takes those written inline for one voice."""
    return _INLINE_VOICE.sub(r"V:\1\n", text)


def _without_overlays(text: str) -> tuple[str, int]:
    """Without what follows an `&` in a bar, which music21 takes for a bar of its own, and how often."""
    lines, count = [], 0
    for line in text.split("\n"):
        if not _FIELD.match(line) and "&" in _WORDS_IN_MUSIC.sub("", line):
            line, found = _OVERLAY.subn("", line)
            count += found
        lines.append(line)
    return "\n".join(lines), count


def abc_tunes(content: bytes) -> list[tuple[str, bytes]]:
    """The title and the content of every tune in an ABC file."""
    tunes = _tunes_in(content.decode("utf-8-sig", "replace"))
    return [
        (" ".join(title[1].split()) if (title := _TITLE.search(tune)) else "Untitled", tune.encode())
        for tune in tunes
    ]


def _tunes_in(text: str) -> list[str]:
    """Each tune's text, what stands before the first one with each."""
    starts = [start.start() for start in _TUNE.finditer(text)]
    if not starts:
        return []
    common = text[: starts[0]]
    common = "".join(f"{line}\n" for line in common.split("\n") if _FIELD.match(line))
    return [common + text[start:end] for start, end in zip(starts, [*starts[1:], len(text)], strict=True)]


def _check_music(text: str) -> None:
    """What would take music21 very long: it spells long notes out bar by bar, and goes through all that came
    before at each repeat and change of voice. Words may hold anything."""
    counted: Counter[str] = Counter()
    since_bar = 0
    for number, line in enumerate(text.split("\n"), start=1):
        field = line[0] if _FIELD.match(line) else ""
        if field in _SHAPES and not _SHAPES[field].fullmatch(line[2:].split("%")[0].strip()):
            raise _wrong(f"'{line[:40]}' is not read; expected something like {_EXAMPLES[field]}", number)
        if field not in ("", "K", "V"):
            continue
        music = "" if field else _WORDS_IN_MUSIC.sub("", line)
        counted["changes of key"] += field == "K"
        counted["changes of voice"] += field == "V"
        counted["repeats"] += music.count(":|") + music.count("[")
        counted["open slurs"] += len(_SLUR.findall(music)) - music.count(")")
        notes = [sum(letter.isalpha() for letter in bar) for bar in music.split("|")]
        counted["notes"] += sum(notes)
        notes[0] += since_bar
        since_bar = notes[-1]
        counted["notes in a bar"] = max(notes)
        if long := _LONG_NUMBER.search(music):
            raise _wrong(
                f"the number {long.group()} is too long; expected lengths of at most two digits", number
            )
        for what, most in _MOST.items():
            if counted[what] > most:
                raise _wrong(f"the tune has more than {most:,} {what} up to here; expected fewer", number)


def _invented(said: str) -> list[str]:
    """What music21 took for a note although it is none, and wrote a C for, by its own complaints."""
    signs = Counter(match[1] for match in _NO_NOTE.finditer(said))
    return [f"'{sign[:20]}' is no note; a C stands in its place, {count} x" for sign, count in signs.items()]


def _wrong(message: str, line: int = 1) -> ReadError:
    return ReadError((Problem(line, 1, message),))


def pitched_of_score(score: Any, left_out: list[str]) -> PitchedSong:
    """A music21 score as notes with pitches and times."""
    title = (score.metadata.title or "") if score.metadata else ""
    song = PitchedSong(" ".join(title.split()), [], left_out=left_out)
    parts = list(score.parts) or [score]
    graces = sum(element.duration.isGrace for element in score.recurse().notes)
    if graces:
        song.guessed(
            f"{graces} x a grace note", "it is kept as a mark on the note it leads to, without its pitch"
        )
    for part in parts:
        name = " ".join(str(part.partName or "").split()) if len(parts) > 1 else ""
        song.parts.append(PitchedPart(name, _measures(part)))
    return song


def _measures(part: Any) -> list[PitchedMeasure]:
    sounding = part.toSoundingPitch()
    streams = list(sounding.getElementsByClass("Measure")) or list(
        sounding.makeMeasures().getElementsByClass("Measure")
    )
    metre, measures, endings = COMMON_TIME, [], _endings(sounding)
    for index, stream in enumerate(streams):
        metre = _metre(stream) or metre
        notes = list(_notes(stream))
        end = max((note.onset + note.quarters for note in notes), default=Fraction(0))
        held = max(end, _fraction(stream.highestTime))
        measure = PitchedMeasure(
            metre, held or metre.quarters, notes, pickup=index == 0 and Fraction(0) < held < metre.quarters
        )
        measure.tempo = _tempo(stream)
        measure.repeat_start = _repeats(stream.leftBarline, "start")
        measure.repeat_times = 2 if _repeats(stream.rightBarline, "end") else 0
        measure.endings = endings.get(id(stream), ())
        measure.double_bar = not measure.repeat_times and getattr(stream.rightBarline, "type", "") == "double"
        measures.append(measure)
    return measures


def _endings(part: Any) -> dict[int, tuple[int, ...]]:
    return {
        id(measure): tuple(number for number in bracket.numberRange if 0 < number < 10)
        for bracket in part.recurse().getElementsByClass("RepeatBracket")
        for measure in bracket.getSpannedElements()
    }


def _repeats(barline: Any, direction: str) -> bool:
    return getattr(barline, "direction", None) == direction


def _metre(measure: Any) -> Metre | None:
    signature = measure.timeSignature
    try:
        return Metre(signature.numerator, signature.denominator) if signature else None
    except ClearStepsError:
        return None


def _tempo(measure: Any) -> Fraction | None:
    for mark in measure.recurse().getElementsByClass("MetronomeMark"):
        quarters = mark.getQuarterBPM()
        if quarters and 10 <= quarters <= 400:
            return Fraction(quarters).limit_denominator(1000)
    return None


def _notes(measure: Any) -> Any:
    """Every pitch with its onset in the measure; grace notes become a word on what they lead to."""
    grace = False
    for element in measure.recurse().notes:
        if element.duration.isGrace:
            grace = True
            continue
        if not element.pitches or "ChordSymbol" in element.classes:
            continue
        onset = _fraction(element.getOffsetInHierarchy(measure))
        for note in element.notes if element.isChord else (element,):
            yield PitchedNote(
                onset,
                _fraction(element.duration.quarterLength),
                round(note.pitch.ps),
                tied=note.tie is not None and note.tie.type in ("stop", "continue"),
                words=frozenset({Technique.GRACE}) if grace else frozenset(),
            )
        grace = False


def _fraction(value: Any) -> Fraction:
    return Fraction(value).limit_denominator(1_000)
