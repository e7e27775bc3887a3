"""`fortis season`: a season taken from a file into the record, shown week by week, or written to a file."""

from datetime import UTC, datetime
from pathlib import Path
from typing import Annotated
from uuid import uuid4

import typer

from fortis.core.season.model import Season
from fortis.core.season.reading import SeasonError, read_season
from fortis.core.season.weeks import weeks
from fortis.core.season.writing import write_block
from fortis.core.units import Unit
from fortis.store import seasons
from fortis.store.database import Database, writing
from fortis.store.lifter import lifter, today
from fortis.terminal import HERE, DatabaseFile, opened, refuse, write_new


def season(
    file: Annotated[Path | None, typer.Argument(help="A season as text; without one that of the record.")] = None,
    db: DatabaseFile = HERE,
    dry_run: Annotated[bool, typer.Option("--dry-run", help="Show its weeks; plan nothing.")] = False,
    out: Annotated[Path | None, typer.Option(help="Write the season to this file, which is not there yet.")] = None,
) -> None:
    """Plan a season from a text file, or write the one under way to a file.

    A season under way is changed: what was begun, and what you changed by hand, stays.
    """
    database = opened(db)
    if file is None:
        _write(database, out)
        return
    if out is not None:
        refuse("--out writes the season of the record: leave the file out.")
    try:
        text = file.read_text(encoding="utf-8-sig")
    except UnicodeDecodeError:
        refuse(f"{file}: this is no text in UTF-8.")
    except OSError as error:
        refuse(f"{file}: {error.strerror}.")
    try:
        _plan(database, text, dry_run)
    except SeasonError as error:
        refuse("\n".join(f"{file}, {problem}" for problem in error.problems))


def _plan(database: Database, text: str, dry_run: bool) -> None:
    now = datetime.now(UTC)
    with database() as work:
        unit = lifter(work).unit
    read = read_season(text, unit)
    if dry_run:
        _show(read, unit)
        return
    with writing(database).begin() as work:
        row = seasons.underway(work)
        _, planned = seasons.save(work, row.id if row else str(uuid4()), text, unit, today(work, now), now)
    typer.echo(
        f"{read.title}: {read.weeks} weeks. {planned.new} sessions planned, {planned.changed} changed, "
        f"{planned.taken_out} taken out."
    )


def _show(season: Season, unit: Unit) -> None:
    """The weeks with their sessions."""
    block = 0
    for week in weeks(season, unit):
        if week.block != block:
            block = week.block
            typer.echo(f"\n{write_block(season.blocks[block - 1])}")
        name = f"Week {week.number}" if week.number else "A light week between"
        typer.echo(f"  {name}, from {week.monday}")
        for each in week.sessions:
            typer.echo(f"    {each.on:%A}, {each.title}")
            for line in each.written.splitlines()[1:]:
                typer.echo(f"      {line}")
    if season.aim:
        typer.echo(f"\n{season.aim.what} on {season.aim.on}")


def _write(database: Database, out: Path | None) -> None:
    with database() as work:
        row = seasons.underway(work)
        if row is None:
            refuse("There is no season under way. Plan one: fortis season FILE.")
        text = row.written
    if out is None:
        typer.echo(text, nl=False)
        return
    write_new(out, [text.encode()], f"{out} is there already; choose another name.")
