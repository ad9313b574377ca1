"""What a song may hold, whatever kind of file it came in."""

from fractions import Fraction

from clear_steps.core.errors import InvalidValueError
from clear_steps.core.score import UNCOUNTED, Event, Part, Song

MAX_BARS, MAX_PARTS, MAX_NOTES = 500, 12, 20_000
MAX_EVENTS = 400  # of a bar
_MOST_TIMES = 99  # a repeat is played
MAX_DENOMINATOR = 9_999  # of a length in quarters: as fine as tab text can write
_LONGEST = Fraction(128)  # 32 whole notes, the largest metre there is


def check_song(song: Song) -> None:
    """Raises InvalidValueError for a song that is too large, or that no guitar can hold."""
    if not 1 <= len(song.parts) <= MAX_PARTS:
        raise InvalidValueError("song", f"{len(song.parts)} parts", f"1 to {MAX_PARTS} parts")
    if not any(part.bars for part in song.parts):
        raise InvalidValueError("song", "no bars", "at least one bar")
    for part in song.parts:
        if len(part.bars) > MAX_BARS:
            raise InvalidValueError("part", f"{len(part.bars):,} bars", f"at most {MAX_BARS} bars")
    notes = sum(len(event.notes) for part in song.parts for bar in part.bars for event in bar.events)
    if notes > MAX_NOTES:
        raise InvalidValueError("song", f"{notes:,} notes", f"at most {MAX_NOTES:,} notes")
    if song.tempo is not None and not 10 <= song.tempo <= 400:
        raise InvalidValueError("tempo", str(song.tempo)[:20], "a number from 10 to 400")
    for part in song.parts:
        _check_part(part)


def _check_part(part: Part) -> None:
    if not 0 <= part.capo <= 12 or not 300 <= part.scale_length_mm <= 900 or not 12 <= part.frets <= 36:
        raise InvalidValueError("part", part.name[:40], "capo 0 to 12, scale 300 to 900 mm, 12 to 36 frets")
    for index, bar in enumerate(part.bars):
        where = f"bar {index + 1}"
        if not 1 <= len(bar.events) <= MAX_EVENTS:
            raise InvalidValueError(where, f"{len(bar.events)} events", f"1 to {MAX_EVENTS} events")
        if not UNCOUNTED <= bar.repeat_times <= _MOST_TIMES or not all(0 <= n <= 9 for n in bar.endings):
            raise InvalidValueError(where, "its repeats", f"up to {_MOST_TIMES} times, endings up to 9")
        if bar.tempo is not None and not 10 <= bar.tempo <= 400:
            raise InvalidValueError(f"tempo of {where}", str(bar.tempo)[:20], "a number from 10 to 400")
        for event in bar.events:
            _check_event(event, part, where)
    for section in part.sections:
        if not 0 <= section.first_bar < max(len(part.bars), 1):
            raise InvalidValueError(f"section '{section.name[:40]}'", section.first_bar, "a bar of the part")
    for reading in part.readings:
        if not 0 <= reading.bar < len(part.bars):
            raise InvalidValueError(f"reading '{reading.name[:40]}'", reading.bar, "a bar of the part")


def _check_event(event: Event, part: Part, where: str) -> None:
    length = event.quarters
    if not 0 < length <= _LONGEST or length.denominator > MAX_DENOMINATOR:
        raise InvalidValueError(
            f"length in {where}",
            str(length)[:20],
            f"up to 128 quarters, in parts down to 1/{MAX_DENOMINATOR}",
        )
    strings = [note.string for note in event.notes]
    if any(not 1 <= string <= part.tuning.strings for string in strings):
        raise InvalidValueError(f"string in {where}", strings, f"1 to {part.tuning.strings}")
    if len(set(strings)) < len(strings):
        raise InvalidValueError(f"strings in {where}", strings, "one note a string at a time")
