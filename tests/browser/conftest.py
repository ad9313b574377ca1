"""The built application served for real, and one headless Chromium for the session."""

import shutil
import threading
from collections.abc import Iterator
from pathlib import Path

import pytest
from selenium.webdriver import Chrome
from selenium.webdriver.chrome.options import Options
from selenium.webdriver.chrome.service import Service
from werkzeug.serving import make_server

from clear_steps.demo import seed
from clear_steps.store import Database
from clear_steps.web import create_app
from clear_steps.web.app import PAGES
from tests.browser.page import Page

FLAGS = (
    "--headless=new --no-sandbox --disable-gpu --disable-quic --no-first-run --disable-background-networking "
    "--disable-component-update --disable-sync --window-size=1280,900 --autoplay-policy=no-user-gesture-required"
)


@pytest.fixture(scope="session")
def chrome(tmp_path_factory: pytest.TempPathFactory) -> Iterator[Chrome]:
    assert (PAGES / "index.html").exists(), "the pages are not built: run 'make test'"
    options = Options()
    for flag in FLAGS.split():
        options.add_argument(flag)
    options.add_argument(f"--user-data-dir={tmp_path_factory.mktemp('profile')}")
    options.binary_location = shutil.which("chromium") or "/usr/bin/chromium"
    options.set_capability("goog:loggingPrefs", {"browser": "ALL", "performance": "ALL"})
    driver = Chrome(options=options, service=Service(shutil.which("chromedriver")))
    yield driver
    driver.quit()


@pytest.fixture
def page(chrome: Chrome, tmp_path: Path) -> Iterator[Page]:
    """A fresh database with the demo songs behind a page; at the end, what the browser complained of."""
    database = Database(tmp_path)
    seed(database)
    server = make_server("127.0.0.1", 0, create_app(database), threaded=True)
    thread = threading.Thread(target=server.serve_forever, daemon=True)
    thread.start()
    shown = Page(chrome, f"http://127.0.0.1:{server.server_port}")
    yield shown
    shown.leave()
    server.shutdown()
    thread.join()
    database.close()
    assert shown.complaints() == []
    assert shown.foreign_requests() == set()
