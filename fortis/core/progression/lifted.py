"""Another load was lifted than the one planned: what the rest of its line would be with it."""

from collections.abc import Iterator
from decimal import Decimal

from fortis.core.adjustments import LoadChange
from fortis.core.line_demand import follows
from fortis.core.line_loads import lead_of
from fortis.core.loading.moved import body_part
from fortis.core.loading.nearest import Build, Where, next_above, next_below
from fortis.core.progression.advice import Advice, Course, Line, Loaded, load_changes, load_words
from fortis.core.structure.model import is_lighter

MOST_AWAY = Decimal("0.15")
"""Loads further from the plan, as a share of it, are another session's."""
MOST_LOADS = 10
"""So many loads above and below are foreseen."""


def with_others(line: Line) -> dict[Decimal, dict[Decimal, Advice]]:
    """By each load that sets to come have in common, and the one that was lifted instead: the rest with that.

    What is told as so much less than the top set goes along.
    """
    found: dict[Decimal, dict[Decimal, Advice]] = {}
    lead = lead_of([bout for each in line.sets for bout in each.open_bouts])
    own = {
        bout.settled.kg
        for each in line.sets
        for bout in each.open_bouts
        if bout.settled and not follows(bout, lead)
    }
    top = max(own, default=None)
    for was in sorted(own):
        told = {build.kg: _advice(line, was, build, is_top=was == top) for build in _around(line, was)}
        found[was] = {kg: advice for kg, advice in told.items() if advice}
    return found


def _around(line: Line, was: Decimal) -> Iterator[Build]:
    """The loads that can be built near one."""
    lift, kit, body = line.sets[0].lift, line.bar.kit, _is_added(line)
    if kit is None:
        return
    far = (abs(was) + (_part(line) or 0)) * MOST_AWAY
    for step in (next_above, next_below):
        kg: Decimal | None = step(kit, lift, was)
        for _ in range(MOST_LOADS):
            if kg is None or abs(kg - was) > far:
                break
            yield line.bar.nearest(lift, kg, body=body)
            kg = step(kit, lift, kg)


def _advice(line: Line, was: Decimal, build: Build, *, is_top: bool) -> Advice | None:
    later = [
        (each, bout)
        for each in line.sets[1:]
        for bout in each.open_bouts
        if bout.settled and bout.settled.kg == was
    ]
    same = [LoadChange(set=1, was_kg=was, kg=build.kg, sleeve=build.sleeve)] if later else []
    told = list(_following(line, was, build)) if is_top else []
    loads = (*same, *told) if build.kg > was else (*told, *same)
    if not loads:
        return None
    now, before = (load_words(kg, body=_is_added(line)) for kg in (build.kg, was))
    return Advice(
        course=Course.GO_ON,
        text=f"{now} lifted where {before} was planned.",
        kg=build.kg,
        sleeve=build.sleeve,
        loads=loads,
    )


def _following(line: Line, was: Decimal, build: Build) -> Iterator[LoadChange]:
    """What becomes of back-offs told by the top set."""
    part = _part(line)
    if part is None or was + part <= 0:
        return
    ratio = (build.kg + part) / (was + part)
    lift, body = line.sets[0].lift, _is_added(line)

    def to(kg: Decimal) -> Build:
        return line.bar.nearest(lift, (kg + part) * ratio - part, body=body, where=Where.NEAREST)

    bouts = (
        Loaded(1, bout.number, bout.settled.kg)
        for each in line.sets[1:]
        for bout in each.open_bouts
        if bout.settled and is_lighter(bout.load)
    )
    yield from load_changes(bouts, to)


def _is_added(line: Line) -> bool:
    return any(bout.settled and bout.settled.body for each in line.sets for bout in each.bouts)


def _part(line: Line) -> Decimal | None:
    return body_part(line.sets[0].lift, _is_added(line), line.bar.body_kg)
