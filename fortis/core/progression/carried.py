"""What the last session recommends, carried to the lines of the next one that ask the same."""

from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass, replace
from datetime import date, timedelta
from decimal import Decimal
from functools import partial

from fortis.core.adjustments import Adjustments
from fortis.core.basis import Carried
from fortis.core.exercises import LIBRARY, Exercise, Library, LoadKind
from fortis.core.line import Line, by_line, line_of_each
from fortis.core.played import as_played, entry_name
from fortis.core.reason import Reason
from fortis.core.structure.model import FixedReps, Hold, LiftKey, RepRange, SetUp
from fortis.core.structure.prescription import PlannedBout, PlannedSet, Prescription
from fortis.core.units import plain

Target = tuple[tuple[PlannedBout, ...], ...]
"""The whole of what a line asks: the bouts of its sets, those alike in a row named once."""
Asked = tuple[LiftKey, Target]
"""A line as far as something can be carried to it: its lift, and all that it asks."""


@dataclass(frozen=True)
class Carries:
    """What is carried to a line of the next session, and the line it belongs to: its lift and all that it asked."""

    key: LiftKey
    target: Target
    carried: Carried

    @property
    def line(self) -> Asked:
        """The line it belongs to."""
        return self.key, self.target


RETURNS = ((28, Decimal("0.85")), (14, Decimal("0.90")), (10, Decimal("0.95")))
"""After so many days without any training, so much of each load to come back with (common practice)."""


def eased(carries: Carries, idle: timedelta) -> Carries:
    """What is carried, lighter after a time without any training: strength is nearly there, tendons take longer."""
    share = next((share for days, share in RETURNS if idle >= timedelta(days=days)), None)
    carried = carries.carried
    if share is None or carried.kg <= 0:
        return carries
    text = f"{idle.days} days without training: {plain((1 - share) * 100)} % less, to come back gently."
    reason = Reason(code="after a layoff", text=text, values={"days": Decimal(idle.days)})
    kg = min(round(carried.kg * share, 1), carried.kg)
    return replace(
        carries, carried=carried.model_copy(update={"kg": kg, "reasons": (*carried.reasons[:1], reason)})
    )


def target_of(sets: Iterable[PlannedSet]) -> Target:
    """The whole of what a line asks, whatever was settled for it and however many sets alike there are in a row.

    Which side begins makes no difference: that follows the weaker one.
    """
    found: list[tuple[PlannedBout, ...]] = []
    for each in sets:
        if each.is_warm_up:
            continue
        asks = _whichever_side_first(each.asks)
        if not found or found[-1] != asks:
            found.append(asks)
    return tuple(found)


def _whichever_side_first(asks: tuple[PlannedBout, ...]) -> tuple[PlannedBout, ...]:
    if len({bout.side for bout in asks}) < 2:
        return asks
    in_order = sorted(asks, key=lambda bout: bout.side)
    return tuple(bout.model_copy(update={"number": number}) for number, bout in enumerate(in_order, start=1))


def is_straight(sets: Iterable[PlannedSet]) -> bool:
    """Whether the sets of a group are those of one line, each after the rest of the one before."""
    sets = list(sets)
    return len({*line_of_each(sets)}) == 1 and all(each.every is None and not each.block for each in sets)


def adapted(
    prescription: Prescription,
    line: Line,
    sets: int | None = None,
    rest: int | None = None,
    reps: FixedReps | Hold | None = None,
) -> Prescription:
    """A plan with other reps (or seconds of a hold) in every work set of a line, with more sets, or other rests.

    None leaves them. Sets and rests are those of a line that is alone in its group.
    """
    if reps is not None:
        prescription = _each_of(prescription, line, partial(_with_reps, reps=reps))
    group = [each for each in prescription.sets if each.group == line.group and not each.is_warm_up]
    if not is_straight(group):
        return prescription
    if sets is not None and sets > len(group):
        extra = {entry_name(group[0]): sets - len(group)}
        prescription = as_played(prescription, Adjustments(extra=extra))
    if rest is not None:
        prescription = _each_of(prescription, line, partial(_rested, rest=rest))
    return prescription


def _each_of(prescription: Prescription, line: Line, change: Callable[[PlannedSet], PlannedSet]) -> Prescription:
    """A plan with a change of every work set of a line."""
    sets = (
        change(each) if of == line and not each.is_warm_up else each
        for of, each in zip(line_of_each(prescription.sets), prescription.sets, strict=True)
    )
    return prescription.model_copy(update={"sets": tuple(sets)})


def _rested(each: PlannedSet, rest: int) -> PlannedSet:
    return each.model_copy(update={"rest": rest, "rest_of": each.written_rest})


def _remembering(each: PlannedSet, carried: Carried) -> PlannedSet:
    return each.model_copy(update={"missed": carried.missed, "lighter": carried.lighter})


def _with_reps(each: PlannedSet, reps: FixedReps | Hold) -> PlannedSet:
    bouts = tuple(
        bout.model_copy(update={"reps": reps, "reps_of": bout.reps_of or bout.reps})
        if isinstance(bout.reps, Hold if isinstance(reps, Hold) else FixedReps | RepRange)
        else bout
        for bout in each.bouts
    )
    return each.model_copy(update={"bouts": bouts})


def with_carried(
    prescription: Prescription, carried: Mapping[Line, Carried], library: Library = LIBRARY
) -> Prescription:
    """A plan with the sets, the rests, the reps or seconds and the rungs that are carried to its lines.

    Sets and rests that are no longer written as they were are left as they are.
    """
    for line, each in carried.items():
        work = [own for own in by_line(prescription)[line] if not own.is_warm_up]
        sets = each.sets.beside(len(work)) if each.sets else None
        rest = each.rest.beside(work[0].rest) if each.rest else None
        prescription = adapted(prescription, line, sets, rest, each.reps)
        if each.missed or each.lighter:
            prescription = _each_of(prescription, line, partial(_remembering, carried=each))
        if (rung := each.rung) is not None:
            lift = library.find(rung.exercise)
            prescription = _each_of(prescription, line, partial(_on_rung, lift=lift, setup=rung.setup))
    return prescription


def _on_rung(each: PlannedSet, lift: Exercise, setup: SetUp) -> PlannedSet:
    own = {"exercise": lift.name, "lift": lift, "setup": setup, "rung_of": each.key}
    return each.model_copy(update=own)


def loads_carried(prescription: Prescription, carried: Mapping[Line, Carried]) -> Mapping[Line, Carried]:
    """What is carried of loads: nothing to a rung that is another lift, the first time it is done."""
    lines = by_line(prescription)

    def is_new(line: Line, each: Carried) -> bool:
        (first, *_) = lines[line]
        other_lift = first.rung_of is not None and first.rung_of[0] != first.lift.id
        return other_lift and each.kg == 0 and first.lift.load_kind is not LoadKind.BODY

    return {line: each for line, each in carried.items() if not is_new(line, each)}


def asked_by(prescription: Prescription) -> frozenset[Asked]:
    """The lines of a plan, as far as something can be carried to them."""
    return frozenset((sets[0].key, target_of(sets)) for sets in by_line(prescription).values())


def from_earlier(carries: Carries, day: date) -> Carries:
    """What is carried from before the last session of its kind, and of which day that is."""
    text = f"Goes on from {day:%A}, {day.day} {day:%B}, the last time that asked this."
    reason = Reason(code="from earlier", text=text)
    carried = carries.carried
    return replace(carries, carried=carried.model_copy(update={"reasons": (reason, *carried.reasons)}))


def carry(prescription: Prescription, recommended: Iterable[Carries]) -> Mapping[Line, Carried]:
    """What is recommended for each line of a plan that asks what a line asked before.

    The same lift on two lines that ask the same gets what each line got, in their order.
    """
    waiting: dict[Asked, list[Carried]] = {}
    for each in recommended:
        waiting.setdefault(each.line, []).append(each.carried)
    found: dict[Line, Carried] = {}
    if not waiting:
        return found
    for line, sets in by_line(prescription).items():
        if own := waiting.get((sets[0].key, target_of(sets))):
            found[line] = own.pop(0) if len(own) > 1 else own[0]
    return found
