"""`python -m clear_steps.demo` finds the shipped versions anew; run it when the search or a piece has
changed."""

from pathlib import Path

from clear_steps.demo import found_versions

Path(__file__).with_name("versions.json").write_bytes(found_versions())
