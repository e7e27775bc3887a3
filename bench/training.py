"""How well the next loads hit what was asked, beside two common ways to choose them, on made-up lifters.

`python -m bench.training` prints the table of docs/model.md. Each lifter trains one lift for sixteen weeks, three
structures a week, from a max that was tested once, three per cent off or less in two cases of three. Judged is the
reserve that was really left at the end of each set, from the seventh week on, beside the one asked.
"""

import sys
from collections.abc import Callable, Mapping, Sequence
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass, field
from datetime import UTC, datetime, timedelta
from decimal import Decimal
from math import exp
from random import Random
from statistics import mean

from fortis.core.basis import Basis
from fortis.core.exercises import LIBRARY
from fortis.core.loading.calculator import bar_kit
from fortis.core.loading.kit import read_plates
from fortis.core.loading.nearest import nearest
from fortis.core.performance import Ended, PerformedBout
from fortis.core.progression.carried import Carries, carry
from fortis.core.progression.next_loads import recommendations
from fortis.core.resolution import resolve
from fortis.core.strength.observation import Heard
from fortis.core.strength.tracker import Profile
from fortis.core.structure.counting import least_of
from fortis.core.structure.model import SetUp, lift_key, planned_reserve
from fortis.core.structure.notation import read
from fortis.core.structure.prescription import PlannedSet, Prescription, Settled, lay_out
from fortis.core.tally.evidence import REMEMBERED, Rested, evidence
from fortis.simulation.lifter import MadeUpLifter, made_up
from fortis.simulation.log import GAINS_HALVE, KINDS

LIFT = LIBRARY.find("Back squat")
KEY = lift_key(LIFT, SetUp())
KIT = bar_kit(Decimal(20), Decimal(0), read_plates("4x25 2x20 1x15 2x10 2x5 2x2.5 1x1.25"))
BEGINS = datetime(2026, 1, 5, 18, tzinfo=UTC)
WEEKS, JUDGED_FROM, RETESTED_EVERY = 16, 6, 8
FIRST_SEED = 5_000


@dataclass(frozen=True)
class Structure:
    """What is asked on a day of the week, and the share of the max that is usually planned for it."""

    day: int
    plan: Prescription
    share: float


def _structure(day: int, written: str, share: float) -> Structure:
    return Structure(day, lay_out(read(f"Back squat: {written}")), share)


WEEK = (
    _structure(0, "4 x 5 leave 2 rest 3:00", 0.78),
    _structure(2, "2 sets of (3, 4, 5, 6, 7) leave 1 within 15s rest 3:00", 0.60),
    _structure(4, "3 sets of (2, 2, 2) leave 1 within 10s rest 3:00", 0.83),
)
"""The shares are those of common tables, of experienced coaches' plans (common practice, from memory)."""


@dataclass
class Outcomes:
    """What came of a way to choose loads: reps left over those asked at the end of each set, and reps missed."""

    off: list[float] = field(default_factory=list)
    missed: int = 0
    sets: int = 0


Chooser = Callable[["Trainee", Structure], Prescription]


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
    max_ = trainee.profile.max_of(KEY, trainee.now)
    basis = Basis(kit=KIT, estimates={KEY: max_} if max_ else {})
    return resolve(asked.plan, basis, carry(asked.plan, trainee.carried.get(asked.day, ())))


def by_steps(trainee: Trainee, asked: Structure) -> Prescription:
    """2.5 kg more when all reps were done, a tenth less after two sessions that missed some (common practice)."""
    return _at(asked, trainee.loads.get(asked.day, Decimal(str(round(trainee.tested * asked.share, 1)))))


def by_share(trainee: Trainee, asked: Structure) -> Prescription:
    """A fixed share of the max as tested last."""
    return _at(asked, Decimal(str(round(trainee.tested * asked.share, 1))))


WAYS: Mapping[str, Chooser] = {
    "Fortis": by_fortis,
    "2.5 kg more when all was done": by_steps,
    "a share of the tested max": by_share,
}


def _at(asked: Structure, kg: Decimal) -> Prescription:
    built = nearest(KIT, LIFT, kg)
    settled = Settled(kg=built.kg, wanted_kg=kg)
    sets = [
        each.model_copy(
            update={"bouts": tuple(bout.model_copy(update={"settled": settled}) for bout in each.bouts)}
        )
        for each in asked.plan.sets
    ]
    return asked.plan.model_copy(update={"sets": tuple(sets)})


def train(kind: str, seed: int, way: str) -> Outcomes:
    """Sixteen weeks of one lifter with loads chosen one way."""
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
        for asked in WEEK:
            trainee.now = BEGINS + timedelta(weeks=week, days=asked.day, hours=1)
            _session(trainee, asked, WAYS[way](trainee, asked), found, judged=week >= JUDGED_FROM)
        lifter.max_kg *= exp(random.gauss(gain / (1 + week / GAINS_HALVE), 0.004))
    return found


def _session(trainee: Trainee, asked: Structure, plan: Prescription, found: Outcomes, *, judged: bool) -> None:
    trainee.lifter.wake_up()
    done: list[PerformedBout] = []
    rests: list[float] = []
    rest = 600.0
    missed = 0
    for each in plan.sets:
        for bout in each.bouts:
            assert bout.settled is not None
            kg, reps = float(bout.settled.kg), least_of(bout.reps)
            trainee.lifter.rest(rest)
            rests.append(rest)
            number, left = trainee.lifter.lift(kg, reps)
            missed += number < reps
            done.append(_performed(trainee, each, bout.number, bout.settled.kg, number, reps, left))
            if judged and bout is each.bouts[-1]:
                found.sets += 1
                found.missed += number < reps
                found.off.append(abs(number + left - reps - float(planned_reserve(bout.effort) or 0)))
            rest = float(bout.rest)
        rest = float(each.rest)
    heard = evidence([Rested(each, rest) for each, rest in zip(done, rests, strict=True)], LIFT, None)
    trainee.profile, _ = trainee.profile.learn(KEY, trainee.now, [each for each in heard if each], LIFT.prime)
    max_ = trainee.profile.max_of(KEY, trainee.now)
    recommended = recommendations(plan, done, KIT, None, {KEY: max_} if max_ else {})
    trainee.carried[asked.day] = [each.carries for each in recommended]
    used = max(each.kg for each in done if each.kg is not None)
    trainee.failed[asked.day] = trainee.failed.get(asked.day, 0) + 1 if missed else 0
    if not missed:
        trainee.loads[asked.day] = used + Decimal("2.5")
    else:
        again = trainee.failed[asked.day] >= 2
        trainee.loads[asked.day] = round(used * Decimal("0.9"), 1) if again else used


def _performed(
    trainee: Trainee, each: PlannedSet, number: int, kg: Decimal, reps: int, asked: int, left: float
) -> PerformedBout:
    bout = next(bout for bout in each.bouts if bout.number == number)
    stuck = reps < asked
    called = "0" if stuck else trainee.lifter.called(left)
    return PerformedBout(
        position=each.position(bout),
        exercise=each.exercise,
        lift_id=each.lift.id,
        kg=kg,
        reps=reps,
        reserve=Decimal(called.rstrip("+")),
        or_more=called.endswith("+"),
        ended=Ended.STUCK if stuck else Ended.MET,
    )


def _of_kind(kind: str, lifters: int) -> dict[str, Outcomes]:
    found = {way: Outcomes() for way in WAYS}
    for way, outcomes in found.items():
        for seed in range(FIRST_SEED, FIRST_SEED + lifters):
            one = train(kind, seed, way)
            outcomes.off += one.off
            outcomes.missed += one.missed
            outcomes.sets += one.sets
    return found


def main(lifters: int) -> None:
    """Print the table."""
    with ProcessPoolExecutor() as pool:
        of_kinds = list(pool.map(_of_kind, KINDS, [lifters] * len(KINDS)))
    months = lifters * (WEEKS - JUDGED_FROM) / 4.33
    print("| Lifters | " + " | ".join(WAYS) + " |")
    print("|---|" + "---|" * len(WAYS))
    for kind, found in zip(KINDS, of_kinds, strict=True):
        print(f"| {kind.replace('-', ', ')} | " + " | ".join(_told(each, months) for each in found.values()) + " |")
    whole = {way: Outcomes() for way in WAYS}
    for found in of_kinds:
        for way, each in found.items():
            whole[way].off += each.off
            whole[way].missed += each.missed
    print("| all | " + " | ".join(_told(each, months * len(KINDS)) for each in whole.values()) + " |")


def _told(each: Outcomes, months: float) -> str:
    return f"{mean(each.off):.1f}, {each.missed / months:.1f}"


if __name__ == "__main__":
    main(int(sys.argv[1]) if len(sys.argv) > 1 else 17)
