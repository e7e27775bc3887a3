"""The record to take away, in open formats: all of it, its bouts, its sessions as text or on a card, its plans."""

from collections.abc import Iterable, Iterator
from contextlib import ExitStack
from tempfile import SpooledTemporaryFile
from typing import IO
from urllib.parse import quote
from uuid import UUID

from fastapi import APIRouter, Response
from fastapi.responses import StreamingResponse

from fortis.api import lookups
from fortis.api.floor import cues_of
from fortis.api.problems import ProblemDetail
from fortis.api.views import planned_cost
from fortis.api.work import Now, Work
from fortis.core.card import card_of
from fortis.core.structure.notation import read
from fortis.core.units import Unit
from fortis.formats.calendar import write_calendar
from fortis.formats.csv import write_bouts
from fortis.formats.record import schema, write_record
from fortis.store import bouts as bouts_of
from fortis.store import sessions
from fortis.store.appointments import appointments
from fortis.store.log import logged
from fortis.store.notebook import notebook
from fortis.store.played import added_up
from fortis.store.transfer import about_lifter, all_sessions

router = APIRouter(prefix="/api/export", tags=["export"])

CSV, CALENDAR, TEXT, PDF = "text/csv", "text/calendar", "text/plain", "application/pdf"
JSON, SCHEMA = "application/json", "application/schema+json"
AT_ONCE = 1 << 20
"""Bytes of a long file that are held at once."""


def _documented(media: str) -> dict[int | str, dict[str, object]]:
    kind = "object" if media in (JSON, SCHEMA) else "string"
    return {200: {"content": {media: {"schema": {"type": kind}}}}}


@router.get("/bouts.csv", response_class=Response, responses=_documented(CSV))
def bouts(work: Work) -> Response:
    """Every bout of the record, the oldest first, as docs/formats.md tells it."""
    return long_file(write_bouts(logged(work)), CSV, "fortis-bouts.csv")


@router.get("/planned.ics", response_class=Response, responses=_documented(CALENDAR))
def planned(work: Work, now: Now) -> Response:
    """What is planned for a day, as a calendar."""
    return _file(write_calendar(appointments(work), now), CALENDAR, "fortis-planned.ics")


@router.get("/record.json", response_class=Response, responses=_documented(JSON))
def record(work: Work) -> Response:
    """The whole record, as its JSON Schema tells it."""
    return long_file(write_record(about_lifter(work), all_sessions(work)), JSON, "fortis-record.json")


@router.get("/record.schema.json", responses=_documented(SCHEMA), response_class=Response)
def record_schema() -> Response:
    """The JSON Schema of the whole record."""
    return _file(schema().encode(), SCHEMA, "fortis-record.schema.json")


@router.get("/sessions.txt", response_class=Response, responses=_documented(TEXT))
def every_session(work: Work) -> Response:
    """Every session in the written notation: what was done, then what is planned."""
    return long_file(notebook(work), TEXT, "fortis-sessions.txt")


@router.get(
    "/sessions/{session_id}/card.pdf",
    response_class=Response,
    responses={**_documented(PDF), 404: {"model": ProblemDetail}},
)
def session_card(session_id: UUID, work: Work, now: Now) -> Response:
    """A session on a card to print: what is asked, with room to write, or what was done."""
    from fortis.formats.card_pdf import write_card  # here: the server starts half a second sooner without it

    row = sessions.get(work, str(session_id))
    prescription = lookups.plan_of(work, row, now)
    done = bouts_of.of(work, row.id)
    if row.finished_at:
        added, seconds = added_up(work, row), sessions.time_on_the_floor(row, done).total_seconds()
        summary = f"{round(seconds / 60)} min on the floor, {added.reps} reps, {added.tonnage_kg:,.0f} kg"
    else:
        cost = planned_cost(prescription, lookups.basis_of(work, row, now))
        summary = f"about {round(cost.seconds / 60)} min, {cost.reps} reps, {cost.tonnage_kg:,.0f} kg"
    card = card_of(
        read(row.written, Unit(row.unit)),
        prescription,
        sessions.day_of(row) or row.planned_on,
        summary,
        {cue.exercise: cue.text for cue in cues_of(work, row, prescription, now)},
        [each.bout for each in done],
    )
    return _file(write_card(card, now), PDF, f"{row.title}.pdf")


def _file(content: bytes, media: str, name: str) -> Response:
    kind = media if media == PDF else f"{media}; charset=utf-8"
    return Response(content, media_type=kind, headers=_as_file(name))


def long_file(pieces: Iterable[str], media: str, name: str) -> Response:
    """A file that grows with the log: whole on the disk before any of it is sent, and never whole in memory."""
    with ExitStack() as stack:
        file = stack.enter_context(SpooledTemporaryFile(AT_ONCE))
        for piece in pieces:  # `writelines` would keep all of it in memory first
            file.write(piece.encode())
        headers = {**_as_file(name), "Content-Length": str(file.tell())}
        file.seek(0)
        stack.pop_all()
    return StreamingResponse(_read(file), media_type=f"{media}; charset=utf-8", headers=headers)


def _read(file: IO[bytes]) -> Iterator[bytes]:
    """What is in a file, bit by bit; it is gone then."""
    with file:
        while some := file.read(AT_ONCE):
            yield some


def _as_file(name: str) -> dict[str, str]:
    return {"Content-Disposition": f"attachment; filename*=UTF-8''{quote(name)}"}
