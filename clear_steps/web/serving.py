"""The application on a listening socket, until it is stopped; meanwhile a copy a day is kept."""

import logging
import socket
import threading

from waitress.server import create_server

from clear_steps.store import Database, StoreError
from clear_steps.store.backups import keep_daily_copy
from clear_steps.web.app import create_app
from clear_steps.web.workers import Processes

THREADS = 8
COPY_EVERY_S = 1800.0


def serve_application(database: Database, listening: socket.socket) -> None:
    """Answer requests; Ctrl+C ends it."""
    workers = Processes()
    workers.start()
    app = create_app(database, workers=workers)
    # With a look ahead a request can be asked whether its page still waits.
    server = create_server(app, sockets=[listening], threads=THREADS, channel_request_lookahead=1)
    stopped = threading.Event()
    copying = threading.Thread(target=_keep_copies, args=(database, stopped), daemon=True)
    copying.start()
    try:
        server.run()
    finally:
        stopped.set()
        workers.close()
        copying.join()


def _keep_copies(database: Database, stopped: threading.Event) -> None:
    """Today's copy is the latest state of today: made at the start, now and then, and at the end."""
    _keep_copy(database)
    while not stopped.wait(COPY_EVERY_S):
        _keep_copy(database)
    _keep_copy(database)


def _keep_copy(database: Database) -> None:
    try:
        keep_daily_copy(database)
    except StoreError as error:
        logging.getLogger(__name__).warning("today's copy could not be kept: %s", error)
