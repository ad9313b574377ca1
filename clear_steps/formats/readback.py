"""What a song loses or changes when it is written as tab text and read again, in words."""

from collections.abc import Iterator
from dataclasses import fields
from itertools import islice, zip_longest
from typing import Any

from clear_steps.core.errors import ReadError
from clear_steps.core.score import Bar, Event, Part, Song
from clear_steps.formats.tabtext import read_tab
from clear_steps.formats.tabtext.problems import short

MAX_TOLD = 100
_SONG_FIELDS = tuple(field.name for field in fields(Song) if field.name != "parts")
_PART_FIELDS = tuple(field.name for field in fields(Part) if field.name != "bars")
_BAR_FIELDS = tuple(field.name for field in fields(Bar) if field.name != "events")
_EVENT_FIELDS = tuple(field.name for field in fields(Event) if field.name not in ("quarters", "notes"))


def read_back(song: Song, text: str) -> tuple[str, ...]:
    """How the song in a text differs from the one it was written from; nothing where they are equal."""
    try:
        again = read_tab(text).song
    except ReadError as error:
        return tuple(f"the text cannot be read again: {problem}" for problem in error.problems)
    return tuple(islice(differences(song, again), MAX_TOLD))


def differences(song: Song, again: Song) -> Iterator[str]:
    """What is another in the second song, in the order of the music."""
    yield from _fields("the song", song, again, _SONG_FIELDS)
    if len(song.parts) != len(again.parts):
        yield f"{len(song.parts)} parts become {len(again.parts)}"
    for number, (part, other) in enumerate(zip(song.parts, again.parts, strict=False), start=1):
        yield from _of_part(part, other, part.name or (f"part {number}" if len(song.parts) > 1 else ""))


def _of_part(part: Part, other: Part, name: str) -> Iterator[str]:
    yield from _fields(name or "the part", part, other, _PART_FIELDS)
    if len(part.bars) != len(other.bars):
        yield f"{name or 'the part'}: {len(part.bars)} bars become {len(other.bars)}"
    for index, (bar, own) in enumerate(zip(part.bars, other.bars, strict=False)):
        if bar != own:
            where = f"bar {part.bar_number(index)}{f' of {name}' if name else ''}"
            yield from _of_bar(bar, own, where)


def _of_bar(bar: Bar, other: Bar, where: str) -> Iterator[str]:
    yield from _fields(where, bar, other, _BAR_FIELDS)
    before, after = _notes_at(bar), _notes_at(other)
    if before != after:
        for one, two in zip_longest(before, after, fillvalue="nothing"):
            if one != two:
                yield f"{where}: {one} becomes {two}"
        return
    for at, event, own in zip(bar.onsets, bar.events, other.events, strict=True):
        beat = f"{where}, beat {float(at / bar.metre.beat_quarters) + 1:.4g}"
        yield from _fields(beat, event, own, _EVENT_FIELDS)
        if event.notes != own.notes:
            yield f"{beat}: {short(str(event.notes), 120)} becomes {short(str(own.notes), 120)}"


def _notes_at(bar: Bar) -> list[str]:
    """String and fret of every note with its onset and length, ties marked."""
    told = []
    for at, event in zip(bar.onsets, bar.events, strict=True):
        notes = [f"{note.string}:{note.fret}{' tied' if note.tied else ''}" for note in event.notes]
        beat = float(at / bar.metre.beat_quarters) + 1
        told.append(f"{' '.join(notes) or 'a rest'} at beat {beat:.4g} for {event.quarters} quarters")
    return told


def _fields(where: str, one: Any, two: Any, names: tuple[str, ...]) -> Iterator[str]:
    for name in names:
        before, after = getattr(one, name), getattr(two, name)
        if before != after:
            yield f"{where}: {name.replace('_', ' ')} {_said(before)} becomes {_said(after)}"


def _said(value: object) -> str:
    return short(repr(value) if isinstance(value, str) else str(value), 80)
