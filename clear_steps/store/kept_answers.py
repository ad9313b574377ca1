"""Answers that took time, kept under a digest of all that they depend on."""

import hashlib
from collections.abc import Iterable

from sqlalchemy import delete, select
from sqlalchemy.dialects.sqlite import insert
from sqlalchemy.orm import Session

from clear_steps.store.models import KeptAnswerRow


def digest(*depends_on: str) -> str:
    """One key for all of these together."""
    whole = hashlib.sha256()
    for text in depends_on:
        content = text.encode("utf-8", "surrogatepass")
        whole.update(len(content).to_bytes(8))  # so that two texts are not one with another cut
        whole.update(content)
    return whole.hexdigest()


class KeptAnswers:
    """The answers of one kind, within one unit of work; `made_by` names the state of the program."""

    def __init__(self, session: Session, kind: str, made_by: str) -> None:
        self._session, self._kind, self._made_by = session, kind, made_by

    def every(self) -> dict[str, str]:
        """Key -> JSON, of all that this state of the program made."""
        statement = select(KeptAnswerRow.key, KeptAnswerRow.content).where(
            KeptAnswerRow.kind == self._kind, KeptAnswerRow.made_by == self._made_by
        )
        return {row[0]: row[1] for row in self._session.execute(statement)}

    def keep(self, answers: Iterable[tuple[str, str]]) -> None:
        """Keep answers by key; one that is there already stays."""
        for key, content in answers:
            values = {"key": key, "kind": self._kind, "made_by": self._made_by, "content": content}
            self._session.execute(insert(KeptAnswerRow).values(values).on_conflict_do_nothing())

    def forget_others(self) -> None:
        """Let go of what another state of the program made."""
        self._session.execute(delete(KeptAnswerRow).where(KeptAnswerRow.made_by != self._made_by))
