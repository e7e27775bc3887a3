"""The database file: recognised, opened in WAL with foreign keys on, brought up to date."""

import sqlite3
from pathlib import Path
from typing import Any

from alembic import command
from alembic.config import Config
from alembic.migration import MigrationContext
from alembic.script import ScriptDirectory
from sqlalchemy import Connection, Engine, create_engine, event, inspect
from sqlalchemy.exc import DBAPIError
from sqlalchemy.orm import Session, sessionmaker

from fortis.store.backup import BackupError, before_migration, folder
from fortis.store.lifter import lifter_row
from fortis.store.places import places
from fortis.store.transaction import BEGIN_TO_WRITE, as_json

Database = sessionmaker[Session]
"""Makes units of work: `with database.begin() as unit:` commits at the end or rolls back."""


def open_database(path: Path) -> Database:
    """Open the database at `path`, made and migrated where needed. Raises `RecordError`.

    Where it is of an older form, it is copied before it is changed.
    """
    if path.is_dir():
        raise RecordError(f"{path} is a folder: name a file in it.")
    try:
        path.parent.mkdir(parents=True, exist_ok=True)
        engine = _engine(path)
        revision = _revision(engine, path)
        if revision and revision != _scripts().get_current_head():
            before_migration(path, revision)
        migrate(engine)
        database = sessionmaker(engine, expire_on_commit=False)
        with writing(database).begin() as work:
            places(work)
            lifter_row(work)
    except (OSError, DBAPIError) as error:
        raise RecordError(_trouble(path, error)) from error
    except BackupError as error:
        raise RecordError(f"{error} It stays as it was; make room for a copy first.") from error
    return database


class RecordError(RuntimeError):
    """A record that cannot be opened, with the reason."""


def _scripts() -> ScriptDirectory:
    return ScriptDirectory(str(Path(__file__).parent / "migrations"))


def _revision(engine: Engine, path: Path) -> str | None:
    """The form a database has, None for a new one. Raises `RecordError` where it is nothing Fortis can open."""
    with engine.connect() as connection:
        tables = set(inspect(connection).get_table_names())
        if not tables:
            return None
        if "alembic_version" not in tables:
            raise RecordError(f"{path} is the database of another program; name another file.")
        revision = MigrationContext.configure(connection).get_current_revision()
    if revision is not None and revision not in {script.revision for script in _scripts().walk_revisions()}:
        raise RecordError(f"{path} was written by a newer Fortis; open it with that one.")
    return revision


def _trouble(path: Path, error: OSError | DBAPIError) -> str:
    """Why a database cannot be opened, and what to do."""
    if isinstance(error, OSError):
        return f"{path} cannot be made: {error.strerror}."
    code = getattr(error.orig, "sqlite_errorcode", 0) & 0xFF
    return {
        sqlite3.SQLITE_BUSY: f"{path} is in use by another program that does not let go; close that first.",
        sqlite3.SQLITE_READONLY: f"{path} may only be read; let Fortis write to it and to its folder.",
        sqlite3.SQLITE_CANTOPEN: f"{path} cannot be opened; look at who may read and write it and its folder.",
        sqlite3.SQLITE_FULL: f"The disk of {path} is full; make room first.",
        sqlite3.SQLITE_NOTADB: f"{path} is no database; name another file, or bring back a backup.",
        sqlite3.SQLITE_CORRUPT: f"{path} is damaged; bring back the latest backup from {folder(path)}.",
    }.get(code, f"{path} cannot be opened: {error.orig}.")


WRITES = {"writes": True}
"""The execution option of a connection whose transaction will write: it waits for its turn at the start."""


def writing(database: Database) -> Database:
    """The same database, for units of work that write: each is alone from its first look on."""
    return sessionmaker(engine_of(database).execution_options(**WRITES), expire_on_commit=False)


def engine_of(database: Database) -> Engine:
    """What a database is reached through."""
    engine = database.kw["bind"]
    assert isinstance(engine, Engine)
    return engine


PATIENCE_SECONDS = 5
"""How long a unit of work waits for another process that writes."""


def _engine(path: Path) -> Engine:
    patience = {"timeout": PATIENCE_SECONDS}
    engine = create_engine(f"sqlite:///{path}", connect_args=patience, json_serializer=as_json)

    @event.listens_for(engine, "connect")
    def _pragmas(connection: Any, _: Any) -> None:
        connection.isolation_level = None
        connection.execute("PRAGMA journal_mode=WAL")
        connection.execute("PRAGMA synchronous=FULL")
        connection.execute("PRAGMA foreign_keys=ON")

    @event.listens_for(engine, "begin")
    def _begin(connection: Connection) -> None:
        writes = connection.get_execution_options().get("writes")
        connection.exec_driver_sql(BEGIN_TO_WRITE if writes else "BEGIN")

    return engine


class BrokenLinksError(RuntimeError):
    """A migration left rows that refer to nothing; it was not made."""


def migrate(engine: Engine) -> None:
    """Bring the tables up to the newest migration, all of it or nothing.

    Tables are made anew while others refer to them, so references are checked at the end and not on the way.
    """
    config = Config()
    config.set_main_option("script_location", _scripts().dir)
    with engine.connect() as connection:
        driver = connection.connection.driver_connection
        assert driver is not None
        driver.execute("PRAGMA foreign_keys=OFF")
        try:
            with connection.execution_options(**WRITES).begin():
                config.attributes["connection"] = connection
                command.upgrade(config, "head")
                if broken := connection.exec_driver_sql("PRAGMA foreign_key_check").all():
                    raise BrokenLinksError(str(broken[:3]))
        finally:
            driver.execute("PRAGMA foreign_keys=ON")
