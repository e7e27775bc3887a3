"""A log of bouts in a table of somebody else's making: what its columns hold, guessed and told, and its bouts."""

import re
from collections.abc import Callable, Iterator, Mapping, Sequence
from datetime import date, datetime, timedelta
from decimal import Decimal, InvalidOperation
from enum import StrEnum
from functools import lru_cache
from itertools import islice
from pathlib import Path
from typing import Literal, NamedTuple
from zoneinfo import ZoneInfo

from fortis.core.exercises import LIBRARY, Library
from fortis.core.logged import LoggedBout
from fortis.core.units import Unit, plain
from fortis.core.value import Value
from fortis.formats.bout_row import ENDED, CsvError, Numbering, row_of
from fortis.formats.csv import as_meant, items_of
from fortis.formats.moment import DateOrder, NoMomentError, is_day, moment
from fortis.formats.table import LOOKED_AT, Layout, Row, names_of, rows_of


class Holds(StrEnum):
    """What a column of a log can hold."""

    DATE = "date"
    TIME = "time"
    SESSION = "session"
    LIFT = "lift"
    SETUP = "setup"
    GROUP = "group"
    SETS = "sets"
    SET = "set"
    BOUT = "bout"
    SIDE = "side"
    LOAD = "load"
    UNIT = "unit"
    BOTTOM_LOAD = "bottom load"
    TOP_LOAD = "top load"
    BODY_WEIGHT = "body weight"
    REPS = "reps"
    HALVES = "halves"
    SECONDS = "seconds"
    RIR = "rir"
    RPE = "rpe"
    ENDED = "ended"
    REST = "rest"
    TEMPO = "tempo"
    WARM_UP = "warm-up"
    NOTE = "note"


NEEDED = (Holds.DATE, Holds.LIFT)
"""Without these there is no bout; beside them it takes reps or seconds."""

_NAMES: Mapping[Holds, str] = {
    Holds.DATE: "performed at|date|day|when|datum|fecha|timestamp|date time|datetime|workout date|training date",
    Holds.TIME: "time|time of day|clock|uhrzeit|start time|hour",
    Holds.SESSION: "session|workout|training|workout name|session name|title",
    Holds.LIFT: "exercise|lift|movement|exercise name|lift name|name|übung|ejercicio|exercice",
    Holds.SETUP: "setup|set up|gear|equipment|variation",
    Holds.GROUP: "group|superset|block",
    Holds.SETS: "sets|number of sets|no of sets|sätze|series",
    Holds.SET: "set|set no|set number|set order|set index|satz",
    Holds.BOUT: "bout|mini set|miniset",
    Holds.SIDE: "side|limb",
    Holds.LOAD: "load|weight|weight used|kg|lb|lbs|kilos|pounds|gewicht|peso|poids|resistance",
    Holds.UNIT: "unit|units|weight unit|load unit|einheit",
    Holds.BOTTOM_LOAD: "bottom load",
    Holds.TOP_LOAD: "top load",
    Holds.BODY_WEIGHT: "bodyweight|body weight|bw|my weight|körpergewicht",
    Holds.REPS: "reps|rep|repetitions|wdh|wiederholungen|repeticiones|répétitions|reps done",
    Holds.HALVES: "partial reps|partials|halves|half reps",
    Holds.SECONDS: "seconds|duration|secs|sec|hold|time under tension|duration s",
    Holds.RIR: "rir|reps in reserve|reserve|left in the tank|reps left",
    Holds.RPE: "rpe|effort|exertion",
    Holds.ENDED: "ended",
    Holds.REST: "rest before s|rest|rest s|rest seconds|pause",
    Holds.TEMPO: "tempo|cadence",
    Holds.WARM_UP: "warmup|warm up|is warmup|set type|type",
    Holds.NOTE: "note|notes|comment|comments|remark|remarks|notiz|bemerkung",
}
"""What columns are often called (common words)."""
_KNOWN = {name: holds for holds, names in _NAMES.items() for name in names.split("|")}


class Reading(Value):
    """How a table is read: what each column holds, by its number from 0, and what is not written in it.

    `unit` is of loads written without one, `decimal` the mark in front of decimals.
    """

    layout: Layout
    columns: Mapping[Holds, int]
    unit: Unit = Unit.KG
    decimal: Literal[".", ","] = "."
    dates: DateOrder = DateOrder.DAY_FIRST


class Guess(NamedTuple):
    """A reading that was guessed, and in words what of it is in doubt."""

    reading: Reading
    doubts: tuple[str, ...]


class UnreadableError(ValueError):
    """A reading that makes no bouts, and what is missing in it."""


# --- guessing ---------------------------------------------------------------------------------------------


def guess(path: Path, layout: Layout, unit: Unit, library: Library = LIBRARY) -> Guess:
    """Guess how a table is read from the names of its columns and its first rows."""
    names = names_of(path, layout)
    sample = list(islice(rows_of(path, layout), LOOKED_AT))
    look = _Look(names, sample, library)
    columns = look.by_name()
    look.by_cells(columns)
    doubts: list[str] = []
    named = _unit_in(names, columns)
    if Holds.UNIT not in columns and named is None:
        doubts.append(f"Nothing says what the loads are in; they are taken as {unit}.")
    order, sure = _order(look.column(columns, Holds.DATE))
    if not sure:
        doubts.append(f"The dates can be read in two ways; they are taken as {order}.")
    if Holds.DATE in columns and not _tells_time(look, columns):
        doubts.append("There are no times of day: the sets of a day are put three minutes apart, from noon on.")
    numbers = [*look.column(columns, Holds.LOAD), *look.column(columns, Holds.BODY_WEIGHT)]
    reading = Reading(
        layout=layout, columns=columns, unit=named or unit, decimal=_decimal_mark(numbers), dates=order
    )
    return Guess(reading, tuple(doubts))


class _Look:
    """What a table looks like: the names of its columns and the cells of its first rows, by column."""

    def __init__(self, names: Sequence[str], sample: Sequence[Row], library: Library) -> None:
        self.names, self.library = names, library
        self.cells = [dict(enumerate(row.cells)) for row in sample]

    def column(self, columns: Mapping[Holds, int], holds: Holds) -> list[str]:
        """The cells of the column that holds something; none where there is no such column."""
        return [cells.get(columns[holds], "") for cells in self.cells] if holds in columns else []

    def by_name(self) -> dict[Holds, int]:
        """What the columns hold by their names, the first of a kind."""
        columns: dict[Holds, int] = {}
        for at, name in enumerate(self.names):
            holds = _KNOWN.get(_plain_name(name)) or _KNOWN.get(_plain_name(re.sub(r"[(\[].*", "", name)))
            if holds and holds not in columns:
                columns[holds] = at
        return columns

    def by_cells(self, columns: dict[Holds, int]) -> None:
        """Fill in what is needed and no name told, from what the cells look like."""
        free = [at for at in range(len(self.names)) if at not in columns.values()]
        for holds, fits in (
            (Holds.DATE, _is_date),
            (Holds.LIFT, self._is_lift),
            (Holds.REPS, _is_few),
            (Holds.LOAD, _is_number),
        ):
            if holds in columns or (holds is Holds.REPS and Holds.SECONDS in columns):
                continue
            found = max(free, key=lambda at: self._share(at, fits), default=None)
            if found is not None and self._share(found, fits) > 0.5:
                columns[holds] = found
                free.remove(found)

    def _share(self, at: int, fits: Callable[[str], bool]) -> float:
        told = [cells[at] for cells in self.cells if cells.get(at)]
        return sum(map(fits, told)) / len(told) if told else 0.0

    def _is_lift(self, cell: str) -> bool:
        return self.library.find(cell).known or bool(re.search(r"[^\W\d_]{3}", cell))


def _plain_name(name: str) -> str:
    return " ".join(re.sub(r"[\W_]+", " ", name.casefold()).split())


def _is_date(cell: str) -> bool:
    for order in DateOrder:
        try:
            moment(cell, "", order, ZoneInfo("UTC"))
        except NoMomentError:
            continue
        return True
    return False


def _is_number(cell: str) -> bool:
    return bool(_NUMBER.fullmatch(cell))


def _is_few(cell: str) -> bool:
    return cell.isdigit() and 0 < int(cell) <= 50


def _unit_in(names: Sequence[str], columns: Mapping[Holds, int]) -> Unit | None:
    """The unit that is told in the name of the column of loads."""
    words = _plain_name(names[columns[Holds.LOAD]]).split() if Holds.LOAD in columns else []
    return next((unit for word, unit in _UNITS.items() if word in words), None)


def _order(dates: Sequence[str]) -> tuple[DateOrder, bool]:
    """The order in which most of the dates are days, and whether no other would do as well."""
    fit = {order: sum(is_day(written, order) for written in dates) for order in DateOrder}
    if not any(fit.values()):
        return DateOrder.DAY_FIRST, True
    best = max((DateOrder.YEAR_FIRST, DateOrder.DAY_FIRST, DateOrder.MONTH_FIRST), key=lambda order: fit[order])
    sure = sum(many == fit[best] for many in fit.values()) == 1 or best is DateOrder.YEAR_FIRST
    return best, sure or sum("." in written for written in dates) * 2 > len(dates)


def _tells_time(look: _Look, columns: Mapping[Holds, int]) -> bool:
    return Holds.TIME in columns or any(":" in cell for cell in look.column(columns, Holds.DATE))


def _decimal_mark(numbers: Sequence[str]) -> Literal[".", ","]:
    """What stands in front of decimals: a comma where one does that is not before three digits."""
    commas = sum(bool(re.search(r"\d,(\d{1,2}|\d{4,})(\D|$)", number)) for number in numbers)
    points = sum(bool(re.search(r"\d\.(\d{1,2}|\d{4,})(\D|$)", number)) for number in numbers)
    return "," if commas > points else "."


# --- reading ----------------------------------------------------------------------------------------------

_UNITS = {
    "kg": Unit.KG,
    "kgs": Unit.KG,
    "kilo": Unit.KG,
    "kilos": Unit.KG,
    "lb": Unit.LB,
    "lbs": Unit.LB,
    "pounds": Unit.LB,
}
_NUMBER = re.compile(r"[+-]?\d[\d.,' ]*")
_LOAD = re.compile(
    r"(?P<body>bw|body ?weight)?\s*(?P<number>[+-]?\s*\d[\d.,' ]*)?\s*(?P<unit>[a-z]+)?\.?", re.IGNORECASE
)
_NOTHING = frozenset({"", "-", "–", "—", "n/a", "na", "none", "null", "nan"})
_SETS_OF = re.compile(r"(\d{1,2})\s*[x×]\s*(\d{1,3})")
_SEVERAL = re.compile(r"\d{1,3}(\s*[,;/+ ]\s*\d{1,3})+")
MOST_SETS_IN_A_ROW = 50
AHEAD = timedelta(days=1)
FIRST_DAY = date(1950, 1, 1)
_WARM_UP_WORDS = frozenset({"w", "warmup", "warm up", "warm-up", "true", "yes", "1", "x"})
_SIDES = {"l": "left", "r": "right", "left": "left", "right": "right", "both": "both"}


class Reader:
    """Reads the bouts of a table, row by row. Raises `UnreadableError` where the reading makes none.

    `zone` is where times without a zone are of, `now` the moment after which nothing has been done yet.
    """

    def __init__(self, path: Path, reading: Reading, zone: ZoneInfo, now: datetime) -> None:
        self.path, self.reading, self.zone, self.now = path, reading, zone, now
        self.names = names_of(path, reading.layout)
        self._numbering = Numbering()
        columns = reading.columns
        self._at = [(holds.value, at) for holds, at in columns.items()]
        if missing := [holds for holds in NEEDED if holds not in columns]:
            raise UnreadableError(f"No column is said to hold the {missing[0]}.")
        if Holds.REPS not in columns and Holds.SECONDS not in columns:
            raise UnreadableError("No column is said to hold the reps, or the seconds of a hold.")
        if beyond := [holds for holds, at in columns.items() if not 0 <= at < len(self.names)]:
            raise UnreadableError(f"There is no such column as the one said to hold the {beyond[0]}.")
        if double := [holds for holds, at in columns.items() if list(columns.values()).count(at) > 1]:
            raise UnreadableError(f"{self.names[columns[double[0]]]} is said to hold two things.")

    def rows(self) -> Iterator[Row]:
        """The rows of the table. Raises `TableError`."""
        return rows_of(self.path, self.reading.layout)

    def bouts(self, row: Row) -> list[LoggedBout]:
        """The bouts of a row: several where it tells of more than one set. Raises `CsvError`."""
        told = self._told(row)
        counts = self._counts(row, told)
        return [self._numbering.bout(row_of(row.line, {**told, "reps": reps})) for reps in counts]

    def _told(self, row: Row) -> dict[str, object]:
        """The cells of a row as the columns of a log."""
        cells = row.cells
        found = {name: cells[at] for name, at in self._at if at < len(cells) and _says(name, cells[at])}
        told: dict[str, object] = {"performed_at": self._moment(row, found)}
        lift = as_meant("exercise", found.get("lift", ""))
        if not lift:
            raise CsvError(row.line, self._name(Holds.LIFT), "is empty")
        told["exercise"] = lift
        told["load"], told["unit"] = self._load(row, found)
        for name, column in _AS_THEY_ARE.items():
            if cell := found.get(name):
                told[column] = as_meant(column, cell)
        for name, column in _NUMBERS.items():
            if cell := found.get(name):
                told[column] = self._plain(row, name, _in_seconds(cell) if name in _TIMES else cell)
        if setup := found.get("setup"):
            told["setup"] = items_of(as_meant("setup", setup))
        if reserve := self._reserve(row, found):
            told["rir"] = reserve
        if side := found.get("side"):
            told["side"] = _SIDES.get(side.casefold(), side)
        if (ended := found.get("ended")) in ENDED:
            told["ended"] = ended
        number = found.get("set", "")
        if number.isdigit():
            told["set"] = number
        marks = {found.get("warm-up", "").casefold(), number.casefold()} - {number if number.isdigit() else ""}
        told["warmup"] = "true" if marks & _WARM_UP_WORDS else "false"
        return told

    def _moment(self, row: Row, found: Mapping[str, str]) -> datetime:
        written = found.get("date", "")
        if not written:
            raise CsvError(row.line, self._name(Holds.DATE), "is empty")
        try:
            at = moment(written, found.get("time", ""), self.reading.dates, self.zone)
        except NoMomentError as error:
            raise CsvError(row.line, self._name(Holds.DATE), f"“{written}”: {error}") from error
        if at.date() < FIRST_DAY:
            raise CsvError(
                row.line, self._name(Holds.DATE), f"“{written}” lies too far back; look at the order of the date"
            )
        if at > self.now + AHEAD:
            raise CsvError(
                row.line, self._name(Holds.DATE), f"“{written}” is still to come; look at the order of the date"
            )
        return at

    def _load(self, row: Row, found: Mapping[str, str]) -> tuple[str, Unit]:
        """The load of a row and its unit; none is 0."""
        unit = self._unit(row, Holds.UNIT, found["unit"]) if "unit" in found else self.reading.unit
        written = as_meant("note", found.get("load", ""))
        if not written:
            return "0", unit
        parts = _LOAD.fullmatch(written)
        if parts is None or not (parts["body"] or parts["number"]):
            raise CsvError(row.line, self._name(Holds.LOAD), f"“{written}” is no load")
        if parts["unit"]:
            unit = self._unit(row, Holds.LOAD, parts["unit"])
        return self._plain(row, Holds.LOAD, parts["number"] or "0"), unit

    def _unit(self, row: Row, holds: Holds, written: str) -> Unit:
        unit = _UNITS.get(written.casefold().rstrip("."))
        if unit is None:
            raise CsvError(row.line, self._name(holds), f"“{written}” is no unit; kg and lb are")
        return unit

    def _counts(self, row: Row, told: Mapping[str, object]) -> list[str]:
        """The reps of each set that a row tells of."""
        cells, at = row.cells, self.reading.columns.get(Holds.REPS)
        written = cells[at] if at is not None and at < len(cells) else ""
        if written.casefold() in _NOTHING:
            if "seconds" not in told:
                name = self._name(Holds.REPS if at is not None else Holds.SECONDS)
                raise CsvError(row.line, name, "is empty, so there is no set to take")
            reps = ["0"]
        elif found := _SETS_OF.fullmatch(written):
            reps = [found[2]] * int(found[1])
        elif _SEVERAL.fullmatch(written) and not _is_decimal(written):
            reps = re.findall(r"\d+", written)
        else:
            reps = [self._whole(row, Holds.REPS, written)]
        many = self._sets(row)
        if len(reps) * many > MOST_SETS_IN_A_ROW:
            raise CsvError(row.line, self._name(Holds.SETS), f"over {MOST_SETS_IN_A_ROW} sets in a row")
        return reps * many

    def _sets(self, row: Row) -> int:
        at = self.reading.columns.get(Holds.SETS)
        written = row.cells[at] if at is not None and at < len(row.cells) else ""
        return 1 if written.casefold() in _NOTHING else max(int(self._whole(row, Holds.SETS, written)), 1)

    def _reserve(self, row: Row, found: Mapping[str, str]) -> str:
        """Reps in reserve, as told or as 10 less the exertion (Zourdos et al. 2016), to the half."""
        if rir := found.get("rir"):
            left = _to_the_half(Decimal(self._plain(row, Holds.RIR, rir.rstrip("+ "))))
            return plain(left) + ("+" if rir.endswith("+") else "")
        if rpe := found.get("rpe"):
            exertion = Decimal(self._plain(row, Holds.RPE, re.sub(r"(?i)rpe|@", "", rpe).strip()))
            if not 0 <= exertion <= 10:
                raise CsvError(row.line, self._name(Holds.RPE), f"“{rpe}” is not between 0 and 10")
            return plain(_to_the_half(10 - exertion)) if exertion else ""
        return ""

    def _whole(self, row: Row, holds: Holds, written: str) -> str:
        number = Decimal(self._plain(row, holds, written))
        if number != number.to_integral_value():
            raise CsvError(row.line, self._name(holds), f"“{written}” is no whole number")
        return f"{number:.0f}"

    def _plain(self, row: Row, holds: str, written: str) -> str:
        """A number with a point before its decimals and nothing between its thousands."""
        try:
            return _point_number(written, self.reading.decimal)
        except ValueError as error:
            raise CsvError(row.line, self._name(Holds(holds)), f"“{written}”{error}") from error

    def _name(self, holds: Holds) -> str:
        """What the table calls the column that holds something."""
        at = self.reading.columns.get(holds)
        return self.names[at] if at is not None else holds.value


_TIMES = frozenset({Holds.SECONDS, Holds.REST})
_MARKS = {".": "point", ",": "comma"}
_AS_THEY_ARE = {"session": "session", "group": "group", "bout": "bout", "tempo": "tempo", "note": "note"}
_NUMBERS = {
    "bottom load": "bottom_load",
    "top load": "top_load",
    "body weight": "bodyweight",
    "halves": "partial_reps",
    "seconds": "seconds",
    "rest": "rest_before_s",
}


@lru_cache(4_096)
def _point_number(written: str, mark: str) -> str:
    """A number with a point before its decimals. Raises `ValueError` with what to say behind the number."""
    other = "," if mark == "." else "."
    text = re.sub(r"[' ]", "", written)
    if other in text and not re.fullmatch(rf"[+-]?\d{{1,3}}(\{other}\d{{3}})+(\{mark}\d+)?", text):
        raise ValueError(f": decimals are said to follow a {_MARKS[mark]}")
    try:
        return f"{Decimal(text.replace(other, '').replace(mark, '.')):f}"
    except InvalidOperation as error:
        raise ValueError(" is no number") from error


def _in_seconds(written: str) -> str:
    """A duration in seconds: `1:30`, `90 s` and `2 min` too."""
    if clock := re.fullmatch(r"(\d{1,3}):(\d{2})", written):
        return str(int(clock[1]) * 60 + int(clock[2]))
    found = re.fullmatch(r"(\d+)\s*(s|secs?|seconds|m|mins?|minutes)\.?", written, re.IGNORECASE)
    return str(int(found[1]) * (60 if found[2].lower().startswith("m") else 1)) if found else written


def _says(name: str, cell: str) -> bool:
    """Whether a cell says anything: `-` in place of a number does not."""
    return bool(cell) and (name in _TEXTS or cell.casefold() not in _NOTHING)


_TEXTS = frozenset({Holds.SESSION, Holds.LIFT, Holds.SETUP, Holds.NOTE})


def _is_decimal(written: str) -> bool:
    return bool(re.fullmatch(r"\d+[.,]0+", written))


def _to_the_half(number: Decimal) -> Decimal:
    return round(number * 2) / Decimal(2)
