"""A log replayed in time order, each bout predicted before it is seen, beside the published formulas.

The formulas are used the usual way: the best set of a lift's last session, reps done plus reps left, says the max;
that and the load say the reps, as if every set were fresh.
"""

from bisect import bisect_left
from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from datetime import datetime
from operator import itemgetter
from statistics import mean, median

from fortis.core.cache import cached
from fortis.core.exercises import LIBRARY, Exercise, Library, LoadKind
from fortis.core.loading.moved import body_part, strength_kg
from fortis.core.logged import LoggedBout
from fortis.core.performance import Ended, PerformedBout
from fortis.core.strength.day import Foretold
from fortis.core.strength.estimate import MOST_REPS, Estimate, max_behind
from fortis.core.strength.formulas import FORMULAS, Formula
from fortis.core.strength.tracker import Profile
from fortis.core.structure.model import LiftKey
from fortis.core.structure.prescription import Position
from fortis.core.tally.evidence import Rested, Timed, by_setup, evidence, tiring
from fortis.core.value import Value

NEAR_FAILURE, MOST_JUDGED = 4, 15
"""Bouts are judged that ended within so many reps of failure: further off nobody knows how many were left. And only
those of loads that allow so many at most: in sets of forty a rep more or less tells nothing."""


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
    """How good the predictions were, of Fortis and of each formula, the best first.

    `reps_error` is the mean distance in reps over the `judged` bouts near failure that could be predicted,
    `coverage` the share of them whose reps lay between Fortis's bounds. `max_error` is the median distance of the
    max known before from the one shown, as a share, over the `tested` sessions that showed one: a single to a
    triple with none left. Empty and None where there is nothing to judge.
    """

    bouts: int
    judged: int
    reps_error: dict[str, float]
    coverage: float | None
    tested: int
    max_error: dict[str, float]


class Replayed(Value):
    """A whole log."""

    bouts: tuple[ReplayedBout, ...]
    sessions: tuple[ReplayedLift, ...]
    summary: Summary


MODEL = "Fortis"


class _Errors:
    """How far off Fortis and the formulas were."""

    def __init__(self) -> None:
        self.reps: dict[str, list[float]] = {name: [] for name in (MODEL, *FORMULAS)}
        self.maxes: dict[str, list[float]] = {name: [] for name in (MODEL, *FORMULAS)}
        self.covered: list[bool] = []

    def of_bout(self, happened: float, kg: float, predicted: Predicted, formulas: Mapping[str, float]) -> None:
        """Compare a bout with what was expected of it."""
        self.reps[MODEL].append(abs(predicted.reps_to_failure - happened))
        self.covered.append(predicted.low <= happened <= predicted.high)
        for name, formula in FORMULAS.items():
            self.reps[name].append(abs(reps_by(formula, formulas[name], kg) - happened))

    def of_max(self, shown: float, before: float, formulas: Mapping[str, float]) -> None:
        """Compare a max that was shown with what was known before."""
        for name, kg in {MODEL: before, **formulas}.items():
            self.maxes[name].append(abs(kg / shown - 1))

    def summary(self, bouts: int) -> Summary:
        """All of it in a few numbers."""
        return Summary(
            bouts=bouts,
            judged=len(self.covered),
            reps_error=_ranked(self.reps, mean),
            coverage=mean(self.covered) if self.covered else None,
            tested=len(self.maxes[MODEL]),
            max_error=_ranked(self.maxes, median),
        )


def _ranked(errors: Mapping[str, Sequence[float]], middle: Callable[[Sequence[float]], float]) -> dict[str, float]:
    found = {name: middle(each) for name, each in errors.items() if each}
    return dict(sorted(found.items(), key=itemgetter(1)))


def replay(
    log: Iterable[LoggedBout], library: Library = LIBRARY, progress: Callable[[int], None] = lambda _: None
) -> Replayed:
    """Go through a log in time order, whatever order it came in, and predict each bout before it is seen.

    `progress` is told how many bouts more were seen.
    """
    profile = Profile()
    best: dict[LiftKey, dict[str, float]] = {}
    bouts: list[ReplayedBout] = []
    sessions: list[ReplayedLift] = []
    errors = _Errors()
    for session, lift, key, rested in _by_lift(log, library):
        done = [logged for logged, each in rested if each.of_setup]
        began, formulas = done[0].performed_at, best.get(key, {})
        before = profile.max_of(key, began)
        profile, predictions = _learned(profile, key, lift, began, rested)
        moved = [(bout, _moved_kg(bout, lift)) for bout in done]
        for (bout, kg), predicted in zip(moved, predictions, strict=True):
            bouts.append(_replayed(bout, predicted))
            if predicted and kg and formulas and _is_judged(bout):
                errors.of_bout(float(bout.to_failure or 0), kg, predicted, formulas)
        if before and formulas and (shown := _shown(rested, lift)):
            errors.of_max(shown, before.kg, formulas)
        best[key] = _by_formulas(moved) or formulas
        sessions.append(
            ReplayedLift(
                performed_at=began,
                session=session,
                exercise=done[0].exercise,
                setup=str(done[0].setup),
                before=_max(before),
                after=_max(profile.max_of(key, began)),
                formulas=formulas,
            )
        )
        progress(len(done))
    return Replayed(bouts=tuple(bouts), sessions=tuple(sessions), summary=errors.summary(len(bouts)))


def known_from(log: Iterable[LoggedBout], library: Library = LIBRARY) -> Profile:
    """What a log tells of a lifter's strength."""
    profile = Profile()
    for _, lift, key, rested in _by_lift(log, library):
        profile, _ = _learned(profile, key, lift, rested[0][0].performed_at, rested)
    return profile


def _learned(
    profile: Profile, key: LiftKey, lift: Exercise, began: datetime, rested: "Sequence[tuple[LoggedBout, Rested]]"
) -> tuple[Profile, Sequence[Predicted | None]]:
    """What is known after a lift of a session, and what was expected of its bouts with the set-up."""
    work = [each for logged, each in rested if not logged.is_warm_up]
    body_kg = next((logged.body_kg for logged, _ in rested if logged.body_kg is not None), None)
    heard = evidence(work, lift, body_kg)
    profile, foretold = profile.learn(key, began, [each for each in heard if each], lift.prime)
    expected = iter(foretold)
    of_work = iter([next(expected) if each else None for each in heard])
    predictions = [(each.of_setup, None if logged.is_warm_up else next(of_work)) for logged, each in rested]
    return profile, [_predicted(each) for of_setup, each in predictions if of_setup]


def _predicted(foretold: Foretold | None) -> Predicted | None:
    return foretold and Predicted(reps_to_failure=foretold.reps, low=foretold.low, high=foretold.high)


def _by_formulas(moved: Iterable[tuple[LoggedBout, float | None]]) -> dict[str, float]:
    """The max by each formula from the best set of a session, by what was moved; empty where no set tells one."""
    told = [
        (kg, float(reps))
        for bout, kg in moved
        if kg is not None and kg > 0 and not bout.is_warm_up and (reps := bout.to_failure) is not None
    ]
    sets = [(kg, min(reps, MOST_REPS)) for kg, reps in told if reps >= 1]
    return {name: max(formula(*each) for each in sets) for name, formula in FORMULAS.items()} if sets else {}


MOST_SHOWN, MOST_BEFORE, LEAST_REST = 3, 6, 120


def _shown(rested: Iterable[tuple[LoggedBout, Rested]], lift: Exercise) -> float | None:
    """The max that a session showed as good as directly: after one to three reps, all but fresh, the next stuck."""
    before, shown = 0, 0.0
    for bout, each in rested:
        if bout.is_warm_up:
            continue
        fresh = before <= MOST_BEFORE and (before == 0 or each.rest >= LEAST_REST)
        if fresh and each.of_setup and bout.ended is Ended.STUCK and 1 <= bout.reps <= MOST_SHOWN:
            shown = max(shown, max_behind(_moved_kg(bout, lift) or 0.0, bout.reps))
        before += bout.reps
    return shown or None


STEPS_A_REP = 200


def reps_by(formula: Formula, max_kg: float, kg: float) -> float:
    """The reps to failure that a formula allows at a load, from 0 to `MOST_REPS`: the formula turned around.

    Every formula says how many times the load the max is.
    """
    if kg > max_kg:
        return 0.0
    return 1 + max(bisect_left(_times(formula), max_kg / kg) - 1, 0) / STEPS_A_REP


@cached(len(FORMULAS))
def _times(formula: Formula) -> Sequence[float]:
    """How many times the load a formula says that the max is, for 1 to `MOST_REPS` reps in small steps."""
    return [formula(1.0, 1 + step / STEPS_A_REP) for step in range((MOST_REPS - 1) * STEPS_A_REP + 1)]


def _by_lift(
    log: Iterable[LoggedBout], library: Library
) -> Iterator[tuple[str, Exercise, LiftKey, list[tuple[LoggedBout, Rested]]]]:
    """Each lift and set-up of each session, sessions in the order they began, with all bouts of the lift."""
    lifts: dict[str, Exercise] = {}
    found: dict[str, dict[str, list[LoggedBout]]] = {}
    for bout in sorted(
        log, key=lambda each: (each.performed_at, each.session, each.group or 0, each.set, each.bout)
    ):
        lift = lifts.setdefault(bout.exercise, library.find(bout.exercise))
        found.setdefault(bout.session, {}).setdefault(lift.id, []).append(bout)
    for session, by_lift in found.items():
        timed = [[_timed(bout) for bout in done] for done in by_lift.values()]
        tired = [tiring(each, lifts[each.bout.exercise]) for bouts in timed for each in bouts]
        for done, of_lift in zip(by_lift.values(), timed, strict=True):
            lift = lifts[done[0].exercise]
            for key, rested in by_setup(of_lift, lift, tired):
                yield session, lift, key, list(zip(done, rested, strict=True))


def _timed(bout: LoggedBout) -> Timed:
    rest = None if bout.rest_seconds is None else float(bout.rest_seconds)
    return Timed(_performed(bout), bout.performed_at, rest=rest)


def _is_judged(bout: LoggedBout) -> bool:
    """Whether a bout says how many reps there were, close enough to failure to be believed."""
    told = bout.to_failure
    return not bout.is_warm_up and told is not None and told <= MOST_JUDGED and told - bout.reps <= NEAR_FAILURE


def _moved_kg(bout: LoggedBout, lift: Exercise) -> float | None:
    moved = strength_kg(bout.load_kg, body_part(lift, lift.load_kind is LoadKind.BODY, bout.body_kg))
    return None if moved is None else float(moved)


def _performed(bout: LoggedBout) -> PerformedBout:
    return PerformedBout(
        position=Position(group=bout.group or 1, round=max(bout.set, 1), entry=1, set=bout.set, bout=bout.bout),
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
