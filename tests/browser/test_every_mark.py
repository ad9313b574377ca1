"""Everything that can be written is drawn."""

from clear_steps.core.score import TECHNIQUES, Technique
from clear_steps.core.score.techniques import Drawing
from tests.browser.page import Page
from tests.every_mark import every_mark, every_mark_text

# What is looked for where the mark is not named after the technique.
BY_DRAWING = {
    Drawing.RELEASE: "release tip",
    Drawing.SMALL: "grace stroke",
    Drawing.CROSS: "x",
    Drawing.ANGLES: "<12>",
    Drawing.DOT: "staccato",
    Drawing.WEDGE: "accent",
    Drawing.STROKES: "tremolo",
    Drawing.BEFORE: "t7",
}
FIGURES = {
    Technique.BEND_QUARTER: "bend ¼ figure",
    Technique.BEND_HALF: "bend ½ figure",
    Technique.BEND_WHOLE: "bend 1 figure",
    Technique.BEND_ONE_AND_HALF: "bend 1½ figure",
    Technique.BEND_TWO: "bend 2 figure",
}
MARKS = [
    *(f"head {length}" for length in ("whole", "half", "quarter", "eighth", "sixteenth", "thirty-second")),
    *(
        f"rest {length}"
        for length in ("whole bar", "half", "quarter", "eighth", "sixteenth", "thirty-second")
    ),
    *(f"tuplet {digit}" for digit in (3, 5, 7)),
    *("rest whole bar", "dot", "tie", "tie on the string", "tuplet bracket", "beam 1", "beam 4", "flag 1"),
    *("metre 4/4", "metre 7/8", "metre 6/8", "metre 5/4", "tempo", "repeat begins", "repeat ends"),
    *(
        "ending 1 2",
        "ending 3",
        "ending number",
        "repeat count",
        "double bar",
        "end",
    ),
    *(
        "feel",
        "held bend",
        "dip depth",
        "chord",
        "stroke down",
        "stroke up",
        "picking fingers",
        "fingers",
        "remark",
        "words",
        "string name E",
    ),
]
TEXTS = ["5?", "(5)", "knock", "position 3", "free", "PM on 6 stop 1", "f", "pp", "C", "3 times", "= 132"]


def looked_for(technique: Technique) -> str:
    """The name or the text of the mark that draws a technique."""
    row = TECHNIQUES[technique]
    words = row.drawn_words if row.drawing in (Drawing.WORDS, Drawing.DIAMOND) else ""
    return FIGURES.get(technique) or BY_DRAWING.get(row.drawing) or words or technique.value


def test_every_technique_length_ending_and_mark_is_drawn(page: Page) -> None:
    page.open()
    song = page.add_song(every_mark_text())
    with page.sized(1280, 12_000):  # only what is near the window is drawn
        page.open(f"#/song/{song}")
        page.find(f"[data-bar='{len(every_mark().parts[0].bars) - 1}']")
        found = page.marks()
    wanted = [*(looked_for(technique) for technique in Technique), *MARKS, *TEXTS]
    assert [name for name in wanted if name not in found] == []
