"""One application on an empty database."""

from collections.abc import Iterator
from pathlib import Path

import pytest
from flask.testing import FlaskClient

from clear_steps.store import Database
from clear_steps.web.app import create_app


@pytest.fixture
def client(tmp_path: Path) -> Iterator[FlaskClient]:
    database = Database(tmp_path / "data")
    pages = tmp_path / "pages"
    pages.mkdir()
    (pages / "index.html").write_text('<meta name="style-nonce" content="%nonce%">')
    yield create_app(database, pages=pages).test_client()
    database.close()
