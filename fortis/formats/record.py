"""The whole record as one JSON document: everything that is kept, described by a JSON Schema.

Loads and body weights are text, so that they are exact. What is kept as a document in the record is one here, with
the version of its form; older forms are read, the present one is written.
"""

import json
from collections.abc import Iterable, Iterator
from datetime import date
from decimal import Decimal
from pathlib import Path
from typing import Annotated, Any, BinaryIO, Literal, NamedTuple, TypeVar

import ijson
from pydantic import (
    AwareDatetime,
    Field,
    GetCoreSchemaHandler,
    GetJsonSchemaHandler,
    PlainSerializer,
    WithJsonSchema,
)
from pydantic import ValidationError as Invalid
from pydantic.json_schema import JsonSchemaValue
from pydantic_core import CoreSchema, core_schema

from fortis.core.adjustments import Adjustments
from fortis.core.conventions import Conventions
from fortis.core.exercises import Exercise
from fortis.core.loading.kit import Kit
from fortis.core.loading.strip import PlateOrder
from fortis.core.loading.warm_up import School
from fortis.core.performance import PerformedBout
from fortis.core.progression.policy import Policy
from fortis.core.strength.readiness import Readiness
from fortis.core.structure.prescription import Prescription
from fortis.core.units import Unit
from fortis.core.value import MOST_DIGITS, Value
from fortis.formats.documents import form_of, from_document, to_document

SomeKept = TypeVar("SomeKept", bound=Value)

FORMAT = "fortis record"
VERSION = 1
BEGINS_WITHIN = 1_000
"""Bytes in which a file says that it is a record."""

Exact = Annotated[
    Decimal,
    Field(max_digits=MOST_DIGITS),
    PlainSerializer(lambda number: f"{number:f}", return_type=str, when_used="json"),
    WithJsonSchema({"type": "string", "pattern": r"^-?\d+(\.\d+)?$"}),
]
"""A decimal as text, exact."""


class AsDocument:
    """A value that is written as a document, with the version of its form."""

    def __init__(self, kind: type[Value]) -> None:
        self.kind = kind

    def __get_pydantic_core_schema__(self, _: Any, __: GetCoreSchemaHandler) -> CoreSchema:
        """Read from a document, or taken as it is."""
        return core_schema.no_info_plain_validator_function(
            lambda told: told if isinstance(told, self.kind) else from_document(self.kind, told),
            serialization=core_schema.plain_serializer_function_ser_schema(to_document),
        )

    def __get_pydantic_json_schema__(self, _: CoreSchema, handler: GetJsonSchemaHandler) -> JsonSchemaValue:
        """What a document of the present form looks like."""
        shape = handler.resolve_ref_schema(handler(self.kind.__pydantic_core_schema__))
        form = {"const": form_of(self.kind), "title": "Version", "type": "integer"}
        return {
            **shape,
            "properties": {"version": form, **shape.get("properties", {})},
            "required": ["version", *shape.get("required", [])],
        }


class BoutVersion(Value):
    """A bout as it was recorded at some time on some device; without `bout` where it was taken back."""

    version: int
    at: AwareDatetime
    device: str
    bout: Annotated[PerformedBout, AsDocument(PerformedBout)] | None = None


class BoutKept(PerformedBout):
    """A bout in its latest version: when it began, where that was told, and ended, and every version of it."""

    kg: Exact | None = None
    bottom_kg: Exact | None = None
    top_kg: Exact | None = None
    mean_kg: Exact | None = None
    reserve: Exact | None = None
    began_at: AwareDatetime | None = None
    done_at: AwareDatetime
    device: str
    taken_back_at: AwareDatetime | None = None
    version: int
    versions: tuple[BoutVersion, ...]


class SessionKept(Value):
    """A session, planned, begun or finished: `written` is its text, `resolved` its plan as it was settled."""

    id: str
    slot: str
    title: str
    written: str
    unit: Unit
    planned_on: date | None = None
    started_at: AwareDatetime | None = None
    finished_at: AwareDatetime | None = None
    discarded_at: AwareDatetime | None = None
    zone: str | None = None
    place_id: int | None = None
    kit: Annotated[Kit, AsDocument(Kit)] | None = None
    resolved: Annotated[Prescription, AsDocument(Prescription)] | None = None
    adjustments: Annotated[Adjustments, AsDocument(Adjustments)] | None = None
    felt: int | None = None
    import_id: str | None = None
    season_id: str | None = None
    readiness: Annotated[Readiness, AsDocument(Readiness)] | None = None
    bouts: tuple[BoutKept, ...] = ()


class LifterKept(Value):
    """What the lifter says of themselves."""

    unit: Unit
    zone: str
    training_since: date | None = None
    place_id: int | None = None
    warm_ups: School | None = None
    plate_order: PlateOrder
    ways: Annotated[Conventions, AsDocument(Conventions)] | None = None


class BodyWeightKept(Value):
    """Body weight on a day."""

    on: date
    kg: Exact
    import_id: str | None = None


class PlaceKept(Value):
    """A place to train, with its kit."""

    id: int
    kit: Annotated[Kit, AsDocument(Kit)]


class LiftKept(Value):
    """A lift of the lifter's own."""

    id: str
    lift: Annotated[Exercise, AsDocument(Exercise)]


class TemplateKept(Value):
    """A session's text kept to be used again."""

    id: str
    title: str
    written: str
    unit: Unit


class SetAsideKept(Value):
    """A caution set aside, for a lift or, where that is empty, for all."""

    rule: str
    lift_id: str


class RememberedKept(Value):
    """A set or a max told from memory."""

    id: str
    at: AwareDatetime
    bout: Annotated[PerformedBout, AsDocument(PerformedBout)]
    taken_back_at: AwareDatetime | None = None


class PolicyKept(Value):
    """How a lift is to progress."""

    lift_id: str
    policy: Annotated[Policy, AsDocument(Policy)]


class SeasonKept(Value):
    """A season: its text, when it was last changed, and when it was ended."""

    id: str
    written: str
    unit: Unit
    at: AwareDatetime
    ended_at: AwareDatetime | None = None


class ImportKept(Value):
    """A log that was taken in from a file; `body_weights` are those that came with it, by day."""

    id: str
    name: str
    at: AwareDatetime
    sessions: int
    bouts: int
    body_weights: dict[str, str]
    written_at: AwareDatetime | None = None
    taken_back_at: AwareDatetime | None = None


class AboutLifter(Value):
    """Everything in a record but its sessions."""

    lifter: LifterKept
    places: tuple[PlaceKept, ...]
    body_weights: tuple[BodyWeightKept, ...]
    lifts: tuple[LiftKept, ...]
    templates: tuple[TemplateKept, ...]
    set_aside: tuple[SetAsideKept, ...]
    remembered: tuple[RememberedKept, ...]
    policies: tuple[PolicyKept, ...]
    imports: tuple[ImportKept, ...]
    seasons: tuple[SeasonKept, ...] = ()


class Record(Value):
    """A whole record."""

    format: Literal["fortis record"]
    version: Literal[1]
    about: AboutLifter
    sessions: tuple[SessionKept, ...]


class RecordFile(NamedTuple):
    """A record that is read as it comes: the sessions one by one."""

    about: AboutLifter
    sessions: Iterator[SessionKept]


class RecordFileError(ValueError):
    """A file that is no record this release can read: where, and what is wrong."""


def schema() -> str:
    """The JSON Schema (2020-12) of a record, as it is published."""
    told = {"$schema": "https://json-schema.org/draft/2020-12/schema", **Record.model_json_schema()}
    return json.dumps(told, indent=1) + "\n"


def write_record(about: AboutLifter, sessions: Iterable[SessionKept]) -> Iterator[str]:
    """Write a record piece by piece: it is never held as a whole."""
    yield f'{{"format": "{FORMAT}", "version": {VERSION},\n"about": {about.model_dump_json(exclude_none=True)},\n'
    yield '"sessions": ['
    for number, session in enumerate(sessions):
        yield (",\n" if number else "\n") + session.model_dump_json(exclude_none=True)
    yield "\n]}\n"


def is_record(path: Path) -> bool:
    """Whether a file is a record, by how it begins."""
    with path.open("rb") as file:
        start = file.read(BEGINS_WITHIN)
    return start.lstrip(b"\xef\xbb\xbf \r\n\t").startswith(b"{") and FORMAT.encode() in start


def read_record(file: BinaryIO) -> RecordFile:
    """Read a record. What is wrong in its sessions is told when they come. Raises `RecordFileError`."""
    form, version = (_one(file, name) for name in ("format", "version"))
    if form != FORMAT:
        raise RecordFileError("It is no record of Fortis.")
    if version != VERSION:
        raise RecordFileError(
            f"It is a record of version {version}; this Fortis reads {VERSION}. Take a newer one."
        )
    about = _read(AboutLifter, _one(file, "about"), "about")
    return RecordFile(about, _sessions(file))


def _sessions(file: BinaryIO) -> Iterator[SessionKept]:
    file.seek(0)
    try:
        for number, told in enumerate(ijson.items(file, "sessions.item"), start=1):
            yield _read(SessionKept, told, f"session {number}")
    except ijson.JSONError as error:
        raise RecordFileError(_torn(error)) from error


def _one(file: BinaryIO, name: str) -> Any:
    """One thing of the document. Raises `RecordFileError`."""
    file.seek(0)
    try:
        return next(ijson.items(file, name), None)
    except ijson.JSONError as error:
        raise RecordFileError(_torn(error)) from error


def _torn(error: Exception) -> str:
    return f"The file is torn or no JSON: {str(error).splitlines()[0]}."


def _read(kind: type[SomeKept], told: Any, where: str) -> SomeKept:
    try:
        return kind.model_validate(told)
    except Invalid as error:
        first = error.errors()[0]
        place = ".".join(map(str, (where, *first["loc"])))
        raise RecordFileError(f"{place}: {first['msg']}") from error


if __name__ == "__main__":
    print(schema(), end="")
