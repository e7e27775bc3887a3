"""The application: the routers, the errors, and the built front end beside them."""

from collections.abc import Iterable
from pathlib import Path
from secrets import token_urlsafe

from fastapi import FastAPI
from fastapi.responses import FileResponse, HTMLResponse, Response
from fastapi.staticfiles import StaticFiles
from starlette.exceptions import HTTPException
from starlette.types import Scope
from starlette_compress import CompressMiddleware

from fortis import __version__
from fortis.api import arranging, compose, floor, kit, ledger, lifts, problems, structures, templates, today
from fortis.api.description import describe
from fortis.api.guard import Guard, policy
from fortis.store.cache import note_versions
from fortis.store.database import Database, writing

FRONT_END = Path(__file__).resolve().parents[2] / "web" / "dist"


def create_app(database: Database | None = None, front_end: Path = FRONT_END, names: Iterable[str] = ()) -> FastAPI:
    """Make the application over an open database; without one it can only describe itself.

    `names` are the hosts it answers to beside those of this machine.
    """
    app = FastAPI(title="Fortis", version=__version__, docs_url=None, redoc_url=None)
    app.state.database, app.state.writing = database, database and writing(database)
    for units_of_work in (app.state.database, app.state.writing):
        if units_of_work:
            note_versions(units_of_work)
    problems.install(app)
    describe(app)
    for view in (today, floor, compose, arranging, structures, lifts, templates, ledger, kit):
        app.include_router(view.router)
    app.add_middleware(CompressMiddleware, minimum_size=SMALLEST_COMPRESSED)
    app.add_middleware(Guard, names=tuple(names))
    if front_end.is_dir():
        _serve_front_end(app, front_end)
    return app


NONCE = "__STYLE_NONCE__"
"""Stands in the page for the nonce of its style elements."""
FRESH = {"Cache-Control": "no-cache"}
"""Asked about every time: the page and the service worker decide which version runs."""


LONGEST_ADDRESS = 1_000
FOR_GOOD = "public, max-age=31536000, immutable"
SMALLEST_COMPRESSED = 1_000
"""Bytes under which an answer is sent as it is."""


class _Hashed(StaticFiles):
    """Files whose names change with what is in them: a browser never asks for one twice."""

    async def get_response(self, path: str, scope: Scope) -> Response:
        response = await super().get_response(path, scope)
        response.headers["Cache-Control"] = FOR_GOOD
        return response


def _serve_front_end(app: FastAPI, front_end: Path) -> None:
    """Serve the built files, and the page itself for every address that is a view."""
    index = (front_end / "index.html").read_text(encoding="utf-8")
    app.mount("/assets", _Hashed(directory=front_end / "assets"), name="assets")

    @app.get("/{path:path}", include_in_schema=False)
    def page(path: str) -> Response:
        if path.startswith("api/"):
            raise HTTPException(405)
        if "\0" in path or len(path) > LONGEST_ADDRESS:
            raise HTTPException(404, "There is nothing at this address.")
        file = (front_end / path).resolve()
        if path not in ("", "index.html") and file.is_file() and file.is_relative_to(front_end.resolve()):
            return FileResponse(file, headers=FRESH)
        nonce = token_urlsafe(16)
        own = {"Content-Security-Policy": policy(nonce)}
        return HTMLResponse(index.replace(NONCE, nonce), headers=FRESH | own)
