"""What every bar of a part asks of the hands, each noted once."""

from clear_steps.core.hand.demands import BarDemands, Leaving, begins_with_pull_off, demands_of_bar
from clear_steps.core.score import Bar, Part, Route, pinned_as
from clear_steps.core.shapes import Around, around_bars, shapes_in, taught_in
from clear_steps.core.shapes.ringing import Hearing, hearing_of, ringing_in

_Key = tuple[Leaving, int, int, Hearing, Around]


class DemandsBook:
    """What bars ask of the hands, each noted once."""

    def __init__(self) -> None:
        self._noted: dict[_Key, tuple[BarDemands, Bar, Bar | None]] = {}
        # the bars are held, so that their ids stay their own

    def of(self, part: Part, route: Route) -> tuple[BarDemands, ...]:
        """What every bar of a part asks where it is played first, or in its run apart."""
        found: dict[int, BarDemands] = {}
        hearing = hearing_of(part)
        pinned = [part.bars[index] for index in pinned_as(part.bars)]
        for run in route.shortened.runs:
            bars = [pinned[index] for index in run]
            leaving: Leaving = ()
            rows = zip(run, bars, (*bars[1:], None), around_bars(bars), strict=True)
            for index, bar, following, around in rows:
                if index not in found:
                    found[index] = self._asked(part, bar, following, (leaving, around, hearing))
                leaving = found[index].leaving
        return tuple(found[index] for index in range(len(part.bars)))

    def _asked(
        self, part: Part, bar: Bar, following: Bar | None, entered: tuple[Leaving, Around, Hearing]
    ) -> BarDemands:
        if following and not begins_with_pull_off(following):
            following = None  # it makes no difference
        leaving, around, hearing = entered
        key = (leaving, id(bar), id(following), hearing, around)
        if key not in self._noted:
            seen = shapes_in(bar, part.tuning, around.chord)
            ringing, taught = ringing_in(bar, hearing, seen), taught_in(seen, part.tuning, around)
            asked = demands_of_bar(bar, ringing, leaving, following, taught)
            self._noted[key] = (asked, bar, following)
        return self._noted[key][0]
