"""Song <-> files: tab text, JSON, MusicXML, ABC (in), MIDI (out)."""

from clear_steps.formats.files import ENDINGS, import_song, read_song, write_song
from clear_steps.formats.pitched import Imported

__all__ = ["ENDINGS", "Imported", "import_song", "read_song", "write_song"]
