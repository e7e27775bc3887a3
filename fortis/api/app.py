"""The application: the routers, the errors, and the built front end beside them."""

from collections.abc import Iterable
from pathlib import Path

from fastapi import FastAPI
from starlette_compress import CompressMiddleware

from fortis import __version__
from fortis.api import (
    arranging,
    blocks,
    compose,
    export,
    fitting,
    floor,
    imports,
    kit,
    ledger,
    lifts,
    lot,
    meet_day,
    policies,
    problems,
    season,
    strength,
    structures,
    suggestions,
    templates,
    today,
    trials,
    watch,
    weeks,
)
from fortis.api.description import describe
from fortis.api.front_end import serve_files, serve_pages
from fortis.api.guard import Guard
from fortis.api.waiting import WaitingFiles
from fortis.store.cache import note_versions
from fortis.store.database import Database, writing

FRONT_END = Path(__file__).resolve().parents[2] / "web" / "dist"
SMALLEST_COMPRESSED = 1_000
"""Bytes under which an answer is sent as it is."""


def create_app(database: Database | None = None, front_end: Path = FRONT_END, names: Iterable[str] = ()) -> FastAPI:
    """Make the application over an open database; without one it can only describe itself.

    `names` are the hosts it answers to beside those of this machine.
    """
    app = FastAPI(title="Fortis", version=__version__, docs_url=None, redoc_url=None)
    app.state.database, app.state.writing = database, database and writing(database)
    app.state.waiting = WaitingFiles()
    for units_of_work in (app.state.database, app.state.writing):
        if units_of_work:
            note_versions(units_of_work)
    problems.install(app)
    describe(app)
    views = today, floor, compose, arranging, structures, lifts, templates, weeks, blocks, ledger, strength
    more = policies, kit, season, watch, trials, lot, fitting, suggestions, meet_day, export, imports
    if front_end.is_dir():
        serve_files(app, front_end)
    for view in (*views, *more):
        app.include_router(view.router)
    app.add_middleware(CompressMiddleware, minimum_size=SMALLEST_COMPRESSED)
    app.add_middleware(Guard, names=tuple(names))
    if front_end.is_dir():
        serve_pages(app, front_end)
    return app
