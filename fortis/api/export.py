"""The record to take away, in open formats: all of it, every bout, every session as text, what is planned."""

from fastapi import APIRouter, Response

from fortis.api.work import Now, Work
from fortis.formats.calendar import write_calendar
from fortis.formats.csv import write_bouts
from fortis.formats.record import schema, write_record
from fortis.store.appointments import appointments
from fortis.store.log import logged
from fortis.store.notebook import notebook
from fortis.store.transfer import about_lifter, all_sessions

router = APIRouter(prefix="/api/export", tags=["export"])

CSV, CALENDAR, TEXT = "text/csv", "text/calendar", "text/plain"
JSON, SCHEMA = "application/json", "application/schema+json"


def _documented(media: str) -> dict[int | str, dict[str, object]]:
    kind = "object" if media in (JSON, SCHEMA) else "string"
    return {200: {"content": {media: {"schema": {"type": kind}}}}}


@router.get("/bouts.csv", response_class=Response, responses=_documented(CSV))
def bouts(work: Work) -> Response:
    """Every bout of the record, the oldest first, as docs/formats.md tells it."""
    return _file("".join(write_bouts(logged(work))).encode(), CSV, "fortis-bouts.csv")


@router.get("/planned.ics", response_class=Response, responses=_documented(CALENDAR))
def planned(work: Work, now: Now) -> Response:
    """What is planned for a day, as a calendar."""
    return _file(write_calendar(appointments(work), now), CALENDAR, "fortis-planned.ics")


@router.get("/record.json", response_class=Response, responses=_documented(JSON))
def record(work: Work) -> Response:
    """The whole record, as its JSON Schema tells it."""
    content = "".join(write_record(about_lifter(work), all_sessions(work)))
    return _file(content.encode(), JSON, "fortis-record.json")


@router.get("/record.schema.json", responses=_documented(SCHEMA), response_class=Response)
def record_schema() -> Response:
    """The JSON Schema of the whole record."""
    return _file(schema().encode(), SCHEMA, "fortis-record.schema.json")


@router.get("/sessions.txt", response_class=Response, responses=_documented(TEXT))
def sessions(work: Work) -> Response:
    """Every session in the written notation: what was done, then what is planned."""
    return _file("".join(notebook(work)).encode(), TEXT, "fortis-sessions.txt")


def _file(content: bytes, media: str, name: str) -> Response:
    headers = {"Content-Disposition": f'attachment; filename="{name}"'}
    return Response(content, media_type=f"{media}; charset=utf-8", headers=headers)
