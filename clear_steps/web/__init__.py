"""The API under /api, a folder a resource, and the built pages; `clear_steps.web.app` puts them together."""
