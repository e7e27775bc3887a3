"""Statements that are compiled once and run by the driver: what every bout on its way into the record needs.

SQLAlchemy writes them and converts what they are given, as for any other. What it does anew each time, though,
takes several times as long as the statement itself.
"""

import sqlite3
from collections.abc import Callable, Collection, Mapping, Sequence
from typing import Any, cast

from pydantic_core import to_json
from sqlalchemy import ClauseElement, Connection
from sqlalchemy.dialects import sqlite
from sqlalchemy.exc import DBAPIError
from sqlalchemy.orm import Session as UnitOfWork
from sqlalchemy.sql.compiler import SQLCompiler


def as_json(value: object) -> str:
    """A value as JSON, its letters as they are: set-ups are searched in it."""
    return to_json(value).decode()


_DIALECT = sqlite.dialect(json_serializer=as_json)


class Prepared:
    """A statement, compiled for the `columns` that it is given; without them for those it names itself."""

    def __init__(self, statement: ClauseElement, columns: Collection[str] | None = None) -> None:
        compiled = statement.compile(dialect=_DIALECT, column_keys=columns and list(columns))
        assert isinstance(compiled, SQLCompiler)
        converts = cast(Mapping[str, Callable[[object], object]], compiled._bind_processors)
        self._written = str(compiled)
        self._values = [(name, converts.get(name)) for name in compiled.positiontup or ()]
        self._own = compiled.params

    def run(self, work: UnitOfWork, values: Mapping[str, object]) -> sqlite3.Cursor:
        """Run it with values by the names of its columns. Rows come as the database has them."""
        given = {**self._own, **values}
        row = [convert(given[name]) if convert else given[name] for name, convert in self._values]
        return by_driver(work.connection(), self._written, row)


def by_driver(connection: Connection, written: str, values: Sequence[Any] = ()) -> sqlite3.Cursor:
    """Run SQL by the driver of a connection. Raises what SQLAlchemy does."""
    driver = connection.connection.driver_connection
    assert isinstance(driver, sqlite3.Connection)
    try:
        return driver.execute(written, values)
    except sqlite3.Error as error:
        raise DBAPIError.instance(written, values, error, sqlite3.Error) from error
