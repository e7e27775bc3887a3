"""The rules. Each looks at one entry (or one pair) of a plan and the week before; common practice unless named."""

import re
from collections.abc import Callable, Iterator, Sequence
from decimal import Decimal
from itertools import combinations, groupby, pairwise

from fortis.core.cautions.caution import Caution, Log, PlannedEntry, Remedy, Serious, planned_entries
from fortis.core.exercises import Muscle
from fortis.core.structure.counting import as_planned, count_of
from fortis.core.structure.model import (
    Bout,
    Entry,
    FixedReps,
    Leave,
    Lifting,
    LoadTarget,
    MaxReps,
    OfPrevious,
    OfTop,
    Percent,
    RangeOfMotion,
    RepMax,
    Session,
    Set,
    Sets,
    SetUp,
    Terms,
    asks_failure,
    planned_reserve,
)
from fortis.core.structure.prescription import PlannedBout, PlannedSet, Prescription

CLUSTER_FROM = Decimal(80)
WRAP_MOST = 7
WRAP_LOAD_MOST = Decimal(40)
SLOW_LOWERING = 5
NEAR_LIMIT = Decimal(90)
SHORT_REST = 30
PARTIALS_MANY, PARTIALS_TOO_MANY = Decimal("0.2"), Decimal("0.5")

OVERLOADED_SETS_MOST = 4
"""Sets of lowering overload in a week (common practice: a few sets, on a few lifts, now and then)."""
NO_LOG = Log()

Rule = Callable[[PlannedEntry], Iterator[Caution]]


def cautions(session: Session, prescription: Prescription, log: Log = NO_LOG) -> tuple[Caution, ...]:
    """All cautions about a plan, in the order of its lines."""
    entries = list(planned_entries(session, prescription))
    found = [caution for entry in entries for rule in ENTRY_RULES for caution in rule(entry)]
    for _, members in groupby(entries, key=lambda entry: entry.group):
        for first, second in combinations(list(members), 2):
            found += bad_pair(first, second)
    found += partials_share(entries, log)
    found += overloaded_lowering(entries, log)
    if log.novice:
        found += [caution for entry in entries for caution in novice_failure(entry)]
    return tuple(sorted(found, key=lambda caution: (caution.group, caution.entry)))


# --- looking ----------------------------------------------------------------------------------------------


def _percent(bout: PlannedBout) -> Decimal | None:
    """How heavy a bout is in per cent of the max, as settled or as asked."""
    if bout.settled and bout.settled.percent is not None:
        return bout.settled.percent
    match bout.load:
        case Percent(percent=percent):
            return percent
    return None


def _fails(bout: PlannedBout) -> bool:
    """Whether no rep is meant to be left, in whatever words."""
    return asks_failure(bout.reps, bout.effort)


def _is_cluster(each: PlannedSet) -> bool:
    """Bouts of one load with short rests between them."""
    loads = {bout.settled.kg if bout.settled else bout.load for bout in each.bouts}
    relative = any(isinstance(bout.load, OfPrevious) for bout in each.bouts)
    rests = [bout.rest for bout, after in pairwise(each.bouts) if bout.side is after.side]
    return len(each.bouts) > 1 and len(loads) == 1 and not relative and bool(rests) and all(rests)


def _wrap(setup: SetUp) -> tuple[int, int] | None:
    """The place of a limb wrap in a set-up, and its tightness of ten (0 where it is not said)."""
    for at, item in enumerate(setup.items):
        if match := re.match(r"(?:limb |occlusion )?wraps?\b\D*(\d+)?", item, re.IGNORECASE):
            return at, int(match[1] or 0)
    return None


# --- mending ----------------------------------------------------------------------------------------------


def _with_terms(entry: Entry, change: Callable[[Terms], Terms]) -> Entry:
    """The entry with the terms of all its sets and bouts changed."""
    runs = []
    for run in entry.sets:
        bouts = tuple(bout.model_copy(update={"terms": change(bout.terms)}) for bout in run.each.bouts)
        each = run.each.model_copy(update={"bouts": bouts, "terms": change(run.each.terms)})
        runs.append(run.model_copy(update={"each": each}))
    return entry.model_copy(update={"sets": tuple(runs)})


def _leaving(entry: Entry, left: int) -> Entry:
    """The entry with reps left wherever none was meant to be; a bare `max` gets an effort."""
    leave = Leave(low=left, high=left)

    def change(terms: Terms) -> Terms:
        fails = terms.effort is not None and asks_failure(MaxReps(), terms.effort)
        return terms.model_copy(update={"effort": leave}) if fails else terms

    def bare(run: Sets) -> Sets:
        bouts = tuple(
            bout.model_copy(update={"terms": bout.terms.model_copy(update={"effort": leave})})
            if isinstance(bout.reps, MaxReps) and bout.terms.effort is None and run.each.terms.effort is None
            else bout
            for bout in run.each.bouts
        )
        return run.model_copy(update={"each": run.each.model_copy(update={"bouts": bouts})})

    changed = _with_terms(entry, change)
    return changed.model_copy(update={"sets": tuple(map(bare, changed.sets))})


def _at(entry: Entry, load: LoadTarget) -> Entry:
    """The entry with every load replaced but those that follow from another; set where none is written."""

    def change(terms: Terms) -> Terms:
        own = terms.load is not None and not isinstance(terms.load, OfPrevious | OfTop)
        return terms.model_copy(update={"load": load, "climb": None}) if own else terms

    def written(run: Sets) -> bool:
        return any(terms.load is not None for terms in (run.each.terms, *(bout.terms for bout in run.each.bouts)))

    def with_load(run: Sets) -> Sets:
        if written(run):
            return run
        if len(run.each.bouts) > 1:
            terms = run.each.terms.model_copy(update={"load": load})
            return run.model_copy(update={"each": run.each.model_copy(update={"terms": terms})})
        bout = run.each.bouts[0]
        loaded = bout.model_copy(update={"terms": bout.terms.model_copy(update={"load": load})})
        return run.model_copy(update={"each": run.each.model_copy(update={"bouts": (loaded,)})})

    changed = _with_terms(entry, change)
    return changed.model_copy(update={"sets": tuple(map(with_load, changed.sets))})


# --- the rules --------------------------------------------------------------------------------------------


def failure_where_failing_is_not_safe(plan: PlannedEntry) -> Iterator[Caution]:
    """Drops and failure belong on lifts that can be failed."""
    lift = plan.exercise
    if not lift.known or lift.failing_is_safe or not any(map(_fails, plan.bouts)):
        return
    left = 2 if lift.loads_spine else 1
    why = "it loads the spine" if lift.loads_spine else "it can pin you" if lift.pins else "it is hard to bail from"
    yield plan.caution(
        "unsafe-failure",
        Serious.RISK,
        f"{lift.name} to failure: stop with {left} left instead.",
        f"Failing here is not safe, because {why}; the last rep is where form goes.",
        remedy=Remedy(label=f"Leave {left}", entry=_leaving(plan.entry, left)),
    )


def drops_on_a_free_lift(plan: PlannedEntry) -> Iterator[Caution]:
    """Drop sets suit machines and single-joint lifts."""
    lift = plan.exercise
    drops = any(isinstance(bout.load, OfPrevious) for bout in plan.bouts)
    if drops and lift.known and not lift.failing_is_safe:
        yield plan.caution(
            "drop-lift",
            Serious.LOOK,
            f"A drop set on {lift.name.lower()}: a machine or a single-joint lift is the better place.",
            "Tired reps on a lift that cannot be failed safely cost more than the time they save.",
        )


def failure_before_the_last_set(plan: PlannedEntry) -> Iterator[Caution]:
    """Failure is for the last set."""
    failing = [each.number for each in plan.sets if any(map(_fails, each.bouts))]
    last = plan.sets[-1].number if plan.sets else 0
    early = [number for number in failing if number != last]
    if early:
        yield plan.caution(
            "early-failure",
            Serious.LOOK,
            f"{plan.exercise.name}: {len(failing)} sets to failure; usually only the last one is.",
            "A set to failure takes more out of the sets after it than it adds.",
            disputed="Some take every set of a small single-joint lift to failure and grow on it.",
            remedy=Remedy(label="Leave 1 instead", entry=_leaving(plan.entry, 1)),
        )


def cluster_with_an_unrack(plan: PlannedEntry) -> Iterator[Caution]:
    """A cluster is no use where every mini-set costs an unrack and a rerack."""
    if plan.exercise.unracks and any(map(_is_cluster, plan.sets)):
        yield plan.caution(
            "cluster-unrack",
            Serious.LOOK,
            f"{plan.exercise.name} in clusters: every mini-set costs an unrack and a rerack.",
            "What the short rest gives back the set-up takes again. Pulls and weighted chins suit clusters better.",
        )


def light_cluster(plan: PlannedEntry) -> Iterator[Caution]:
    """A cluster is for heavy loads; ascending mini-sets are another thing."""
    for each in plan.sets:
        counts = [bout.reps.count for bout in each.bouts if isinstance(bout.reps, FixedReps)]
        percent = _percent(each.bouts[0])
        same = len(set(counts)) == 1 and len(counts) == len(each.bouts)
        if _is_cluster(each) and same and percent is not None and percent < CLUSTER_FROM:
            yield plan.caution(
                "cluster-light",
                Serious.KNOW,
                f"{plan.exercise.name}: clusters at {percent:.0f} %; they pay from about 85 % up.",
                "With light loads a break in mid-set does worse than straight sets.",
                remedy=Remedy(label="Use 85%", entry=_at(plan.entry, Percent(percent=Decimal(85)))),
            )
            return


def ascending_too_heavy(plan: PlannedEntry) -> Iterator[Caution]:
    """Ascending mini-sets want a 12-rep max: a load 3 % too heavy ruins the last two."""
    for each in plan.sets:
        counts = [bout.reps.count for bout in each.bouts if isinstance(bout.reps, FixedReps)]
        rising = len(counts) > 2 and counts == sorted(set(counts))
        load, percent = each.bouts[0].load, _percent(each.bouts[0])
        heavy = (isinstance(load, RepMax) and load.reps < 12) or (percent is not None and percent > 73)
        if rising and _is_cluster(each) and heavy:
            yield plan.caution(
                "ascending-heavy",
                Serious.LOOK,
                f"{plan.exercise.name}: too heavy for {'-'.join(map(str, counts))}; the last will fall short.",
                "Ascending mini-sets go with a 12-rep max, about 70 %; 3 % more ruins the last two.",
                remedy=Remedy(label="Use 12RM", entry=_at(plan.entry, RepMax(reps=12))),
            )
            return


def near_the_limit(plan: PlannedEntry) -> Iterator[Caution]:
    """Lifts that can pin the lifter want safeties or a spotter near the limit."""

    def near(bout: PlannedBout) -> bool:
        reserve = planned_reserve(bout.effort)
        return (reserve is not None and reserve <= 1) or (_percent(bout) or Decimal(0)) >= NEAR_LIMIT

    if plan.exercise.pins and any(map(near, plan.bouts)):
        yield plan.caution(
            "safeties",
            Serious.RISK,
            f"{plan.exercise.name} near the limit: set the safeties, or have a spotter.",
            "A missed rep of this lift can pin you. Learn to fail it before you need to.",
        )


def slow_lowering(plan: PlannedEntry) -> Iterator[Caution]:
    """Very slow lowering on free-weight compounds makes the lungs the limit."""
    lift = plan.exercise
    slowest = max((bout.tempo.lowering for bout in plan.bouts if bout.tempo), default=0)
    if slowest > SLOW_LOWERING and lift.is_free and not lift.small:
        yield plan.caution(
            "slow-lowering",
            Serious.KNOW,
            f"{plan.exercise.name}, lowered in {slowest} s: breath gives out before the muscle does.",
            "On big free-weight lifts 2 to 5 s is enough; time under tension by itself predicts little.",
            disputed="Some lower for 8 s on purpose, for control or for sore joints, with light loads.",
        )


def tempo_on_maximal_work(plan: PlannedEntry) -> Iterator[Caution]:
    """Near-maximal work is lowered under control and no slower."""
    for bout in plan.bouts:
        if bout.tempo and bout.tempo.lowering >= 4 and (_percent(bout) or Decimal(0)) >= 85:
            yield plan.caution(
                "tempo-maximal",
                Serious.LOOK,
                f"{plan.exercise.name}: {bout.tempo.lowering} s of lowering at {_percent(bout):.0f} %.",
                "For maximal strength lowering is just controlled; slow reps spend the strength before the lift.",
            )
            return


def nothing_left(plan: PlannedEntry) -> Iterator[Caution]:
    """A bout that goes as far as it goes leaves nothing for another with the same load at once."""
    runs = (run.model_copy(update={"each": _without_spent(run.each)}) for run in plan.entry.sets)
    mended = plan.entry.model_copy(update={"sets": tuple(runs)})
    if mended != plan.entry:
        yield plan.caution(
            "nothing-left",
            Serious.KNOW,
            f"{plan.exercise.name}: no rep is left for a bout at the same load right after one that goes to the "
            "end.",
            "A drop without reps goes on as far as it goes already.",
            remedy=Remedy(label="Leave it out", entry=mended),
        )


def _without_spent(each: Set) -> Set:
    """A set without the bouts that begin where the one before them ended."""
    if each.within:
        return each
    spent = {at for at, (before, bout) in enumerate(pairwise(each.bouts), start=1) if _is_spent(before, bout)}
    bouts = (bout for at, bout in enumerate(each.bouts) if at not in spent)
    return each.model_copy(update={"bouts": tuple(bouts)})


def _is_spent(before: Bout, bout: Bout) -> bool:
    """Whether nothing is lighter, shorter or rested since the bout before it, which left nothing."""
    was, now = before.terms, bout.terms
    alike = (now.side, now.range_of_motion, now.lifting) == (was.side, was.range_of_motion, was.lifting)
    same = now.load is None or (now.load == was.load and not isinstance(now.load, OfPrevious))
    to_the_end = isinstance(bout.reps, MaxReps) and asks_failure(before.reps, was.effort)
    return to_the_end and alike and same and not before.rest


def max_test_on_a_small_lift(plan: PlannedEntry) -> Iterator[Caution]:
    """A true max on a small single-joint lift asks for tendon trouble."""

    def tests(bout: PlannedBout) -> bool:
        single = isinstance(bout.reps, FixedReps) and bout.reps.count == 1
        heavy = (_percent(bout) or Decimal(0)) >= 95 or _fails(bout) or bout.load == RepMax(reps=1)
        return single and heavy

    if plan.exercise.small and any(map(tests, plan.bouts)):
        yield plan.caution(
            "small-max",
            Serious.RISK,
            f"A max on {plan.exercise.name.lower()}: estimate it from a set of eight instead.",
            "A true single on a small joint asks for tendon trouble and tells nothing an estimate does not.",
        )


def is_overloaded(each: PlannedSet) -> bool:
    """Whether more is lowered in a set than is lifted."""
    return any(bout.lifting is not Lifting.ALONE for bout in each.bouts)


def novice_failure(plan: PlannedEntry) -> Iterator[Caution]:
    """Who has trained for less than a year needs no failure, and misjudges what is left."""
    if any(map(_fails, plan.bouts)):
        yield plan.caution(
            "novice-failure",
            Serious.LOOK,
            f"{plan.exercise.name} to failure in your first year: two left grows as much.",
            "Form and judgement come first. Reps left are practice now, and often misjudged by three or four.",
            disputed="Some let beginners fail on safe machines, to learn what failure feels like.",
            remedy=Remedy(label="Leave 2", entry=_leaving(plan.entry, 2)),
        )


def tight_wrap(plan: PlannedEntry) -> Iterator[Caution]:
    """Restricted blood flow: never above 7 of 10 tight, and light."""
    wrap = _wrap(plan.entry.setup)
    if wrap is None:
        return
    at, tight = wrap
    if tight > WRAP_MOST:
        items = list(plan.entry.setup.items)
        items[at] = re.sub(r"\d+", str(WRAP_MOST), items[at], count=1)
        mended = plan.entry.model_copy(update={"setup": SetUp(items=tuple(items))})
        yield plan.caution(
            "wrap-tight",
            Serious.RISK,
            f"{plan.exercise.name}: a wrap at {tight} of 10; {WRAP_MOST} is the most.",
            "Above that blood no longer gets in. Stop at once on numbness or pain.",
            remedy=Remedy(label=f"Wrap {WRAP_MOST}", entry=mended),
        )
    heaviest = max((percent for bout in plan.bouts if (percent := _percent(bout)) is not None), default=None)
    if heaviest is not None and heaviest > WRAP_LOAD_MOST:
        yield plan.caution(
            "wrap-heavy",
            Serious.RISK,
            f"{plan.exercise.name}: restricted blood flow at {heaviest:.0f} %; 20 to 30 % is usual.",
            "The wrap makes light loads hard; heavy ones gain nothing from it and cost more.",
            remedy=Remedy(label="Use 30%", entry=_at(plan.entry, Percent(percent=Decimal(30)))),
        )
    yield plan.caution(
        "wrap-health",
        Serious.KNOW,
        "Restricted blood flow is not for circulation, clotting, heart or pressure problems, nor for pregnancy.",
        "Ask a doctor first in any of these cases.",
    )


ENTRY_RULES: Sequence[Rule] = (
    failure_where_failing_is_not_safe,
    drops_on_a_free_lift,
    failure_before_the_last_set,
    cluster_with_an_unrack,
    light_cluster,
    ascending_too_heavy,
    near_the_limit,
    slow_lowering,
    tempo_on_maximal_work,
    max_test_on_a_small_lift,
    nothing_left,
    tight_wrap,
)


def bad_pair(first: PlannedEntry, second: PlannedEntry) -> Iterator[Caution]:
    """Lifts done in turn should not share a prime mover, the grip or the trunk."""
    one, other = first.exercise, second.exercise
    if not (one.known and other.known):
        return
    names = f"{one.name} with {other.name.lower()}"
    if shared := [muscle for muscle in one.prime if muscle in other.prime]:
        yield second.caution(
            "pair-prime",
            Serious.LOOK,
            f"{names}: both live on the {' and '.join(shared)}.",
            "What rests in one works in the other, so the second lift suffers. Pair opposites.",
        )
        return
    if crossed := [
        muscle
        for muscle in one.prime + other.prime
        if (muscle in one.prime and muscle in other.helping) or (muscle in other.prime and muscle in one.helping)
    ]:
        yield second.caution(
            "pair-helping",
            Serious.KNOW,
            f"{names}: the {crossed[0]} of one help in the other.",
            "Expect a rep or two fewer than with the lifts apart.",
        )
    for what in (Muscle.GRIP, Muscle.TRUNK):
        if one.taxes(what) and other.taxes(what):
            yield second.caution(
                f"pair-{what}",
                Serious.KNOW,
                f"{names}: both tax the {what}.",
                f"When the {what} is what gives out, neither lift gets its due.",
            )


def overloaded_lowering(entries: Sequence[PlannedEntry], log: Log) -> Iterator[Caution]:
    """Eccentric overload is for now and then, the week before counted in."""
    overloaded = [(plan, sum(map(is_overloaded, plan.sets))) for plan in entries]
    planned = sum(count for _, count in overloaded)
    total = planned + log.overloaded_sets
    if planned and total > OVERLOADED_SETS_MOST:
        yield next(plan for plan, count in reversed(overloaded) if count).caution(
            "eccentric-often",
            Serious.LOOK,
            f"{total} sets in a week of lowering more than can be lifted.",
            "Lowering overload costs recovery and joints: a few sets, on a few lifts, now and then.",
        )


def partials_share(entries: Sequence[PlannedEntry], log: Log) -> Iterator[Caution]:
    """Partials stay a minority of the week: about a fifth, and never over half."""
    full = sum(bout.reps for bout in log.bouts)
    partial = sum(bout.partial_reps for bout in log.bouts)
    last = None
    for plan in entries:
        for bout in plan.bouts:
            count = as_planned(bout) or count_of(bout.reps, bout.range_of_motion, 8)
            full, partial = full + count.reps, partial + count.partial_reps
            if bout.range_of_motion is not RangeOfMotion.FULL:
                last = plan
    share = Decimal(partial) / max(full + partial, 1)
    if last is None or share <= PARTIALS_MANY:
        return
    too_many = share > PARTIALS_TOO_MANY
    yield last.caution(
        "partials-many",
        Serious.LOOK if too_many else Serious.KNOW,
        f"Half reps make up {share * 100:.0f} % of the week with this session.",
        "About a fifth is usual, and over a half the full range is lost.",
        disputed="How far lengthened partials can stand in for full reps is not settled.",
    )
