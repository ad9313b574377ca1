"""The direction of imports: score -> hand -> grade; core knows nothing of what stands around it."""

import ast
from pathlib import Path

import pytest

ROOT = Path(__file__).parents[1]
PACKAGE = ROOT / "clear_steps"
ALLOWED = {
    "core.errors": set(),
    "core.score": {"core.errors"},
    "core.hand": {"core.errors", "core.score"},
    "core.grade": {"core.errors", "core.score", "core.hand"},
    "core.easier": {"core.errors", "core.score", "core.hand", "core.grade"},
    "ladders": {"core.errors", "core.score", "core.hand", "core.grade"},
    "formats": {"core.errors", "core.score", "core.hand", "core.grade", "ladders"},
    "store": {"core.errors", "core.score", "core.hand", "core.grade", "core.easier"},
    "demo": {"core.score", "core.hand", "core.grade", "core.easier", "formats", "ladders", "store"},
    "report": {"core.errors", "core.score", "core.hand", "core.grade", "core.easier", "formats"},
    "web": {
        "core.errors",
        "core.score",
        "core.hand",
        "core.grade",
        "core.easier",
        "ladders",
        "formats",
        "store",
    },
}
FORBIDDEN_IN_CORE = {
    "flask",
    "apiflask",
    "sqlalchemy",
    "pathlib",
    "os",
    "io",
    "time",
    "datetime",
    "random",
    "json",
    "sqlite3",
}


def room(module: str) -> str:
    parts = module.split(".")[1:]
    return ".".join(parts[:2]) if parts[:1] == ["core"] else parts[0] if parts else ""


def imports(file: Path) -> set[str]:
    found = set()
    for node in ast.walk(ast.parse(file.read_text())):
        if isinstance(node, ast.ImportFrom) and node.module:
            found.add(node.module)
        elif isinstance(node, ast.Import):
            found.update(alias.name for alias in node.names)
    return found


FILES = sorted(file for file in PACKAGE.rglob("*.py"))


@pytest.mark.parametrize("file", FILES, ids=lambda file: str(file.relative_to(ROOT)))
def test_a_room_imports_only_what_stands_before_it(file: Path) -> None:
    own = room("clear_steps." + ".".join(file.relative_to(PACKAGE).with_suffix("").parts))
    used = imports(file)
    ours = {room(module) for module in used if module.startswith("clear_steps.")} - {own}
    if own in ALLOWED:
        assert ours <= ALLOWED[own]
    if own.startswith("core"):
        assert not {module.split(".")[0] for module in used} & FORBIDDEN_IN_CORE


def test_every_room_was_looked_at() -> None:
    rooms = {
        room("clear_steps." + ".".join(file.relative_to(PACKAGE).with_suffix("").parts)) for file in FILES
    }
    assert set(ALLOWED) <= rooms
