"""The cards of all songs: graded once, kept, and brought up to date behind the page's back."""

import json
import logging
import threading
import time
from dataclasses import dataclass

from clear_steps.core.errors import ClearStepsError
from clear_steps.store import Database, KeptAnswers, OwnSteps, Songs, StoredSong, digest
from clear_steps.web.current import ladder_in_use
from clear_steps.web.program import program_mark
from clear_steps.web.songs.grading import card_or_problem, problem_json
from clear_steps.web.workers import NotYetError, TooLongError, TooMuchError, Workers

KIND = "card"
AT_ONCE = 8  # so few are graded before the answer is given
PATIENCE_S = 3.0  # that the answer waits for them
_WAITING = '{"grade":null,"problem":""}'


@dataclass(frozen=True)
class _Missing:
    key: str
    text: str
    ladder: str


class Cards:
    """The cards of one database."""

    def __init__(self, database: Database, workers: Workers) -> None:
        self._database, self._workers = database, workers
        self._lock = threading.Lock()
        self._thread: threading.Thread | None = None

    def list_json(self) -> str:
        """The CardList; what is not graded yet is begun."""
        songs, own, kept, ladder = self._stored()
        keys = {song.id: digest(song.latest.text, ladder) for song in songs}
        missing = [_Missing(keys[s.id], s.latest.text, ladder) for s in songs if keys[s.id] not in kept]
        if 0 < len(missing) <= AT_ONCE:
            kept |= self._graded(missing, time.monotonic() + PATIENCE_S)
            missing = [each for each in missing if each.key not in kept]
        if missing:
            self._begin()
        rows = [_card(song, own.get((song.id, 0)), kept.get(keys[song.id], _WAITING)) for song in songs]
        return f'{{"songs":[{",".join(rows)}],"waiting":{len(missing)}}}'

    def _stored(self) -> tuple[list[StoredSong], dict[tuple[int, int], float], dict[str, str], str]:
        with self._database.reading() as session:
            kept = KeptAnswers(session, KIND, program_mark()).every()
            return Songs(session).every(), OwnSteps(session).every(), kept, ladder_in_use(session).content

    def _graded(self, missing: list[_Missing], until: float | None = None) -> dict[str, str]:
        """Grade these and keep them; those that are not done until then are left for later."""
        made = {}
        for each in missing:
            patience_s = None if until is None else max(until - time.monotonic(), 0.0)
            try:
                made[each.key] = self._workers.run(
                    card_or_problem, each.text, each.ladder, patience_s=patience_s
                )
            except (NotYetError, TooMuchError):
                continue
            except TooLongError as error:
                made[each.key] = problem_json(str(error))
        with self._database.session() as session:
            KeptAnswers(session, KIND, program_mark()).keep(made.items())
        return made

    def _begin(self) -> None:
        with self._lock:
            if self._thread is None or not self._thread.is_alive():
                self._thread = threading.Thread(target=self._bring_up_to_date, daemon=True)
                self._thread.start()

    def _bring_up_to_date(self) -> None:
        """Grade what is missing, a few at a time, until nothing is; one process stays free for the pages."""
        try:
            with self._database.session() as session:
                KeptAnswers(session, KIND, program_mark()).forget_others()
            while True:
                songs, _, kept, ladder = self._stored()
                texts = {digest(song.latest.text, ladder): song.latest.text for song in songs}
                missing = [_Missing(key, text, ladder) for key, text in texts.items() if key not in kept]
                made = [self._graded(missing[at : at + AT_ONCE]) for at in range(0, len(missing), AT_ONCE)]
                if not any(made):
                    return  # all are there, or nothing more is taken now: the page asks again
        except ClearStepsError as error:  # the page asks again, and says what is wrong with the file
            logging.getLogger(__name__).warning("the songs could not be graded: %s", error)


def _card(song: StoredSong, own_step: float | None, graded: str) -> str:
    card = {
        "id": song.id,
        "title": song.latest.title,
        "revision": song.latest.number,
        "own_step": own_step,
        "put_away": song.put_away,
        "is_demo": song.is_demo,
    }
    return f"{json.dumps(card, ensure_ascii=False)[:-1]},{graded[1:]}"
