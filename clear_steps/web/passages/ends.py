"""From where to where a passage goes: bars, or some notes of them."""

from pydantic import BaseModel, Field

from clear_steps.core.errors import InvalidValueError
from clear_steps.core.score import Part
from clear_steps.core.score.blending import Notes

_LAST = 100_000


class PassageEnds(BaseModel):
    """Bars of a part by index, both inclusive; of the first and the last bar from and to an event, where
    notes are chosen and not bars."""

    first: int = Field(ge=0, le=_LAST)
    last: int = Field(ge=0, le=_LAST)
    first_event: int | None = Field(None, ge=0, le=_LAST)
    last_event: int | None = Field(None, ge=0, le=_LAST)

    def notes(self, part: Part) -> Notes | None:
        """The chosen notes of a part; None where whole bars are; raises InvalidValueError for events it does
        not have."""
        if self.first_event is None or self.last_event is None:
            return None
        ends = ((self.first, self.first_event), (self.last, self.last_event))
        if ends[0] > ends[1]:
            raise InvalidValueError("notes", f"{ends[0]} to {ends[1]}", "the first before the last")
        for bar, event in ends:
            if bar >= len(part.bars) or event >= len(part.bars[bar].events):
                raise InvalidValueError("note", f"bar {bar}, event {event}", "one of the part")
        onsets = [part.bars[bar].onsets[event] for bar, event in ends]
        return Notes(self.first, onsets[0], self.last, onsets[1])
