"""ABC notation, through music21: a tune's pitches, placed on the neck."""

import re
from fractions import Fraction
from typing import Any

from clear_steps.core.errors import ClearStepsError, Problem, ReadError
from clear_steps.core.score import COMMON_TIME, Metre, Technique
from clear_steps.formats.assembly import assembled
from clear_steps.formats.pitched import Imported, PitchedMeasure, PitchedNote, PitchedPart, PitchedSong

MAX_CHARACTERS = 200_000
_LONG_NUMBER = re.compile(r"\d{4}")
_FIELD = re.compile(r"[A-Za-z]:")
_FIELDS_WITH_LENGTHS = "KLMQ"
_WORDS_IN_MUSIC = re.compile(r'"[^"]*"|%.*')
_KEY = re.compile(r"^K:", re.MULTILINE)
_TUNE = re.compile(r"^X:", re.MULTILINE)


def read_abc(content: bytes) -> Imported:
    """The first tune in an ABC file; raises ReadError."""
    text = content.decode("utf-8-sig", "replace")
    if len(text) > MAX_CHARACTERS:
        raise _wrong(f"the file has {len(text):,} characters; expected at most {MAX_CHARACTERS:,}")
    if not _KEY.search(text):
        raise _wrong("no K: line was found; expected an ABC tune with X:, T:, M:, L: and K: lines")
    tunes = [start.start() for start in _TUNE.finditer(text)]
    others = len(tunes) - 1
    left_out = [f"{others} more tune{'s' if others > 1 else ''} in the file"] if others > 0 else []
    if len(tunes) > 1:
        text = text[tunes[0] : tunes[1]]
    _check_lengths(text)
    # music21 costs half a second to load, and only imports need it.
    from music21 import converter

    try:
        score: Any = converter.parse(text, format="abc", forceSource=True)  # music21's own untyped stream
        pitched = pitched_of_score(score, left_out)
    except ReadError:
        raise
    # music21 lets through whatever its parsing meets, from KeyError to its own classes.
    except Exception as cause:
        said = f"{type(cause).__name__}: {cause}"[:200]
        raise _wrong(f"the tune cannot be read ({said}); expected ABC notation") from cause
    return assembled(pitched)


def _check_lengths(text: str) -> None:
    """A length of very many bars is refused: music21 spells it out bar by bar. Words may hold any number."""
    for number, line in enumerate(text.split("\n"), start=1):
        if _FIELD.match(line) and line[0] not in _FIELDS_WITH_LENGTHS:
            continue
        if long := _LONG_NUMBER.search(_WORDS_IN_MUSIC.sub("", line)):
            message = f"the number {long.group()}... is too long; expected lengths of at most three digits"
            raise ReadError((Problem(number, 1, message),))


def _wrong(message: str) -> ReadError:
    return ReadError((Problem(1, 1, message),))


def pitched_of_score(score: Any, left_out: list[str]) -> PitchedSong:
    """A music21 score as notes with pitches and times."""
    title = (score.metadata.title or "") if score.metadata else ""
    song = PitchedSong(" ".join(title.split()), [], left_out=left_out)
    parts = list(score.parts) or [score]
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
