"""A session planned from a log alone: a load for every bout, why, and what to expect of it."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import replace
from datetime import datetime
from decimal import Decimal

from fortis.core.basis import Basis
from fortis.core.exercises import LIBRARY, Library
from fortis.core.foretelling import foretell
from fortis.core.loading.kit import Kit
from fortis.core.logged import LoggedBout
from fortis.core.reason import Reason
from fortis.core.replay import known_from
from fortis.core.resolution import resolve
from fortis.core.strength.estimate import Estimate
from fortis.core.structure.model import LiftKey, Session, SetUp, Side, lift_key
from fortis.core.structure.prescription import Prescription, lay_out
from fortis.core.structure.timeline import Step, Timeline, timeline
from fortis.core.value import Kilograms, Value


class PlannedLoad(Value):
    """A bout of the plan with its load: for body-weight lifts what is added, None where it could not be settled.

    `reps` is the least that is asked, None where it goes to the end. `expected_reserve` is how many reps are likely
    left after those, four times in five from `low` to `high`; below 0 so many are missing. None where nothing is
    known of the lift.
    """

    exercise: str
    setup: SetUp
    set: int
    bout: int
    side: Side
    load_kg: Kilograms | None
    reps: int | None
    expected_reserve: float | None
    low: float | None
    high: float | None
    reasons: tuple[Reason, ...]


def plan(
    session: Session, log: Iterable[LoggedBout], at: datetime, kit: Kit, library: Library = LIBRARY
) -> tuple[PlannedLoad, ...]:
    """Plan a session for a moment from what was done before it."""
    done = sorted((each for each in log if each.performed_at < at), key=lambda each: each.performed_at)
    basis = _basis(done, at, kit, library)
    prescription = resolve(lay_out(session, library), basis)
    in_time = timeline(prescription)
    likely, low, high = (
        _foretold(in_time, prescription, basis, maxes)
        for maxes in (
            basis.estimates,
            {key: max_.model_copy(update={"kg": max_.low}) for key, max_ in basis.estimates.items()},
            {key: max_.model_copy(update={"kg": max_.high}) for key, max_ in basis.estimates.items()},
        )
    )
    return tuple(_load(*steps, basis) for steps in zip(likely, low, high, strict=True))


def _basis(done: Sequence[LoggedBout], at: datetime, kit: Kit, library: Library) -> Basis:
    return Basis(
        kit=kit,
        body_kg=next((each.body_kg for each in reversed(done) if each.body_kg is not None), None),
        estimates=known_from(done, library).maxes(at),
        last=_last_loads(done, library),
        library=library,
    )


def _last_loads(done: Iterable[LoggedBout], library: Library) -> Mapping[LiftKey, Decimal]:
    """The heaviest load of each lift and set-up in the latest session that had it."""
    last: dict[LiftKey, LoggedBout] = {}
    for each in done:
        if each.is_warm_up:
            continue
        key = lift_key(library.find(each.exercise), each.setup)
        before = last.get(key)
        if before is None or before.session != each.session or before.load_kg < each.load_kg:
            last[key] = each
    return {key: each.load_kg for key, each in last.items()}


def _foretold(
    in_time: Timeline, prescription: Prescription, basis: Basis, maxes: Mapping[LiftKey, Estimate]
) -> list[Step]:
    """The work of a session with what to expect of it, were these the maxes."""
    steps = foretell(in_time, prescription, replace(basis, estimates=maxes)).steps
    return [step for step in steps if step.kind == "work" and not step.warm_up]


def _load(step: Step, low: Step, high: Step, basis: Basis) -> PlannedLoad:
    settled = step.settled
    return PlannedLoad(
        exercise=step.exercise,
        setup=step.setup,
        set=step.set,
        bout=step.bout,
        side=step.side,
        load_kg=settled.kg if settled else None,
        reps=step.least or None,
        expected_reserve=_reserve(step),
        low=_reserve(low),
        high=_reserve(high),
        reasons=settled.reasons if settled else (_why_none(step, basis),),
    )


def _reserve(step: Step) -> float | None:
    """Reps left over those that are expected; as many below 0 as are missing."""
    if step.foretold is None:
        return None
    missing = max((step.reps or 0) - step.foretold.reps, 0) if step.least else 0
    return round(step.foretold.left, 1) if not missing else -float(missing)


def _why_none(step: Step, basis: Basis) -> Reason:
    lift = basis.library.find(step.exercise)
    if any(known == lift.id for known, _ in basis.estimates):
        return Reason(code="not settled", text="Nothing in the plan says how heavy this is to be.")
    text = f"Nothing in the log says how strong this lifter is in the {step.exercise.lower()}."
    return Reason(code="not settled", text=text)
