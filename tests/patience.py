"""How long a test waits for what must come: much longer than it takes on an idle machine.

A wait costs nothing where what it waits for comes; `CLEAR_STEPS_PATIENCE` makes all of them longer.
"""

import os
import time
from collections.abc import Callable

FACTOR = float(os.environ.get("CLEAR_STEPS_PATIENCE", "4"))


def patience_s(usual_s: float) -> float:
    """Seconds to wait for what takes so many at the most where nothing else is going on."""
    return usual_s * FACTOR


def comes_true(look: Callable[[], object], usual_s: float = 10.0) -> bool:
    """Whether something becomes so while there is patience."""
    until = time.monotonic() + patience_s(usual_s)
    while not look():
        if time.monotonic() > until:
            return False
        time.sleep(0.02)
    return True
