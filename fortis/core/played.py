"""The session as it is played: the plan, with what was changed of it on the floor.

Everything that judges a session judges this. The client repeats it for a session played without a connection
(`web/src/session/played.ts`); both are held to the same cases.
"""

from collections.abc import Iterable, Mapping, Sequence
from itertools import groupby
from operator import attrgetter, is_

from fortis.core.adjustments import Adjustments, LoadChange
from fortis.core.exercises import LIBRARY, Library
from fortis.core.structure.model import Preparation, SetUp
from fortis.core.structure.prescription import PlannedBout, PlannedSet, Prescription, Settled
from fortis.core.value import Value

AS_PLANNED = Adjustments()


def as_played(
    prescription: Prescription, adjustments: Adjustments = AS_PLANNED, library: Library = LIBRARY
) -> Prescription:
    """A settled plan with its adjustments.

    Sets added to a lift follow its group, round by round. Bouts left out stay in their place, marked. A lift done
    instead has no load of its own and no set-up, unless one was told. In another order of the members of a pair the
    rests stay where they were: they belong to the turn in the round. The time planned for a lift stays as well.
    """
    if adjustments == AS_PLANNED:
        return prescription
    sets: list[PlannedSet] = []
    for number, group in groupby(prescription.sets, key=attrgetter("group")):
        grown = _with_extra_sets(list(group), adjustments.extra)
        changed = [_changed(each, adjustments, library) for each in grown]
        sets += _in_turn(changed, adjustments.within.get(str(number)))
    ordered = _in_order(sets, adjustments.order)
    left_out = frozenset(adjustments.skipped)
    return prescription.model_copy(update={"sets": tuple(_without(each, left_out) for each in ordered)})


class Prepared(Value):
    """A preparation of a session, and whether it was done."""

    item: Preparation
    done: bool


def prepared(prescription: Prescription, adjustments: Adjustments) -> tuple[Prepared, ...]:
    """The preparation of a session as it went."""
    return tuple(
        Prepared(item=item, done=number in adjustments.prepared)
        for number, item in enumerate(prescription.prep, start=1)
    )


def entry_name(each: PlannedSet) -> str:
    """How adjustments name the entry that a set belongs to."""
    return f"{each.group}.{each.entry}"


def _with_extra_sets(group: list[PlannedSet], extra: Mapping[str, int]) -> list[PlannedSet]:
    """A group with copies of the last set of the entries that were given more.

    An added round rests as rounds do.
    """
    lasts = {entry_name(each): each for each in group if not each.is_warm_up}
    added = [
        last.model_copy(update={"number": last.number + more, "round": last.round + more, "added": True})
        for name, last in lasts.items()
        for more in range(1, extra.get(name, 0) + 1)
    ]
    if not added:
        return group
    added.sort(key=attrgetter("round"))
    after_round = {"rest": group[-1].rest, "every": group[-1].every}
    rounds = [list(turns) for _, turns in groupby(added, key=attrgetter("round"))]
    return [
        *group,
        *(each for turns in rounds for each in (*turns[:-1], turns[-1].model_copy(update=after_round))),
    ]


def _changed(each: PlannedSet, adjustments: Adjustments, library: Library) -> PlannedSet:
    """A set with the lift, the set-up and the loads that were chosen for its entry."""
    name = entry_name(each)
    setup = adjustments.setups.get(name)
    instead = adjustments.swapped.get(name)
    if instead and each.number >= instead.set:
        lift = library.find(instead.lift).model_copy(update={"rep_seconds": each.lift.rep_seconds})
        bouts = tuple(
            bout.model_copy(update={"load": None, "climbed": None, "settled": None}) for bout in each.bouts
        )
        own = {"exercise": instead.lift, "lift": lift, "setup": SetUp(items=setup or ())}
        return each.model_copy(update={**own, "bouts": bouts, "missed": None, "lighter": None})
    (each,) = with_loads([each], adjustments.loads.get(name, ()))
    return each if setup is None else each.model_copy(update={"setup": SetUp(items=setup)})


def with_loads(sets: Sequence[PlannedSet], changes: Sequence[LoadChange]) -> list[PlannedSet]:
    """The sets of a line with changes of load, one after the other. Warm-ups keep theirs."""
    return [
        each if each.is_warm_up else _with_bouts(each, [_loaded(each, bout, changes) for bout in each.bouts])
        for each in sets
    ]


def _with_bouts(each: PlannedSet, bouts: Sequence[PlannedBout]) -> PlannedSet:
    """A set with other bouts; itself where none is another one."""
    if all(map(is_, bouts, each.bouts)):
        return each
    return each.model_copy(update={"bouts": tuple(bouts)})


def _loaded(each: PlannedSet, bout: PlannedBout, changes: Iterable[LoadChange]) -> PlannedBout:
    for change in changes:
        settled = bout.settled
        if each.number < change.set or change.bout not in (None, bout.number):
            continue
        if settled is None:
            if change.bout is not None and change.was_kg is None:
                bout = bout.model_copy(update={"settled": _found(change)})
            continue
        if change.was_kg in (None, settled.kg) and change.kg != settled.kg:
            bout = bout.model_copy(update={"settled": _resettled(settled, change)})
    return bout


def _found(change: LoadChange) -> Settled:
    """A load where there was none."""
    return Settled(
        kg=change.kg,
        wanted_kg=change.kg,
        bar=change.bar,
        bar_kg=change.bar_kg,
        sleeve=change.sleeve,
        advised=change.advised,
    )


def _resettled(settled: Settled, change: LoadChange) -> Settled:
    """A load in the place of another; what bands and chains add stays, a percentage follows."""
    more = change.kg - settled.kg
    pulls = {
        name: kg + more for name in ("bottom_kg", "top_kg", "mean_kg") if (kg := getattr(settled, name)) is not None
    }
    percent = None
    if settled.percent is not None and settled.kg > 0 and not settled.body:
        percent = round(settled.percent * change.kg / settled.kg, 1)
    own = {"kg": change.kg, "sleeve": change.sleeve, "percent": percent, "advised": change.advised, **pulls}
    return settled.model_copy(update={**own, "change": "", "plates": 0, "reasons": ()})


def _in_turn(group: list[PlannedSet], order: Sequence[int] | None) -> list[PlannedSet]:
    """The members of a pair or circuit in another order, round by round."""
    if not order:
        return group
    turned: list[PlannedSet] = []
    for (warming, _), turns in groupby(group, key=lambda each: (each.is_warm_up, each.round)):
        planned = list(turns)
        sorted_ = planned if warming else sorted(planned, key=lambda each: _rank(order, each.entry))
        turned += [
            each.model_copy(update={"rest": was.rest, "every": was.every})
            for each, was in zip(sorted_, planned, strict=True)
        ]
    return turned


def _in_order(sets: list[PlannedSet], order: Sequence[int]) -> list[PlannedSet]:
    """The groups in another order; those it does not name follow in theirs."""
    return sorted(sets, key=lambda each: _rank(order, each.group)) if order else sets


def _rank(order: Sequence[int], number: int) -> int:
    return order.index(number) if number in order else len(order) + number


def _without(each: PlannedSet, left_out: frozenset[str]) -> PlannedSet:
    return _with_bouts(
        each,
        [
            bout.model_copy(update={"left_out": True}) if str(each.position(bout)) in left_out else bout
            for bout in each.bouts
        ],
    )
