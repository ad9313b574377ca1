"""A text with one thing changed, and other ways to play a passage of it; all of it done by the workers."""

from collections.abc import Callable
from dataclasses import replace

from clear_steps.core.errors import InvalidValueError
from clear_steps.core.grade import SAME_STEP, SCHOOL_TITLES, Alternative, alternatives
from clear_steps.core.score import Part, Song, unknown_sections
from clear_steps.formats.tabtext import write_bars, write_tab
from clear_steps.web.analysis.shown import part_of, read_cached
from clear_steps.web.current import ladder_of
from clear_steps.web.passages import schemas as api
from clear_steps.web.whom import Whom


def changed_text(text: str, part_index: int, change: Callable[..., Part], *values: object) -> str:
    """A text with one part changed by a function of the part and values; raises what that raises."""
    song = read_cached(text).song
    part = part_of(song, part_index)
    return write_tab(_with_part(song, part, change(part, *values)))


def ringing_as_written(part: Part, as_written: bool) -> Part:
    """A part in which only what is written rings on, or no longer."""
    return replace(part, rings_as_written=as_written)


def ordered_text(text: str, written: str) -> str:
    """A text with the order in which its sections are played; raises InvalidValueError for a name that no
    section has."""
    song = read_cached(text).song
    order = tuple(" ".join(item.split()) for item in written.split(",") if item.strip())
    if unknown := unknown_sections(song, order):
        names = dict.fromkeys(section.name for part in song.parts for section in part.sections)
        raise InvalidValueError("order", unknown[0], f"sections with commas between: {', '.join(names)}")
    return write_tab(replace(song, order=order))


def alternatives_json(text: str, number: int, body: api.PassageIn, whom: Whom, ladder: str) -> str:
    """The AlternativeList of a passage of a text, its revision `number`; easiest first."""
    written = read_cached(text).song
    song = whom.on_their_guitar(written)
    part = part_of(song, body.part_index)
    notes = body.notes(part)
    ways = alternatives(song, part, body.first, body.last, ladder_of(ladder).ladder, whom.request, notes)
    scale = written.parts[body.part_index].scale_length_mm
    rows = [_alternative_model(written, replace(way.part, scale_length_mm=scale), way, body) for way in ways]
    return api.AlternativeList(
        revision=number,
        schools_agree=not set(SCHOOL_TITLES.values()) & {way.title for way in ways},
        nothing_easier=all(way.step >= ways[0].step - SAME_STEP for way in ways),
        alternatives=rows,
    ).model_dump_json()


def _alternative_model(song: Song, part: Part, way: Alternative, body: api.PassageIn) -> api.AlternativeModel:
    """A way, and the song with `part` as it is then."""
    passage = replace(part, bars=part.bars[body.first : body.last + 1], sections=(), remarks=(), readings=())
    return api.AlternativeModel(
        title=way.title,
        sentence=way.sentence,
        step=way.step,
        song_step=way.song_step,
        widest_mm=way.widest_mm,
        moves=way.moves,
        travel_mm=way.travel_mm,
        strings=list(way.strings),
        stops_ringing=way.stops_ringing,
        tab=write_bars(passage),
        text=write_tab(_with_part(song, song.parts[body.part_index], part)),
    )


def _with_part(song: Song, part: Part, changed: Part) -> Song:
    return replace(song, parts=tuple(changed if own is part else own for own in song.parts))
