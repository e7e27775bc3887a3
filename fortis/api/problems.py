"""Errors as problem+json (RFC 9457), each naming what is wrong and where."""

import sqlite3
from typing import Any, NamedTuple

from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse
from pydantic import BaseModel
from sqlalchemy.exc import DBAPIError
from starlette.exceptions import HTTPException
from starlette.routing import Match

from fortis.api.turns import BusyError
from fortis.api.waiting import NotReadError, UnknownFileError
from fortis.core.loading.kit import PlatesError
from fortis.core.loading.resistance import TooFewMeasuresError
from fortis.core.performance import PerformedBout
from fortis.core.remembered import NotRememberedError
from fortis.core.season.reading import SeasonError
from fortis.core.season.suggesting import WishError
from fortis.core.structure.methods import UnknownMethodError
from fortis.core.structure.notation import NotationError, Problem
from fortis.store.imports import UnknownImportError
from fortis.store.lifts import NameTakenError
from fortis.store.places import LastPlaceError, PlaceNameTakenError, UnknownPlaceError
from fortis.store.recording import ChangedElsewhereError
from fortis.store.seasons import ChangedMeanwhileError, SeasonEndedError, UnderwayError
from fortis.store.sessions import NotStartedError, StartedError, UnknownSessionError


class FieldProblem(BaseModel):
    """A field that is wrong, and how."""

    field: str
    message: str


class There(BaseModel):
    """A bout as the record has it, where it is not as the sender last saw it; None where it was taken back."""

    bout: PerformedBout | None
    version: int


class ProblemDetail(BaseModel):
    """The body of every error."""

    title: str
    status: int
    detail: str
    fields: list[FieldProblem] = []
    problems: list[Problem] = []
    there: There | None = None


def install(app: FastAPI) -> None:
    """Turn every error the app knows into a problem."""

    @app.exception_handler(RequestValidationError)
    async def _invalid(_: Request, error: RequestValidationError) -> JSONResponse:
        fields = [
            FieldProblem(field=".".join(str(part) for part in each["loc"][1:]) or "body", message=each["msg"])
            for each in error.errors()
        ]
        detail = "; ".join(f"{each.field}: {each.message}" for each in fields)
        return problem(422, "That cannot be taken as it is", detail, fields=fields)

    @app.exception_handler(NotationError)
    async def _notation(_: Request, error: NotationError) -> JSONResponse:
        return problem(422, "The text is not a session yet", str(error), problems=list(error.problems))

    @app.exception_handler(SeasonError)
    async def _season(_: Request, error: SeasonError) -> JSONResponse:
        return problem(422, "The text is not a season yet", str(error), problems=list(error.problems))

    @app.exception_handler(SeasonEndedError)
    async def _season_ended(_: Request, __: SeasonEndedError) -> JSONResponse:
        detail = "This season was ended, so it stays as it is. Begin another one with its text."
        return problem(409, "The season was ended", detail)

    @app.exception_handler(UnderwayError)
    async def _underway(_: Request, __: UnderwayError) -> JSONResponse:
        return problem(409, "A season is under way", "End the season that is under way before you begin another.")

    @app.exception_handler(ChangedMeanwhileError)
    async def _season_changed(_: Request, __: ChangedMeanwhileError) -> JSONResponse:
        detail = "The season was changed meanwhile, on another device or in another window: it is not written over."
        return problem(409, "The season has changed", detail)

    @app.exception_handler(WishError)
    async def _wish(_: Request, error: WishError) -> JSONResponse:
        return problem(422, "There is no such season", str(error))

    @app.exception_handler(NotRememberedError)
    async def _not_remembered(_: Request, error: NotRememberedError) -> JSONResponse:
        return problem(422, "Not a set or a max", str(error))

    @app.exception_handler(UnknownSessionError)
    async def _unknown(_: Request, __: UnknownSessionError) -> JSONResponse:
        detail = "This session is not in the record. Perhaps the record was brought back from an older backup."
        return problem(404, "No such session", detail)

    @app.exception_handler(UnknownFileError)
    async def _unknown_file(_: Request, __: UnknownFileError) -> JSONResponse:
        return problem(404, "No such file", "This file does not wait here any more; choose it again.")

    @app.exception_handler(UnknownImportError)
    async def _unknown_import(_: Request, __: UnknownImportError) -> JSONResponse:
        return problem(404, "No such import", "No log was taken in under this number.")

    @app.exception_handler(NotReadError)
    async def _not_read(_: Request, __: NotReadError) -> JSONResponse:
        detail = "There is nothing of this file to write yet, or it is written already."
        return problem(409, "Nothing to write", detail)

    @app.exception_handler(UnknownMethodError)
    async def _unknown_method(_: Request, error: UnknownMethodError) -> JSONResponse:
        return problem(404, "No such structure", f"There is no structure called {error}.")

    @app.exception_handler(UnknownPlaceError)
    async def _unknown_place(_: Request, error: UnknownPlaceError) -> JSONResponse:
        return problem(404, "No such place", f"There is no place {error}.")

    @app.exception_handler(LastPlaceError)
    async def _last_place(_: Request, error: LastPlaceError) -> JSONResponse:
        return problem(409, "The only place stays", f"Place {error} is the only one; change its kit instead.")

    @app.exception_handler(PlaceNameTakenError)
    async def _place_name_taken(_: Request, error: PlaceNameTakenError) -> JSONResponse:
        detail = f"Another place is called {error} already; choose another name."
        fields = [FieldProblem(field="kit.place", message=detail)]
        return problem(409, "That name is taken", detail, fields=fields)

    @app.exception_handler(PlatesError)
    async def _plates(_: Request, error: PlatesError) -> JSONResponse:
        return problem(
            422, "Those are no plates", str(error), fields=[FieldProblem(field="plates", message=str(error))]
        )

    @app.exception_handler(TooFewMeasuresError)
    async def _measures(_: Request, error: TooFewMeasuresError) -> JSONResponse:
        return problem(422, "Not enough was weighed", str(error))

    @app.exception_handler(ChangedElsewhereError)
    async def _changed_elsewhere(_: Request, error: ChangedElsewhereError) -> JSONResponse:
        there = There(bout=error.bout, version=error.version)
        detail = "This bout was written elsewhere since; choose which of the two holds."
        return problem(409, "Two answers for one bout", detail, there=there)

    @app.exception_handler(NotStartedError)
    async def _not_started(_: Request, error: NotStartedError) -> JSONResponse:
        return problem(409, "The session has not been started", f"Session {error} has not been started yet.")

    @app.exception_handler(StartedError)
    async def _started(_: Request, error: StartedError) -> JSONResponse:
        detail = (
            f"Session {error} has been started with the text it had; that text stays. "
            "Change it on the Floor, or save this text as another session."
        )
        return problem(409, "The session is being played", detail)

    @app.exception_handler(NameTakenError)
    async def _name_taken(_: Request, error: NameTakenError) -> JSONResponse:
        detail = f"Another lift is called {error} already; choose another name."
        return problem(409, "That name is taken", detail, fields=[FieldProblem(field="name", message=detail)])

    @app.exception_handler(BusyError)
    async def _busy(_: Request, __: BusyError) -> JSONResponse:
        return _unwritten(BUSY)

    @app.exception_handler(DBAPIError)
    async def _database(_: Request, error: DBAPIError) -> JSONResponse:
        code = getattr(error.orig, "sqlite_errorcode", None)
        if code is None or (trouble := TROUBLES.get(code & 0xFF)) is None:
            raise error
        return _unwritten(trouble)

    @app.exception_handler(HTTPException)
    async def _http(request: Request, error: HTTPException) -> JSONResponse:
        if error.status_code == 405:
            return _no_such_method(app, request)
        return problem(error.status_code, str(error.detail), str(error.detail))


class Trouble(NamedTuple):
    """What keeps the record from being used, and what the lifter can do."""

    status: int
    title: str
    detail: str


BUSY = Trouble(503, "The record is busy", "Others are writing to it; nothing was changed. Try again in a moment.")
TROUBLES = {
    sqlite3.SQLITE_BUSY: BUSY,
    sqlite3.SQLITE_LOCKED: BUSY,
    sqlite3.SQLITE_FULL: Trouble(
        507, "The disk is full", "There was no room for this; nothing was changed. Make some, then try again."
    ),
    sqlite3.SQLITE_READONLY: Trouble(
        503,
        "The record cannot be written",
        "Its file or folder may only be read; nothing was changed. Let Fortis write there, then try again.",
    ),
    sqlite3.SQLITE_IOERR: Trouble(
        503,
        "The disk does not answer",
        "The record could not be read or written; nothing was changed. Look after the disk, then try again.",
    ),
    sqlite3.SQLITE_CORRUPT: Trouble(
        500, "The record is damaged", "Its file cannot be read. Stop Fortis and bring back the latest backup."
    ),
}
"""By SQLite's primary result code."""
RETRY_SECONDS = 2


def _unwritten(trouble: Trouble) -> JSONResponse:
    answer = problem(*trouble)
    if trouble.status == 503:
        answer.headers["Retry-After"] = str(RETRY_SECONDS)
    return answer


METHODS = ("DELETE", "GET", "PATCH", "POST", "PUT")
EVERY_VIEW = "page"
"""The name of the route that is there for all addresses without one of their own."""


def _no_such_method(app: FastAPI, request: Request) -> JSONResponse:
    """The answer to a method that an address does not have, or to an address that there is not."""
    own = [route for route in app.routes if getattr(route, "name", "") != EVERY_VIEW]
    allowed = {
        method
        for method in METHODS
        for route in own
        if route.matches({**request.scope, "method": method})[0] is Match.FULL
    }
    if not allowed and request.url.path.startswith("/api/"):
        return problem(404, "Nothing here", "There is nothing at this address.")
    methods = ", ".join(sorted({*allowed, "HEAD"} if "GET" in allowed else allowed or {"GET", "HEAD"}))
    answer = problem(405, "Not so", f"This address is for {methods}.")
    answer.headers["Allow"] = methods
    return answer


def problem(status: int, title: str, detail: str, **more: Any) -> JSONResponse:
    """The answer to what went wrong."""
    body = ProblemDetail(title=title, status=status, detail=detail, **more).model_dump(mode="json")
    return JSONResponse(body, status_code=status, media_type="application/problem+json")
