"""One headless Chromium, and the built application served for it."""

import shutil
import threading
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from selenium.webdriver import Chrome
from selenium.webdriver.chrome.options import Options
from selenium.webdriver.chrome.service import Service
from werkzeug.serving import make_server

from clear_steps.demo import seed
from clear_steps.store import Database
from clear_steps.web.app import create_app

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


@contextmanager
def served_demo(directory: Path) -> Iterator[str]:
    """The address of an application with the demo songs in a fresh database."""
    database = Database(directory)
    seed(database)
    server = make_server("127.0.0.1", 0, create_app(database), threaded=True)
    thread = threading.Thread(target=server.serve_forever, daemon=True)
    thread.start()
    try:
        yield f"http://127.0.0.1:{server.server_port}"
    finally:
        server.shutdown()
        thread.join()
        database.close()
