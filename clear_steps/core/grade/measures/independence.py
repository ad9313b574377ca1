"""Independence: re-fretting one voice while another must ring."""

from clear_steps.core.grade.finding import Place, Told
from clear_steps.core.grade.ladder import Ladder
from clear_steps.core.grade.measures.measure import Found, Measure, Window
from clear_steps.core.grade.measures.words import rate_words
from clear_steps.core.grade.played import Moment, PlayedBar
from clear_steps.core.hand import is_fretted
from clear_steps.core.score import Note
from clear_steps.core.score.words import number_words, string_words


def _find(bar: PlayedBar, _: Ladder) -> Found[Moment]:
    """Notes that change their string's fret while another string's fretted note rings on.

    Over an alternating bass, off-beat upper notes that change their fret count as well; an arpeggio
    of a held shape changes none.
    """
    frets: dict[int, int] = {}
    found = []
    for moment in bar.moments:
        struck = moment.sounding.struck
        changed = [
            note for note in struck if frets.get(note.string, note.fret) != note.fret and is_fretted(note)
        ]
        if changed and (moment.over or _upper_off_the_beat(bar, moment, changed)):
            found.append((moment.sounding.onset_quarters, moment))
        for note in struck:
            frets[note.string] = note.fret
    return found


def _upper_off_the_beat(bar: PlayedBar, moment: Moment, changed: list[Note]) -> bool:
    off_beat = (bar.in_metre(moment.onset) / bar.bar.metre.beat_quarters).denominator != 1
    return (
        bar.two_voices
        and off_beat
        and len(bar.basses) > 1
        and any(note.string < bar.bass_from for note in changed)
    )


def _weigh(found: Found[Moment], window: Window, ladder: Ladder) -> float:
    """By re-fretted notes per second."""
    return ladder.curves["independence"].step(len(found) / window.seconds)


def _tell(found: Found[Moment], bar: PlayedBar, _: Ladder) -> Told:
    first = found[0][1]
    where = f"at {bar.beat_words(first.onset)} on the {string_words(first.strings)}"
    if len(found) == 1:
        evidence = f"One note is re-fretted while another voice rings on, {where}."
    else:
        count = number_words(len(found)).capitalize()
        evidence = f"{count} notes are re-fretted while another voice rings on, the first {where}."
    return Told(len(found) / bar.seconds, Place(first.onset, first.strings), evidence)


def _rung(ladder: Ladder, step: int) -> str:
    rate = rate_words(ladder.curves["independence"], step)
    return f"up to {rate} re-fretted notes a second over a note that rings"


INDEPENDENCE = Measure(
    name="independence",
    spoken="two voices at once",
    about="re-fretting one voice while another rings on",
    unit="re-fretted notes/s",
    sign="M2 12c3 0 3-8 6-8s3 8 6 8M2 5h4M10 5h4",
    curves={"independence": "independence"},
    find=_find,
    weigh=_weigh,
    tell=_tell,
    rung=_rung,
    said={"es": "llevar dos voces a la vez"},
    helps={
        "en": "Each voice alone until it goes by itself, then both very slowly.",
        "es": "Cada voz sola hasta que salga por sí misma, después las dos muy despacio.",
    },
)
