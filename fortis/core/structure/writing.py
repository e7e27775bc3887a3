"""The written notation, written: a session in, its one canonical text out. `read(write(x)) == x`."""

from collections.abc import Iterable
from decimal import Decimal

from fortis.core.structure.model import (
    BodyPlus,
    Bout,
    Effort,
    Entry,
    FailureKind,
    FixedReps,
    Group,
    Hold,
    LastTime,
    Leave,
    LoadTarget,
    MaxReps,
    OfPrevious,
    OfTop,
    Percent,
    Preparation,
    PreparationLine,
    RepMax,
    RepRange,
    RepTarget,
    Rpe,
    Session,
    Set,
    Sets,
    SetUp,
    Shift,
    Terms,
    ToFailure,
    Weight,
    WeightRange,
    describe_shift,
)
from fortis.core.units import clock, plain


def write(session: Session) -> str:
    """Write a session in its canonical form, a line an entry, ending with a newline."""
    lines = [f"# {session.title}"] if session.title else []
    for line in session.prep:
        lines += _lines(line, write_preparation(line))
    for group in session.groups:
        lines += _group(group)
    return "\n".join([*lines, *session.after]) + "\n"


def _group(group: Group) -> list[str]:
    if group.is_straight:
        return _lines(group.entries[0], write_entry(group.entries[0]))
    lines = _lines(group, write_head(group) + ":")
    for entry in group.entries:
        lines += _lines(entry, write_entry(entry), indent="  ")
    return lines


def _lines(written: Entry | Group | PreparationLine, code: str, indent: str = "") -> list[str]:
    """A line with the remarks before and behind it."""
    before = [f"{indent}{line}".rstrip() for line in written.before]
    return [*before, f"{indent}{code}{f'  # {written.remark}' if written.remark else ''}"]


def write_preparation(line: PreparationLine) -> str:
    """Write a line of preparation: `prep: hip drills 5:00, heat on the elbow`."""
    return f"prep: {write_preparations(line.items)}"


def write_preparations(items: Iterable[Preparation]) -> str:
    """Write what is done before the first lift: `hip drills 5:00, heat on the elbow`."""
    return ", ".join(f"{item.what} {clock(item.seconds)}" if item.seconds else item.what for item in items)


def write_head(group: Group) -> str:
    """Write what opens a pair or circuit, without its colon: `pair, 3 rounds, rest 1:30`."""
    head = ["pair" if len(group.entries) == 2 else "circuit"]
    if group.rounds:
        head.append(f"{group.rounds} round{'s' if group.rounds > 1 else ''}")
    for name, seconds in (
        ("for", group.span),
        ("every", group.every),
        ("between", group.between),
        ("rest", group.rest),
    ):
        if seconds:
            head.append(f"{name} {clock(seconds)}")
    return ", ".join(head)


def write_entry(entry: Entry) -> str:
    """Write one exercise with its sets on a line."""
    return f"{write_lift(entry.exercise, entry.setup)}: {write_runs(entry.sets)}"


def write_lift(exercise: str, setup: SetUp) -> str:
    """Write a lift with its set-up: `Front squat [belt]`."""
    return f"{exercise} [{setup}]" if setup.items else exercise


def write_runs(runs: Iterable[Sets]) -> str:
    """Write what stands behind a lift's colon: `3 x 5 at 60 kg; 8`."""
    return "; ".join(map(write_sets, runs))


def write_sets(sets: Sets) -> str:
    """Write a run of sets: `3 x 5 at 60 kg`, `5 sets of (…)`."""
    rest = f" for {clock(sets.span)}" if sets.span else ""
    rest += f" every {clock(sets.every)}" if sets.every else f" rest {clock(sets.rest)}" if sets.rest else ""
    if len(sets.each.bouts) == 1:
        times = f"{sets.count} x " if sets.count > 1 else ""
        return f"{times}{write_bout(sets.each.bouts[0])}{rest}"
    return f"{sets.count} set{'s' if sets.count > 1 else ''} of {_set(sets.each)}{rest}"


def _set(each: Set) -> str:
    items: list[str] = []
    for bout in each.bouts:
        items.append(write_bout(bout))
        if bout.rest:
            items.append(clock(bout.rest))
    within = f" within {clock(each.within)}" if each.within else ""
    return f"({', '.join(items)}){_terms(each.terms)}{within}"


def write_bout(bout: Bout) -> str:
    """Write a bout: `8-10 leave 1`, `drop 20% to failure`."""
    drops = isinstance(bout.terms.load, OfPrevious) and bout.terms.load.shift.amount < 0
    dropping = drops and bout.terms.range_of_motion is None and isinstance(bout.reps, MaxReps)
    reps = "" if dropping else write_reps(bout.reps)
    return f"{reps}{_terms(bout.terms)}".strip()


def write_reps(reps: RepTarget) -> str:
    """Write a rep target: `5`, `8-10`, `max`, `hold 30s`."""
    match reps:
        case FixedReps(count=count):
            return str(count)
        case RepRange(low=low, high=high):
            return f"{low}-{high}"
        case MaxReps():
            return "max"
        case Hold(seconds=seconds):
            return f"hold {clock(seconds)}"


def _terms(terms: Terms) -> str:
    words = [terms.range_of_motion.value] if terms.range_of_motion else []
    if isinstance(terms.load, OfPrevious):
        words.append(_of_previous(terms.load.shift))
    elif terms.load:
        words.append(f"at {write_load(terms.load)}")
    if terms.climb:
        words.append(f"up {_amount(terms.climb)}")
    if terms.effort:
        words.append(write_effort(terms.effort))
    if terms.tempo:
        words.append(f"tempo {terms.tempo}")
    if terms.side:
        words.append(terms.side.value + (f" {clock(terms.apart)} apart" if terms.apart else ""))
    if terms.lifting:
        words.append(terms.lifting.value)
    return "".join(f" {word}" for word in words)


def write_effort(effort: Effort) -> str:
    """Write an effort: `leave 2`, `rpe 8`, `to failure`."""
    match effort:
        case Leave(low=low, high=high):
            return f"leave {low}" if low == high else f"leave {low}-{high}"
        case Rpe(value=value):
            return f"rpe {plain(value)}"
        case ToFailure(how=FailureKind.ANY):
            return "to failure"
        case ToFailure(how=how):
            return f"to {how} failure"


def write_load(load: LoadTarget) -> str:
    """Write a load target: `60 kg`, `87%`, `bw+20 kg`, `top -10%`."""
    match load:
        case Weight(amount=amount, unit=unit):
            return f"{plain(amount)} {unit}"
        case WeightRange(low=low, high=high, unit=unit):
            return f"{plain(low)}-{plain(high)} {unit}"
        case Percent(percent=percent, of=of):
            return f"{plain(percent)}%" + (f" of {write_load(of)}" if of else "")
        case RepMax(reps=reps):
            return f"{reps}RM"
        case BodyPlus(amount=amount, unit=unit):
            return f"bw{_signed(amount)} {unit}" if amount else "bw"
        case LastTime(shift=shift):
            return f"last {describe_shift(shift)}" if shift else "last"
        case OfTop(shift=shift):
            return f"top {describe_shift(shift)}" if shift.amount else "top"
        case OfPrevious(shift=shift):
            return _of_previous(shift)


def _of_previous(shift: Shift) -> str:
    return f"{'drop' if shift.amount < 0 else 'add'} {_amount(shift)}"


def _signed(amount: Decimal) -> str:
    return f"{'-' if amount < 0 else '+'}{plain(abs(amount))}"


def _amount(shift: Shift) -> str:
    unit = "%" if shift.unit == "%" else f" {shift.unit}"
    return f"{plain(abs(shift.amount))}{unit}"
