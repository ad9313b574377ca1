"""MusicXML, both ways: tab staves with techniques and fingers; plain notation is placed on the neck."""

from clear_steps.formats.musicxml.reader import read_musicxml
from clear_steps.formats.musicxml.writer import write_musicxml

__all__ = ["read_musicxml", "write_musicxml"]
