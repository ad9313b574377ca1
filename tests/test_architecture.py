"""The direction of imports: score -> shapes -> hand -> figures -> grade; core knows nothing around it."""

import ast
from pathlib import Path

import pytest

ROOT = Path(__file__).parents[1]
PACKAGE = ROOT / "clear_steps"
ALLOWED = {
    "core": set(),
    "core.errors": set(),
    "core.score": {"core.errors"},
    "core.shapes": {"core.score"},
    "core.hand": {"core.errors", "core.score", "core.shapes"},
    "core.changes": {"core.score", "core.shapes", "core.hand"},
    "core.figures": {"core.score", "core.shapes"},
    "core.grade": {"core.errors", "core.score", "core.shapes", "core.hand", "core.figures"},
    "core.easier": {
        *("core.errors", "core.score", "core.shapes", "core.hand", "core.figures", "core.grade"),
    },
    "core.teach": {
        *("core.errors", "core.score", "core.shapes", "core.hand", "core.changes", "core.figures"),
        "core.grade",
    },
    "plainjson": {"core.errors"},
    "ladders": {"core.errors", "core.score", "core.shapes", "core.hand", "core.grade"},
    "formats": {
        *("core.errors", "core.score", "core.shapes", "core.hand", "core.grade", "ladders", "plainjson"),
    },
    "store": {
        *("core.errors", "core.score", "core.hand", "core.grade", "core.easier", "core.teach", "plainjson"),
    },
    "demo": {"core.score", "core.hand", "core.grade", "core.easier", "formats", "ladders", "store"},
    "report": {
        *("core.errors", "core.score", "core.hand", "core.figures", "core.grade", "core.easier"),
        *("core.shapes", "core.changes", "core.teach", "formats"),
    },
    "web": {
        *("core.errors", "core.score", "core.hand", "core.figures", "core.grade", "core.easier"),
        *("core.shapes", "core.changes", "core.teach", "", "demo", "ladders", "formats", "store"),
    },
    "libraries": {"demo", "store"},
    "cli": {
        *("core.errors", "core.score", "core.hand", "core.figures", "core.grade", "core.easier"),
        *("core.teach", "formats", "ladders", "libraries", "report", "store", "web"),
    },
    "": set(),
}
# Within the web each knows only those before it.
WEB = (
    *("", "schemas", "security", "workers", "remembering", "program", "current", "errors", "openapi", "whom"),
    "analysis",
    *(
        "songs",
        "passages",
        "files",
        "ladders",
        "versions",
        "lessons",
        "groups",
        "students",
        "library",
        "app",
        "serving",
        "rows",
    ),
    "__main__",
)
FORBIDDEN_IN_CORE = {
    *("flask", "apiflask", "sqlalchemy", "pathlib", "os", "io"),
    *("time", "datetime", "random", "json", "sqlite3", "pydantic"),
}


def module_of(file: Path) -> str:
    parts = file.relative_to(PACKAGE.parent).with_suffix("").parts
    return ".".join(parts[:-1] if parts[-1] == "__init__" else parts)


def room(module: str) -> str:
    parts = module.split(".")[1:]
    return ".".join(parts[:2]) if parts[:1] == ["core"] else parts[0] if parts else ""


def web_room(module: str) -> str:
    return [*module.split(".")[2:], ""][0]


def imports(file: Path) -> set[str]:
    found = set()
    for node in ast.walk(ast.parse(file.read_text())):
        if isinstance(node, ast.ImportFrom) and node.module:
            inside = {f"{node.module}.{alias.name}" for alias in node.names}
            modules = {module for module in inside if module in MODULES}
            found |= modules or {node.module}
        elif isinstance(node, ast.Import):
            found.update(alias.name for alias in node.names)
    return found


FILES = sorted(PACKAGE.rglob("*.py"))
MODULES = {module_of(file) for file in FILES}


@pytest.mark.parametrize("file", FILES, ids=lambda file: str(file.relative_to(ROOT)))
def test_a_room_imports_only_what_stands_before_it(file: Path) -> None:
    module = module_of(file)
    own, used = room(module), imports(file)
    assert own in ALLOWED, f"{own} is a room nobody has placed"
    ours = {room(name) for name in used if name.split(".")[0] == "clear_steps"} - {own}
    assert ours <= ALLOWED[own]
    if own.startswith("core"):
        assert not {name.split(".")[0] for name in used} & FORBIDDEN_IN_CORE


@pytest.mark.parametrize(
    "file", sorted((PACKAGE / "web").rglob("*.py")), ids=lambda file: str(file.relative_to(PACKAGE))
)
def test_within_the_web_imports_go_one_way(file: Path) -> None:
    own = web_room(module_of(file))
    assert own in WEB, f"{own} is a room nobody has placed"
    used = {web_room(name) for name in imports(file) if name.startswith("clear_steps.web")} - {own}
    assert used <= set(WEB[: WEB.index(own)])


def test_every_room_was_looked_at() -> None:
    assert {room(module) for module in MODULES} == set(ALLOWED)
    assert {web_room(module) for module in MODULES if module.startswith("clear_steps.web")} == set(WEB)
