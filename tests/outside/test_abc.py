"""Traditional tunes in music21's corpus, end to end: read, placed, graded, simplified, exported, read again."""

from pathlib import Path

import pytest
from music21 import corpus

from clear_steps.core.easier import easier
from clear_steps.core.errors import ReadError
from clear_steps.core.grade import grade_part
from clear_steps.formats import import_song, read_song, write_song
from clear_steps.ladders import default_ladder

TUNES = sorted(Path(path) for path in corpus.getPaths() if "ryansMammoth" in str(path) and str(path).endswith(".abc"))[::130]


@pytest.mark.parametrize("file", TUNES, ids=lambda file: file.stem)
def test_a_tune_goes_all_the_way(file: Path) -> None:
    found = import_song(file.name, file.read_bytes())
    assert found.read
    assert any("placed on a guitar" in guess for guess in found.guessed)
    song, part = found.song, found.song.parts[0]
    before = grade_part(song, part, default_ladder()).step
    version = easier(song, part, default_ladder(), max(before - 1, 1.0))
    assert version.after.step <= before
    back = read_song("tune.musicxml", write_song("tune.musicxml", song))
    assert [bar.events for bar in back.parts[0].bars] == [bar.events for bar in part.bars]


def test_tunes_were_found() -> None:
    assert len(TUNES) >= 8


@pytest.mark.parametrize("content", [b"", b"X:1\nT:no key\n", b"\xff\xfe\x00", b"just words"])
def test_what_is_no_tune_is_refused(content: bytes) -> None:
    with pytest.raises(ReadError):
        import_song("tune.abc", content)


def test_a_tune_of_the_lower_neck_is_placed_in_open_position() -> None:
    """As guitarists play such tunes (common practice, no source)."""
    tune = "X:1\nT:Porch reel\nM:4/4\nL:1/8\nK:G\nG,A,B,D GABd|e2dB GABd|BAGE DEGA|B2A2 G4|\n"
    song = import_song("reel.abc", tune.encode()).song
    frets = [note.fret for _, _, event in song.parts[0].events() for note in event.notes]
    assert max(frets) <= 5
    assert frets.count(0) >= 6
