"""What the commands have in common: the record they work on, and how they refuse."""

from collections.abc import Iterable
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


def write_new(out: Path, content: Iterable[bytes], taken: str) -> None:
    """Write a file that is not there yet, and say so; where it is there, says that it is `taken`, and ends."""
    try:
        with out.open("xb") as file:
            file.writelines(content)
    except FileExistsError:
        refuse(taken)
    except OSError as error:
        refuse(f"{out}: {error.strerror}.")
    typer.echo(f"Wrote {out}.")
