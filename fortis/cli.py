"""The `fortis` command."""

import json
import sqlite3
import sys
from collections.abc import Iterator
from contextlib import nullcontext
from datetime import UTC, datetime
from decimal import Decimal
from enum import StrEnum
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Annotated

import typer
from sqlalchemy.orm import Session

from fortis.core.loading.calculator import A_BAR_LIFT, WeightError, bar_kit, calculate, weight
from fortis.core.loading.kit import USUAL_PLATES, PlatesError, read_plates
from fortis.core.loading.warm_up import School
from fortis.core.planned import PlannedLoad
from fortis.core.planned import plan as plan_session
from fortis.core.reason import Reason
from fortis.core.replay import replay as replay_log
from fortis.core.resolution import resolve
from fortis.core.structure.notation import NotationError, read
from fortis.core.structure.prescription import lay_out
from fortis.core.structure.timeline import timeline as put_in_time
from fortis.core.units import Unit, clock, plain
from fortis.demo.log import make_demo
from fortis.formats.bout_row import CsvError
from fortis.formats.calendar import write_calendar
from fortis.formats.csv import read_bouts, write_bouts
from fortis.formats.record import write_record
from fortis.importing import import_
from fortis.season_file import season
from fortis.simulation.log import KINDS
from fortis.simulation.log import write as write_log
from fortis.store.appointments import appointments
from fortis.store.backup import BackupError, InUseError, back_up, bring_back, damage, folder
from fortis.store.check import Findings, read_all
from fortis.store.database import RecordError, open_database
from fortis.store.log import logged
from fortis.store.notebook import notebook
from fortis.store.transfer import about_lifter, all_sessions
from fortis.terminal import HERE, DatabaseFile, opened, refuse, write_new

app = typer.Typer(no_args_is_help=True, add_completion=False, help="Compose, play and read back strength sessions.")

LONG_LOG = 5_000
"""Bouts from which on it is shown how far a replay has come."""


@app.command()
def serve(
    db: DatabaseFile = HERE,
    host: Annotated[str, typer.Option(help="The address to listen on.")] = "127.0.0.1",
    port: Annotated[int, typer.Option(help="The port to listen on.", envvar="PORT", min=1, max=65535)] = 8000,
    to_everybody: Annotated[
        bool,
        typer.Option("--to-everybody", help="Let all who reach this machine use the record."),
    ] = False,
) -> None:
    """Serve Fortis to a browser."""
    # Imported here: the other commands start in half the time without a server.
    from fortis.api.guard import LOOPBACK
    from fortis.serving import listen
    from fortis.serving import serve as answer

    if host not in LOOPBACK and not to_everybody:
        typer.echo(
            f"At {host} everybody who reaches this machine could read and write the record: Fortis asks nobody who "
            "they are. Where that is meant, add --to-everybody; else leave --host out.",
            err=True,
        )
        raise typer.Exit(2)
    database = opened(db)
    try:
        listening = listen(host, port)
    except OSError as error:
        refuse(f"Fortis cannot listen at {host}, port {port}: {error.strerror}. Choose another with --port.")
    answer(database, db, host, listening)


def _read_all(db: Path) -> Findings:
    """Everything in a record, which is brought up to date first. Raises `RecordError`."""
    database = open_database(db)
    with database() as work:
        found = read_all(work)
    database.kw["bind"].dispose()
    return found


def _read_copy(db: Path) -> Findings:
    """Read a copy of a record, so that the record stays as it is, of an older form too."""
    with TemporaryDirectory() as beside:
        copy = Path(beside) / db.name
        try:
            back_up(db, copy)
            return _read_all(copy)
        except (BackupError, RecordError) as error:
            refuse(str(error).replace(str(copy), str(db)))


@app.command()
def demo(db: DatabaseFile = Path("data/demo.db")) -> None:
    """Make a database with a made-up lifter and a year of training; an existing one is kept."""
    if db.exists():
        typer.echo(f"{db} is there already; it is kept. Remove it to start over.")
        return
    typer.echo("Training a made-up lifter for a year, which takes half a minute …")
    try:
        sessions = make_demo(db, year=True)
    except (RecordError, OSError) as error:
        refuse(str(error))
    typer.echo(f"Made {db}: {sessions} sessions of a made-up lifter.")


@app.command()
def timeline(
    file: Annotated[str, typer.Argument(help="A file in the written notation, or - for standard input.")],
    as_json: Annotated[bool, typer.Option("--json", help="Print JSON.")] = False,
    unit: Annotated[Unit, typer.Option(help="The unit of loads written without one.")] = Unit.KG,
) -> None:
    """Print what a written session comes to in time, step by step."""
    try:
        session = read(_text_of(file), unit)
    except (OSError, UnicodeDecodeError, NotationError) as error:
        typer.echo(str(error), err=True)
        raise typer.Exit(2) from error
    result = put_in_time(resolve(lay_out(session)))
    if as_json:
        plain = result.model_dump(mode="json", exclude_none=True, exclude={"steps": {"__all__": {"settled"}}})
        typer.echo(json.dumps(plain, ensure_ascii=False, indent=2))
        return
    for each in result.prep:
        typer.echo(f"{clock(each.takes):>6}  {each.what}")
    for step in result.steps:
        what = f"{step.exercise}, set {step.set}: {step.asked}" if step.kind == "work" else step.what or "rest"
        typer.echo(f"{clock(step.seconds):>6}  {what}")
    typer.echo(f"{clock(result.total_seconds):>6}  in all")


@app.command()
def replay(
    file: Annotated[str, typer.Argument(help="A CSV of bouts (docs/formats.md), or - for standard input.")],
    as_json: Annotated[
        bool, typer.Option("--json", help="Print JSON: every bout, every session, the summary.")
    ] = False,
) -> None:
    """Go through a log in time order, predict each bout before it is seen, and say how good that was."""
    try:
        with nullcontext(sys.stdin) if file == "-" else open(file, encoding="utf-8", newline="") as lines:
            log = list(read_bouts(lines))
    except (OSError, UnicodeDecodeError, CsvError) as error:
        refuse(f"{file}: {error}")
    with typer.progressbar(length=len(log), file=sys.stderr, hidden=len(log) < LONG_LOG) as bar:
        replayed = replay_log(log, progress=bar.update)
    if as_json:
        typer.echo(replayed.model_dump_json(indent=2))
        return
    summary = replayed.summary
    typer.echo(f"{summary.bouts:,} bouts; {summary.judged:,} of them near failure, of a lift known before.")
    for name, reps in summary.reps_error.items():
        typer.echo(f"{name:>10}  {reps:.1f} reps off on average")
    if summary.coverage is not None:
        typer.echo(f"{summary.coverage:.0%} lay between the bounds that Fortis gave.")
    if summary.tested:
        typer.echo(f"{summary.tested:,} sessions showed a max: up to three reps, and the next stuck.")
    for name, share in summary.max_error.items():
        typer.echo(f"{name:>10}  {share:.1%} off or less in half of them")


@app.command()
def plan(
    file: Annotated[str, typer.Argument(help="A file in the written notation, or - for standard input.")],
    log: Annotated[Path, typer.Option(help="A CSV of bouts (docs/formats.md): what was done before.")],
    on: Annotated[datetime, typer.Option(formats=["%Y-%m-%d"], help="The day it is planned for.")],
    bar: Annotated[str, typer.Option(help="The bar, in kilograms.")] = "20",
    plates: Annotated[str, typer.Option(help='Pairs × kilograms a plate: "2x25 1x20 0.5x15".')] = USUAL_PLATES,
    as_json: Annotated[bool, typer.Option("--json", help="Print JSON.")] = False,
    unit: Annotated[Unit, typer.Option(help="The unit of loads written without one.")] = Unit.KG,
) -> None:
    """Plan a written session from a log: a load for every bout, why, and the reps to expect left."""
    try:
        session = read(_text_of(file), unit)
        with open(log, encoding="utf-8", newline="") as lines:
            done = list(read_bouts(lines))
        kit = bar_kit(weight(bar), Decimal(0), read_plates(plates))
    except (OSError, UnicodeDecodeError, NotationError, CsvError, PlatesError, WeightError) as error:
        refuse(f"{log}: {error}" if isinstance(error, CsvError) else str(error))
    planned = plan_session(session, done, on.replace(tzinfo=UTC), kit)
    if as_json:
        typer.echo(json.dumps([each.model_dump(mode="json") for each in planned], ensure_ascii=False, indent=2))
        return
    told: tuple[Reason, ...] = ()
    for each in planned:
        load = "no load" if each.load_kg is None else f"{plain(each.load_kg)} kg"
        reps = "all there are" if each.reps is None else f"{each.reps}"
        typer.echo(f"{each.exercise}, set {each.set}: {reps} at {load}{_outlook(each)}")
        for reason in each.reasons if each.reasons != told else ():
            typer.echo(f"        {reason.text}")
        told = each.reasons


def _outlook(each: PlannedLoad) -> str:
    left = each.expected_reserve
    if left is None:
        return ""
    return f", likely {left:g} left" if left >= 0 else f", likely {-left:g} short"


def _text_of(file: str) -> str:
    """What a file says, or standard input. Raises `OSError` and `UnicodeDecodeError`."""
    return sys.stdin.read() if file == "-" else Path(file).read_text(encoding="utf-8")


@app.command()
def simulate(
    folder: Annotated[Path, typer.Argument(help="Where the logs go, two CSVs a lifter: the log and the truth.")],
    lifters: Annotated[int, typer.Option(min=1, max=1_000, help="Lifters of each kind.")] = 1,
    weeks: Annotated[int, typer.Option(min=1, max=1_040, help="Weeks of training.")] = 26,
    seed: Annotated[int, typer.Option(help="The same seed makes the same lifters.")] = 1,
) -> None:
    """Make up lifters of several kinds, none of them Fortis's own, and write their logs with the truth beside."""
    try:
        for kind in KINDS:
            for number in range(lifters):
                write_log(folder, kind, weeks, seed + number)
    except OSError as error:
        refuse(f"{folder} cannot be written to: {error.strerror}.")
    typer.echo(f"Wrote {len(KINDS) * lifters} lifters of {len(KINDS)} kinds to {folder}.")


@app.command()
def load(
    kg: Annotated[str, typer.Argument(help="The load wanted, in kilograms.")] = "",
    bar: Annotated[str, typer.Option(help="The bar, in kilograms.")] = "20",
    plates: Annotated[str, typer.Option(help='Pairs × kilograms a plate: "2x25 1x20 0.5x15".')] = USUAL_PLATES,
    collar: Annotated[str, typer.Option(help="One collar, in kilograms.")] = "0",
    sequence: Annotated[str, typer.Option(help="Loads one after the other, to strip between: 160,120,96.")] = "",
    warmup: Annotated[bool, typer.Option("--warmup", help="The way up to the load.")] = False,
    many: Annotated[bool, typer.Option("--many", help="Warm up in many small jumps.")] = False,
    as_json: Annotated[bool, typer.Option("--json", help="Print JSON.")] = False,
) -> None:
    """Print the nearest load that can be built, the strip plan for several, or the warm-up to one."""
    try:
        wanted = [weight(part) for part in sequence.split(",")] if sequence else [weight(kg)]
        kit = bar_kit(weight(bar), weight(collar, least=0), read_plates(plates))
    except (PlatesError, WeightError) as error:
        typer.echo(str(error), err=True)
        raise typer.Exit(2) from error
    school = School.MANY if many else School.FEW
    calculated = calculate(kit, A_BAR_LIFT, wanted, school=school if warmup else None)
    if as_json:
        whole = calculated.model_dump(mode="json", exclude_none=True)
        shown = whole if sequence or warmup else {**whole["loads"][0], "change": None}
        typer.echo(json.dumps({key: value for key, value in shown.items() if value is not None}, indent=2))
        return
    for step in calculated.warm_up:
        typer.echo(f"{plain(step.kg):>7} × {step.reps}")
    for each in calculated.loads:
        side = " ".join(map(plain, each.sleeve)) or "nothing"
        rounding = f"  ({each.rounding_kg:+} kg)" if each.rounding_kg else ""
        change = f"  {each.change}" if each.change else ""
        typer.echo(f"{plain(each.total_kg):>7}  each side {side}{rounding}{change}")


@app.command()
def backup(target: Path, db: DatabaseFile = HERE) -> None:
    """Copy the database to TARGET, whole, even while Fortis is running."""
    try:
        back_up(db, target)
    except FileNotFoundError:
        refuse(f"{db}: there is no such database.")
    except FileExistsError:
        refuse(f"{target}: that file exists already.")
    except BackupError as error:
        refuse(str(error))
    typer.echo(f"Copied {db} to {target}.")


@app.command()
def restore(copy: Path, db: DatabaseFile = HERE) -> None:
    """Put a COPY of the database back in its place; what was there is set aside. Stop Fortis first."""
    try:
        aside = bring_back(copy, db, datetime.now(UTC).astimezone())
    except FileNotFoundError:
        refuse(f"{copy}: there is no such file.")
    except InUseError:
        refuse(f"{db} is in use: stop Fortis, then try again.")
    except (BackupError, OSError) as error:
        refuse(str(error))
    try:
        found = _read_all(db)
    except RecordError as error:
        refuse(str(error))
    typer.echo(f"Brought back {copy}: {found.sessions:,} sessions with {found.bouts:,} bouts.")
    if aside:
        typer.echo(f"What was there before is {aside}.")


class Format(StrEnum):
    """What the record can be taken away as."""

    CSV = "csv"
    JSON = "json"
    ICS = "ics"
    TXT = "txt"


WHAT = "csv: every bout; json: everything; ics: what is planned, a calendar; txt: every session in the notation."


@app.command()
def export(
    form: Annotated[Format, typer.Option("--format", help=WHAT)],
    out: Annotated[Path | None, typer.Option(help="The file to write; it must not exist yet.")] = None,
    db: DatabaseFile = HERE,
) -> None:
    """Write the record in an open format to a file, or to standard output."""
    if not db.exists():
        refuse(f"{db}: there is no such database.")
    with opened(db)() as work:
        content = _content(work, form)
        if out is None:
            sys.stdout.buffer.writelines(content)
            return
        write_new(out, content, f"{out}: that file exists already.")


def _content(work: Session, form: Format) -> Iterator[bytes]:
    """The record in a format, piece by piece."""
    match form:
        case Format.ICS:
            return iter([write_calendar(appointments(work), datetime.now(UTC))])
        case Format.CSV:
            pieces = write_bouts(logged(work))
        case Format.JSON:
            pieces = write_record(about_lifter(work), all_sessions(work))
        case Format.TXT:
            pieces = notebook(work)
    return (piece.encode() for piece in pieces)


app.command(name="import")(import_)
app.command()(season)


@app.command()
def check(db: DatabaseFile = HERE) -> None:
    """Tell how the record is: whether its file is sound and everything in it can be read."""
    if not db.exists():
        refuse(f"{db}: there is no such database.")
    try:
        problems = damage(db)
    except sqlite3.Error as error:
        problems = [str(error)]
    if problems:
        for problem in problems:
            typer.echo(problem, err=True)
        refuse(f"{db} is damaged; bring back the latest backup from {folder(db)}.")
    found = _read_copy(db)
    if found.unreadable:
        refuse("\n".join(found.unreadable))
    typer.echo(f"{db} is sound: {found.sessions:,} sessions with {found.bouts:,} bouts, all of them readable.")
