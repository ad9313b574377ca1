"""The application factory."""

from pathlib import Path

from apiflask import APIFlask
from flask import Response, g, send_from_directory
from flask_compress import Compress

from clear_steps import __version__
from clear_steps.store import Database
from clear_steps.web.errors import handle_errors
from clear_steps.web.files.routes import blueprint as file_blueprint
from clear_steps.web.groups.routes import blueprint as group_blueprint
from clear_steps.web.ladders.routes import blueprint as ladder_blueprint
from clear_steps.web.lessons.routes import blueprint as lesson_blueprint
from clear_steps.web.library.routes import blueprint as library_blueprint
from clear_steps.web.openapi import one_name_each
from clear_steps.web.passages.routes import blueprint as passage_blueprint
from clear_steps.web.schemas import ErrorModel
from clear_steps.web.security import LOOPBACK_HOSTS, guard
from clear_steps.web.songs.cards import Cards
from clear_steps.web.songs.routes import blueprint as song_blueprint
from clear_steps.web.students.routes import blueprint as student_blueprint
from clear_steps.web.versions.changing import blueprint as change_blueprint
from clear_steps.web.versions.finding import blueprint as way_blueprint
from clear_steps.web.versions.jobs import Jobs
from clear_steps.web.versions.routes import blueprint as version_blueprint
from clear_steps.web.workers import Here, Workers

PAGES = Path(__file__).parent / "static"
NONCE_MARK = "%nonce%"
A_YEAR_S = 31_536_000  # files under assets/ carry a digest in their name and never change


def create_app(
    database: Database,
    hosts: frozenset[str] = LOOPBACK_HOSTS,
    pages: Path = PAGES,
    workers: Workers | None = None,
) -> APIFlask:
    """The whole application on a database; `hosts` are the names it answers to, `workers` do what takes
    long."""
    app = APIFlask(
        "clear_steps",
        title="Clear Steps",
        version=__version__,
        docs_path=None,
        spec_path="/api/openapi.json",
        static_folder=None,  # type: ignore[arg-type]  # taken by Flask: no such route then
    )
    app.config["VALIDATION_ERROR_SCHEMA"] = ErrorModel
    app.config["HTTP_ERROR_SCHEMA"] = ErrorModel
    workers = workers or Here()
    app.extensions["clear_steps_database"] = database
    app.extensions["clear_steps_workers"] = workers
    app.extensions["clear_steps_cards"] = Cards(database, workers)
    app.extensions["clear_steps_jobs"] = Jobs()
    guard(app, hosts)
    handle_errors(app)
    app.config["COMPRESS_ALGORITHM"] = ["gzip"]
    Compress(app)
    for routes in (
        song_blueprint,
        passage_blueprint,
        version_blueprint,
        way_blueprint,
        change_blueprint,
        student_blueprint,
        group_blueprint,
        ladder_blueprint,
        lesson_blueprint,
        file_blueprint,
        library_blueprint,
    ):
        app.register_blueprint(routes)
    app.spec_processor(one_name_each)
    _serve_pages(app, pages)
    return app


def _serve_pages(app: APIFlask, pages: Path) -> None:
    @app.get("/")
    @app.doc(hide=True)
    def _index() -> Response:
        page = (pages / "index.html").read_text(encoding="utf-8").replace(NONCE_MARK, g.nonce)
        return Response(page, mimetype="text/html", headers={"Cache-Control": "no-store"})

    @app.get("/<path:name>")
    @app.doc(hide=True)
    def _file(name: str) -> Response:
        return send_from_directory(pages, name, max_age=A_YEAR_S if name.startswith("assets/") else 0)
