"""Song <-> files: tab text, JSON, MusicXML, ABC (in), MIDI (out)."""

from clear_steps.formats.files import ENDINGS, as_text, import_song, read_song, songs_of, write_song
from clear_steps.formats.pitched import Imported

__all__ = ["ENDINGS", "Imported", "as_text", "import_song", "read_song", "songs_of", "write_song"]
