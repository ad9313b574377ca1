"""The application on a listening socket, until it is stopped."""

import socket

from waitress.server import create_server

from clear_steps.store import Database
from clear_steps.web.app import create_app
from clear_steps.web.workers import Processes

THREADS = 8


def serve_application(database: Database, listening: socket.socket) -> None:
    """Answer requests; Ctrl+C ends it."""
    workers = Processes()
    workers.start()
    app = create_app(database, workers=workers)
    # With a look ahead a request can be asked whether its page still waits.
    server = create_server(app, sockets=[listening], threads=THREADS, channel_request_lookahead=1)
    try:
        server.run()
    finally:
        workers.close()
        database.close()
