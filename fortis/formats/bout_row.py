"""A row of a log: what its cells are called, what they may hold, and the bout it tells of."""

import re
from collections import OrderedDict
from collections.abc import Mapping
from datetime import date
from decimal import Decimal
from functools import lru_cache
from typing import Annotated

from pydantic import AwareDatetime, BaseModel, BeforeValidator, Field, ValidationError

from fortis.core.exercises import LiftName
from fortis.core.logged import LoggedBout
from fortis.core.performance import Ended
from fortis.core.structure.model import SetUp, SetUpItem, Side
from fortis.core.units import HEAVIEST, Unit, to_kg
from fortis.core.value import Entered

ENDED = {"target": Ended.MET, "form": Ended.FORM, "muscle": Ended.STUCK}
"""Why a bout ended, as the column `ended` tells it."""
REQUIRED = ("performed_at", "exercise", "load", "unit", "reps")


class CsvError(ValueError):
    """A CSV that cannot be read: where, and what to do. `line` counts from 1, the names of the columns included."""

    def __init__(self, line: int, column: str, message: str) -> None:
        self.line, self.column, self.message = line, column, message
        super().__init__(f"line {line}, {column}: {message}" if column else f"line {line}: {message}")


def _yes_or_no(told: object) -> object:
    answers = {"true": True, "yes": True, "1": True, "false": False, "no": False, "0": False}
    if str(told).lower() not in answers:
        raise ValueError("true or false")
    return answers[str(told).lower()]


def _ended(told: object) -> object:
    if told not in ENDED:
        raise ValueError(f"one of {', '.join(ENDED)}")
    return ENDED[str(told)]


def _called(told: object) -> object:
    """Reps in reserve as they were called: `2`, `1.5`, `5+`."""
    found = re.fullmatch(r"(\d+(?:[.,]5)?)(\+?)", str(told))
    if not found:
        raise ValueError("reps in steps of a half, like 2 or 1.5, with + where it was so many or more")
    return Decimal(found[1].replace(",", ".")), bool(found[2])


def _point(told: object) -> object:
    """A decimal comma is a point."""
    return str(told).replace(",", ".")


Load = Annotated[Entered, BeforeValidator(_point), Field(ge=Decimal(-700), le=Decimal(5000))]
Heft = Annotated[Entered, BeforeValidator(_point), Field(ge=Decimal(0), le=Decimal(5000))]
Counted = Annotated[int, Field(ge=1, le=1000)]
Reserve = tuple[Annotated[Decimal, Field(le=Decimal(50))], bool]


class BoutRow(BaseModel):
    """What a row tells, by column."""

    performed_at: AwareDatetime
    session: Annotated[str, Field(max_length=200)] = ""
    exercise: LiftName
    setup: Annotated[tuple[SetUpItem, ...], Field(max_length=12)] = ()
    group: Counted | None = None
    set: Annotated[int, Field(ge=0, le=1000)] | None = None
    bout: Counted | None = None
    side: Side = Side.BOTH
    load: Load
    unit: Unit
    bottom_load: Load | None = None
    top_load: Load | None = None
    bodyweight: Heft | None = None
    reps: Annotated[int, Field(ge=0, le=500)]
    partial_reps: Annotated[int, Field(ge=0, le=500)] = 0
    seconds: Annotated[int, Field(ge=0, le=3600)] = 0
    rir: Annotated[Reserve, BeforeValidator(_called)] | None = None
    ended: Annotated[Ended, BeforeValidator(_ended)] | None = None
    rest_before_s: Annotated[int, Field(ge=0, le=24 * 3600)] | None = None
    tempo: Annotated[str, Field(max_length=20)] = ""
    warmup: Annotated[bool, BeforeValidator(_yes_or_no)] = False
    note: Annotated[str, Field(max_length=500)] = ""


COLUMNS = tuple(BoutRow.model_fields)
"""Every column, in the order they are written."""


def row_of(line: int, told: Mapping[str, object]) -> BoutRow:
    """A row from its cells by column. Raises `CsvError`."""
    try:
        row = BoutRow.model_validate(told)
    except ValidationError as error:
        first = error.errors()[0]
        column = str(first["loc"][0])
        given = f"“{told[column]}”: " if isinstance(told.get(column), str) else ""
        said = re.sub(r"Decimal\('(.+?)'\)", r"\1", first["msg"].removeprefix("Value error, "))
        message = "is missing" if first["type"] == "missing" else given + said
        raise CsvError(line, column, message) from error
    if to_kg(row.load, row.unit) > HEAVIEST:
        raise CsvError(line, "load", f"“{told['load']}” {row.unit} is more than anyone lifts; look at the unit")
    return row


@lru_cache(1_024)
def _setup(items: tuple[str, ...]) -> SetUp:
    return SetUp(items=items)


MOST_OPEN = 64
"""Sessions whose sets are counted at once: a log seldom goes from one to another and back."""


class Numbering:
    """Names the sessions, and numbers the sets and bouts, that have none of their own."""

    def __init__(self) -> None:
        self.last: OrderedDict[tuple[str, date], dict[tuple[str, Side], tuple[int, int]]] = OrderedDict()

    def bout(self, row: BoutRow) -> LoggedBout:
        """The bout of a row."""
        day = row.performed_at.date()
        session = row.session or f"{day}"
        last = self._last(session, day)
        key = row.exercise, row.side
        last_set, last_bout = last.get(key, (0, 0))
        number = row.set if row.set is not None else last_set + 1
        bout = row.bout or (last_bout + 1 if row.set is not None and number == last_set else 1)
        last[key] = number, bout
        reserve, or_more = row.rir or (None, False)

        def kg(amount: Decimal | None) -> Decimal | None:
            return None if amount is None else to_kg(amount, row.unit)

        return LoggedBout(
            performed_at=row.performed_at,
            session=session,
            exercise=row.exercise,
            setup=_setup(row.setup),
            group=row.group,
            set=number,
            bout=bout,
            side=row.side,
            load_kg=to_kg(row.load, row.unit),
            bottom_kg=kg(row.bottom_load),
            top_kg=kg(row.top_load),
            body_kg=kg(row.bodyweight),
            reps=row.reps,
            partial_reps=row.partial_reps,
            seconds=row.seconds,
            reserve=reserve,
            or_more=or_more,
            ended=row.ended,
            rest_seconds=row.rest_before_s,
            tempo=row.tempo,
            is_warm_up=row.warmup or number == 0,
            note=row.note,
        )

    def _last(self, session: str, day: date) -> dict[tuple[str, Side], tuple[int, int]]:
        """The numbers of the last set and bout of each lift and side of a session."""
        last = self.last.setdefault((session, day), {})
        self.last.move_to_end((session, day))
        while len(self.last) > MOST_OPEN:
            self.last.popitem(last=False)
        return last
