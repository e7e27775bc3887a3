"""A table in a text file of unknown making: its encoding, its delimiter, the names of its columns, its rows."""

import csv
from codecs import BOM_UTF8, BOM_UTF16_BE, BOM_UTF16_LE, getincrementaldecoder
from collections import Counter
from collections.abc import Iterator
from enum import StrEnum
from itertools import islice
from pathlib import Path
from typing import NamedTuple

from fortis.core.value import Value

LOOKED_AT = 200
"""Rows that are looked at to find out about a table."""
MOST_COLUMNS = 200
LONGEST_CELL = 131_072
AT_ONCE = 1 << 20
_BINARY = {
    b"PK\x03\x04": "a spreadsheet or archive",
    b"\xd0\xcf\x11\xe0": "a spreadsheet of an old kind",
    b"%PDF": "a PDF",
    b"SQLite format 3": "a database",
    b"\x1f\x8b": "packed",
}


class Encoding(StrEnum):
    """What a file may be written in."""

    UTF_8 = "utf-8"
    UTF_16_LE = "utf-16-le"
    UTF_16_BE = "utf-16-be"
    WINDOWS_1252 = "windows-1252"
    WINDOWS_1250 = "windows-1250"
    MAC_ROMAN = "mac-roman"


class Delimiter(StrEnum):
    """What parts the cells of a row."""

    COMMA = "comma"
    SEMICOLON = "semicolon"
    TAB = "tab"
    BAR = "bar"

    @property
    def mark(self) -> str:
        """The character itself."""
        return {"comma": ",", "semicolon": ";", "tab": "\t", "bar": "|"}[self]


_MARKS = {
    Encoding.UTF_8: BOM_UTF8,
    Encoding.UTF_16_LE: BOM_UTF16_LE,
    Encoding.UTF_16_BE: BOM_UTF16_BE,
}
"""The first bytes that say so, which are no part of the table."""


class TableError(ValueError):
    """A file that is no table, and what to do."""


class Layout(Value):
    """How a table is written. `header` is the line its columns are named in, from 1; 0 where they have no names."""

    encoding: Encoding
    delimiter: Delimiter
    header: int


class Row(NamedTuple):
    """A row of a table: the line it begins on, from 1, and its cells, without spaces around them."""

    line: int
    cells: list[str]


def layout_of(path: Path, encoding: Encoding | None = None, delimiter: Delimiter | None = None) -> Layout:
    """Find out how the table in a file is written, as far as that is not told. Raises `TableError`."""
    encoding = encoding or _encoding(path)
    delimiter = delimiter or _delimiter(path, encoding)
    rows = list(islice(_rows(path, encoding, delimiter), LOOKED_AT))
    if not rows:
        raise TableError("The file is empty.")
    width = _width(rows)
    if width > MOST_COLUMNS:
        raise TableError(f"The file has {width:,} columns; a table of bouts has a few. Look at the delimiter.")
    first = next(row for row in rows if _filled(row) >= max(width // 2, 1) and len(row.cells) >= min(width, 2))
    return Layout(encoding=encoding, delimiter=delimiter, header=first.line if _names_columns(first) else 0)


def names_of(path: Path, layout: Layout) -> list[str]:
    """The names of the columns of a table; those without one are called by their number."""
    rows = _rows(path, layout.encoding, layout.delimiter)
    if layout.header:
        cells = next((row.cells for row in rows if row.line == layout.header), [])
    else:
        cells = [""] * _width(list(islice(rows, LOOKED_AT)))
    return [name or f"Column {number}" for number, name in enumerate(cells, start=1)]


def rows_of(path: Path, layout: Layout) -> Iterator[Row]:
    """The rows under the names of the columns; empty ones are passed over. Raises `TableError`."""
    for row in _rows(path, layout.encoding, layout.delimiter):
        if row.line > layout.header:
            yield row


def _rows(path: Path, encoding: Encoding, delimiter: Delimiter) -> Iterator[Row]:
    """All rows with something in them."""
    csv.field_size_limit(LONGEST_CELL)
    with path.open(encoding=encoding, errors="replace", newline="") as lines:
        rows = csv.reader(lines, delimiter=delimiter.mark)
        line = 1
        try:
            for cells in rows:
                began, line = line, rows.line_num + 1
                stripped = [cell.strip() for cell in cells]
                if began == 1 and stripped:
                    stripped[0] = stripped[0].removeprefix("\ufeff").strip()
                if any(stripped):
                    yield Row(began, stripped)
        except csv.Error as error:
            why = "a quotation mark is opened there and not closed" if "limit" in str(error) else str(error)
            raise TableError(f"From line {line:,} on this cannot be read as a table: {why}.") from error


def _encoding(path: Path) -> Encoding:
    """What a file is written in. Raises `TableError` for one that is no text."""
    with path.open("rb") as file:
        start = file.read(AT_ONCE)
        for mark, what in _BINARY.items():
            if start.startswith(mark):
                raise TableError(f"This file is {what}, not a table in text. Save it as CSV first.")
        for encoding, mark in _MARKS.items():
            if start.startswith(mark):
                return encoding
        if b"\0" in start:
            odd, even = start[1::2].count(0), start[0::2].count(0)
            if max(odd, even) < len(start) // 4:
                raise TableError("This file is no text. Save the table as CSV first.")
            return Encoding.UTF_16_LE if odd > even else Encoding.UTF_16_BE
        decoder = getincrementaldecoder("utf-8")()
        try:
            while start:
                decoder.decode(start)
                start = file.read(AT_ONCE)
        except UnicodeDecodeError:
            return Encoding.WINDOWS_1252
    return Encoding.UTF_8


def _delimiter(path: Path, encoding: Encoding) -> Delimiter:
    """What parts the cells: what gives the most rows alike, of the most columns. A comma where nothing does."""

    def alike(delimiter: Delimiter) -> tuple[int, int]:
        try:
            rows = list(islice(_rows(path, encoding, delimiter), LOOKED_AT))
        except TableError:
            return 0, 0
        widths = Counter(len(row.cells) for row in rows if len(row.cells) > 1)
        if not widths:
            return 0, 0
        width, many = max(widths.items(), key=lambda each: (each[1], each[0]))
        return round(10 * many / len(rows)), width

    return max(Delimiter, key=alike)


def _width(rows: list[Row]) -> int:
    return Counter(len(row.cells) for row in rows).most_common(1)[0][0] if rows else 0


def _filled(row: Row) -> int:
    return sum(1 for cell in row.cells if cell)


def _names_columns(row: Row) -> bool:
    """Whether a row holds names: words, and no number or date among them."""
    return all(not cell[:1].isdigit() and not cell.lstrip("+-.,").isdecimal() for cell in row.cells if cell)
