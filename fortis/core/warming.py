"""Warm-ups put into a settled plan, before the first work set of the lifts that want them."""

from collections.abc import Collection, Sequence

from fortis.core.exercises import BARS, Muscle
from fortis.core.loading.kit import Kit
from fortis.core.loading.nearest import nearest
from fortis.core.loading.warm_up import School, WarmUpSet, finding, warm_up
from fortis.core.structure.model import FixedReps, SetUp
from fortis.core.structure.prescription import WARM_UP, PlannedBout, PlannedSet, Settled

REST = 60
"""Seconds between warm-up sets: about as long as it takes to change the plates and breathe (common practice)."""
REST_BEFORE_WORK = 120
REST_TO_FIND = 90
"""Fives that are to tell the max are not to be tired ones."""
STILL_WARM = 2
"""So many of the heaviest warm-up sets are enough where the muscles have worked already."""


def warmed(
    sets: Sequence[PlannedSet],
    kit: Kit,
    school: School,
    warm: frozenset[Muscle] = frozenset(),
    unknown: Collection[int] = (),
) -> tuple[PlannedSet, ...]:
    """A group with the warm-ups of its lifts before it: all before round one, so that no pair is broken.

    `warm` are the muscles that have worked already: with none the first lift is taken for cold. Bar lifts whose
    prime muscles are warm take the last steps only, other lifts none. Small lifts want none. Bands go on one pair
    at a time. The loads of the entries that are `unknown` are found on their way up.
    """
    before: list[PlannedSet] = []
    first_sets = {each.entry: each for each in reversed(sets)}
    for entry in sorted(first_sets):
        first = first_sets[entry]
        way_up = _way_to_find(first, kit) if entry in unknown else _warm_up_of(first, kit, school, warm)
        before += [way_up] if way_up else []
        warm |= set(first.lift.prime)
    return (*before, *sets)


def _way_to_find(first: PlannedSet, kit: Kit) -> PlannedSet | None:
    """The way up with a lift that nothing is known of: each bout tells whether to go on."""
    steps = finding(kit, first.lift)
    if not steps:
        return None
    bouts = []
    for number, step in enumerate(steps, start=1):
        build = nearest(kit, first.lift, step.kg)
        settled = Settled(
            kg=step.kg,
            wanted_kg=step.kg,
            bar=build.bar,
            bar_kg=build.bar_kg,
            sleeve=build.sleeve,
        )
        bouts.append(
            PlannedBout(
                number=number, reps=FixedReps(count=step.reps), settled=settled, rest=REST_TO_FIND, finds=True
            )
        )
    return _before(first, bouts)


def _warm_up_of(first: PlannedSet, kit: Kit, school: School, warm: frozenset[Muscle]) -> PlannedSet | None:
    settled = first.bouts[0].settled
    if settled is None or first.lift.small:
        return None
    steps = list(warm_up(kit, first.lift, settled.kg, school=school, cold=not warm, body=settled.body))
    if first.lift.prime and set(first.lift.prime) <= warm:
        steps = steps[-STILL_WARM:] if first.lift.load_kind in BARS else []
    bands = [item for item in first.setup.items if "band" in item.casefold()]
    if not steps:
        return None
    bouts = [_bout(number, step, settled) for number, step in enumerate(steps, start=1)]
    if len(bands) > 1 and first.lift.load_kind in BARS:
        bouts += _band_by_band(len(bouts), bands, settled)
    return _before(first, bouts)


def _before(first: PlannedSet, bouts: Sequence[PlannedBout]) -> PlannedSet:
    """Some bouts as the warm-up of a lift, before its first set."""
    last = bouts[-1].model_copy(update={"rest": 0})
    own = {"number": WARM_UP, "bouts": (*bouts[:-1], last), "rest": REST_BEFORE_WORK, "every": None, "block": None}
    return first.model_copy(update={**own, "setup": _bare(first)})


def _bare(first: PlannedSet) -> SetUp:
    """The set-up without what only the work sets need."""
    return SetUp(items=tuple(item for item in first.setup.items if "band" not in item.casefold()))


def _bout(number: int, step: WarmUpSet, work: Settled, note: str = "") -> PlannedBout:
    settled = Settled(kg=step.kg, wanted_kg=step.kg, bar=work.bar, bar_kg=work.bar_kg, body=work.body, note=note)
    return PlannedBout(number=number, reps=FixedReps(count=step.reps), settled=settled, rest=REST)


def _band_by_band(so_far: int, bands: Sequence[str], work: Settled) -> list[PlannedBout]:
    """The bar as in the work sets, with one pair of bands more each time."""
    return [
        _bout(so_far + many, WarmUpSet(kg=work.kg, reps=2), work, note=f"with {', '.join(bands[:many])}")
        for many in range(1, len(bands))
    ]
