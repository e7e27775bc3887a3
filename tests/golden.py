"""Golden cases: what the core makes of random sessions with random changes, for the client to be held to.

`make golden` writes them; a test fails where they are stale. Each rule that the client repeats for a session played
without a connection has a file. Steps are told as text, a line a step, so that a difference can be read.
"""

import json
from collections.abc import Iterator, Sequence
from decimal import Decimal
from pathlib import Path
from random import Random
from typing import Any

from fortis.core.adjustments import Adjustments, LoadChange, Swap
from fortis.core.basis import Basis
from fortis.core.exercises import LIBRARY
from fortis.core.loading.warm_up import School
from fortis.core.performance import Ended, PerformedBout, completed
from fortis.core.played import as_played, entry_name
from fortis.core.progression.advice import Advice, Bar, Line, Outcome
from fortis.core.progression.advice_table import all_advice, lines_of, load_name
from fortis.core.resolution import resolve
from fortis.core.strength.estimate import estimate
from fortis.core.strength.slowing import SLOWING, slowed
from fortis.core.structure.counting import count_of, counted_in, least_of
from fortis.core.structure.methods import METHODS, write_method
from fortis.core.structure.model import SetUp, lift_key, planned_reserve
from fortis.core.structure.notation import read
from fortis.core.structure.pace import USUAL_PACE
from fortis.core.structure.prescription import PlannedBout, PlannedSet, Prescription, lay_out
from fortis.core.structure.timeline import Step, timeline
from tests.core.kits import FULL

FOLDER = Path(__file__).parents[1] / "web" / "src" / "session" / "golden"
SEED = 12
SESSIONS, CHANGES_EACH = 72, 8

MORE_LINES = (
    "Dip: 3 x 6-8 at bw+10 kg leave 2",
    "Pull-up: 3 x 5 at bw-20 kg leave 2",
    "Bench press [green bands, bands 30 kg top]: 3 x 3 at 60 kg leave 2 rest 2:00",
    "Split squat: 2 x 8 at 20 kg each side weaker first 20s apart leave 1",
    "Plank: 3 x hold 45s rest 60s",
    "Leg press: 2 x 10 at 100 kg leave 1; 1 set of (12 to failure, drop 20% to failure, 5 stretched halves)",
    "Back squat: 3 x 3 at 100 kg rpe 8.5 every 2:00",
    "Cable row: 12 at 50 kg for 5:00",
    "pair, 3 rounds, every 2:30:\n  Overhead press: 5 at 45 kg leave 2\n  Lat pulldown: 10 at 55 kg leave 1",
    "circuit, for 8:00:\n  Push-up: 10\n  Ring row: 10\n  Goblet squat: 10 at 22.5 kg",
    "pair, rest 90s, between 20s:\n  Bench press: 4 x 5 at 70 kg leave 2\n  Bent-over row: 2 x 8 at 60 kg leave 1",
    "Leg curl of my own: 3 x 10 at 40 kg leave 2",
    "Straight-arm pulldown: 2 x 9 at 40 kg alternating halves leave 1; 1 set of (12, 5 shortened halves)",
)
MAXES = {
    lift_key(LIBRARY.find(name), SetUp()): estimate(kg, 1, 0)
    for name, kg in (("Back squat", 140.0), ("Front squat", 115.0), ("Deadlift", 180.0), ("Bench press", 95.0))
}
INSTEAD = ("Leg press", "Push-up", "Something new")
Case = dict[str, Any]


def sessions() -> Iterator[tuple[Random, Prescription]]:
    """Random sessions of every structure, settled, some with warm-ups."""
    lines = [write_method(method) for method in METHODS] + list(MORE_LINES)
    for number in range(SESSIONS):
        random = Random(SEED * 1_000 + number)
        chosen = [lines[number % len(lines)], *random.sample(lines, random.randint(0, 2))]
        random.shuffle(chosen)
        school = random.choice([None, School.FEW])
        basis = Basis(kit=FULL, body_kg=Decimal(80), estimates=MAXES, warm_ups=school)
        yield random, resolve(lay_out(read("\n".join(chosen))), basis)


def changes(random: Random, prescription: Prescription) -> Adjustments:
    """A few random changes of a plan, of every kind."""
    entries = list(dict.fromkeys(map(entry_name, prescription.sets)))
    groups = list(dict.fromkeys(each.group for each in prescription.sets))
    some = {name: random.sample(entries, random.randint(0, 1 + len(entries) // 2)) for name in _KINDS}
    wanted = random.sample(_KINDS, random.randint(1, 4))
    extra = {entry: random.randint(1, 2) for entry in some["extra"]} if "extra" in wanted else {}
    swapped = {
        entry: Swap(lift=random.choice(INSTEAD), set=random.randint(0, 2)) for entry in some["swapped"]
    } if "swapped" in wanted else {}  # fmt: skip
    loads = {entry: _loads(random, prescription, entry) for entry in some["loads"]} if "loads" in wanted else {}
    setups = {entry: random.choice([("straps",), (), ("belt", "wraps")]) for entry in some["setups"]}
    grown = as_played(prescription, Adjustments(extra=extra))
    positions = [str(each.position(bout)) for each in grown.sets for bout in each.bouts]
    skipped = random.sample(positions, random.randint(1, len(positions)) // 2) if "skipped" in wanted else []
    return Adjustments(
        extra=extra,
        swapped=swapped,
        loads=loads,
        setups=setups if "setups" in wanted else {},
        skipped=tuple(skipped),
        order=tuple(random.sample(groups, random.randint(1, len(groups)))) if "order" in wanted else (),
        within={str(group): _turned(random, prescription, group) for group in groups} if "within" in wanted else {},
    )


_KINDS = ["extra", "swapped", "loads", "setups", "skipped", "order", "within"]


def _loads(random: Random, prescription: Prescription, entry: str) -> tuple[LoadChange, ...]:
    settled = [
        (each, bout)
        for each in prescription.sets
        for bout in each.bouts
        if entry_name(each) == entry and bout.settled and not each.is_warm_up
    ]
    found = []
    for each, bout in random.sample(settled, min(len(settled), random.randint(1, 2))):
        assert bout.settled
        kg = bout.settled.kg + random.choice([-10, Decimal("-2.5"), Decimal("2.5"), 5])
        found.append(
            LoadChange(
                set=each.number,
                bout=random.choice([None, bout.number]),
                was_kg=random.choice([None, bout.settled.kg]),
                kg=kg,
                sleeve=random.choice([(), (Decimal(20), Decimal("2.5"))]),
                advised=random.random() < 0.5,
            )
        )
    return tuple(found)


def _turned(random: Random, prescription: Prescription, group: int) -> tuple[int, ...]:
    members = sorted({each.entry for each in prescription.sets if each.group == group})
    return tuple(random.sample(members, random.randint(1, len(members))))


# --- what is told of a step, on both sides ----------------------------------------------------------------


def told(step: Step) -> str:
    """A step in a line, as `told` in `golden.test.ts` tells it."""
    place = f"{step.group}.{step.round}.{step.entry}.{step.set}.{step.bout}"
    words = [step.kind, place, step.exercise, f"{step.seconds} s"]
    words += [f"side {step.side}"] if step.side != "both" else []
    words += [step.what] if step.what else []
    words += ["short"] if step.short else []
    words += [f"every {step.every}"] if step.every is not None else []
    words += ["warm-up"] if step.warm_up else []
    words += ["left out"] if step.left_out else []
    if step.kind == "work":
        words += [f"[{', '.join(step.setup.items)}]", f"then {step.then_rest}"]
        words += [f"then every {step.then_every}"] if step.then_every is not None else []
        words += [f"at {_number(step.load.kg)}"] if step.load and step.load.kg is not None else []
        if step.settled:
            words += [f"sleeve {'+'.join(map(_number, step.settled.sleeve))}"]
            words += [f"top {_number(step.settled.top_kg)}"] if step.settled.top_kg is not None else []
            words += ["advised"] if step.settled.advised else []
    return " · ".join(words)


def _number(kg: Decimal) -> str:
    return load_name(Decimal(str(round(float(kg), 4))))


_NEEDED = {
    "kind", "seconds", "exercise", "group", "round", "entry", "set", "bout", "short", "warm_up", "every", "block",
    "what", "side", "setup", "load", "settled", "then_rest", "then_every", "load_seconds", "left_out",
}  # fmt: skip


def _slim(step: Step) -> Case:
    fields = step.model_dump(mode="json", exclude_defaults=True, include=_NEEDED)
    if "settled" in fields:
        kept = ("kg", "sleeve", "bottom_kg", "top_kg", "mean_kg")
        fields["settled"] = {name: fields["settled"][name] for name in kept if name in fields["settled"]}
    return fields


def played_cases() -> list[Case]:
    """Random sessions with random changes, and what becomes of them."""
    cases = []
    for random, prescription in sessions():
        changed = [changes(random, prescription) for _ in range(CHANGES_EACH)]
        cases.append(
            {
                "steps": [_slim(step) for step in timeline(prescription).steps],
                "as_planned": list(map(told, timeline(prescription).steps)),
                "changes": [
                    {
                        "changed": each.model_dump(mode="json"),
                        "expected": list(map(told, timeline(as_played(prescription, each)).steps)),
                    }
                    for each in changed
                ],
            }
        )
    return cases


# --- counting, outcomes, slowing --------------------------------------------------------------------------


def counting_cases() -> list[Case]:
    """What lifters' words come to, beside every kind of target."""
    random = Random(SEED)
    planned = {
        (bout.reps, bout.range_of_motion): (each, bout)
        for _, prescription in sessions()
        for each in prescription.sets
        for bout in each.bouts
    }
    cases = []
    for each, bout in planned.values():
        for _ in range(6):
            number = max(least_of(bout.reps) + random.randint(-3, 3), 0)
            said = random.choice([None, *Ended])
            before = PerformedBout(
                position=each.position(bout),
                exercise=each.exercise,
                **count_of(bout.reps, bout.range_of_motion, number).model_dump(),
                reserve=random.choice([None, Decimal(0), Decimal("1.5"), Decimal(5)]),
                or_more=random.random() < 0.3,
                ended=said,
            )
            ended_given = random.random() < 0.4
            after = completed(before, bout, ended_given=ended_given)
            cases.append(
                {
                    "counts": counted_in(bout.reps, bout.range_of_motion),
                    "least": least_of(bout.reps),
                    "number": number,
                    "told": _outcome(before),
                    "ended_given": ended_given,
                    "expected": _outcome(after),
                }
            )
    return cases


def _outcome(bout: PerformedBout) -> Case:
    names = ("reps", "partial_reps", "seconds", "reserve", "or_more", "ended")
    return bout.model_dump(mode="json", include=set(names))


def advice_cases() -> list[Case]:
    """Tables of advice, and what the rules themselves say of random outcomes."""
    bar = Bar(FULL, Decimal(80))
    cases = []
    for number, (random, prescription) in enumerate(sessions()):
        bouts = [(each, bout) for each in prescription.work_sets for bout in each.bouts if bout.settled]
        if number % 9 or not bouts:
            continue
        lines = lines_of(prescription, bar)
        lookups = []
        for _ in range(120):
            each, bout = random.choice(bouts)
            lookups.append(_lookup(random, lines, each, bout))
        table = all_advice(prescription, bar).model_dump(mode="json", exclude_none=True)
        cases.append({"table": table | {"advice": list(map(_slim_advice, table["advice"]))}, "lookups": lookups})
    return cases


def _slim_advice(advice: Case) -> Case:
    slim = {name: advice[name] for name in ("course", "text", "was") if name in advice}
    return slim | {"again": {"text": advice["again"]["text"]}} if "again" in advice else slim


def _lookup(random: Random, lines: Sequence[Line], each: PlannedSet, bout: PlannedBout) -> Case:
    """A bout, sometimes with the one in the set before, and the advice that the rules give."""
    assert bout.settled
    of_set = {(entry_name(other), other.number): (line, other) for line in lines for other in line.sets}
    line, _ = of_set[entry_name(each), each.number]
    of_before, before = of_set.get((entry_name(each), each.number - 1), (line, None))
    twin = next((other for other in before.bouts if other.number == bout.number), None) if before else None
    own, own_advice = _said(random, line, each, bout)
    earlier, earlier_advice = _said(random, of_before, before, twin) if before and twin else (None, None)
    expected = own_advice
    if own_advice and own_advice.again and earlier_advice and earlier_advice.was == own_advice.was:
        expected = own_advice.again
    done = [said for said in (earlier, own) if said]
    return {"bouts": done, "expected": expected.text if expected else None, "again": expected is not own_advice}


def _said(random: Random, line: Line, each: PlannedSet, bout: PlannedBout) -> tuple[Case, Advice | None]:
    number = max(least_of(bout.reps) + random.choice([-2, -1, 0, 0, 0, 0, 1, 2]), 0)
    harder = max((planned_reserve(bout.effort) or Decimal(0)) - 1, Decimal(0))
    left = random.choice([None, *(Decimal(half) / 2 for half in range(12)), *[harder] * 18])
    ended = random.choice([None, Ended.MET, Ended.FORM])
    advice = line.advise(each, bout, Outcome(number, left, ended))
    said = {
        "position": each.position(bout).model_dump(),
        "exercise": each.exercise,
        "kg": float(bout.settled.kg) if bout.settled else None,
        "counts": counted_in(bout.reps, bout.range_of_motion),
        **count_of(bout.reps, bout.range_of_motion, number).model_dump(),
        "reserve": None if left is None else float(left),
        "or_more": left is not None and left >= 5,
        "ended": ended,
    }
    return said, advice


def slowing_cases() -> list[Case]:
    """Reps tapped at random moments, and how they slowed."""
    random = Random(SEED)
    cases = []
    for _ in range(60):
        moments, at = [], 0.0
        for number in range(random.randint(1, 12)):
            at = round(at + random.uniform(0.8, 1.6) * (1 + 0.08 * number * random.random()), 2)
            moments.append(at)
        found = slowed(moments)
        known = found.model_dump(exclude_none=True) if found else {}
        expected = {name: round(value, 6) for name, value in known.items()} or None
        cases.append({"taps": moments, "expected": expected})
    return cases


FILES = {
    "played": lambda: {"pace": USUAL_PACE.model_dump(), "cases": played_cases()},
    "counting": lambda: {"cases": counting_cases()},
    "advice": lambda: {"cases": advice_cases()},
    "slowing": lambda: {
        "slowing": [each.model_dump() for each in SLOWING],
        "cases": slowing_cases(),
    },
}


def written(name: str) -> str:
    """A file of golden cases as it should be, a case a line."""
    content = FILES[name]()
    cases = content.pop("cases")
    head = json.dumps(content, ensure_ascii=False)[1:-1]
    lines = ",\n".join(json.dumps(case, ensure_ascii=False, separators=(",", ":")) for case in cases)
    return f'{{{head + ", " if head else ""}"cases": [\n{lines}\n]}}\n'


if __name__ == "__main__":
    FOLDER.mkdir(exist_ok=True)
    for name in FILES:
        (FOLDER / f"{name}.json").write_text(written(name), encoding="utf-8")
