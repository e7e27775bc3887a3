"""Reps, sets and rests that take turns with the load: they change up to an end, then the load does."""

from collections.abc import Sequence
from decimal import Decimal

from fortis.core.basis import Instead
from fortis.core.loading.nearest import Where
from fortis.core.progression.decision import MORE_REPS_AIM, Decision, Move
from fortis.core.progression.line_went import LineWent, Pair
from fortis.core.progression.policy import REST_STEP, PolicyKind
from fortis.core.reason import Reason
from fortis.core.structure.counting import least_of, most_of
from fortis.core.structure.model import FixedReps, RepRange
from fortis.core.units import clock, plain

LEAST_TURN = Decimal("0.025")
"""Where reps take turns with the load, the next load is so much more at least (common practice: 2 to 5 %)."""
A_REP_HARDER = Decimal("0.975")
"""A set a rep harder than planned is one with so much less allowed."""
FEWEST_TO_GROW = 3
"""Sets of fewer reps are what they are: one more would be another set."""
SHOWN = 2
"""Who has so many more left than planned has shown more than was believed."""


NOT_ALL_DONE = Reason(
    code="not all done", text="What was done went as planned, but not every set was done: the same again."
)


def next_reps(line: LineWent, move: Move) -> FixedReps | None:
    """The reps of next time where they are more than written: one more, or as many as this time.

    With another load they are those that are written again, but where that is the one that was planned this time.
    """
    reps = line.standing
    if move is Move.CUT or (move is Move.RAISE and line.back_to is None):
        return None
    if reps is None:
        return line.beyond_range if move is Move.MORE_REPS else None
    if line.fewer_reps:
        return line.fewer_reps if line.fewer_reps.count > reps.of else None
    following = reps.now + (move is Move.MORE_REPS)
    return FixedReps(count=following) if following > reps.of else None


def no_range(line: LineWent) -> tuple[Reason, ...]:
    """That reps are to grow up to the top of a range, and the sets of the line have none in common."""
    ranges = all(isinstance(pair.planned.reps, RepRange) for pair in line.judged)
    if line.policy.kind is not PolicyKind.REPS or line.standing or ranges or line.held is not None:
        return ()
    text = "The sets of this line do not all ask the same reps: the load follows how hard they were."
    return (Reason(code="no range", text=text),)


def more_of_the_same(line: LineWent) -> Decision | None:
    """One rep or set more, or shorter rests, while there is room; as it was where not all went as planned."""
    more = _more_reps(line) or _more_sets(line) or _shorter_rests(line)
    if more is None or not line.went_as_planned:
        return None
    if line.all_done:
        return more
    return Move.HOLD, line.was_kg, line.aim, (NOT_ALL_DONE,)


def _more_reps(line: LineWent) -> Decision | None:
    reps = line.standing
    if line.policy.kind is not PolicyKind.REPS or reps is None or reps.now >= reps.of + line.policy.more_reps:
        return None
    text = f"All went as planned: {more_reps_words(reps, ' at the same load')}."
    reason = Reason(code="more reps", text=text, values={"reps": Decimal(reps.now + 1)})
    return Move.MORE_REPS, line.was_kg, MORE_REPS_AIM, (reason,)


def more_reps_words(reps: Instead | None, how: str = "") -> str:
    """That a rep is added to each set, in words; from how many where they stand at a number."""
    if reps is None:
        return f"add a rep to each set{how}"
    return f"one rep more in each set{how}, {reps.now + 1} instead of {reps.now}"


def _more_sets(line: LineWent) -> Decision | None:
    sets = len(line.sets)
    if line.policy.kind is not PolicyKind.SETS or not line.is_straight or sets >= line.policy.most_sets:
        return None
    text = f"All went as planned: one set more at the same load, {sets + 1} instead of {sets}."
    reason = Reason(code="more sets", text=text, values={"sets": Decimal(sets + 1)})
    return Move.MORE_SETS, line.was_kg, line.aim, (reason,)


def _shorter_rests(line: LineWent) -> Decision | None:
    rest = line.sets[0].rest
    if line.policy.kind is not PolicyKind.REST or not line.is_straight or rest <= line.policy.least_rest:
        return None
    shorter = _shorter(line, rest)
    text = f"All went as planned: shorter rests at the same load, {clock(shorter)} instead of {clock(rest)}."
    reason = Reason(code="shorter rests", text=text, values={"seconds": Decimal(shorter)})
    return Move.SHORTER_RESTS, line.was_kg, line.aim, (reason,)


def _shorter(line: LineWent, rest: int) -> int:
    return max(rest - REST_STEP, line.policy.least_rest)


def next_sets(line: LineWent, move: Move) -> Instead | None:
    """The sets of next time, one more or as many as this time; with more load those that are written."""
    if line.policy.kind is not PolicyKind.SETS or not line.is_straight or move is Move.RAISE:
        return None
    written = sum(not each.added for each in line.sets)
    return Instead(of=written, now=len(line.sets) + (move is Move.MORE_SETS))


def next_rest(line: LineWent, move: Move) -> Instead | None:
    """The same of the rests."""
    if line.policy.kind is not PolicyKind.REST or not line.is_straight or move is Move.RAISE:
        return None
    rest = line.sets[0].rest
    shorter = _shorter(line, rest) if move is Move.SHORTER_RESTS else rest
    return Instead(of=line.sets[0].written_rest, now=shorter)


def still_in_range(line: LineWent, missed: list[Pair]) -> Decision | None:
    """The same again where reps that came on top are missing, and none of those that are written."""
    reps, fewest = line.standing, min(pair.number for pair in missed)
    if reps is None or fewest < reps.of:
        return None
    text = f"{fewest} of {reps.now} reps in the hardest set, and {reps.of} are written: the same again."
    values = {"asked": Decimal(reps.now), "done": Decimal(fewest)}
    return Move.HOLD, line.was_kg, line.aim, (Reason(code="same reps", text=text, values=values),)


def turned(line: LineWent, overs: Sequence[Decimal], moved: Decimal) -> Decision | None:
    """At the top of the range the next load, from its bottom again; one more rep where the max allows none yet.

    None where reps do not take turns with the load.
    """
    reps, asked = line.standing, line.lead.planned.reps
    if line.policy.kind is not PolicyKind.REPS or not (reps or isinstance(asked, RepRange)):
        return None
    bottom = least_of(line.lead.as_written.reps)
    top = reps.now if reps else most_of(asked) or 0
    kg = line.nearest(line.was_kg + moved * LEAST_TURN, Where.ABOVE).kg
    if kg <= line.was_kg:
        return one_rep_more(line, kg, moved)
    allowed = line.allowed_as_written if overs else None
    load = line.load_words(kg)
    values = {"kg": kg, "reps": Decimal(bottom)}
    if allowed and (kg + (line.part or 0)) * A_REP_HARDER > allowed and min(overs) < SHOWN:
        text = (
            f"Every set reached {top}, but {load}, the next load here, is too much for {bottom} yet: one rep "
            "more first."
        )
        return (
            Move.MORE_REPS,
            line.was_kg,
            MORE_REPS_AIM,
            (Reason(code="too much yet", text=text, values=values),),
        )
    text = f"Every set reached {top}: {load}, the next load here, from {bottom} again."
    return Move.RAISE, kg, line.aim, (Reason(code="top of the range", text=text, values=values),)


def one_rep_more(line: LineWent, kg: Decimal, moved: Decimal) -> Decision:
    """One rep more in each set where `kg`, the next load that can be built, is no small step from the whole weight
    `moved`. A single or a double stays one.
    """
    reps = line.standing
    if reps is not None and reps.of < FEWEST_TO_GROW and line.policy.kind is not PolicyKind.REPS:
        move, so = Move.HOLD, "the same again"
    else:
        move, so = Move.MORE_REPS, more_reps_words(reps, " first")
    if kg <= line.was_kg or not moved:
        reason = Reason(code="no load above", text=f"There is no load above this one here: {so}.")
    else:
        share = (kg - line.was_kg) / moved * 100
        text = f"The next load that can be built is {plain(kg)} kg, {share:.0f} % up, too big a step yet: {so}."
        reason = Reason(code="jump too big", text=text, values={"kg": kg, "percent": round(share, 1)})
    return move, line.was_kg, MORE_REPS_AIM if move is Move.MORE_REPS else line.aim, (reason,)
