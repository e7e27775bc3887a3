"""The record to take away, in open formats: every bout as CSV, what is planned as a calendar."""

from fastapi import APIRouter, Response

from fortis.api.work import Now, Work
from fortis.formats.calendar import write_calendar
from fortis.formats.csv import write_bouts
from fortis.store.appointments import appointments
from fortis.store.log import logged

router = APIRouter(prefix="/api/export", tags=["export"])

CSV, CALENDAR = "text/csv", "text/calendar"


def _documented(media: str) -> dict[int | str, dict[str, object]]:
    return {200: {"content": {media: {"schema": {"type": "string"}}}}}


@router.get("/bouts.csv", response_class=Response, responses=_documented(CSV))
def bouts(work: Work) -> Response:
    """Every bout of the record, the oldest first, as docs/formats.md tells it."""
    return _file("".join(write_bouts(logged(work))).encode(), CSV, "fortis-bouts.csv")


@router.get("/planned.ics", response_class=Response, responses=_documented(CALENDAR))
def planned(work: Work, now: Now) -> Response:
    """What is planned for a day, as a calendar."""
    return _file(write_calendar(appointments(work), now), CALENDAR, "fortis-planned.ics")


def _file(content: bytes, media: str, name: str) -> Response:
    headers = {"Content-Disposition": f'attachment; filename="{name}"'}
    return Response(content, media_type=f"{media}; charset=utf-8", headers=headers)
