"""Who may ask, what may be asked with, and what a page may load."""

import json
import secrets

from flask import Flask, Response, abort, g, request
from werkzeug.routing import IntegerConverter, Map

LOOPBACK_HOSTS = frozenset({"127.0.0.1", "localhost", "[::1]"})
MAX_REQUEST_BYTES = 2 * 1024 * 1024
BACKUP_PATH = "/api/library/backups"  # takes a file, not JSON, and a large one
MAX_BACKUP_BYTES = 1024 * 1024 * 1024
LARGEST_ID = 2**63 - 1  # that SQLite can hold
_SAFE_METHODS = frozenset({"GET", "HEAD", "OPTIONS"})


class _Id(IntegerConverter):
    """A number in a path; beyond what the database can hold nothing is stored."""

    def __init__(self, map: Map) -> None:
        super().__init__(map, max=LARGEST_ID)


def guard(app: Flask, hosts: frozenset[str]) -> None:
    """Check each request before it is answered, and set the headers after it."""
    app.config["MAX_CONTENT_LENGTH"] = MAX_REQUEST_BYTES
    app.url_map.converters["int"] = _Id

    @app.before_request
    def _check() -> None:
        g.nonce = secrets.token_urlsafe(16)
        if _host_of(request.host) not in hosts:
            abort(400, f"the host '{request.host}' is not served here")
        origin = request.headers.get("Origin")
        own = f"{request.scheme}://{request.host}"
        if request.method not in _SAFE_METHODS and origin is not None and origin != own:
            abort(403, f"requests from '{origin}' are not taken")
        if request.method not in _SAFE_METHODS and request.path == BACKUP_PATH:
            request.max_content_length = MAX_BACKUP_BYTES
            _check_type("application/octet-stream")
        elif request.is_json or request.get_data():
            _check_type("application/json")
            _check_json(request.get_data())

    # Two packages need an exception: the engraving's music font comes as a data address, and the
    # sound's clock as a worker made by the page itself.
    @app.after_request
    def _headers(response: Response) -> Response:
        nonce = g.get("nonce", "")
        response.headers["Content-Security-Policy"] = (
            f"default-src 'none'; script-src 'self'; style-src 'self' 'nonce-{nonce}'; font-src 'self';"
            " worker-src 'self' blob:; img-src 'self' data:; connect-src 'self'; base-uri 'none';"
            " form-action 'none'; frame-ancestors 'none'"
        )
        response.headers["X-Content-Type-Options"] = "nosniff"
        response.headers["Referrer-Policy"] = "no-referrer"
        response.headers["Cross-Origin-Opener-Policy"] = "same-origin"
        return response


def _check_type(expected: str) -> None:
    if request.mimetype != expected:
        abort(415, f"the request is {request.mimetype or 'of no kind'}; expected {expected}")


def _check_json(content: bytes) -> None:
    """A body whose text nothing later could store or send is told at the door."""
    try:
        json.dumps(json.loads(content), ensure_ascii=False).encode()
    except RecursionError:
        abort(400, "the request is nested too deeply; expected the fields of a form")
    except UnicodeEncodeError:
        abort(422, "the text holds half of a character (a lone surrogate); expected plain text")
    except ValueError:
        abort(400, "the request is no JSON; expected the fields of a form as JSON")


def _host_of(host: str) -> str:
    name, _, port = host.rpartition(":")
    return name if name and port.isdigit() else host
