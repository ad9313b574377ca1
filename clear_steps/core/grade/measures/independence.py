"""Independence: re-fretting one voice while another must ring."""

from clear_steps.core.grade.finding import Finding, Place, nothing, number_words, string_words
from clear_steps.core.grade.ladder import Ladder
from clear_steps.core.grade.played import Moment, PlayedBar
from clear_steps.core.hand import is_fretted
from clear_steps.core.score import Note
from clear_steps.core.score.ringing import BASS_STRING

UNIT = "re-fretted notes/s"


def independence(bar: PlayedBar, ladder: Ladder) -> Finding:
    """Notes per second that change their string's fret while another string's fretted note rings on.

    Over an alternating bass, off-beat upper notes that change their fret count as well; an arpeggio
    of a held shape changes none.
    """
    counted = _counted(bar)
    if not counted:
        return nothing(UNIT)
    rate = len(counted) / bar.seconds
    first = counted[0]
    count = "One note is" if len(counted) == 1 else f"{number_words(len(counted)).capitalize()} notes are"
    where = f"{bar.beat_words(first.onset)} on the {string_words(first.strings)}"
    evidence = f"{count} re-fretted while another voice rings on, the first at {where}."
    return Finding(
        ladder.curves["independence"].step(rate), rate, UNIT, Place(first.onset, first.strings), evidence
    )


def _counted(bar: PlayedBar) -> list[Moment]:
    if not bar.two_voices and all(
        moment.grip is None or len(moment.grip.presses) == 1 for moment in bar.moments
    ):
        return []  # a line of single notes
    frets: dict[int, int] = {}
    counted = []
    for moment in bar.moments:
        struck = moment.sounding.struck
        changed = [
            note for note in struck if frets.get(note.string, note.fret) != note.fret and is_fretted(note)
        ]
        if changed and (_holds_another(moment) or _upper_off_the_beat(bar, moment, changed)):
            counted.append(moment)
        for note in struck:
            frets[note.string] = note.fret
    return counted


def _holds_another(moment: Moment) -> bool:
    return moment.grip is not None and any(
        spot.string not in moment.strings for _, spot in moment.grip.presses
    )


def _upper_off_the_beat(bar: PlayedBar, moment: Moment, changed: list[Note]) -> bool:
    off_beat = (bar.in_metre(moment.onset) / bar.bar.metre.beat_quarters).denominator != 1
    return bar.two_voices and off_beat and any(note.string < BASS_STRING for note in changed)
