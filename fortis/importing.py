"""`fortis import`: a log of other making taken into the record from a terminal."""

from collections.abc import Iterable, Mapping, Sequence
from datetime import UTC, datetime
from enum import StrEnum
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Annotated
from zoneinfo import ZoneInfo

import typer
from sqlalchemy.exc import IntegrityError

from fortis.core.lift_names import as_lift_name
from fortis.core.structure.notation import MOST_BOUTS
from fortis.core.units import Unit
from fortis.formats.foreign import Holds, Reader, UnreadableError, guess
from fortis.formats.moment import DateOrder
from fortis.formats.record import RecordFileError, is_record, read_record
from fortis.formats.table import Delimiter, Encoding, TableError, layout_of, names_of
from fortis.store.database import Database, writing
from fortis.store.imports import LiftOfLog, LogPreview, Plan, examine, stage, write
from fortis.store.lifter import lifter
from fortis.store.lifts import library
from fortis.store.staging import Staged
from fortis.store.transfer import NotEmptyError, bring_in
from fortis.terminal import HERE, DatabaseFile, opened, refuse

MOST_SAID = 10
"""Rows that are passed over of which each is said."""


class DateWord(StrEnum):
    """In which order a date has its parts, in short."""

    YMD = "ymd"
    DMY = "dmy"
    MDY = "mdy"


ORDERS = {
    DateWord.YMD: DateOrder.YEAR_FIRST,
    DateWord.DMY: DateOrder.DAY_FIRST,
    DateWord.MDY: DateOrder.MONTH_FIRST,
}


def import_(
    file: Annotated[Path, typer.Argument(help="A table of sets as text, or a whole record as JSON.")],
    db: DatabaseFile = HERE,
    dry_run: Annotated[bool, typer.Option("--dry-run", help="Say what would be written; write nothing.")] = False,
    columns: Annotated[
        list[str] | None,
        typer.Option("--map", help='What a column holds: "Weight used=load"; "Mood=" is left out.'),
    ] = None,
    lifts: Annotated[
        list[str] | None,
        typer.Option("--lift", help='The lift meant: "Squats=Back squat"; "Cycling=" is left out.'),
    ] = None,
    unit: Annotated[Unit | None, typer.Option(help="The unit of loads written without one.")] = None,
    decimal: Annotated[str | None, typer.Option(help="The mark before decimals: . or ,")] = None,
    dates: Annotated[DateWord | None, typer.Option(help="The order of day, month and year.")] = None,
    delimiter: Annotated[Delimiter | None, typer.Option(help="What parts the cells.")] = None,
    encoding: Annotated[Encoding | None, typer.Option(help="What the file is written in.")] = None,
) -> None:
    """Take a log of any making into the record, or a whole record into a new one.

    What is not told of a log is guessed, and what is guessed is said.
    """
    if decimal not in (None, ".", ","):
        refuse(f"--decimal: “{decimal}” stands before no decimals; . and , do.")
    database = opened(db)
    try:
        if is_record(file):
            _bring_in(database, file, dry_run)
            return
        with database() as work:
            me = lifter(work)
        found = guess(file, layout_of(file, encoding, delimiter), unit or me.unit)
        own = {"unit": unit, "decimal": decimal, "dates": dates and ORDERS[dates]}
        reading = found.reading.model_copy(
            update={
                **{name: value for name, value in own.items() if value is not None},
                "columns": _mapped(found.reading.columns, columns or [], names_of(file, found.reading.layout)),
            }
        )
        reader = Reader(file, reading, ZoneInfo(me.zone), datetime.now(UTC))
        _say_reading(reader, found.doubts)
        with TemporaryDirectory() as beside:
            staged = Staged(Path(beside) / "staged.db")
            try:
                _take_in(database, reader, staged, _pairs(lifts or [], "--lift"), dry_run)
            finally:
                staged.close()
    except OSError as error:
        refuse(f"{file}: {error.strerror}.")
    except (TableError, UnreadableError, RecordFileError) as error:
        refuse(f"{file}: {error}")


def _bring_in(database: Database, file: Path, dry_run: bool) -> None:
    """Bring a whole record into this one, which is new."""
    try:
        with file.open("rb") as content, writing(database)() as work:
            many = bring_in(work, read_record(content))
            if not dry_run:
                work.commit()
    except NotEmptyError:
        refuse("A whole record comes only into one without sessions: name a new file with --db.")
    except IntegrityError as error:
        refuse(f"{file}: its parts contradict each other ({error.orig}). Nothing was written.")
    typer.echo(f"The file is a whole record: {_many(many, 'session')}.")
    typer.echo("Nothing was written." if dry_run else "All of it is in the record.")


def _take_in(database: Database, reader: Reader, staged: Staged, lifts: Mapping[str, str], dry_run: bool) -> None:
    with database() as work:
        known = library(work)
    read = stage(reader, staged, known)
    if unknown := set(lifts) - set(read.suggestions):
        refuse(f"--lift: the file has no {min(unknown)}.")
    plan = Plan({**read.suggestions, **lifts}, reader.reading.unit)
    with database() as work:
        examined = examine(work, staged, read, plan)
    _say(examined, plan)
    if not examined.bouts:
        refuse("There is nothing to write.")
    if dry_run:
        typer.echo("Nothing was written.")
        return
    with typer.progressbar(length=examined.bouts, label="Writing") as bar:
        write(
            database, reader.path.name, staged, plan, datetime.now(UTC), lambda so_far: bar.update(so_far - bar.pos)
        )
    typer.echo(
        f"Wrote {_many(examined.sessions, 'session')} with {_many(examined.bouts, 'bout')}; the Ledger can undo it."
    )


def _mapped(guessed: Mapping[Holds, int], told: Iterable[str], names: Sequence[str]) -> dict[Holds, int]:
    """What the columns hold, as guessed and as told."""
    columns = dict(guessed)
    for name, holds in _pairs(told, "--map").items():
        if name not in names:
            refuse(f"--map: the file has no column {name}; it has {', '.join(names)}.")
        at = names.index(name)
        columns = {what: where for what, where in columns.items() if where != at}
        if holds and holds not in set(Holds):
            refuse(f"--map: a column holds no {holds}; it can hold {', '.join(Holds)}.")
        if holds:
            columns[Holds(holds)] = at
    return columns


def _pairs(told: Iterable[str], option: str) -> dict[str, str]:
    """What is told as `name=value`."""
    pairs = {}
    for each in told:
        name, sign, value = each.partition("=")
        if not sign:
            refuse(f"{option}: “{each}” is missing its =.")
        pairs[name.strip()] = value.strip()
    return pairs


def _say_reading(reader: Reader, doubts: Iterable[str]) -> None:
    """Say how the file is read."""
    reading, layout = reader.reading, reader.reading.layout
    typer.echo(f"Read as {layout.encoding}, cells parted by a {layout.delimiter}, loads in {reading.unit}.")
    for holds, at in sorted(reading.columns.items(), key=lambda each: each[1]):
        typer.echo(f"  {reader.names[at]}: {holds}")
    for doubt in doubts:
        typer.echo(doubt)


def _say(examined: LogPreview, plan: Plan) -> None:
    """Say what it comes to."""
    for each in examined.lifts:
        name = plan.lifts[each.name]
        means = "" if name == each.name and each.sure else f" → {_means(each, name)}"
        typer.echo(f"{each.bouts:>7,}  {each.name}{means}")
    days = f", {examined.first} to {examined.last}" if examined.first else ""
    come_to = f"{_many(examined.sessions, 'session')} with {_many(examined.bouts, 'bout')}{days}"
    typer.echo(f"{_many(examined.rows, 'row')} came to {come_to}.")
    if examined.there_already:
        typer.echo(f"Passed over what the record has already: {_many(examined.there_already, 'bout')}.")
    if examined.too_long:
        said = _many(examined.too_long, "session")
        typer.echo(f"Passed over {said} of over {MOST_BOUTS:,} bouts; look at the column of the days.")
    for over in examined.passed_over[:MOST_SAID]:
        typer.echo(f"Passed over line {over.line:,}, {over.column}: {over.why}.")
    if (more := examined.rows_passed_over - MOST_SAID) > 0:
        typer.echo(f"Passed over {_many(more, 'more row')}.")


def _means(lift: LiftOfLog, name: str) -> str:
    """What a name in the file is taken for, and how sure that is."""
    if not name:
        return "left out"
    if name == lift.suggested:
        return name if lift.sure else f"{name}?"
    return f"{name} (not known)" if name == as_lift_name(lift.name) else name


def _many(many: int, noun: str) -> str:
    return f"{many:,} {noun}{'' if many == 1 else 's'}"
