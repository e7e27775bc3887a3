"""Light weeks, made of the week before them by one of the schools (common practice).

*Heavy and short* keeps the loads heavy and cuts the work: the lifts that come first are done for a few doubles at
85 %, two more groups keep half their sets with reps in reserve, the rest is left out. *Half the load* keeps the
pattern: loads are halved, and nothing goes near failure.
"""

from collections.abc import Callable
from decimal import Decimal

from fortis.core.season.model import LightSchool
from fortis.core.structure.model import (
    BodyPlus,
    Bout,
    Entry,
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
    RepMax,
    Session,
    Set,
    Sets,
    Shift,
    Terms,
    Weight,
    WeightRange,
)

HEAVY = Decimal(85)
"""Per cent of the max for a few doubles, of the 80 to 90 that the school names."""
KEPT_GROUPS = 3
LEFT = Leave(low=3, high=3)
FEW = FixedReps(count=8)
"""Instead of as many reps as possible."""
HALF = Decimal("0.5")
HALF_OF_LAST = LastTime(shift=Shift(amount=Decimal(-50)))


def lightened(session: Session, school: LightSchool) -> Session:
    """A session of a light week, made of one of the week before it."""
    if school is LightSchool.HALF:
        groups = tuple(_changed(group, _with_half) for group in session.groups)
    else:
        first, *others = session.groups[:KEPT_GROUPS]
        short = _changed(first, _in_doubles) if not _holds(first) else _shorter(first)
        groups = (short, *map(_shorter, others))
    return session.model_copy(update={"groups": groups})


def _changed(group: Group, change: Callable[[Entry], Entry]) -> Group:
    return group.model_copy(update={"entries": tuple(map(change, group.entries))})


def _holds(group: Group) -> bool:
    return any(
        isinstance(bout.reps, Hold) for entry in group.entries for run in entry.sets for bout in run.each.bouts
    )


def _in_doubles(entry: Entry) -> Entry:
    """A lift for two doubles at a load that a double at 85 % is, or as it is loaded with body weight."""
    first = entry.sets[0].each
    load = first.bouts[0].terms.over(first.terms).load
    by_body = isinstance(load, BodyPlus)
    terms = Terms(load=load if by_body else Percent(percent=HEAVY), effort=LEFT if by_body else None)
    doubles = Sets(each=Set(bouts=(Bout(reps=FixedReps(count=2), terms=terms),)), count=2, rest=entry.sets[-1].rest)
    return entry.model_copy(update={"sets": (doubles,)})


def _shorter(group: Group) -> Group:
    """Half the rounds or sets, and reps in reserve."""
    rounds = max(group.rounds // 2, 1) if group.rounds else None
    less = _changed(group, _with_less).model_copy(update={"rounds": rounds})
    return less.model_copy(update={"span": max(group.span // 2, 60)}) if group.span else less


def _with_less(entry: Entry) -> Entry:
    runs = tuple(
        run.model_copy(update={"count": max(run.count // 2, 1), "each": _easy(run.each, LEFT)})
        for run in entry.sets
    )
    return entry.model_copy(update={"sets": runs})


def _with_half(entry: Entry) -> Entry:
    runs = tuple(run.model_copy(update={"each": _halved(_easy(run.each, None))}) for run in entry.sets)
    return entry.model_copy(update={"sets": runs})


def _easy(each: Set, effort: Leave | None) -> Set:
    """A set that asks for no effort but that, and for a number of reps."""
    bouts = tuple(
        bout.model_copy(
            update={
                "reps": FEW if isinstance(bout.reps, MaxReps) else bout.reps,
                "terms": bout.terms.model_copy(update={"effort": None}),
            }
        )
        for bout in each.bouts
    )
    timed = any(isinstance(bout.reps, Hold) for bout in bouts)
    terms = each.terms.model_copy(update={"effort": None})
    if len(bouts) == 1:
        own = bouts[0].terms.model_copy(update={"effort": None if timed else effort})
        return each.model_copy(update={"bouts": (bouts[0].model_copy(update={"terms": own}),), "terms": terms})
    return each.model_copy(
        update={"bouts": bouts, "terms": terms.model_copy(update={"effort": None if timed else effort})}
    )


def _halved(each: Set) -> Set:
    """A set with half of every load; where none is written, half of the last one."""
    bouts = tuple(
        bout.model_copy(update={"terms": bout.terms.model_copy(update={"load": _half(bout.terms.load)})})
        for bout in each.bouts
    )
    load = _half(each.terms.load)
    if load is None and bouts[0].terms.load is None and not isinstance(bouts[0].reps, Hold):
        first = bouts[0].terms.model_copy(update={"load": HALF_OF_LAST})
        if len(bouts) == 1:
            bouts = (bouts[0].model_copy(update={"terms": first}),)
        else:
            load = HALF_OF_LAST
    return each.model_copy(update={"bouts": bouts, "terms": each.terms.model_copy(update={"load": load})})


def _half(load: LoadTarget | None) -> LoadTarget | None:
    """Half of a load; with body weight there is no half, and what follows from another load follows its half."""
    match load:
        case Weight(amount=amount):
            return load.model_copy(update={"amount": amount * HALF})
        case WeightRange(low=low, high=high):
            return load.model_copy(update={"low": low * HALF, "high": high * HALF})
        case Percent(percent=percent):
            return load.model_copy(update={"percent": percent * HALF})
        case BodyPlus(amount=amount) if amount > 0:
            return load.model_copy(update={"amount": amount * HALF})
        case RepMax():
            return HALF_OF_LAST
        case LastTime(shift=None):
            return HALF_OF_LAST
        case OfTop() | OfPrevious() | BodyPlus() | LastTime():
            return load
    return None
