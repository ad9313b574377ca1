"""No pattern of the readers takes more than linear time, whatever it is given."""

import importlib
import itertools
import pkgutil
import re
import time
from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path

import pytest

import clear_steps
import clear_steps.core.score
import clear_steps.formats

PACKAGES = (clear_steps.formats, clear_steps.core.score)
# What the readers' patterns are made of; every pair of them is repeated.
PIECES = (
    *(" ", "  ", "|", "-", "x", "x2", "1", "12", "e", "A", "Am", "[", "]", "(", ")", "/", "//", "\\", "\\\\"),
    *(
        "PM",
        "P.M.",
        "PM  ",
        "PM--",
        ".",
        "1.",
        ":",
        "h",
        "p",
        "b",
        "r",
        "~",
        "=",
        "s",
        "<",
        "?",
        "q",
        "q.",
        "@9",
    ),
    *("Reading 1:", "#", "sus", "\t", ",", "E2 ", "4/4", '"', "C", "K:\n"),
)
LENGTHS = (1_000, 4_000)
QUICK_S = 0.004  # nothing that takes less is timed again
SLOWEST_GROWTH = 8.0  # four times the length: linear is 4, quadratic 16


def modules() -> Iterator[str]:
    for package in PACKAGES:
        yield package.__name__
        yield from (module.name for module in pkgutil.walk_packages(package.__path__, f"{package.__name__}."))


@dataclass(frozen=True)
class Used:
    """A pattern and whether it is looked for anywhere in a text, not only at its beginning."""

    pattern: re.Pattern[str]
    anywhere: bool

    def seconds(self, text: str) -> float:
        began = time.process_time()
        for _ in self.pattern.finditer(text) if self.anywhere else (self.pattern.fullmatch(text),):
            pass
        return time.process_time() - began


def source_of(name: str) -> str:
    return Path(importlib.import_module(name).__file__ or "").read_text()


def patterns() -> dict[str, Used]:
    found: dict[str, Used] = {}
    for name in modules():
        source = source_of(name)
        for key, value in vars(importlib.import_module(name)).items():
            if isinstance(value, re.Pattern) and isinstance(value.pattern, str) and f"{key} = re.c" in source:
                anywhere = any(
                    f"{key}.{way}(" in source for way in ("search", "finditer", "sub", "split", "findall")
                )
                found[f"{name}.{key}"] = Used(value, anywhere)
    return found


PATTERNS = patterns()


@pytest.mark.parametrize("name", PATTERNS)
def test_a_pattern_is_linear_in_what_it_is_given(name: str) -> None:
    used = PATTERNS[name]
    for start, piece, end in itertools.product(
        ("", "[", "A", "PM", "e|", '"'), PIECES, ("", "!", "x2", "\n")
    ):
        short = used.seconds(start + piece * (60 // len(piece)) + end)
        assert short < 0.05, (name, start, piece, end)  # exponential ones already take for ever here
        texts = [start + piece * (length // len(piece)) + end for length in LENGTHS]
        long = used.seconds(texts[1])
        if long > QUICK_S:
            growth = min(used.seconds(texts[1]) for _ in range(3)) / min(
                used.seconds(texts[0]) for _ in range(3)
            )
            assert growth < SLOWEST_GROWTH, (name, start, piece, end, growth)


def test_the_readers_patterns_are_all_looked_at() -> None:
    assert len(PATTERNS) >= 15
    used = {"tabtext.lines._PALM_MUTE", "tabtext.tokens.TOKEN", "tabtext.rawbars._TAIL"}
    assert all(any(name.endswith(each) for name in PATTERNS) for each in used)


def test_no_pattern_is_made_inside_a_function() -> None:
    """Those would not be looked at above."""
    inside = re.compile(r"re\.(fullmatch|match|search|split|sub|findall|finditer)\(")
    for name in modules():
        assert not inside.search(source_of(name)), name
