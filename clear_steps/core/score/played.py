"""The order in which written bars are played: repeats, endings, counted sections."""

from clear_steps.core.score.song import Bar, Part, Section

MAX_PLAYED_BARS = 5000


def played_order(part: Part, order: tuple[str, ...] = ()) -> tuple[int, ...]:
    """Indexes of the written bars as played; an uncounted section is played once.

    `order` names sections as played; names it does not know are passed over.
    """
    if not part.sections:
        return _unroll(part.bars, range(len(part.bars)))[:MAX_PLAYED_BARS]
    spans = _spans(part)
    by_name = {section.name.lower(): (section, span) for section, span in reversed(spans)}
    named = [by_name[name.lower()] for name in order if name.lower() in by_name]
    # In an order, every mention is one playing; without one, the counts say how often.
    chosen = [(span, 1) for _, span in named] or [(span, section.times or 1) for section, span in spans]
    played: list[int] = list(range(part.sections[0].first_bar)) if not named else []
    for span, times in chosen:
        played.extend(_unroll(part.bars, span) * times)
        if len(played) > MAX_PLAYED_BARS:
            break
    return tuple(played[:MAX_PLAYED_BARS])


def _spans(part: Part) -> list[tuple[Section, range]]:
    ends = [section.first_bar for section in part.sections[1:]] + [len(part.bars)]
    return [
        (section, range(section.first_bar, end)) for section, end in zip(part.sections, ends, strict=True)
    ]


def _unroll(bars: tuple[Bar, ...], span: range) -> tuple[int, ...]:
    """Play repeat signs and endings within a span once through."""
    played: list[int] = []
    start, pass_number, index = span.start, 1, span.start
    while index < span.stop and len(played) <= MAX_PLAYED_BARS:
        bar = bars[index]
        if bar.repeat_start and index != start:
            start, pass_number = index, 1
        if bar.endings and pass_number not in bar.endings:
            index += 1
            continue
        played.append(index)
        if bar.repeat_times and pass_number < bar.repeat_times:
            pass_number += 1
            index = start
            continue
        if (bar.repeat_times or bar.endings) and not _more_endings(bars, index, span.stop):
            start, pass_number = index + 1, 1
        index += 1
    return tuple(played)


def _more_endings(bars: tuple[Bar, ...], index: int, stop: int) -> bool:
    return index + 1 < stop and bool(bars[index].endings) and bool(bars[index + 1].endings)
