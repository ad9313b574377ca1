"""Which state of the program answers: what was kept by another one may be told differently today."""

import hashlib
from functools import lru_cache
from pathlib import Path

import clear_steps


@lru_cache(maxsize=1)
def program_mark() -> str:
    """A digest of all that grades and tells: the package's own source and data."""
    root = Path(clear_steps.__file__).parent
    whole = hashlib.sha256()
    for file in sorted([*root.rglob("*.py"), *root.rglob("ladders/*.json")]):
        whole.update(str(file.relative_to(root)).encode())
        whole.update(file.read_bytes())
    return whole.hexdigest()
