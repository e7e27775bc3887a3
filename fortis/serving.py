"""The server: listening, saying where it is, and what it does beside answering."""

import socket
from contextlib import suppress
from datetime import UTC, datetime
from importlib import import_module
from pathlib import Path
from threading import Thread
from time import sleep

import typer
import uvicorn
from sqlalchemy.exc import SQLAlchemyError

from fortis.api.app import create_app
from fortis.garbage_collection import collect_less_often
from fortis.store import went
from fortis.store.backup import BackupError, daily
from fortis.store.database import Database

BETWEEN_LOOKS_SECONDS = 3_600
"""How often it is looked at whether a new day wants its backup."""


def serve(database: Database, db: Path, host: str, listening: socket.socket) -> None:
    """Answer browsers from a record until Ctrl+C, back it up once a day, and learn from it ahead."""
    collect_less_often()
    _keep_backups(db)
    _learn_ahead(database)
    served = uvicorn.Config(create_app(database, names=[host]), log_level="warning", lifespan="off")
    at = f"http://{host}:{listening.getsockname()[1]}"
    with suppress(KeyboardInterrupt):
        _Serving(served, f"Fortis is at {at} with the record in {db}. Stop it with Ctrl+C.").run([listening])


def listen(host: str, port: int) -> socket.socket:
    """A socket that sends what it has at once: held back for more, every answer comes 40 ms late."""
    listening = socket.create_server((host, port))
    listening.setsockopt(socket.IPPROTO_TCP, socket.TCP_NODELAY, 1)
    return listening


class _Serving(uvicorn.Server):
    """Says where it is once it is there."""

    def __init__(self, config: uvicorn.Config, where: str) -> None:
        super().__init__(config)
        self.where = where

    async def startup(self, sockets: list[socket.socket] | None = None) -> None:
        await super().startup(sockets)
        typer.echo(self.where)


def _keep_backups(db: Path) -> None:
    """Copy the record now and once a day, beside all else."""

    def copy() -> None:
        while True:
            try:
                daily(db, datetime.now(UTC).astimezone().date())
            except (BackupError, OSError) as error:
                typer.echo(f"No backup was made: {error}", err=True)
            sleep(BETWEEN_LOOKS_SECONDS)

    Thread(target=copy, daemon=True).start()


def _learn_ahead(database: Database) -> None:
    """Work out what is known of the lifter's strength before anybody asks for it."""

    def learn() -> None:
        import_module("scipy.optimize")  # what loads are solved with takes a second to import
        with suppress(SQLAlchemyError, ValueError, LookupError), database() as work:
            went.sessions_went(work, datetime.now(UTC))

    Thread(target=learn, daemon=True).start()
