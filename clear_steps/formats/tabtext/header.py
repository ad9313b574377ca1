"""Header lines: one table of keys, each with its reader and its writer."""

from collections.abc import Callable
from dataclasses import dataclass, replace
from enum import StrEnum
from fractions import Fraction
from typing import Any, TypeVar

from clear_steps.core.errors import ClearStepsError, InvalidValueError
from clear_steps.core.score import (
    MAX_CAPO,
    MAX_FRET,
    USUAL_FRETS,
    Feel,
    Instrument,
    Metre,
    Part,
    Picking,
    Song,
    Tuning,
    parse_metre,
    parse_number,
    parse_tuning,
    usual_scale_mm,
)
from clear_steps.formats.tabtext.problems import Findings, short

E = TypeVar("E", bound=StrEnum)


AS_WRITTEN = "as written"


@dataclass
class Headers:
    """What the header lines have said so far; `metre` holds for bars without their own."""

    song: Song
    part: Part
    metre: Metre | None = None
    tuning_named: bool = False
    scale_named: bool = False
    tuning_like: Tuning | None = None  # of another guitar, for as many strings


def _choice(kind: type[E], field: str, text: str) -> E:
    try:
        return kind(text.strip().lower())
    except ValueError as cause:
        raise InvalidValueError(field, text, "one of " + ", ".join(kind)) from cause


def _number(field: str, text: str, low: int, high: int) -> Fraction:
    number = parse_number(text)
    if number is None or not low <= number <= high:
        raise InvalidValueError(field, short(text), f"a number from {low} to {high}")
    return number


def read_tempo(text: str) -> Fraction:
    """Quarters a minute, 10 to 400; raises InvalidValueError."""
    return _number("tempo", text, 10, 400)


def _whole(field: str, text: str, low: int, high: int) -> int:
    number = _number(field, text, low, high)
    if number.denominator != 1:
        raise InvalidValueError(field, text, f"a whole number from {low} to {high}")
    return int(number)


def _read_tempo_header(headers: Headers, text: str) -> None:
    assumed = text.startswith("~")
    headers.song = replace(headers.song, tempo=read_tempo(text.removeprefix("~")), tempo_assumed=assumed)


def _read_tuning(headers: Headers, text: str) -> None:
    headers.part = replace(headers.part, tuning=parse_tuning(text))
    headers.tuning_named = True


def _read_time(headers: Headers, text: str) -> None:
    headers.metre = parse_metre(text)


def _set_song(headers: Headers, **change: Any) -> None:  # the fields' own types check the rest
    headers.song = replace(headers.song, **change)


def _set_part(headers: Headers, **change: Any) -> None:  # as above
    headers.part = replace(headers.part, **change)


def _read_scale(headers: Headers, text: str) -> None:
    _set_part(headers, scale_length_mm=float(_number("scale", text, 300, 900)))
    headers.scale_named = True


def _read_ringing(headers: Headers, text: str) -> None:
    if text.strip().lower() != AS_WRITTEN:
        raise InvalidValueError("ringing", text, f"{AS_WRITTEN}, or no such line")
    _set_part(headers, rings_as_written=True)


_READERS: dict[str, Callable[[Headers, str], None]] = {
    "title": lambda h, text: _set_song(h, title=text),
    "tempo": _read_tempo_header,
    "time": _read_time,
    "cents": lambda h, text: _set_song(h, cents=_whole("cents", text, -100, 100)),
    "feel": lambda h, text: _set_song(h, feel=_choice(Feel, "feel", text)),
    "order": lambda h, text: _set_song(
        h, order=tuple(name.strip() for name in text.split(",") if name.strip())
    ),
    "tuning": _read_tuning,
    "capo": lambda h, text: _set_part(h, capo=_whole("capo", text, 0, MAX_CAPO)),
    "instrument": lambda h, text: _set_part(h, instrument=_choice(Instrument, "instrument", text)),
    "picking": lambda h, text: _set_part(h, picking=_choice(Picking, "picking", text)),
    "frets": lambda h, text: _set_part(h, frets=_whole("frets", text, 12, MAX_FRET)),
    "scale": _read_scale,
    "ringing": _read_ringing,
}


def read_header_value(headers: Headers, key: str, text: str) -> bool:
    """Take one header line in; whether its key is one of ours. Raises ClearStepsError for a value that says
    nothing."""
    reader = _READERS.get(key.strip().lower())
    if reader:
        reader(headers, text)
    return reader is not None


def read_header(headers: Headers, key: str, text: str, line: int, column: int, findings: Findings) -> None:
    """Take one header line in; an unknown key is kept, and so is a value that is not understood, which is
    told."""
    try:
        if read_header_value(headers, key, text):
            return
    except ClearStepsError as error:
        findings.guessed(line, column, str(error), "it is kept as a heading and changes nothing")
    headers.song = replace(headers.song, extra=(*headers.song.extra, (key.strip(), text)))


def is_understood(key: str, text: str) -> bool:
    """Whether a header line is one of ours as it stands."""
    try:
        return read_header_value(Headers(Song(), Part()), key, text)
    except ClearStepsError:
        return False


def spell_tempo(tempo: Fraction) -> str:
    """`96`, `96.5` or `289/3`."""
    decimal = f"{float(tempo):.6g}"
    return decimal if Fraction(decimal) == tempo else f"{tempo.numerator}/{tempo.denominator}"


def song_header(song: Song, metre: Metre) -> list[str]:
    """The header lines that belong to the whole song."""
    lines = [f"Title: {' '.join(song.title.split())}"] if song.title.strip() else []
    if song.tempo is not None:
        lines.append(f"Tempo: {'~' if song.tempo_assumed else ''}{spell_tempo(song.tempo)}")
    lines.append(f"Time: {metre}")
    if song.cents:
        lines.append(f"Cents: {song.cents}")
    if song.feel:
        lines.append(f"Feel: {song.feel}")
    if song.order:
        lines.append(f"Order: {', '.join(song.order)}")
    return lines + [f"{key}: {text}" for key, text in song.extra]


def part_header(part: Part, is_first: bool) -> list[str]:
    """The header lines of one part."""
    lines = [f"Part: {' '.join(part.name.split())}".rstrip()] if part.name or not is_first else []
    lines.append(f"Tuning: {part.tuning.name}")
    if part.capo:
        lines.append(f"Capo: {part.capo}")
    if part.instrument:
        lines.append(f"Instrument: {part.instrument}")
    if part.picking:
        lines.append(f"Picking: {part.picking}")
    if part.frets != USUAL_FRETS:
        lines.append(f"Frets: {part.frets}")
    if part.scale_length_mm != usual_scale_mm(part.tuning):
        lines.append(f"Scale: {part.scale_length_mm:.10g}")
    if part.rings_as_written:
        lines.append(f"Ringing: {AS_WRITTEN}")
    return lines
