"""Another load was lifted than the one planned: what the rest of its line would be with it."""

from collections.abc import Iterator, Sequence
from decimal import Decimal

from fortis.core.adjustments import LoadChange
from fortis.core.line_demand import follows
from fortis.core.line_loads import lead_of
from fortis.core.loading.nearest import Build, Where, next_above, next_below
from fortis.core.progression.advice import Advice, Course, Line, Loaded, is_added, load_changes, load_words
from fortis.core.structure.model import is_lighter
from fortis.core.structure.prescription import PlannedBout

MOST_AWAY = Decimal("0.15")
"""Loads further from the plan, as a share of it, are another session's."""
MOST_LOADS = 10
"""So many loads above and below are foreseen."""


def with_others(line: Line) -> dict[Decimal, dict[Decimal, Advice]]:
    """By each load that sets to come have in common, and the one that was lifted instead: the rest with that.

    What is told as so much less than the top set goes along.
    """
    body = is_added(line.sets)
    lead = lead_of([bout for each in line.sets for bout in each.open_bouts])
    own = {
        bout.settled.kg
        for each in line.sets
        for bout in each.open_bouts
        if bout.settled and not follows(bout, lead)
    }
    to_come = [bout for each in line.sets[1:] for bout in each.open_bouts if bout.settled]
    back_offs = [bout for bout in to_come if is_lighter(bout.load)]
    found: dict[Decimal, dict[Decimal, Advice]] = {}
    for was in sorted(own):
        same = any(bout.settled and bout.settled.kg == was for bout in to_come)
        told = back_offs if was == max(own) else []
        found[was] = {
            build.kg: _advice(was, build, loads, body=body)
            for build in (_around(line, was, body=body) if same or told else ())
            if (loads := _loads(line, was, build, told, same=same, body=body))
        }
    return found


def _around(line: Line, was: Decimal, *, body: bool) -> Iterator[Build]:
    """The loads that can be built near one."""
    lift, kit = line.sets[0].lift, line.bar.kit
    if kit is None:
        return
    far = (abs(was) + (line.asks.part or 0)) * MOST_AWAY
    for step in (next_above, next_below):
        kg: Decimal | None = step(kit, lift, was)
        for _ in range(MOST_LOADS):
            if kg is None or abs(kg - was) > far:
                break
            yield line.bar.nearest(lift, kg, body=body)
            kg = step(kit, lift, kg)


def _loads(
    line: Line, was: Decimal, build: Build, back_offs: Sequence[PlannedBout], *, same: bool, body: bool
) -> tuple[LoadChange, ...]:
    """The changes of the sets to come: of those that were to have the `same` load, and of back-offs told by it."""
    own = (LoadChange(set=1, was_kg=was, kg=build.kg, sleeve=build.sleeve),) if same else ()
    told = _following(line, was, build, back_offs, body=body)
    return (*own, *told) if build.kg > was else (*told, *own)


def _following(
    line: Line, was: Decimal, build: Build, back_offs: Sequence[PlannedBout], *, body: bool
) -> tuple[LoadChange, ...]:
    """What becomes of back-offs told by the top set: by what was planned for them, so that it is offered once."""
    lift, part = line.sets[0].lift, line.asks.part
    if part is None or was + part <= 0:
        return ()
    ratio = (build.kg + part) / (was + part)
    planned = {bout.settled.kg: bout.settled.wanted_kg for bout in back_offs if bout.settled}

    def to(kg: Decimal) -> Build:
        return line.bar.nearest(lift, (planned[kg] + part) * ratio - part, body=body, where=Where.NEAREST)

    return load_changes((Loaded(1, bout.number, bout.settled.kg) for bout in back_offs if bout.settled), to)


def _advice(was: Decimal, build: Build, loads: tuple[LoadChange, ...], *, body: bool) -> Advice:
    now, before = (load_words(kg, body=body) for kg in (build.kg, was))
    text = f"{now} lifted where {before} was planned."
    return Advice(course=Course.GO_ON, text=text, kg=build.kg, sleeve=build.sleeve, loads=loads)
