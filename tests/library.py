"""A library of many songs, graded already, for what has to stay quick with years of work in it."""

from clear_steps.ladders import default_ladder_json
from clear_steps.store import Database, KeptAnswers, Songs, digest
from clear_steps.web.program import program_mark
from clear_steps.web.songs import cards
from clear_steps.web.songs.grading import card_json


def fill(database: Database, count: int, text: str) -> None:
    """Store so many songs called `Walk 0000` and on; each has a text of its own, all have one grade."""
    ladder = default_ladder_json().decode()
    graded = card_json(text, ladder)
    with database.session() as session:
        songs = Songs(session)
        for number in range(count):
            songs.add(f"Walk {number:04}", f"{text}\nremark {number}")
        keys = [digest(song.latest.text, ladder) for song in songs.every()]
        KeptAnswers(session, cards.KIND, program_mark()).keep((key, graded) for key in keys)
