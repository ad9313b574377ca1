"""Routes of the library as a whole: everything as one file, its copies, and back; the demo begun over."""

import tempfile
from dataclasses import asdict
from datetime import date
from pathlib import Path

from apiflask import APIBlueprint
from flask import Response, request, send_file

from clear_steps.core.errors import InvalidValueError
from clear_steps.demo import begin_over, seed
from clear_steps.store import Songs
from clear_steps.store.backups import contents_of, copy_named, restore, write_backup
from clear_steps.store.copies import CopyKind, folder_of, kept_copies, stamp
from clear_steps.store.marked import is_marked
from clear_steps.web.current import current_database
from clear_steps.web.library import schemas as api
from clear_steps.web.security import BACKUP_PATH
from clear_steps.web.versions.stored import running_jobs

_PIECE_BYTES = 1 << 20
_OPENED = "opened-"  # a backup from elsewhere, until the next one is opened
blueprint = APIBlueprint("library", __name__, url_prefix="/api")


@blueprint.get("/library")
@blueprint.output(api.LibraryModel)
def get_library() -> api.LibraryModel:
    """Where everything is, and which copies of it there are."""
    database = current_database()
    with database.reading() as session:
        songs = len(Songs(session).every())
    return api.LibraryModel(
        is_demo=is_marked(database),
        path=str(database.path),
        songs=songs,
        copies=[
            api.CopyModel.model_validate(copy, from_attributes=True) for copy in kept_copies(database.path)
        ],
    )


@blueprint.get("/library/backup")
@blueprint.doc(hide=True)
def get_backup() -> Response:
    """Everything as one file."""
    with tempfile.TemporaryDirectory(prefix="backup-") as directory:
        copy = write_backup(current_database(), Path(directory) / "backup.sqlite3")
        content = copy.open("rb")  # stays readable when its name is gone
    name = f"clear-steps-{date.today():%Y-%m-%d}.sqlite3"
    return send_file(content, "application/vnd.sqlite3", as_attachment=True, download_name=name)


@blueprint.post(BACKUP_PATH.removeprefix("/api"))
@blueprint.output(api.ContentsModel, status_code=201)
@blueprint.doc(hide=True)
def take_backup() -> api.ContentsModel:
    """Look into a backup and keep it as a copy that can be restored; raises NoBackupError where it cannot,
    and keeps nothing then."""
    path = current_database().path
    folder = folder_of(path, CopyKind.REPLACED)
    unfinished = folder / f"{_OPENED}{stamp()}.unfinished"
    try:
        with unfinished.open("wb") as file:
            while piece := request.stream.read(_PIECE_BYTES):
                file.write(piece)
        found = contents_of(unfinished, "this file")
        for earlier in folder.glob(f"{_OPENED}*.sqlite3"):  # looked into, and not needed for an undo
            earlier.unlink(missing_ok=True)
        kept = unfinished.replace(unfinished.with_suffix(".sqlite3"))
    finally:
        unfinished.unlink(missing_ok=True)
    name = f"{CopyKind.REPLACED}/{kept.name}"
    return api.ContentsModel(name=name, **asdict(found))


@blueprint.get("/library/contents")
@blueprint.input(api.CopyIn, location="query", arg_name="query")
@blueprint.output(api.ContentsModel)
def get_contents(query: api.CopyIn) -> api.ContentsModel:
    """What is in a copy; raises NotFoundError or NoBackupError."""
    found = contents_of(copy_named(current_database().path, query.name))
    return api.ContentsModel(name=query.name, **asdict(found))


@blueprint.post("/library/restored")
@blueprint.input(api.CopyIn, arg_name="body")
@blueprint.output(api.KeptCopyModel)
def restore_copy(body: api.CopyIn) -> api.KeptCopyModel:
    """Put a copy in the place of everything; what stood there is kept, and restored it is undone."""
    database = current_database()
    running_jobs().stop_all()  # a version found of what is replaced would be stored under another song
    return _kept(restore(database, copy_named(database.path, body.name)))


@blueprint.post("/library/demo-songs")
@blueprint.output(api.SeededModel, status_code=201)
def put_demo_songs_in() -> api.SeededModel:
    """Put in the demo songs that are not there."""
    return api.SeededModel(songs=seed(current_database()))


@blueprint.post("/library/begun-over")
@blueprint.output(api.KeptCopyModel)
def begin_demo_over() -> api.KeptCopyModel:
    """The demo as it was at first; what stood there is kept, and restored it is undone."""
    database = current_database()
    if not is_marked(database):
        raise InvalidValueError("library", "your own", "the demo's; your own is never begun over")
    running_jobs().stop_all()
    return _kept(begin_over(database))


def _kept(copy: Path) -> api.KeptCopyModel:
    return api.KeptCopyModel(kept=f"{copy.parent.name}/{copy.name}")
