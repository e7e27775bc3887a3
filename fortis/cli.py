"""The `fortis` command."""

import json
import sys
from pathlib import Path
from typing import Annotated

import typer
import uvicorn

from fortis.api.app import create_app
from fortis.core.loading.calculator import A_BAR_LIFT, WeightError, bar_kit, calculate, weight
from fortis.core.loading.kit import PlatesError, read_plates
from fortis.core.loading.warm_up import School
from fortis.core.resolution import resolve
from fortis.core.structure.notation import NotationError, read
from fortis.core.structure.prescription import lay_out
from fortis.core.structure.timeline import timeline as put_in_time
from fortis.core.units import Unit, clock, plain
from fortis.demo.log import make_demo
from fortis.garbage_collection import collect_less_often
from fortis.store.database import back_up, open_database

app = typer.Typer(no_args_is_help=True, add_completion=False, help="Compose, play and read back strength sessions.")

DatabaseFile = Annotated[Path, typer.Option("--db", help="The database file.", envvar="FORTIS_DB")]
HERE = Path("data/fortis.db")
USUAL_PLATES = "4x25 2x20 1x15 2x10 2x5 2x2.5 1x1.25"


@app.command()
def serve(
    db: DatabaseFile = HERE,
    host: Annotated[str, typer.Option(help="The address to listen on.")] = "127.0.0.1",
    port: Annotated[int, typer.Option(help="The port to listen on.", envvar="PORT")] = 8000,
) -> None:
    """Serve Fortis to a browser."""
    typer.echo(f"Fortis is at http://{host}:{port} with the record in {db}. Stop it with Ctrl+C.")
    collect_less_often()
    uvicorn.run(create_app(open_database(db)), host=host, port=port, log_level="warning")


@app.command()
def demo(db: DatabaseFile = Path("data/demo.db")) -> None:
    """Make a database with a made-up lifter and twelve weeks of training; an existing one is kept."""
    if db.exists():
        typer.echo(f"{db} is there already; it is kept. Remove it to start over.")
        return
    sessions = make_demo(db)
    typer.echo(f"Made {db}: {sessions} sessions of a made-up lifter.")


@app.command()
def timeline(
    file: Annotated[str, typer.Argument(help="A file in the written notation, or - for standard input.")],
    as_json: Annotated[bool, typer.Option("--json", help="Print JSON.")] = False,
    unit: Annotated[Unit, typer.Option(help="The unit of loads written without one.")] = Unit.KG,
) -> None:
    """Print what a written session comes to in time, step by step."""
    try:
        text = sys.stdin.read() if file == "-" else Path(file).read_text(encoding="utf-8")
        session = read(text, unit)
    except (OSError, UnicodeDecodeError, NotationError) as error:
        typer.echo(str(error), err=True)
        raise typer.Exit(2) from error
    result = put_in_time(resolve(lay_out(session)))
    if as_json:
        plain = result.model_dump(mode="json", exclude_none=True, exclude={"steps": {"__all__": {"settled"}}})
        typer.echo(json.dumps(plain, ensure_ascii=False, indent=2))
        return
    for step in result.steps:
        what = f"{step.exercise}, set {step.set}: {step.asked}" if step.kind == "work" else step.what or "rest"
        typer.echo(f"{clock(step.seconds):>6}  {what}")
    typer.echo(f"{clock(result.total_seconds):>6}  in all")


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
        wanted = [weight(part) for part in (sequence or kg).split(",")]
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
    except (FileNotFoundError, FileExistsError) as error:
        reason = "there is no such database" if isinstance(error, FileNotFoundError) else "that file exists already"
        typer.echo(f"{error}: {reason}.", err=True)
        raise typer.Exit(2) from error
    typer.echo(f"Copied {db} to {target}.")
