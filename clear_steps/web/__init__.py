"""The application factory, the API under /api, and the built pages."""

from clear_steps.web.app import create_app

__all__ = ["create_app"]
