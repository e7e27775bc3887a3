"""Logs of other making: brought as a file, read as the lifter says, written when they agree, and taken back."""

from collections.abc import Mapping
from datetime import datetime
from typing import Annotated, Literal
from uuid import UUID

from anyio import open_file, to_thread
from fastapi import APIRouter, Query, Request, Response
from pydantic import BaseModel, Field

from fortis.api.waiting import State, WaitingFile, WaitingFiles
from fortis.api.work import Now, Work, WritingWork, commits
from fortis.core.exercises import LONGEST_NAME
from fortis.core.units import Unit
from fortis.formats.foreign import Holds, Reading
from fortis.formats.moment import DateOrder
from fortis.formats.table import MOST_COLUMNS, Delimiter, Encoding
from fortis.store import imports
from fortis.store.imports import LogPreview
from fortis.store.tables import ImportRow

router = APIRouter(prefix="/api/imports", tags=["imports"])

BYTES = "application/octet-stream"


class Imported(BaseModel):
    """A log that was taken in, and when it was taken back, if it was."""

    id: str
    name: str
    at: datetime
    sessions: int
    bouts: int
    taken_back_at: datetime | None


class ReadAs(BaseModel):
    """How a file is to be read.

    `columns` has what each column holds, in their order, None where it holds nothing of use.
    """

    encoding: Encoding
    delimiter: Delimiter
    columns: Annotated[list[Holds | None], Field(max_length=MOST_COLUMNS)]
    unit: Unit
    decimal: Literal[".", ","]
    dates: DateOrder


class WaitingView(BaseModel):
    """A file that waits. `names` are its columns, `sample` the cells of its first rows.

    `doubts` tells in words what of the guess is in doubt.

    `through` counts the rows read, or the bouts written, so far. `lifts` are those meant by the names in the file;
    one that is empty is left out. `why` tells what is wrong where it is refused.
    """

    id: str
    name: str
    state: State
    through: int
    why: str
    names: list[str]
    sample: list[list[str]]
    read_as: ReadAs | None
    doubts: tuple[str, ...]
    lifts: Mapping[str, str]
    examined: LogPreview | None
    import_id: str


@router.get("")
def all_imports(work: Work) -> list[Imported]:
    """The logs that were taken in, the latest first."""
    return [_imported(row) for row in imports.all_imports(work)]


@router.post(
    "/files",
    status_code=201,
    openapi_extra={"requestBody": {"content": {BYTES: {"schema": {"type": "string", "format": "binary"}}}}},
)
async def bring(request: Request, name: Annotated[str, Query(min_length=1, max_length=200)]) -> WaitingView:
    """Bring a file, which is read and waits for the lifter to agree."""
    file = WaitingFile(request.app.state.database, name)
    async with await open_file(file.path, "wb") as into:
        async for some in request.stream():
            await into.write(some)
    _waiting(request).add(file)
    await to_thread.run_sync(file.look)
    return _view(file)


@router.get("/files/{file_id}")
def waiting(request: Request, file_id: UUID) -> WaitingView:
    """A file that waits, and how far it is."""
    return _view(_waiting(request).get(str(file_id)))


@router.put("/files/{file_id}/reading")
def read_as(request: Request, file_id: UUID, told: ReadAs) -> WaitingView:
    """Read a file that waits in another way; with another encoding or delimiter the columns are guessed anew."""
    file = _waiting(request).get(str(file_id))
    layout = file.reading.layout if file.reading else None
    if layout is None or (layout.encoding, layout.delimiter) != (told.encoding, told.delimiter):
        file.look(told.encoding, told.delimiter)
    else:
        columns = {holds: at for at, holds in enumerate(told.columns) if holds}
        file.read(Reading(layout=layout, columns=columns, unit=told.unit, decimal=told.decimal, dates=told.dates))
    return _view(file)


@router.put("/files/{file_id}/lifts")
def mean(
    request: Request,
    file_id: UUID,
    lifts: Mapping[Annotated[str, Field(max_length=LONGEST_NAME)], Annotated[str, Field(max_length=LONGEST_NAME)]],
) -> WaitingView:
    """Take names of lifts in the file for others; a name that means nothing is left out."""
    file = _waiting(request).get(str(file_id))
    file.mean(lifts)
    return _view(file)


@router.post("/files/{file_id}/write", status_code=202)
def write(request: Request, file_id: UUID) -> WaitingView:
    """Write a file that waits into the record: the lifter agrees."""
    file = _waiting(request).get(str(file_id))
    file.write()
    return _view(file)


@router.delete("/files/{file_id}", status_code=204, response_class=Response)
def let_go(request: Request, file_id: UUID) -> None:
    """Let a file go that waits; nothing of it is in the record but what was written."""
    _waiting(request).let_go(str(file_id))


@router.post("/{import_id}/take-back")
@commits
def take_back(work: WritingWork, import_id: UUID, now: Now) -> Imported:
    """Take back everything that came with an import; twice is once."""
    return _imported(imports.take_back(work, str(import_id), now))


@router.post("/{import_id}/bring-back")
@commits
def bring_back(work: WritingWork, import_id: UUID) -> Imported:
    """Bring back an import that was taken back; twice is once."""
    return _imported(imports.bring_back(work, str(import_id)))


def _waiting(request: Request) -> WaitingFiles:
    files: WaitingFiles = request.app.state.waiting
    return files


def _imported(row: ImportRow) -> Imported:
    return Imported.model_validate(row, from_attributes=True)


def _view(file: WaitingFile) -> WaitingView:
    reading = file.reading
    return WaitingView(
        id=file.id,
        name=file.name,
        state=file.state,
        through=file.through,
        why=file.why,
        names=file.names,
        sample=file.sample,
        read_as=reading and _read_as(reading, len(file.names)),
        doubts=file.doubts,
        lifts=file.lifts,
        examined=file.examined,
        import_id=file.import_id,
    )


def _read_as(reading: Reading, many: int) -> ReadAs:
    held = {at: holds for holds, at in reading.columns.items()}
    return ReadAs(
        encoding=reading.layout.encoding,
        delimiter=reading.layout.delimiter,
        columns=[held.get(at) for at in range(many)],
        unit=reading.unit,
        decimal=reading.decimal,
        dates=reading.dates,
    )
