"""Loads at which reps of a line were missed: they fall faster after several, and are come back to step by step."""

from decimal import Decimal

from fortis.core.line_loads import share_of_max
from fortis.core.loading.nearest import Where
from fortis.core.progression.line_went import LineWent
from fortis.core.progression.turns import still_in_range
from fortis.core.reason import Reason
from fortis.core.sentence import capitalised
from fortis.core.structure.prescription import Missed

REMEMBERED = 4
"""Times of a line after which a load that was missed is one like others: strength has grown meanwhile."""
A_CUT, LARGEST_CUT = Decimal("0.025"), Decimal("0.10")
"""What a miss takes off at least and at most (common practice: 2.5 to 10 %, a tenth after misses in a row)."""


def next_missed(line: LineWent) -> Missed | None:
    """What is to be remembered of a line: a load missed now, or one missed lately and not done since."""
    before = line.sets[0].missed
    too_much = line.lightened and not line.fewer_reps and not share_of_max(line.written)
    if too_much or (line.missed and not still_in_range(line, line.missed)):
        return Missed(kg=line.was_kg, ago=1, in_a_row=line.missed_in_a_row)
    if before is None or line.was_kg >= before.kg or before.ago >= REMEMBERED:
        return None
    return before.model_copy(update={"ago": before.ago + 1})


def cut(line: LineWent, moved: Decimal) -> Decimal:
    """What a miss brings the whole weight `moved` down to: to what the max allows as written, within bounds.

    From the third miss in a row on, more at least each time: what is thought of the lifter is wrong here. Where a
    lighter load was missed as well, no more than that.
    """
    least = min(A_CUT * max(line.missed_in_a_row - 1, 1), LARGEST_CUT)
    most = moved * (1 - least)
    tried = min((pair.kg for pair in line.lightened if pair.missed), default=line.was_kg) + (line.part or 0)
    return min(max(min(line.allowed_as_written or most, tried), moved * (1 - LARGEST_CUT)), most)


def step_by_step(line: LineWent, kg: Decimal) -> tuple[Decimal, tuple[Reason, ...]]:
    """A heavier load; where it leads to one that was missed lately, what lies half way to that or next to it."""
    missed = line.sets[0].missed
    if missed is None or kg < missed.kg:
        return kg, ()
    wanted = (line.was_kg + missed.kg) / 2
    half_way = line.nearest(wanted).kg
    if half_way <= line.was_kg:
        half_way = line.nearest(wanted, Where.ABOVE).kg
    if not line.was_kg < half_way < kg:
        return kg, ()
    then = f"{line.load_words(half_way)} first" if half_way < missed.kg else "that first"
    text = f"{capitalised(line.load_words(missed.kg))} was too much not long ago: {then}."
    return half_way, (Reason(code="missed lately", text=text, values={"missed_kg": missed.kg, "kg": half_way}),)
