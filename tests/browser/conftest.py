"""The built application served for real, and one headless Chromium for the session."""

from collections.abc import Iterator
from pathlib import Path

import pytest
from selenium.webdriver import Chrome

from clear_steps.store import Database
from clear_steps.web.app import PAGES
from clear_steps.web.workers import Processes
from tests.browser.chrome import headless, served, served_demo
from tests.browser.page import Page


@pytest.fixture(scope="session")
def chrome(tmp_path_factory: pytest.TempPathFactory) -> Iterator[Chrome]:
    assert (PAGES / "index.html").exists(), "the pages are not built: run 'make test'"
    with headless(tmp_path_factory.mktemp("profile")) as driver:
        yield driver


@pytest.fixture(scope="session")
def workers() -> Iterator[Processes]:
    """As the product has them; started once for all."""
    processes = Processes()
    yield processes
    processes.close()


@pytest.fixture
def page(chrome: Chrome, workers: Processes, tmp_path: Path) -> Iterator[Page]:
    """A fresh database with the demo songs behind a page; at the end, what the browser complained of."""
    with served_demo(tmp_path, workers) as demo:
        shown = Page(chrome, demo)
        yield shown
        shown.leave()
    assert shown.complaints() == []
    assert shown.foreign_requests() == set()


@pytest.fixture
def empty_page(chrome: Chrome, workers: Processes, tmp_path: Path) -> Iterator[Page]:
    """An empty library behind a page."""
    with served(Database(tmp_path / "empty"), workers) as empty:
        shown = Page(chrome, empty)
        yield shown
        shown.leave()
    assert shown.complaints() == []
