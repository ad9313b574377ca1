"""Who may ask, and what a page may load."""

import secrets
from urllib.parse import urlsplit

from flask import Flask, Response, abort, g, request

LOOPBACK_HOSTS = frozenset({"127.0.0.1", "localhost", "[::1]"})
MAX_REQUEST_BYTES = 2 * 1024 * 1024
_SAFE_METHODS = frozenset({"GET", "HEAD", "OPTIONS"})


def guard(app: Flask, hosts: frozenset[str]) -> None:
    """Check Host and Origin before each request, and set the headers after it."""
    app.config["MAX_CONTENT_LENGTH"] = MAX_REQUEST_BYTES

    @app.before_request
    def _check() -> None:
        g.nonce = secrets.token_urlsafe(16)
        if _host_of(request.host) not in hosts:
            abort(400, f"the host '{request.host}' is not served here")
        origin = request.headers.get("Origin")
        if (
            request.method not in _SAFE_METHODS
            and origin is not None
            and urlsplit(origin).netloc != request.host
        ):
            abort(403, f"requests from '{origin}' are not taken")

    # Two packages need an exception: the engraving's music font comes as a data address, and the
    # sound's clock as a worker made by the page itself.
    @app.after_request
    def _headers(response: Response) -> Response:
        nonce = g.get("nonce", "")
        response.headers["Content-Security-Policy"] = (
            f"default-src 'none'; script-src 'self'; style-src 'self' 'nonce-{nonce}'; font-src 'self' data:;"
            " worker-src 'self' blob:; img-src 'self' data:; connect-src 'self'; base-uri 'none';"
            " form-action 'none'; frame-ancestors 'none'"
        )
        response.headers["X-Content-Type-Options"] = "nosniff"
        response.headers["Referrer-Policy"] = "no-referrer"
        response.headers["Cross-Origin-Opener-Policy"] = "same-origin"
        return response


def _host_of(host: str) -> str:
    name, _, port = host.rpartition(":")
    return name if name and port.isdigit() else host
