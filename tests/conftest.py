"""The same examples in every run: a failure can be repeated, and a green run means the same everywhere."""

from hypothesis import settings

settings.register_profile("repeatable", derandomize=True)
settings.load_profile("repeatable")
