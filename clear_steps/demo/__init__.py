"""Six invented pieces for a first look, and the script that seeds them."""

from importlib.resources import files

from clear_steps.formats.tabtext import read_tab
from clear_steps.store import Database, Players, Songs

_PLAYERS = (("Mira", 100.0), ("Tomke", 78.0), ("Anselm", 115.0))


def demo_texts() -> list[str]:
    """Tab text of every demo piece, by file name."""
    folder = files(__package__).joinpath("songs")
    return [entry.read_text(encoding="utf-8") for entry in sorted(folder.iterdir(), key=lambda entry: entry.name) if entry.name.endswith(".tab")]


def seed(database: Database) -> None:
    """Store the demo pieces and players in a new database."""
    with database.session() as session:
        songs, players = Songs(session), Players(session)
        for text in demo_texts():
            songs.add(read_tab(text).song.title, text)
        for name, span_mm in _PLAYERS:
            players.add(name, span_mm)
