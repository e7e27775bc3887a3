"""A log replayed in time order, each bout predicted before it is seen, beside the published formulas.

The formulas are used the usual way: the best set of a lift's last session, reps done plus reps left, says the max;
that and the load say the reps, as if every set were fresh.
"""

from collections.abc import Iterable, Iterator, Sequence
from datetime import datetime
from operator import itemgetter
from statistics import mean

from fortis.core.exercises import LIBRARY, Exercise, Library, LoadKind
from fortis.core.loading.moved import body_part, strength_kg
from fortis.core.logged import LoggedBout
from fortis.core.performance import PerformedBout
from fortis.core.strength.estimate import MOST_REPS, STILL_TELLING, Estimate, current
from fortis.core.strength.formulas import FORMULAS, Formula
from fortis.core.strength.momentary import Momentary
from fortis.core.structure.model import LiftKey, lift_key
from fortis.core.structure.prescription import Position
from fortis.core.tally.fresh import fresh_estimate
from fortis.core.value import Value

NEAR_FAILURE = 4
"""Bouts are judged that ended within so many reps of failure: further off nobody knows how many were left."""


class Predicted(Value):
    """The reps to failure expected of a bout, and between what they should lie."""

    reps_to_failure: float
    low: float
    high: float


class ReplayedBout(Value):
    """A bout beside what was expected of it; None where nothing was known of the lift."""

    performed_at: datetime
    exercise: str
    setup: str
    set: int
    bout: int
    load_kg: float
    reps: int
    rir: str
    ended: str
    predicted: Predicted | None


class Max(Value):
    """A fresh max in kg, and between what it should lie."""

    kg: float
    low: float
    high: float


class ReplayedLift(Value):
    """A lift in a session: its max as known before and after, and as each formula had it before."""

    performed_at: datetime
    session: str
    exercise: str
    setup: str
    before: Max | None
    after: Max | None
    formulas: dict[str, float]


class Summary(Value):
    """How good the predictions were, over the `judged` bouts near failure that could be predicted.

    `reps_error` is the mean distance in reps of Fortis and of each formula, the smallest first, `coverage` the
    share of bouts whose reps lay between Fortis's bounds; None where there is nothing to judge.
    """

    bouts: int
    judged: int
    reps_error: dict[str, float]
    coverage: float | None


class Replayed(Value):
    """A whole log."""

    bouts: tuple[ReplayedBout, ...]
    sessions: tuple[ReplayedLift, ...]
    summary: Summary


MODEL = "Fortis"


class _Known:
    """What the log has told of one lift with one set-up so far."""

    def __init__(self) -> None:
        self.estimates: list[tuple[datetime, Estimate]] = []
        self.formulas: dict[str, float] = {}

    def at(self, moment: datetime) -> Estimate | None:
        """The max as it is known at a moment."""
        telling = [each for when, each in self.estimates if moment - when <= STILL_TELLING]
        return current(telling) if telling else None

    def learn(self, moment: datetime, lift: Exercise, bouts: Sequence[LoggedBout]) -> None:
        """Take in what was done of the lift in a session."""
        work = [bout for bout in bouts if not bout.is_warm_up]
        body_kg = next((bout.body_kg for bout in work if bout.body_kg is not None), None)
        if found := fresh_estimate(map(_performed, work), lift, body_kg):
            self.estimates.insert(0, (moment, found))
        told = [(_moved_kg(bout, lift), float(bout.to_failure)) for bout in work if bout.to_failure is not None]
        sets = [(kg, min(reps, MOST_REPS)) for kg, reps in told if kg is not None and kg > 0 and reps >= 1]
        if sets:
            self.formulas = {name: max(formula(*each) for each in sets) for name, formula in FORMULAS.items()}


class _Today:
    """A lift as a session goes on, for a max and for both its bounds."""

    def __init__(self, known: Estimate, rep_seconds: int) -> None:
        self.maxes = known.kg, known.low, known.high
        self.strengths = [Momentary() for _ in self.maxes]
        self.rep_seconds = rep_seconds
        self.last: datetime | None = None

    def expect(self, bout: LoggedBout, kg: float) -> Predicted:
        """What to expect of a bout, after the rest before it."""
        rest = self._rest_before(bout)
        left = []
        for most, strength in zip(self.maxes, self.strengths, strict=True):
            strength.rest(rest)
            share = kg / most
            left.append(max(strength.left(share) + (1 if share >= 1 else 0), 0.0))
            strength.perform(share, bout.reps)
        self.last = bout.performed_at
        return Predicted(reps_to_failure=left[0], low=min(left), high=max(left))

    def _rest_before(self, bout: LoggedBout) -> float:
        if self.last is None:
            return 0.0
        if bout.rest_seconds is not None:
            return bout.rest_seconds
        under_load = bout.seconds or bout.reps * self.rep_seconds
        return max((bout.performed_at - self.last).total_seconds() - under_load, 0.0)


def replay(log: Iterable[LoggedBout], library: Library = LIBRARY) -> Replayed:
    """Go through a log in time order, whatever order it came in, and predict each bout before it is seen."""
    known: dict[LiftKey, _Known] = {}
    bouts: list[ReplayedBout] = []
    sessions: list[ReplayedLift] = []
    errors: dict[str, list[float]] = {name: [] for name in (MODEL, *FORMULAS)}
    covered: list[bool] = []
    for session, lift, done in _by_lift(log, library):
        of_lift = known.setdefault(lift_key(lift, done[0].setup), _Known())
        began = done[0].performed_at
        before = of_lift.at(began)
        today = _Today(before, lift.rep_seconds) if before else None
        for bout in done:
            kg = _moved_kg(bout, lift)
            predicted = today.expect(bout, kg) if today and kg is not None and kg > 0 else None
            bouts.append(_replayed(bout, predicted))
            if predicted and kg is not None and of_lift.formulas and _is_judged(bout):
                happened = float(bout.to_failure or 0)
                errors[MODEL].append(abs(predicted.reps_to_failure - happened))
                covered.append(predicted.low <= happened <= predicted.high)
                for name, formula in FORMULAS.items():
                    errors[name].append(abs(reps_by(formula, of_lift.formulas[name], kg) - happened))
        formulas = dict(of_lift.formulas)
        of_lift.learn(began, lift, done)
        sessions.append(
            ReplayedLift(
                performed_at=began,
                session=session,
                exercise=done[0].exercise,
                setup=str(done[0].setup),
                before=_max(before),
                after=_max(of_lift.at(began)),
                formulas=formulas,
            )
        )
    summary = Summary(
        bouts=len(bouts),
        judged=len(covered),
        reps_error=dict(sorted(((name, mean(each)) for name, each in errors.items() if each), key=itemgetter(1))),
        coverage=mean(covered) if covered else None,
    )
    return Replayed(bouts=tuple(bouts), sessions=tuple(sessions), summary=summary)


def reps_by(formula: Formula, max_kg: float, kg: float) -> float:
    """The reps to failure that a formula allows at a load, from 0 to `MOST_REPS`: the formula turned around."""
    if kg > max_kg:
        return 0.0
    low, high = 1.0, float(MOST_REPS)
    if formula(kg, high) <= max_kg:
        return high
    for _ in range(40):
        middle = (low + high) / 2
        if formula(kg, middle) < max_kg:
            low = middle
        else:
            high = middle
    return low


def _by_lift(log: Iterable[LoggedBout], library: Library) -> Iterator[tuple[str, Exercise, list[LoggedBout]]]:
    """The bouts of each lift and set-up of each session, sessions in the order they began."""
    lifts: dict[str, Exercise] = {}
    found: dict[str, dict[LiftKey, list[LoggedBout]]] = {}
    for bout in sorted(log, key=lambda each: each.performed_at):
        lift = lifts.setdefault(bout.exercise, library.find(bout.exercise))
        found.setdefault(bout.session, {}).setdefault(lift_key(lift, bout.setup), []).append(bout)
    for session, by_lift in found.items():
        for done in by_lift.values():
            yield session, lifts[done[0].exercise], done


def _is_judged(bout: LoggedBout) -> bool:
    """Whether a bout says how many reps there were, close enough to failure to be believed."""
    return not bout.is_warm_up and bout.to_failure is not None and bout.to_failure - bout.reps <= NEAR_FAILURE


def _moved_kg(bout: LoggedBout, lift: Exercise) -> float | None:
    moved = strength_kg(bout.load_kg, body_part(lift, lift.load_kind is LoadKind.BODY, bout.body_kg))
    return None if moved is None else float(moved)


def _performed(bout: LoggedBout) -> PerformedBout:
    return PerformedBout(
        position=Position(group=bout.group, round=max(bout.set, 1), entry=1, set=bout.set, bout=bout.bout),
        exercise=bout.exercise,
        setup=bout.setup,
        side=bout.side,
        kg=bout.load_kg,
        reps=bout.reps,
        partial_reps=bout.partial_reps,
        seconds=bout.seconds,
        reserve=bout.reserve,
        or_more=bout.or_more,
        ended=bout.ended,
    )


def _replayed(bout: LoggedBout, predicted: Predicted | None) -> ReplayedBout:
    return ReplayedBout(
        performed_at=bout.performed_at,
        exercise=bout.exercise,
        setup=str(bout.setup),
        set=bout.set,
        bout=bout.bout,
        load_kg=float(bout.load_kg),
        reps=bout.reps,
        rir="" if bout.reserve is None else f"{bout.reserve:f}{'+' if bout.or_more else ''}",
        ended=bout.ended or "",
        predicted=predicted,
    )


def _max(estimate: Estimate | None) -> Max | None:
    return Max(kg=estimate.kg, low=estimate.low, high=estimate.high) if estimate else None
