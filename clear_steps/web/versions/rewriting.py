"""Changes to a version by hand or asked for one by one, as edits; all of it done by the workers."""

from dataclasses import replace

from clear_steps.core.easier import Edit, asked_edit, by_hand, halved, offers, set_note
from clear_steps.core.errors import InvalidValueError
from clear_steps.core.grade import GradeRequest, Ladder, grade_part
from clear_steps.core.score import Event, Part, Song
from clear_steps.formats.tabtext import read_tab, write_bars
from clear_steps.store import StoredVersion
from clear_steps.web.analysis.shown import read_cached
from clear_steps.web.current import ladder_of
from clear_steps.web.versions import schemas as api
from clear_steps.web.versions.asked import AskedPart
from clear_steps.web.versions.comparing import original_of, standing_of, written_for


def bar_text(stored: StoredVersion, text: str, bar: int) -> str:
    """One bar (by index) of a version as tab text."""
    part = _with_bar(standing_of(stored, text), bar)
    return write_bars(replace(part, bars=(part.bars[bar],), sections=(), remarks=(), readings=()))


def bar_edit(stored: StoredVersion, text: str, _ladder: str, bar: int, tab: str) -> Edit:
    """The edit that puts a bar of tab in the place of a bar; raises ReadError or InvalidValueError."""
    version = _with_bar(standing_of(stored, text), bar)
    return _by_hand(stored, text, bar, _events_of(tab, version, bar))


def note_edit(stored: StoredVersion, text: str, _ladder: str, bar: int, note: api.NoteIn) -> Edit:
    """The edit that changes, adds or takes out one note; raises InvalidValueError."""
    version = _with_bar(standing_of(stored, text), bar)
    events = (
        halved(version, bar, note.event)
        if note.halve
        else set_note(version, bar, note.event, note.string, note.fret)
    )
    return _by_hand(stored, text, bar, events)


def change_edit(stored: StoredVersion, text: str, ladder: str, asked: api.AskIn) -> Edit:
    """The edit of one change asked for on some bars of a version; raises InvalidValueError."""
    return asked_edit(
        read_cached(text).song,
        original_of(stored, text),
        stored.edits,
        stored.refused,
        (asked.kind, asked.says),
        range(asked.first, asked.last + 1),
        ladder_of(ladder).ladder,
        written_for(stored).request,
        asked.notes(standing_of(stored, text)),
    )


def change_edit_of_part(asked: AskedPart, body: api.AskIn) -> Edit:
    """The same on bars of a song as it is written."""
    of = asked.opened()
    wanted, bars = (body.kind, body.says), range(body.first, body.last + 1)
    notes = body.notes(of.part)
    return asked_edit(of.song, of.part, (), (), wanted, bars, of.ladder, of.whom.request, notes)


def offers_json(stored: StoredVersion, text: str, ladder: str, query: api.BarsQuery) -> str:
    """The AskedList of some bars of a version: what one change may be asked for, with its Steps."""
    version, request = standing_of(stored, text), written_for(stored).request
    return _offered(read_cached(text).song, version, query, ladder_of(ladder).ladder, request)


def offers_of_part_json(asked: AskedPart, query: api.BarsQuery) -> str:
    """The same of some bars of a song as it is written."""
    of = asked.opened()
    return _offered(of.song, of.part, query, of.ladder, of.whom.request)


def _offered(song: Song, part: Part, query: api.BarsQuery, ladder: Ladder, request: GradeRequest) -> str:
    bars = range(query.first, query.last + 1)
    found = offers(song, part, bars, ladder, request, query.notes(part))
    now = grade_part(song, part, ladder, request)
    return api.AskedList(
        step=now.step,
        bar_step=max(now.bars[index].step for index in bars),
        changes=[api.AskedModel.model_validate(own, from_attributes=True) for own in found],
    ).model_dump_json()


def _with_bar(part: Part, bar: int) -> Part:
    if bar >= len(part.bars):
        raise InvalidValueError("bar", bar, f"0 to {len(part.bars) - 1}")
    return part


def _by_hand(stored: StoredVersion, text: str, bar: int, events: tuple[Event, ...]) -> Edit:
    return by_hand(original_of(stored, text), stored.edits, stored.refused, bar, events)


def _events_of(tab: str, part: Part, bar: int) -> tuple[Event, ...]:
    """The events of one bar of tab; raises ReadError or InvalidValueError."""
    read = read_tab(f"Time: {part.bars[bar].metre}\nTuning: {part.tuning.spelled}\n\n{tab}").song.parts[0]
    if len(read.bars) != 1:
        raise InvalidValueError("bar", f"{len(read.bars)} bars", "one bar")
    if read.bars[0].quarters != part.bars[bar].quarters:
        raise InvalidValueError(
            "length of the bar",
            f"{read.bars[0].quarters} quarter notes",
            f"{part.bars[bar].quarters}, as in the original",
        )
    return read.bars[0].events
