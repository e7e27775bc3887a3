"""How well the next loads hit what was asked, beside two common ways to choose them and the best there is.

`python -m bench.training` prints the table of docs/model.md. Each lifter trains one lift for sixteen weeks, three
structures a week, from a max that was tested once, three per cent off or less in two cases of three. Judged is the
reserve that was really left at the end of each set, from the seventh week on, beside the one asked. With `mixed`
sets of a session ask several things, and all loads are chosen by Fortis.
"""

import sys
from collections.abc import Callable, Iterator, Sequence, Set
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass, field, replace
from datetime import UTC, datetime, timedelta
from decimal import Decimal
from functools import cached_property
from math import exp
from random import Random
from statistics import NormalDist, mean
from typing import NamedTuple

from fortis.core.basis import Basis, Carried
from fortis.core.exercises import LIBRARY
from fortis.core.line import Line
from fortis.core.loading.calculator import bar_kit
from fortis.core.loading.kit import USUAL_PLATES, read_plates
from fortis.core.performance import Ended, PerformedBout
from fortis.core.progression.advice import Course
from fortis.core.progression.carried import Carries
from fortis.core.progression.next_loads import recommendations
from fortis.core.resolution import resolve
from fortis.core.strength.observation import Heard
from fortis.core.strength.tracker import Profile
from fortis.core.structure.counting import least_of
from fortis.core.structure.model import Session, SetUp, lift_key, planned_reserve
from fortis.core.structure.notation import read
from fortis.core.structure.prescription import PlannedBout, PlannedSet, Prescription, lay_out
from fortis.core.tally.evidence import REMEMBERED, Rested, evidence
from fortis.demo.advised import LIGHTER, Advised
from fortis.simulation.lifter import A_DAY, MadeUpLifter, made_up
from fortis.simulation.log import GAINS_HALVE, KINDS
from fortis.store.planning import settle

LIFT = LIBRARY.find("Back squat")
KEY = lift_key(LIFT, SetUp())
KIT = bar_kit(Decimal(20), Decimal(0), read_plates(USUAL_PLATES))
BEGINS = datetime(2026, 1, 5, 18, tzinfo=UTC)
WEEKS, JUDGED_FROM, RETESTED_EVERY = 16, 6, 8
FIRST_SEED = 5_000
STEP, BEFORE = 2.5, 600.0
"""The steps of loads by the kit in kg, and the seconds since anything was lifted when a session begins."""
FORMS = [exp(A_DAY * NormalDist().inv_cdf((each + 0.5) / 5)) for each in range(5)]
"""Days as they come, from bad to good."""


@dataclass(frozen=True)
class Structure:
    """What is asked on a day of the week, and the share of the max that is usually planned for it."""

    day: int
    session: Session
    share: float

    @cached_property
    def plan(self) -> Prescription:
        """It laid out, without loads."""
        return lay_out(self.session)


def _structure(day: int, written: str, share: float) -> Structure:
    return Structure(day, read(f"Back squat: {written}"), share)


WEEK = (
    _structure(0, "4 x 5 leave 2 rest 3:00", 0.78),
    _structure(2, "2 sets of (3, 4, 5, 6, 7) leave 1 within 15s rest 3:00", 0.60),
    _structure(4, "3 sets of (2, 2, 2) leave 1 within 10s rest 3:00", 0.83),
)
"""The shares are those of common tables, of experienced coaches' plans (common practice, from memory)."""
MIXED = (
    _structure(0, "1 x 5 leave 1 rest 3:00; 3 x 8 leave 2 rest 2:00", 0.8),
    _structure(2, "1 x 5 at 85% rest 3:00; 3 x 8 leave 2 rest 3:00", 0.8),
    _structure(4, "1 x 3 leave 1 rest 3:00; 2 x 6 leave 2 rest 3:00; 1 x 12 leave 1", 0.8),
)
"""Sets that ask several things."""


@dataclass
class Outcomes:
    """What came of a way to choose loads: reps left over those asked at the end of each set, and reps missed."""

    off: list[float] = field(default_factory=list)
    missed: int = 0

    def add(self, other: "Outcomes") -> None:
        """Take in others."""
        self.off += other.off
        self.missed += other.missed


@dataclass
class Trainee:
    """A made-up lifter with what is known of them: the max as tested last, the last loads, the last sessions."""

    lifter: MadeUpLifter
    random: Random
    tested: float
    profile: Profile
    now: datetime = BEGINS
    loads: dict[int, Decimal] = field(default_factory=dict)
    carried: dict[int, Sequence[Carries]] = field(default_factory=dict)
    failed: dict[int, int] = field(default_factory=dict)

    def test(self) -> None:
        """Test the max, as far as a test is true."""
        self.tested = self.lifter.max_kg * exp(self.random.gauss(0, 0.03))


def by_fortis(trainee: Trainee, asked: Structure) -> Prescription:
    """By what is known of the lifter, and what last time recommends."""
    basis = Basis(kit=KIT, estimates=trainee.profile.maxes(trainee.now))
    return settle(asked.session, basis, trainee.carried.get(asked.day, ()))


def by_steps(trainee: Trainee, asked: Structure) -> Prescription:
    """2.5 kg more when all reps were done, a tenth less after two sessions that missed some (common practice)."""
    return _at(asked, trainee.loads.get(asked.day, Decimal(str(round(trainee.tested * asked.share, 1)))))


def by_share(trainee: Trainee, asked: Structure) -> Prescription:
    """A fixed share of the max as tested last."""
    return _at(asked, Decimal(str(round(trainee.tested * asked.share, 1))))


def _at(asked: Structure, kg: Decimal) -> Prescription:
    return resolve(asked.plan, Basis(kit=KIT), {Line(1, 1): Carried(was_kg=kg, kg=kg)})


def by_knowing(trainee: Trainee, asked: Structure) -> Prescription:
    """By all that is true of the lifter but the day's form: on average over that the least off."""
    lifter, steps = trainee.lifter, int(trainee.lifter.max_kg / STEP)

    def off(kg: float) -> float:
        days = (replace(lifter, form=form, missing=0.0, gone=0.0) for form in FORMS)
        return mean(each for day in days for each in _off(day, asked.plan, kg))

    return _at(asked, Decimal(str(min((STEP * each for each in range(steps // 2, steps)), key=off))))


def _off(lifter: MadeUpLifter, plan: Prescription, kg: float) -> Iterator[float]:
    """How far off the reps left would be at the end of each set, all of it done with one load."""
    for rest, each, bout in _in_turn(plan):
        lifter.rest(rest)
        reps, left = lifter.lift(kg, least_of(bout.reps))
        if bout is each.bouts[-1]:
            yield _beyond(bout, reps, left)


def _in_turn(plan: Prescription) -> Iterator[tuple[float, PlannedSet, PlannedBout]]:
    """The bouts of a plan, each with the seconds of rest before it, and its set."""
    rest = BEFORE
    for each in plan.sets:
        for bout in each.bouts:
            yield rest, each, bout
            rest = float(bout.rest)
        rest = float(each.rest)


def _beyond(bout: PlannedBout, reps: int, left: float) -> float:
    """How far the reps left were off those asked; missing reps count as left below none."""
    return abs(reps + left - least_of(bout.reps) - float(planned_reserve(bout.effort) or 0))


class Way(NamedTuple):
    """A way to choose loads, and the courses that are taken for the rest of a session where the Floor says so."""

    plan: Callable[[Trainee, Structure], Prescription]
    taken: Set[Course] = frozenset()


WAYS = {
    "Fortis": Way(by_fortis),
    "Fortis, lighter where the Floor says so": Way(by_fortis, LIGHTER),
    "Fortis, lighter or heavier where the Floor says so": Way(by_fortis, LIGHTER | {Course.HEAVIER}),
    "2.5 kg more when all was done": Way(by_steps),
    "a share of the tested max": Way(by_share),
    "the lifter known, the day not": Way(by_knowing),
}
BY_FORTIS = tuple(name for name, way in WAYS.items() if way.plan is by_fortis)


def train(kind: str, seed: int, name: str, structures: Sequence[Structure] = WEEK) -> Outcomes:
    """Sixteen weeks of one lifter with loads chosen one way."""
    way = WAYS[name]
    random = Random(f"{kind} {seed}")
    lifter = made_up(random, 140 * random.uniform(0.6, 1.4), *kind.split("-"))
    gain = random.choice([0.001, 0.003, 0.008])
    trainee = Trainee(lifter, random, 0.0, Profile())
    trainee.test()
    told = Heard(trainee.tested, 0, 1, 0, vague=REMEMBERED)
    trainee.profile, _ = trainee.profile.learn(KEY, BEGINS, [told], LIFT.prime)
    found = Outcomes()
    for week in range(WEEKS):
        if week and week % RETESTED_EVERY == 0:
            trainee.test()
        for asked in structures:
            trainee.now = BEGINS + timedelta(weeks=week, days=asked.day, hours=1)
            plan = way.plan(trainee, asked)
            advised = None
            if way.taken:
                advised = Advised(plan, KIT, None, trainee.profile.maxes(trainee.now), way.taken)
            done = _session(trainee, plan, found, advised, judged=week >= JUDGED_FROM)
            _step(trainee, asked.day, done)
            if way.plan is by_fortis:
                _learn(trainee, asked.day, advised.plan if advised else plan, done)
        lifter.max_kg *= exp(random.gauss(gain / (1 + week / GAINS_HALVE), 0.004))
    return found


def _session(
    trainee: Trainee, plan: Prescription, found: Outcomes, advised: Advised | None = None, *, judged: bool
) -> list[Rested]:
    """Do a session, each bout after its rest, and as `advised` on the way."""
    trainee.lifter.wake_up()
    done: list[Rested] = []
    for rest, each, planned in _in_turn(plan):
        trainee.lifter.rest(rest)
        bout = advised.bout(each.position(planned)) if advised else planned
        if bout is None:
            continue
        performed, left = _performed(trainee, each, bout)
        done.append(Rested(performed, rest))
        if advised:
            advised.done(performed)
        if judged and planned is each.bouts[-1]:
            found.missed += performed.reps < least_of(bout.reps)
            found.off.append(_beyond(bout, performed.reps, left))
    return done


def _performed(trainee: Trainee, each: PlannedSet, bout: PlannedBout) -> tuple[PerformedBout, float]:
    """A bout as it went and as it is told, and the reps that were really left."""
    assert bout.settled is not None
    asked = least_of(bout.reps)
    reps, left = trainee.lifter.lift(float(bout.settled.kg), asked)
    stuck = reps < asked
    called = "0" if stuck else trainee.lifter.called(left)
    performed = PerformedBout(
        position=each.position(bout),
        exercise=each.exercise,
        lift_id=each.lift.id,
        kg=bout.settled.kg,
        reps=reps,
        reserve=Decimal(called.rstrip("+")),
        or_more=called.endswith("+"),
        ended=Ended.STUCK if stuck else Ended.MET,
    )
    return performed, left


def _learn(trainee: Trainee, day: int, plan: Prescription, done: Sequence[Rested]) -> None:
    """What Fortis makes of a session for the next one of the day."""
    heard = [each for each in evidence(done, LIFT, None) if each]
    trainee.profile, _ = trainee.profile.learn(KEY, trainee.now, heard, LIFT.prime)
    maxes = trainee.profile.maxes(trainee.now)
    recommended = recommendations(plan, [each.bout for each in done], KIT, None, maxes)
    trainee.carried[day] = [each.carries for each in recommended]


def _step(trainee: Trainee, day: int, done: Sequence[Rested]) -> None:
    """The load of the next session of the day by steps."""
    used = max(each.bout.kg for each in done if each.bout.kg is not None)
    missed = any(each.bout.ended is Ended.STUCK for each in done)
    trainee.failed[day] = trainee.failed.get(day, 0) + 1 if missed else 0
    if not missed:
        trainee.loads[day] = used + Decimal("2.5")
    else:
        trainee.loads[day] = round(used * Decimal("0.9"), 1) if trainee.failed[day] >= 2 else used


def _of_kind(kind: str, lifters: int, structures: Sequence[Structure], ways: Sequence[str]) -> dict[str, Outcomes]:
    found = {way: Outcomes() for way in ways}
    for way, outcomes in found.items():
        for seed in range(FIRST_SEED, FIRST_SEED + lifters):
            outcomes.add(train(kind, seed, way, structures))
    return found


def main(lifters: int, *, mixed: bool) -> None:
    """Print the table."""
    structures, ways = (MIXED, BY_FORTIS) if mixed else (WEEK, tuple(WAYS))
    with ProcessPoolExecutor() as pool:
        same = [[each] * len(KINDS) for each in (lifters, structures, ways)]
        of_kinds = list(pool.map(_of_kind, KINDS, *same))
    months = lifters * (WEEKS - JUDGED_FROM) / 4.33
    print("| Lifters | " + " | ".join(ways) + " |")
    print("|---|" + "---|" * len(ways))
    for kind, found in zip(KINDS, of_kinds, strict=True):
        print(f"| {kind.replace('-', ', ')} | " + " | ".join(_told(each, months) for each in found.values()) + " |")
    whole = {way: Outcomes() for way in ways}
    for found in of_kinds:
        for way, each in found.items():
            whole[way].add(each)
    print("| all | " + " | ".join(_told(each, months * len(KINDS)) for each in whole.values()) + " |")


def _told(each: Outcomes, months: float) -> str:
    return f"{mean(each.off):.1f}, {each.missed / months:.1f}"


if __name__ == "__main__":
    told = set(sys.argv[1:])
    main(next((int(each) for each in told if each.isdecimal()), 17), mixed="mixed" in told)
