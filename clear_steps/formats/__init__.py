"""Song <-> files: tab text and JSON."""

from clear_steps.formats.files import ENDINGS, read_song, write_song

__all__ = ["ENDINGS", "read_song", "write_song"]
