"""The CSV of bouts: one row a bout, columns by name in any order. Described in docs/formats.md."""

import csv
import re
from collections.abc import Iterable, Iterator
from decimal import Decimal
from io import StringIO
from typing import Annotated, Any

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


class _Row(BaseModel):
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


COLUMNS = tuple(_Row.model_fields)
"""Every column, in the order they are written."""


def write_bouts(bouts: Iterable[LoggedBout]) -> Iterator[str]:
    """Write bouts row by row, the names of the columns first, all loads in kilograms: `read_bouts` reads them back.

    A text that a spreadsheet would take for a formula begins with an apostrophe, which reading takes off again. A
    semicolon inside an item of a set-up becomes a comma.
    """
    line = StringIO()
    writer = csv.writer(line)

    def row(cells: Iterable[str]) -> str:
        line.seek(0)
        line.truncate()
        writer.writerow(cells)
        return line.getvalue()

    yield row(COLUMNS)
    for bout in bouts:
        told = _told(bout)
        yield row(_safe(name, told.get(name, "")) for name in COLUMNS)


def _told(bout: LoggedBout) -> dict[str, str]:
    """What is told of a bout, by column."""

    def plain(amount: Decimal | None) -> str:
        return "" if amount is None else f"{amount.normalize():f}"

    some = {"partial_reps": bout.partial_reps, "seconds": bout.seconds, "rest_before_s": bout.rest_seconds}
    return {
        "performed_at": bout.performed_at.isoformat(),
        "session": bout.session,
        "exercise": bout.exercise,
        "setup": "; ".join(item.replace(";", ",") for item in bout.setup.items),
        "group": str(bout.group),
        "set": str(bout.set),
        "bout": str(bout.bout),
        "side": bout.side,
        "load": plain(bout.load_kg),
        "unit": Unit.KG,
        "bottom_load": plain(bout.bottom_kg),
        "top_load": plain(bout.top_kg),
        "bodyweight": plain(bout.body_kg),
        "reps": str(bout.reps),
        "rir": plain(bout.reserve) + ("+" if bout.or_more else ""),
        "ended": _ENDED_WORDS[bout.ended] if bout.ended else "",
        "tempo": bout.tempo,
        "warmup": "true" if bout.is_warm_up else "",
        "note": bout.note,
        **{name: str(number) for name, number in some.items() if number},
    }


_ENDED_WORDS = {ended: word for word, ended in ENDED.items()}
_TEXTS = ("session", "exercise", "setup", "note")
_RUNS = re.compile(r"'*[=+\-@\t\r]")
"""How a text begins that a spreadsheet would run, or that was kept from it."""


def _safe(name: str, cell: str) -> str:
    """A cell that no spreadsheet runs."""
    return f"'{cell}" if name in _TEXTS and _RUNS.match(cell) else cell


def _as_meant(name: str, cell: str) -> str:
    """A cell without what kept it from being run."""
    return cell[1:] if name in _TEXTS and cell.startswith("'") and _RUNS.match(cell) else cell


def read_bouts(lines: Iterable[str]) -> Iterator[LoggedBout]:
    """Read bouts row by row, in the order they stand in. Raises `CsvError`.

    Where sessions have no name, those of a day are one. Sets and bouts without a number are counted as they come.
    """
    rows = csv.reader(_without_mark(lines))
    try:
        columns = [name.strip().lower() for name in next(rows, ())]
        _check(columns)
        numbered = _Numbering()
        for cells in rows:
            if any(cell.strip() for cell in cells):
                yield numbered.bout(_row(rows.line_num, columns, cells))
    except csv.Error as error:
        raise CsvError(rows.line_num, "", f"this is no CSV: {error}") from error


def _without_mark(lines: Iterable[str]) -> Iterator[str]:
    """The lines without the mark some programs begin a file with."""
    for number, line in enumerate(lines):
        yield line.removeprefix("\ufeff") if number == 0 else line


def _check(columns: list[str]) -> None:
    if missing := [name for name in REQUIRED if name not in columns]:
        raise CsvError(1, "", f"there is no column {missing[0]}; needed are {', '.join(REQUIRED)}")
    if unknown := [name for name in columns if name not in COLUMNS]:
        raise CsvError(1, unknown[0] or "a column without a name", f"not known; there are {', '.join(COLUMNS)}")
    if double := [name for name in columns if columns.count(name) > 1]:
        raise CsvError(1, double[0], "stands twice; leave one of them out")


def _row(line: int, columns: list[str], cells: list[str]) -> _Row:
    if len(cells) > len(columns):
        raise CsvError(line, "", f"{len(cells)} cells under {len(columns)} columns; put text with commas in quotes")
    told: dict[str, Any] = {
        name: _as_meant(name, cell.strip()) for name, cell in zip(columns, cells, strict=False) if cell.strip()
    }
    if "setup" in told:
        told["setup"] = tuple(item.strip() for item in told["setup"].split(";") if item.strip())
    try:
        row = _Row.model_validate(told)
    except ValidationError as error:
        first = error.errors()[0]
        column = str(first["loc"][0])
        given = f"“{told[column]}”: " if isinstance(told.get(column), str) else ""
        message = "is missing" if first["type"] == "missing" else given + first["msg"].removeprefix("Value error, ")
        raise CsvError(line, column, message) from error
    heaviest = to_kg(row.load, row.unit)
    if heaviest > HEAVIEST:
        raise CsvError(line, "load", f"“{told['load']}” {row.unit} is more than anyone lifts; look at the unit")
    return row


class _Numbering:
    """Names the sessions, and numbers the sets and bouts, that have none of their own."""

    def __init__(self) -> None:
        self.last: dict[tuple[str, str, Side], tuple[int, int]] = {}

    def bout(self, row: _Row) -> LoggedBout:
        """The bout of a row."""
        session = row.session or f"{row.performed_at:%Y-%m-%d}"
        key = session, row.exercise, row.side
        last_set, last_bout = self.last.get(key, (0, 0))
        number = row.set if row.set is not None else last_set + 1
        bout = row.bout or (last_bout + 1 if row.set is not None and number == last_set else 1)
        self.last[key] = number, bout
        reserve, or_more = row.rir or (None, False)

        def kg(amount: Decimal | None) -> Decimal | None:
            return None if amount is None else to_kg(amount, row.unit)

        return LoggedBout(
            performed_at=row.performed_at,
            session=session,
            exercise=row.exercise,
            setup=SetUp(items=row.setup),
            group=row.group or 1,
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
