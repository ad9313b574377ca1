"""One headless Chromium, and the built application served for it."""

import shutil
import threading
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from selenium.webdriver import Chrome
from selenium.webdriver.chrome.options import Options
from selenium.webdriver.chrome.service import Service
from werkzeug.serving import BaseWSGIServer, make_server

from clear_steps.demo import seed
from clear_steps.store import Database
from clear_steps.web.app import create_app
from clear_steps.web.workers import Workers

FLAGS = (
    "--headless=new --no-sandbox --disable-gpu --disable-quic --no-first-run --disable-background-networking"
    " --disable-component-update --disable-sync --window-size=1280,900"
    " --autoplay-policy=no-user-gesture-required"
)


@contextmanager
def headless(profile: Path) -> Iterator[Chrome]:
    """A browser with an empty profile that tells what it complained of and what it asked for."""
    options = Options()
    for flag in FLAGS.split():
        options.add_argument(flag)
    options.add_argument(f"--user-data-dir={profile}")
    options.binary_location = shutil.which("chromium") or "/usr/bin/chromium"
    options.set_capability("goog:loggingPrefs", {"browser": "ALL", "performance": "ALL"})
    driver = Chrome(options=options, service=Service(shutil.which("chromedriver")))
    try:
        yield driver
    finally:
        driver.quit()


class Served:
    """An application on a database, at one address, that can be stopped and started again."""

    def __init__(self, database: Database, workers: Workers | None = None) -> None:
        self.database, self._workers = database, workers
        self._server: BaseWSGIServer | None = None
        self._port = 0
        self.start()

    @property
    def address(self) -> str:
        return f"http://127.0.0.1:{self._port}"

    def start(self) -> None:
        app = create_app(self.database, workers=self._workers)
        self._server = make_server("127.0.0.1", self._port, app, threaded=True)
        self._port = self._server.server_port
        threading.Thread(target=self._server.serve_forever, daemon=True).start()

    def stop(self) -> None:
        if self._server is not None:
            self._server.shutdown()
            self._server.server_close()
            self._server = None


@contextmanager
def served_demo(directory: Path, workers: Workers | None = None) -> Iterator[Served]:
    """An application with the demo songs in a fresh database."""
    database = Database(directory)
    seed(database)
    with served(database, workers) as found:
        yield found


@contextmanager
def served(database: Database, workers: Workers | None = None) -> Iterator[Served]:
    """An application on a database, which is closed with it."""
    found = Served(database, workers)
    try:
        yield found
    finally:
        found.stop()
        database.close()
