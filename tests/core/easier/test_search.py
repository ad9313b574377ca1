"""What the search does about bars that go down no further."""

import random
from fractions import Fraction

from clear_steps.core.easier import easier
from clear_steps.core.score import COMMON_TIME, Bar, Event, Metre, Note, Part, Song
from clear_steps.formats.tabtext import read_tab
from clear_steps.ladders import default_ladder

LADDER = default_ladder()

TAPPED = """Title: Two hands
Tempo: 89
Time: 4/4

len| e   e  e   e  e   e  e   e | e   e  e   e  e   e  e   e | e   e   e   e   e   e   e   e  |
  E|----------------------------|----------------------------|--------------------------------|
  B|----------------------------|----------------------------|t17-p10-t17-p10-t17-p10-t17-p10-|
  G|t16-p9-t16-p9-t16-p9-t16-p9-|t15-p8-t15-p8-t15-p8-t15-p8-|--------------------------------|
  D|----------------------------|----------------------------|--------------------------------|
  A|----------------------------|----------------------------|--------------------------------|
  E|----------------------------|----------------------------|--------------------------------|
"""


def eighths(bars: int, odd: tuple[int, ...]) -> Song:
    """Wandering eighths in 4/4, some bars in 7/8, which by itself is Step 3.5 at least."""
    draw = random.Random(0)
    written = []
    for index in range(bars):
        metre = Metre(7, 8) if index in odd else COMMON_TIME
        notes = [
            Note(draw.choice((1, 2, 3)), draw.choice((0, 1, 2, 3, 5))) for _ in range(int(metre.quarters * 2))
        ]
        written.append(Bar(metre, tuple(Event(Fraction(1, 2), (note,)) for note in notes)))
    return Song(tempo=Fraction(100), parts=(Part(bars=tuple(written)),))


def test_where_higher_stairs_led_a_bar_astray_it_is_begun_afresh() -> None:
    # Fretted instead of tapped the last bar is a stretch that nothing else shortens: it has to go an octave
    # down from the start.
    song = read_tab(TAPPED).song
    assert easier(song, song.parts[0], LADDER, 6.0).reached


def test_bars_that_go_no_further_down_do_not_keep_the_others_up() -> None:
    song = eighths(12, (4, 5, 6))
    found = easier(song, song.parts[0], LADDER, 4.0)
    assert found.reached
    assert all(found.after.bars[index].step > 3.45 for index in (4, 5, 6))
