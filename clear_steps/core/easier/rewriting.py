"""Writing a bar anew: struck at other onsets, without some notes; and ties that have lost their note."""

from collections.abc import Callable, Iterable, Iterator, Sequence
from dataclasses import replace
from fractions import Fraction

from clear_steps.core.easier.kinds.bars import with_notes, without
from clear_steps.core.score import ARRIVING, Bar, Event, Note, Part, Stroke

Events = tuple[Event, ...]
_SHORTEST_WAIT = Fraction(1)  # beats that a chord may come early to fill a beat the original leaves out


def lasting(event: Event, quarters: Fraction, arrives: bool = False) -> Event:
    """The event with another length, struck; a slur into it has lost the note it came from, unless it still
    arrives."""
    notes = tuple(replace(without(note, () if arrives else ARRIVING), tied=False) for note in event.notes)
    return replace(
        event,
        quarters=quarters,
        notes=notes,
        techniques=event.techniques if notes else frozenset(),
        stroke=event.stroke if notes else None,
    )


def struck_at(bar: Bar, onsets: Iterable[Fraction], fill: bool = False) -> Events:
    """The bar struck at these onsets alone, each lasting to the next: what starts there, or goes on there, is
    struck; what falls between goes.

    With `fill` a silence is struck too, as the chord that comes within the beat, else the one before it.
    A chord name moves with its chord to the next stroke of it.
    """
    rows = list(zip(bar.onsets, bar.events, strict=True))
    stays = sorted({onset for onset in onsets if _source(rows, onset, bar, fill) is not None})
    events: list[Event] = []
    if not stays or stays[0] > 0:
        first, end = rows[0][1], stays[0] if stays else bar.quarters
        is_held = bool(first.notes) and not first.struck
        events.append(
            replace(first, quarters=end) if is_held else Event(end, chord=_name(rows, Fraction(0), end))
        )
    used = 0
    for start, stop in zip(stays, [*stays[1:], bar.quarters], strict=True):
        number = _source(rows, start, bar, fill)
        assert number is not None
        onset, source = rows[number]
        came_from = number > 0 and rows[number - 1][0] in stays and rows[number - 1][0] == _last(stays, start)
        length = _until_silence(rows, number, start, stop, bar)
        event = lasting(source, length, arrives=onset == start and came_from)
        names = [own.chord for own_onset, own in rows[used : number + 1] if own.chord]
        stroke = event.stroke if onset == start else Stroke.DOWN if event.stroke else None
        position = event.position if onset == start else None
        events.append(replace(event, chord=names[-1] if names else "", stroke=stroke, position=position))
        if length < stop - start:
            events.append(Event(stop - start - length))
        used = max(used, number + 1)
    return tuple(events)


def _until_silence(
    rows: Sequence[tuple[Fraction, Event]], number: int, start: Fraction, stop: Fraction, bar: Bar
) -> Fraction:
    """How long something struck lasts: to the next stroke, but not over a silence that followed it, nor over
    a beat's rest after notes that are gone; what is struck in a silence lasts a beat."""
    following = next((at for at in range(number + 1, len(rows)) if not rows[at][1].notes), None)
    onset, source = rows[number]
    if following is None or not onset <= start < onset + source.quarters:
        is_short = following is not None
        return min(stop - start, bar.metre.beat_quarters) if is_short else stop - start
    silent_from = rows[following][0]
    sounds_again = next((at for at, event in rows[following:] if event.notes), bar.quarters)
    is_rest = sounds_again - silent_from >= bar.metre.beat_quarters
    struck_between = any(event.struck for _, event in rows[number + 1 : following])
    ends = silent_from if start < silent_from and (is_rest or not struck_between) else stop
    return min(stop, ends) - start if start < ends else stop - start


def _last(stays: Sequence[Fraction], start: Fraction) -> Fraction | None:
    return max((onset for onset in stays if onset < start), default=None)


def _name(rows: Sequence[tuple[Fraction, Event]], start: Fraction, stop: Fraction) -> str:
    """A name written over a silence stays with it."""
    return next(
        (event.chord for onset, event in rows if start <= onset < stop and event.chord and not event.notes),
        "",
    )


def _source(rows: Sequence[tuple[Fraction, Event]], onset: Fraction, bar: Bar, fill: bool) -> int | None:
    """Which event is struck at an onset: the one that sounds there; into a silence, where that may be filled,
    the next within a beat or the last before."""
    number = max(at for at, (start, _) in enumerate(rows) if start <= onset)
    if rows[number][1].notes:
        return number
    if not fill:
        return None
    following = next((at for at in range(number + 1, len(rows)) if rows[at][1].struck), None)
    if following is not None and rows[following][0] - onset < _SHORTEST_WAIT * bar.metre.beat_quarters:
        return following
    return next((at for at in range(number, -1, -1) if rows[at][1].struck), following)


def only_notes(bar: Bar, choose: Callable[[int, Event], Iterable[Note]]) -> Events:
    """The bar with only the notes chosen of every event; what falls silent so belongs to the note before."""
    events: list[Event] = []
    for number, event in enumerate(bar.events):
        if not event.notes:
            events.append(event)
            continue
        made = with_notes(event, choose(number, event))
        came_from = not events or bar.events[number - 1].notes == events[-1].notes
        if not came_from:
            made = replace(made, notes=tuple(without(note, ARRIVING) for note in made.notes))
        if not made.notes and events and not made.chord:
            events[-1] = replace(events[-1], quarters=events[-1].quarters + made.quarters)
        else:
            events.append(made)
    return tuple(events)


def dangling(part: Part) -> list[int]:
    """Bars (indexes) in which a tie has lost the note it holds on."""
    pairs = enumerate(zip((None, *part.bars), part.bars, strict=False))
    return [index for index, (before, bar) in pairs if dangles(before, bar)]


def dangles(before: Bar | None, bar: Bar) -> bool:
    """Whether a tie of a bar has lost its note, in it or in the bar before."""
    held = _frets(before.events[-1]) if before and before.events else {}
    for event in bar.events:
        if any(note.tied and held.get(note.string) != note.fret for note in event.notes):
            return True
        held = _frets(event)
    return False


def _frets(event: Event) -> dict[int, int]:
    return {note.string: note.fret for note in event.notes}


def struck_again(part: Part, index: int, name: str) -> Events:
    """The bar with what is held without its note struck instead, with the chord name that came with it."""
    before = _frets(part.bars[index - 1].events[-1]) if index and part.bars[index - 1].events else {}
    events: list[Event] = []
    for event in part.bars[index].events:
        lost = any(note.tied and before.get(note.string) != note.fret for note in event.notes)
        made = (
            replace(event, notes=tuple(replace(note, tied=False) for note in event.notes)) if lost else event
        )
        named = lost and not events and not made.chord
        events.append(replace(made, chord=name) if named else made)
        before = _frets(made)
    return tuple(events)


def struck_onsets(bar: Bar) -> Iterator[Fraction]:
    """Where something is struck."""
    return (onset for onset, event in zip(bar.onsets, bar.events, strict=True) if event.struck)
