"""Rungs: a range that gets longer from pin to pin, a ladder of lifts and set-ups for body-weight skills."""

from collections.abc import Sequence

from fortis.core.basis import Rung
from fortis.core.progression.policy import Policy, PolicyKind
from fortis.core.structure.model import SetUp
from fortis.core.structure.prescription import PlannedSet


def rung_on(policy: Policy, each: PlannedSet) -> int:
    """The place of the rung that a set is on, counted from 0; -1 where it is on none yet."""
    keys = [_key(policy, rung) for rung in policy.rungs]
    if policy.kind is PolicyKind.RANGE:
        items = {SetUp(items=(item,)).key for item in each.setup.items}
        return next((at for at, key in enumerate(keys) if key in items), -1)
    own = _ladder_key(each.exercise, each.setup)
    return keys.index(own) if own in keys else -1


def rung_at(policy: Policy, each: PlannedSet, at: int) -> Rung:
    """The lift and the set-up of a set on the rung at a place."""
    if policy.kind is PolicyKind.RANGE:
        rungs = {_key(policy, other) for other in policy.rungs}
        kept = tuple(item for item in each.setup.items if SetUp(items=(item,)).key not in rungs)
        return Rung(exercise=each.exercise, setup=SetUp(items=(*kept, policy.rungs[at])))
    name, items = _parted(policy.rungs[at])
    return Rung(exercise=name, setup=SetUp(items=items))


def _key(policy: Policy, rung: str) -> str:
    if policy.kind is PolicyKind.RANGE:
        return SetUp(items=(rung,)).key
    name, items = _parted(rung)
    return _ladder_key(name, SetUp(items=items))


def _ladder_key(name: str, setup: SetUp) -> str:
    return f"{name.casefold()} [{setup.key}]"


def _parted(rung: str) -> tuple[str, tuple[str, ...]]:
    """A rung of a ladder as its lift and the items of its set-up: `Front lever [tucked]`."""
    name, _, rest = rung.partition("[")
    items: Sequence[str] = [item.strip() for item in rest.rstrip("] ").split(",")] if rest else []
    return name.strip(), tuple(item for item in items if item)
