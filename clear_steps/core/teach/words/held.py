"""Grips in words: the name, the pattern once, how long; what stays at a change."""

from collections.abc import Iterator, Sequence
from itertools import groupby

from clear_steps.core.score.techniques import ARRIVING
from clear_steps.core.teach.words.facts import MomentFact, NoteFact
from clear_steps.core.teach.words.gripnames import head_words, stays_words
from clear_steps.core.teach.words.lines import common_words, without
from clear_steps.core.teach.words.notes import MOST_WORDS, Voice, gathered, more_words
from clear_steps.core.teach.words.others import others_words
from clear_steps.core.teach.words.rhythm import Timing, place_words
from clear_steps.core.teach.words.segments import Held, Segment
from clear_steps.core.teach.words.striking import struck_words


def held(
    segment: Segment, timings: Sequence[Timing], voice: Voice, plucked: bool, goes_on: bool = False
) -> Iterator[str]:
    """What is said of a grip: how it is held, what the other hand does, what is other."""
    common, said_of_all = common_words(segment.moments, voice)
    own = Held(segment, tuple(without(moment, common) for moment in segment.moments), tuple(timings))
    stays = stays_words(segment, voice)
    cell = _cell_length(own)
    key = _identity(own, cell)
    is_known = bool(cell) and key in voice.patterns
    head = head_words(segment, voice, goes_on, picked=not own.strummed and not is_known)
    if is_known:
        extent = _extent(own, cell, voice)
        yield voice.say("held-same", head=head, same=_same(own, voice, key), **_may_be(extent))
    elif cell:
        voice.patterns[key] = _basses(own)
        extent = _extent(own, cell, voice)
        pieces = struck_words(own, range(cell), voice, plucked, all_through=True)
        begun, *further = gathered(pieces)
        if len(f"{head} {extent} {begun}".split()) > MOST_WORDS:
            yield head
            head = ""
        yield _headed(head, begun, voice, extent)
        yield from further
    else:
        voice.extent = None
        yield from _literally(own, head, voice, plucked)
    if cell and len(own.moments) % cell:
        left = range(len(own.moments) // cell * cell, len(own.moments))
        yield voice.say("and-then", what=", ".join(struck_words(own, left, voice, plucked)))
    yield from filter(None, [said_of_all, stays])
    if cell or own.strummed:
        yield from others_words(own, cell, voice, is_known)
    for moment in own.moments:
        for words in more_words(moment, voice):
            place = place_words(moment.onset, moment.metre, voice.catalogue)
            yield voice.say("at-place", place=place, what=words)


def _may_be(extent: str) -> dict[str, str | int]:
    return {"extent": extent or "-", "extents": int(bool(extent))}


def _cell_length(own: Held) -> int:
    """How many moments a cell of the pattern has; 0 where nothing comes again, where it begins within one, or
    where not all cells are played in one manner."""
    pattern, moments = own.segment.pattern, own.moments
    if pattern is None or any(moment.held for moment in moments):
        return 0
    places = {moment.onset % pattern.cell for moment in moments}
    cell = len(places)
    if [moment.onset % pattern.cell for moment in moments[:cell]] != sorted(places):
        return 0
    manners = [manner_of(moment) for moment in moments]
    return cell if all(manners[at] == manners[at - cell] for at in range(cell, len(manners))) else 0


def manner_of(moment: MomentFact) -> tuple[object, ...]:
    """How it is played; what has its fret in its words with it."""
    return tuple((note.dead, note.manner, note.fret if _tells_fret(note) else 0) for note in moment.notes)


def _tells_fret(note: NoteFact) -> bool:
    return bool(note.half_tones or note.released or note.techniques & ARRIVING)


def _identity(own: Held, cell: int) -> tuple[object, ...]:
    """What makes it the same pattern on another grip; one stroke by how long it rings."""
    pattern = own.segment.pattern
    if pattern is None:
        return ()
    manner = tuple(frozenset(manner_of(moment)) for moment in own.moments[:cell])
    if len(own.moments) == 1:
        return pattern.strokes, pattern.strings, own.moments[0].beats, manner
    return pattern.cell, pattern.strokes, pattern.strings, pattern.onsets, manner


def _basses(own: Held) -> tuple[int, ...]:
    """The strings of the first cell that begin it and lie lowest."""
    return (own.moments[0].strings[0], max(max(moment.strings) for moment in own.moments))


def _same(own: Held, voice: Voice, key: object) -> str:
    """`the same`, `the same from the 4th`, where its bass lies elsewhere."""
    before, now = voice.patterns[key], _basses(own)
    if own.strummed or before == now:
        return voice.say("same")
    voice.patterns[key] = now
    return voice.say("same-from", string=now[0])


def _extent(own: Held, cell: int, voice: Voice) -> str:
    """`two bars`, `twice`; nothing where it is as long as what was told before, or played once."""
    pattern, first = own.segment.pattern, own.moments[0]
    assert pattern is not None
    if len(own.moments) == 1:
        voice.extent = None  # how long it rings is said with it
        return ""
    times = len(own.moments) // cell
    quarters = times * pattern.cell
    before, voice.extent = voice.extent, quarters
    if quarters == before or (before is None and times == 1):
        return ""
    bars = quarters / first.metre.quarters
    if bars.denominator == 1 and first.onset < pattern.cell:
        return voice.say("bars", bars=int(bars))
    beats = quarters / first.metre.beat_quarters
    if times > 1 or beats.denominator > 1:
        return voice.say("times", count=times)
    return voice.say("beats", beats=int(beats))


def _literally(own: Held, head: str, voice: Voice, plucked: bool) -> Iterator[str]:
    """Bar by bar, where no pattern comes again."""
    bars = groupby(range(len(own.moments)), key=lambda at: own.moments[at].at.bar)
    for number, (_, bar) in enumerate(bars):
        which = list(bar)
        first = own.moments[which[0]]
        off = first.off_beat and own.strummed and not number
        begun, *rest = gathered(struck_words(own, which, voice, plucked, other=True))
        if not number and len(f"{head} {begun}".split()) > MOST_WORDS:
            yield head
            head = ""
        if off and head:
            place = place_words(first.onset, first.metre, voice.catalogue)
            yield voice.say("held-on-place", head=head, place=place, pattern=begun)
        else:
            yield voice.say("next-bar", what=begun) if number else _headed(head, begun, voice)
        yield from rest


def _headed(head: str, pattern: str, voice: Voice, extent: str = "") -> str:
    if not head:
        return ", ".join(filter(None, [pattern, extent]))
    return voice.say("held", head=head, pattern=pattern, **_may_be(extent))
