"""Sets that ask the same and were not all done with the same load: lighter later on, or heavier."""

from collections.abc import Iterable
from decimal import Decimal

from fortis.core.loading.nearest import next_below
from fortis.core.progression.decision import Decision, Move
from fortis.core.progression.line_went import LineWent, Pair
from fortis.core.progression.misses import A_CUT
from fortis.core.reason import Reason
from fortis.core.sentence import capitalised


def too_much_for_all(line: LineWent) -> Decision | None:
    """A rep fewer where reps stand above those written, the same again the first time, else less.

    None where no set was taken lighter.
    """
    if not line.lightened:
        return None
    sets, lighter = _sets_of(line.own), _sets_of(line.lightened)
    kg, move = line.was_kg, Move.HOLD
    if reps := line.fewer_reps:
        so = f"one rep fewer in each set, {reps.count} instead of {reps.count + 1}"
    elif lighter * 2 <= sets and line.missed_in_a_row == 1:
        so = UNTIL_IT_GOES
    else:
        kg, move = _less(line), Move.CUT
        so = f"{line.load_words(kg)} next time"
    return move, kg, line.aim, (_taken_lighter(line, so),)


UNTIL_IT_GOES = "the same again until it goes in all of them"


def no_heavier(line: LineWent, kg: Decimal) -> tuple[Decimal, tuple[Reason, ...]]:
    """What a share of the max makes; no more than last time where sets of that were taken lighter."""
    if not line.lightened or kg <= line.was_kg:
        return kg, ()
    return line.was_kg, (_taken_lighter(line, UNTIL_IT_GOES),)


def _taken_lighter(line: LineWent, so: str) -> Reason:
    """Tells that a load did not go in all sets, and what follows."""
    return _went_in(line, "taken lighter", line.lightened, f", the others were taken lighter: {so}")


def _went_in(line: LineWent, code: str, others: Iterable[Pair], so: str) -> Reason:
    """Tells in how many sets a load went, the `others` having another, and what follows."""
    sets, other = _sets_of(line.own), _sets_of(others)
    text = f"{capitalised(line.load_words(line.was_kg))} went in {sets - other} of {sets} sets{so}."
    return Reason(code=code, text=text, values={"sets": Decimal(sets), "lighter": Decimal(other)})


def now_in_all(line: LineWent) -> Decision | None:
    """The heaviest load in all sets, where half of them or more were done with less before it; None where not.

    A rep more left than asked is enough to go on up.
    """
    sets, lighter = _sets_of(line.own), _sets_of(line.risen)
    if lighter * 2 < sets or min(line.overs, default=Decimal(0)) >= 1:
        return None
    told = _went_in(line, "now in all", line.risen, ": now in all of them")
    return Move.HOLD, line.was_kg, line.aim, (told,)


def went_lighter(line: LineWent) -> Decimal | None:
    """The heaviest load with which sets that were taken lighter were done; None where there are none."""
    return max((pair.kg for pair in line.lightened if not pair.missed), default=None)


def _sets_of(pairs: Iterable[Pair]) -> int:
    """How many sets some bouts are of."""
    return len({pair.place for pair in pairs})


def _less(line: LineWent) -> Decimal:
    """What the max allows for all of it, less than before, and no less than what was lifted."""
    part, least = line.part or Decimal(0), min(pair.kg for pair in line.lightened)
    moved = line.was_kg + part
    most = moved * (1 - A_CUT) - part
    allowed = line.allowed_as_written
    kg = line.nearest(most if allowed is None else min(allowed - part, most)).kg
    if kg >= line.was_kg:
        kg = next_below(line.kit, line.exercise, line.was_kg) or least
    return max(kg, least)
