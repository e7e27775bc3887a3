"""Open sets, as many reps as there are: one more next time, and no more load where they ended too soon."""

from collections.abc import Sequence
from decimal import Decimal

from fortis.core.loading.nearest import Where
from fortis.core.progression.decision import Decision, Move
from fortis.core.progression.line_went import LineWent, Pair, is_judged
from fortis.core.progression.misses import A_CUT
from fortis.core.reason import Reason
from fortis.core.structure.counting import least_of

FEWEST = 2
"""An open set heavier than all that was asked is to have so many reps before the load goes up (common practice)."""


def nothing_else(line: LineWent) -> bool:
    """Whether a line is nothing but open sets."""
    return not any(is_judged(pair.planned) for pair in line.judged)


def one_more(line: LineWent) -> Decision | None:
    """Where a line is nothing but open sets one rep more than the best of them, with the same load."""
    if not nothing_else(line):
        return None
    best = max(pair.number for pair in line.judged)
    text = f"{best} in the best set: {best + 1} next time, with the same load."
    reason = Reason(code="more reps", text=text, values={"reps": Decimal(best + 1)})
    return Move.MORE_REPS, line.was_kg, f"{best + 1} in one set", (reason,)


def ended_soon(line: LineWent) -> Decision | None:
    """The same load where an open set had fewer reps than it is to have, and less where it had none."""
    soon = [pair for pair in line.open if pair.number < _fewest(line.judged, pair)]
    if not soon:
        return None
    worst = min(soon, key=lambda pair: pair.number)
    load = line.load_words(worst.kg)
    if not worst.number and line.part is not None:
        text = f"No rep in the open set at {load}: a little less."
        less = (line.was_kg + line.part) * (1 - A_CUT) - line.part
        reason = Reason(code="no rep", text=text, values={"kg": worst.kg})
        return Move.CUT, line.nearest(less, Where.BELOW).kg, line.aim, (reason,)
    fewest = _fewest(line.judged, worst)
    text = f"{worst.number} in the open set at {load}: the same again until it has {fewest}."
    reason = Reason(code="ended soon", text=text, values={"reps": Decimal(worst.number), "asked": Decimal(fewest)})
    return Move.HOLD, line.was_kg, line.aim, (reason,)


def _fewest(judged: Sequence[Pair], pair: Pair) -> int:
    """The reps an open set is to have: those asked of the sets before it that were as heavy."""
    return max((least_of(each.planned.reps) for each in judged if each.kg >= pair.kg), default=FEWEST)
