"""The season file, written: a season in, its one canonical text out. `read_season(write_season(x)) == x`."""

from collections.abc import Iterator

from fortis.core.season.model import Aim, Away, Block, LightSchool, LightWeek, Season, Trial
from fortis.core.structure.writing import write_lift

BY_LOT = " by lot"
"""After a school that was drawn."""


def write_season(season: Season) -> str:
    """Write a season: its title, its first day, what it leads to, and its blocks with their days."""
    lines = [f"# {season.title}", f"from {season.starts.isoformat()}"]
    if season.aim:
        lines.append(_aim(season.aim))
    lines += map(write_away, season.off)
    lines += map(write_trial, season.trials)
    for block in season.blocks:
        lines += ["", *_block(block)]
    return "\n".join(lines) + "\n"


def write_block(block: Block) -> str:
    """Write what opens a block, without its colon: `building, 2 rounds of 3 weeks`."""
    weeks = f"{block.weeks} week{'s' if block.weeks > 1 else ''}"
    parts = [f"{block.kind} ({block.name})" if block.name else str(block.kind)]
    parts.append(f"{block.rounds} rounds of {weeks}" if block.rounds > 1 else weeks)
    return ", ".join([*parts, write_school(block.school, block.by_lot)] if block.school else parts)


def write_school(school: LightSchool, by_lot: bool) -> str:
    """Write how a week is light: `half the load`, or `half the load by lot`."""
    return f"{school}{BY_LOT}" if by_lot else str(school)


def write_away(away: Away | LightWeek) -> str:
    """Write a week without training, `away 2026-11-23: ill`, or a light one, `light 2026-11-23: half the load`."""
    if isinstance(away, LightWeek):
        how, school = "lightened" if away.instead else "light", write_school(away.school, away.by_lot)
        return f"{how} {away.monday.isoformat()}: {school}"
    why = f": {away.why}" if away.why else ""
    return f"{'missed' if away.missed else 'away'} {away.monday.isoformat()}{why}"


def write_trial(trial: Trial) -> str:
    """Write a trial: `trial 2026-11-30, 8 weeks, in 1 4 5 8: Front squat [belt]: heavy single first`."""
    lift, what = write_lift(trial.exercise, trial.setup), trial.method or trial.sets
    tried = " ".join(map(str, trial.tried))
    return f"trial {trial.monday.isoformat()}, {trial.weeks} weeks, in {tried}: {lift}: {what}"


def _aim(aim: Aim) -> str:
    lifts = ", ".join(write_lift(each.exercise, each.setup) for each in aim.lifts)
    return f"{aim.what} {aim.on.isoformat()}{f': {lifts}' if lifts else ''}"


def _block(block: Block) -> Iterator[str]:
    yield write_block(block) + (":" if block.days else "")
    for day in block.days:
        yield f"  {day.weekday}, {day.title}:"
        yield from (f"    {line}".rstrip() for line in day.lines)
