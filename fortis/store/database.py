"""The database file: opened in WAL with foreign keys on, brought up to date, backed up while in use."""

import sqlite3
from pathlib import Path
from typing import Any

from alembic import command
from alembic.config import Config
from sqlalchemy import Engine, create_engine, event
from sqlalchemy.orm import Session, sessionmaker

Database = sessionmaker[Session]
"""Makes units of work: `with database.begin() as unit:` commits at the end or rolls back."""


def open_database(path: Path) -> Database:
    """Open the database at `path`, made and migrated where needed."""
    path.parent.mkdir(parents=True, exist_ok=True)
    engine = _engine(path)
    migrate(engine)
    return sessionmaker(engine, expire_on_commit=False)


def _engine(path: Path) -> Engine:
    engine = create_engine(f"sqlite:///{path}", connect_args={"timeout": 15})

    @event.listens_for(engine, "connect")
    def _pragmas(connection: Any, _: Any) -> None:
        connection.execute("PRAGMA journal_mode=WAL")
        connection.execute("PRAGMA synchronous=FULL")
        connection.execute("PRAGMA foreign_keys=ON")

    return engine


def migrate(engine: Engine) -> None:
    """Bring the tables up to the newest migration."""
    config = Config()
    config.set_main_option("script_location", str(Path(__file__).parent / "migrations"))
    with engine.begin() as connection:
        config.attributes["connection"] = connection
        command.upgrade(config, "head")


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
