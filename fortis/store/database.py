"""The database file: opened in WAL with foreign keys on, brought up to date, backed up while in use."""

import sqlite3
from pathlib import Path
from typing import Any

from alembic import command
from alembic.config import Config
from sqlalchemy import Connection, Engine, create_engine, event
from sqlalchemy.orm import Session, sessionmaker

from fortis.store.lifter import lifter_row
from fortis.store.places import places

Database = sessionmaker[Session]
"""Makes units of work: `with database.begin() as unit:` commits at the end or rolls back."""


def open_database(path: Path) -> Database:
    """Open the database at `path`, made and migrated where needed."""
    path.parent.mkdir(parents=True, exist_ok=True)
    engine = _engine(path)
    migrate(engine)
    database = sessionmaker(engine, expire_on_commit=False)
    with writing(database).begin() as work:
        places(work)
        lifter_row(work)
    return database


WRITES = {"writes": True}
"""The execution option of a connection whose transaction will write: it waits for its turn at the start."""


def writing(database: Database) -> Database:
    """The same database, for units of work that write: each is alone from its first look on."""
    return sessionmaker(database.kw["bind"].execution_options(**WRITES), expire_on_commit=False)


PATIENCE_SECONDS = 5
"""How long a unit of work waits for another process that writes."""


def _engine(path: Path) -> Engine:
    engine = create_engine(f"sqlite:///{path}", connect_args={"timeout": PATIENCE_SECONDS})

    @event.listens_for(engine, "connect")
    def _pragmas(connection: Any, _: Any) -> None:
        connection.isolation_level = None
        connection.execute("PRAGMA journal_mode=WAL")
        connection.execute("PRAGMA synchronous=FULL")
        connection.execute("PRAGMA foreign_keys=ON")

    @event.listens_for(engine, "begin")
    def _begin(connection: Connection) -> None:
        writes = connection.get_execution_options().get("writes")
        connection.exec_driver_sql("BEGIN IMMEDIATE" if writes else "BEGIN")

    return engine


class BrokenLinksError(RuntimeError):
    """A migration left rows that refer to nothing; it was not made."""


def migrate(engine: Engine) -> None:
    """Bring the tables up to the newest migration, all of it or nothing.

    Tables are made anew while others refer to them, so references are checked at the end and not on the way.
    """
    config = Config()
    config.set_main_option("script_location", str(Path(__file__).parent / "migrations"))
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


def back_up(path: Path, target: Path) -> None:
    """Copy a database that may be in use to `target`, whole and consistent. `target` must not exist."""
    if not path.exists():
        raise FileNotFoundError(path)
    if target.exists():
        raise FileExistsError(target)
    target.parent.mkdir(parents=True, exist_ok=True)
    source, copy = sqlite3.connect(path), sqlite3.connect(target)
    try:
        source.backup(copy)
    finally:
        source.close()
        copy.close()
