"""What a planned session will come to: for every bout the reps to expect, and those left after them."""

from fortis.core.basis import Basis
from fortis.core.exercises import Exercise
from fortis.core.loading.moved import body_part, strength_kg
from fortis.core.strength.estimate import Estimate
from fortis.core.strength.momentary import Momentary
from fortis.core.structure.model import Lifting, MaxReps, RangeOfMotion, Side, ToFailure, lift_key
from fortis.core.structure.prescription import Prescription
from fortis.core.structure.timeline import Foretold, Step, Timeline


def foretell(plan: Timeline, prescription: Prescription, basis: Basis) -> Timeline:
    """The same timeline with what to expect of every bout whose lift has a known max and a settled load.

    A lift is tired by its own bouts, each side by its own where they are done apart, and rests while anything else
    is done.
    """
    lifts = {(each.group, each.entry): each.lift for each in prescription.sets}
    tired: dict[tuple[str, Side], Momentary] = {}
    steps = []
    for step in plan.steps:
        foretold = None
        at_work = None
        if step.kind == "work" and not step.left_out:
            lift = lifts[step.group, step.entry]
            max_, share = _share(step, lift, basis)
            if max_ is not None and share is not None:
                at_work = tired.setdefault((lift.id, step.side), Momentary(max_.curve))
                foretold = _performed(step, at_work, share)
        for strength in tired.values():
            if strength is not at_work and not step.left_out:
                strength.rest(step.seconds)
        steps.append(step if foretold is None else step.model_copy(update={"foretold": foretold}))
    return plan.model_copy(update={"steps": tuple(steps)})


def _share(step: Step, lift: Exercise, basis: Basis) -> tuple[Estimate | None, float | None]:
    """The max of a lift as it is known, and the share of it that a bout moves; None where either is not known.

    Halves, holds and what is lifted with help are nothing that a max says much of.
    """
    max_ = basis.estimates.get(lift_key(lift, step.setup))
    counted = step.reps is not None or isinstance(step.target, MaxReps)
    plain = step.range_of_motion is RangeOfMotion.FULL and step.lifting is Lifting.ALONE
    if max_ is None or step.settled is None or not (counted and plain):
        return None, None
    moved = strength_kg(step.settled.kg, body_part(lift, step.settled.body, basis.body_kg))
    return max_, None if moved is None else float(moved) / max_.kg


def _performed(step: Step, strength: Momentary, share: float) -> Foretold | None:
    """Do a bout, as far as strength goes; nothing is told of warm-ups."""
    to_the_end = isinstance(step.target, MaxReps) or isinstance(step.effort, ToFailure)
    expected = strength.perform(share, None if to_the_end else step.reps)
    return None if step.warm_up else Foretold(reps=expected.reps, left=round(expected.left, 2))
