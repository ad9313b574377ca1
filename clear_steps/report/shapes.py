"""`shapes --json`: what a player sees of a song."""

from collections.abc import Mapping

from clear_steps.core.changes import Change, changes, with_fingers_of_the_path
from clear_steps.core.grade import Ladder, grade_part
from clear_steps.core.score import Part, Song
from clear_steps.core.score.timing import bar_times
from clear_steps.core.shapes import Grip, Pattern, Said, Shapes, Stretch, read_shapes, sounding_name
from clear_steps.report.grades import Json

_WIDE = 9  # frets above it have two digits: all strings are joined by dashes then
_UNUSED = "x"


def shapes_report(song: Song, ladder: Ladder) -> Json:
    """All of `shapes --json`."""
    return {"parts": [_part_shapes(song, part, ladder) for part in song.parts]}


def _part_shapes(song: Song, part: Part, ladder: Ladder) -> Json:
    grips = grade_part(song, part, ladder).grips
    shapes = with_fingers_of_the_path(read_shapes(part), grips)
    told = (*changes(shapes, grips, bar_times(part, song.playing_tempo)), None)
    rows = zip(shapes.stretches, told, strict=False)
    return {"stretches": [_stretch(part, shapes, stretch, change) for stretch, change in rows]}


def _stretch(part: Part, shapes: Shapes, stretch: Stretch, change: Change | None) -> Json:
    strings = part.tuning.strings
    grip = stretch.grip
    return {
        "from": _place(part, shapes, stretch.first),
        "to": _place(part, shapes, stretch.last),
        "kind": stretch.kind.value,
        "name": stretch.name or None,
        "sounding": sounding_name(stretch.name, part),
        "written": stretch.written or None,
        "voices": stretch.voices,
        "grip": grip_text(grip, strings) if grip else None,
        "fingers": fingers_text(grip, strings) if grip else None,
        "places": [
            {
                "from": _place(part, shapes, place.first),
                "grip": grip_text(place.grip, strings),
                "name": place.name or None,
            }
            for place in stretch.places
        ],
        "pattern": _pattern(stretch.pattern) if stretch.pattern else None,
        "change": _change(change) if change else None,
    }


def _change(change: Change) -> Json:
    return {
        "stay": change.stay,
        "guide": change.guide,
        "lift": change.lift,
        "frets": change.frets,
        "seconds": change.seconds,
    }


def _pattern(pattern: Pattern) -> Json:
    said = (
        {"strokes": pattern.strokes} if pattern.strokes else {"strings": list(map(_as_list, pattern.strings))}
    )
    onsets = [str(at) for at in pattern.onsets]
    return {"cell": str(pattern.cell), **said, "onsets": onsets or None, "guess": pattern.guess}


def _as_list(said: Said) -> object:
    return list(said) if isinstance(said, tuple) else said


def _place(part: Part, shapes: Shapes, at: int) -> Json:
    moment = shapes.moments[at]
    return {"bar": part.bar_number(moment.bar), "onset": str(part.starts_at(moment.bar) + moment.onset)}


def grip_text(grip: Grip, strings: int) -> str:
    """`320003` from the thickest string; `x-8-x-10-x-x` where a fret has two digits."""
    between = "-" if max(grip.frets.values(), default=0) > _WIDE else ""
    return between.join(_by_string(grip.frets, strings))


def fingers_text(grip: Grip, strings: int) -> str | None:
    """`210003` from the thickest string; none where no fingers are taught."""
    return "".join(_by_string(grip.fingers, strings)) if grip.fingers else None


def _by_string(values: Mapping[int, object], strings: int) -> list[str]:
    return [str(values.get(string, _UNUSED)) for string in range(strings, 0, -1)]
