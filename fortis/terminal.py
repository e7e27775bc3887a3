"""What the commands have in common: the record they work on, and how they refuse."""

from pathlib import Path
from typing import Annotated, NoReturn

import typer

from fortis.store.database import Database, RecordError, open_database

DatabaseFile = Annotated[Path, typer.Option("--db", help="The database file.", envvar="FORTIS_DB")]
HERE = Path("data/fortis.db")


def opened(db: Path) -> Database:
    """The record in a file; where it cannot be opened, says why and ends."""
    try:
        return open_database(db)
    except RecordError as error:
        refuse(str(error))


def refuse(why: str) -> NoReturn:
    """Say why something cannot be done, and end."""
    typer.echo(why, err=True)
    raise typer.Exit(2)
