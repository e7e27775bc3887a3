"""Writing by the driver alone, with statements that were compiled before: what every bout needs, and nothing else.

SQLAlchemy writes the statements and converts what they are given, as for any other. What it does anew each time,
though, takes several times as long as the statements themselves.
"""

import sqlite3
from collections.abc import Callable, Collection, Iterator, Mapping, Sequence
from contextlib import contextmanager
from typing import Any, NamedTuple, Self, cast

from pydantic_core import to_json
from sqlalchemy import ClauseElement, Engine
from sqlalchemy.dialects import sqlite
from sqlalchemy.engine.interfaces import DBAPIConnection
from sqlalchemy.exc import DBAPIError
from sqlalchemy.orm import Session as UnitOfWork
from sqlalchemy.sql.compiler import SQLCompiler


def as_json(value: object) -> str:
    """A value as JSON, its letters as they are: set-ups are searched in it."""
    return to_json(value).decode()


BEGIN_TO_WRITE = "BEGIN IMMEDIATE"
"""Begins a transaction that is alone from its first look on."""
_DIALECT = sqlite.dialect(json_serializer=as_json)


class Transaction(NamedTuple):
    """A transaction that writes, by the driver alone."""

    engine: Engine
    driver: sqlite3.Connection


@contextmanager
def transaction(engine: Engine) -> Iterator[Transaction]:
    """A transaction, committed at the end, rolled back where that fails."""
    pooled = engine.raw_connection()
    try:
        driver = _driver(pooled.driver_connection)
        by_driver(driver, BEGIN_TO_WRITE)
        yield Transaction(engine, driver)
        by_driver(driver, "COMMIT")
    finally:
        pooled.close()  # which rolls back what was not committed


class Prepared:
    """A statement, compiled for the `columns` that it is given; without them for those it names itself."""

    def __init__(self, statement: ClauseElement, columns: Collection[str] | None = None) -> None:
        compiled = statement.compile(dialect=_DIALECT, column_keys=columns and list(columns))
        assert isinstance(compiled, SQLCompiler)
        self._written = str(compiled)
        self._values = [_Column.of(compiled, name) for name in compiled.positiontup or ()]
        self._own = compiled.params

    def run(self, driver: sqlite3.Connection, values: Mapping[str, object]) -> sqlite3.Cursor:
        """Run it with values by the names of its columns. Rows come as the database has them."""
        given = {**self._own, **values}
        row = [
            nothing if (value := given[name]) is None else convert(value) if convert else value
            for name, convert, nothing in self._values
        ]
        return by_driver(driver, self._written, row)


class _Column(NamedTuple):
    """A value that a statement takes: what makes of it what the driver takes, and what stands for None."""

    name: str
    convert: Callable[[object], object] | None
    nothing: object

    @classmethod
    def of(cls, compiled: SQLCompiler, name: str) -> Self:
        """As SQLAlchemy converts it."""
        convert = cast(Mapping[str, Callable[[object], object]], compiled._bind_processors).get(name)
        return cls(name, convert, convert(None) if convert else None)


def driver_of(work: UnitOfWork) -> sqlite3.Connection:
    """The driver's connection of a unit of work."""
    return _driver(work.connection().connection.driver_connection)


def by_driver(driver: sqlite3.Connection, written: str, values: Sequence[Any] = ()) -> sqlite3.Cursor:
    """Run SQL. Raises what SQLAlchemy does."""
    try:
        return driver.execute(written, values)
    except sqlite3.Error as error:
        raise DBAPIError.instance(written, values, error, sqlite3.Error) from error


def _driver(connection: DBAPIConnection | None) -> sqlite3.Connection:
    assert isinstance(connection, sqlite3.Connection)
    return connection
