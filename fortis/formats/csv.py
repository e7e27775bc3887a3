"""The CSV of bouts: one row a bout, columns by name in any order. Described in docs/formats.md."""

import csv
import re
from collections.abc import Iterable, Iterator
from decimal import Decimal
from io import StringIO

from fortis.core.logged import LoggedBout
from fortis.core.units import Unit
from fortis.formats.bout_row import COLUMNS, ENDED, REQUIRED, BoutRow, CsvError, Numbering, row_of


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
        "group": str(bout.group or ""),
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


def as_meant(name: str, cell: str) -> str:
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
        numbered = Numbering()
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


def _row(line: int, columns: list[str], cells: list[str]) -> BoutRow:
    if len(cells) > len(columns):
        raise CsvError(line, "", f"{len(cells)} cells under {len(columns)} columns; put text with commas in quotes")
    told: dict[str, object] = {
        name: as_meant(name, cell.strip()) for name, cell in zip(columns, cells, strict=False) if cell.strip()
    }
    if "setup" in told:
        told["setup"] = items_of(str(told["setup"]))
    return row_of(line, told)


def items_of(setup: str) -> tuple[str, ...]:
    """The items of a set-up, parted by semicolons."""
    return tuple(item.strip() for item in setup.split(";") if item.strip())
