"""The application: the routers, the errors, and the built front end beside them."""

from pathlib import Path

from fastapi import FastAPI
from fastapi.responses import FileResponse, Response
from fastapi.staticfiles import StaticFiles
from starlette.exceptions import HTTPException

from fortis import __version__
from fortis.api import arranging, compose, floor, kit, ledger, lifts, problems, structures, templates, today
from fortis.store.database import Database

FRONT_END = Path(__file__).resolve().parents[2] / "web" / "dist"


def create_app(database: Database | None = None, front_end: Path = FRONT_END) -> FastAPI:
    """Make the application over an open database; without one it can only describe itself."""
    app = FastAPI(title="Fortis", version=__version__, docs_url=None, redoc_url=None)
    app.state.database = database
    problems.install(app)
    for view in (today, floor, compose, arranging, structures, lifts, templates, ledger, kit):
        app.include_router(view.router)
    if front_end.is_dir():
        _serve_front_end(app, front_end)
    return app


FRESH = {"Cache-Control": "no-cache"}
"""Asked about every time: the page and the service worker decide which version runs."""


def _serve_front_end(app: FastAPI, front_end: Path) -> None:
    """Serve the built files, and the page itself for every address that is a view."""
    app.mount("/assets", StaticFiles(directory=front_end / "assets"), name="assets")

    @app.get("/{path:path}", include_in_schema=False)
    def page(path: str) -> Response:
        if path.startswith("api/"):
            raise HTTPException(404, "There is nothing at this address.")
        file = (front_end / path).resolve()
        if path and file.is_file() and file.is_relative_to(front_end.resolve()):
            return FileResponse(file, headers=FRESH)
        return FileResponse(front_end / "index.html", headers=FRESH)
