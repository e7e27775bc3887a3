"""What a planned session will come to: for every bout the reps to expect, and those left after them."""

from typing import NamedTuple

from fortis.core.basis import Basis
from fortis.core.exercises import Exercise
from fortis.core.loading.moved import body_part, strength_kg
from fortis.core.strength.carrying import Strengths
from fortis.core.strength.estimate import Estimate
from fortis.core.structure.model import Lifting, MaxReps, RangeOfMotion, Side, ToFailure, lift_key
from fortis.core.structure.prescription import Prescription
from fortis.core.structure.timeline import Foretold, Step, Timeline


def foretell(plan: Timeline, prescription: Prescription, basis: Basis) -> Timeline:
    """The same timeline with what to expect of every bout whose lift has a known max and a settled load.

    Where sides are done apart, each has a strength of its own.
    """
    lifts = {(each.group, each.entry): each.lift for each in prescription.sets}
    asked = [_asked(step, lifts[step.group, step.entry], basis) for step in plan.steps]
    strengths = Strengths({each.key: (each.lift, each.max.curve) for each in asked if each})
    steps = []
    for step, bout in zip(plan.steps, asked, strict=True):
        foretold = None
        if bout:
            foretold = _performed(step, bout, strengths)
        elif not step.left_out:
            strengths.rest(step.seconds)
        steps.append(step if foretold is None else step.model_copy(update={"foretold": foretold}))
    return plan.model_copy(update={"steps": tuple(steps)})


class _Asked(NamedTuple):
    """A bout to foretell: its lift and what tells that apart, its max as known, and the share of it that moves."""

    lift: Exercise
    key: tuple[str, Side]
    max: Estimate
    share: float


def _asked(step: Step, lift: Exercise, basis: Basis) -> _Asked | None:
    """What a step asks of strength; None where that is not known, and where it asks nothing.

    Halves, holds and what is lifted with help are nothing that a max says much of. The way up makes ready and does
    not tire, as wherever a max is read from a log or a load solved for.
    """
    if step.kind != "work" or step.warm_up or step.left_out or step.settled is None:
        return None
    max_ = basis.estimates.get(lift_key(lift, step.setup))
    counted = step.reps is not None or isinstance(step.target, MaxReps)
    plain = step.range_of_motion is RangeOfMotion.FULL and step.lifting is Lifting.ALONE
    moved = strength_kg(step.settled.kg, body_part(lift, step.settled.body, basis.body_kg))
    if max_ is None or moved is None or not (counted and plain):
        return None
    return _Asked(lift, (lift.id, step.side), max_, float(moved) / max_.kg)


def _performed(step: Step, bout: _Asked, strengths: Strengths[tuple[str, Side]]) -> Foretold:
    """Do a bout, as far as strength goes."""
    to_the_end = isinstance(step.target, MaxReps) or isinstance(step.effort, ToFailure)
    expected = strengths.perform(bout.key, bout.share, None if to_the_end else step.reps, step.seconds)
    return Foretold(reps=expected.reps, left=round(expected.left, 2))
