"""Back-offs and drops that fell short: they come down by themselves, and what they follow stays as it is."""

from collections.abc import Iterable, Sequence
from decimal import Decimal

from fortis.core.line_loads import share_of_max, shifted
from fortis.core.progression.decision import Decision, Move
from fortis.core.progression.line_went import LineWent, Pair, overs_of
from fortis.core.progression.misses import A_CUT, LARGEST_CUT
from fortis.core.progression.policy import PolicyKind
from fortis.core.progression.proportions import FEWER_LEFT, Lighter
from fortis.core.reason import Reason
from fortis.core.structure.counting import least_of
from fortis.core.structure.model import OfPrevious, OfTop, is_lighter
from fortis.core.structure.prescription import PlannedBout
from fortis.core.units import plain

_NONE = Decimal(0)


def fell_short(line: LineWent) -> Sequence[Pair]:
    """The back-offs and drops that fell short, where what they follow did not.

    None of a lift that is kept as it is.
    """
    if line.missed or line.policy.kind is PolicyKind.KEEP:
        return ()
    return [pair for pair in _told(line) if pair.missed or (pair.reserve_over or _NONE) <= FEWER_LEFT]


def _told(line: LineWent) -> Sequence[Pair]:
    """The back-offs and drops. Lighter sets that name no load keep a proportion of their own."""
    return [pair for pair in line.following if is_lighter(pair.planned.load)]


def held_for_lighter(line: LineWent, lighter: Sequence[Lighter]) -> Decision | None:
    """The same again where what follows with less fell short; a share of the max follows the max all the same."""
    if share_of_max(line.written) or line.missed:
        return None
    if fell_short(line):
        return Move.HOLD, line.was_kg, line.aim, ()
    if not any(each.fell_short for each in lighter):
        return None
    text = "The heaviest stays until the lighter sets are done as planned."
    return Move.HOLD, line.was_kg, line.aim, (Reason(code="lighter sets short", text=text),)


def lighter_told(line: LineWent) -> tuple[Reason, ...]:
    """That back-offs or drops come down, and why."""
    short = fell_short(line)
    if not short:
        return ()
    worst = max(short, key=lambda pair: (pair.short_by, -(pair.reserve_over or _NONE)))
    match worst.planned.load:
        case OfTop():
            which, rest = "back-offs", "the top set"
        case _:
            which, rest = "drops", "the load before them"
    why = f"{worst.number} of {least_of(worst.planned.reps)} reps in the {which}"
    if not worst.missed:
        why = f"The {which} ended with {plain(-(worst.reserve_over or _NONE))} fewer left than planned"
    less = round((1 - _cut(line)) * 100, 1)
    stays = "" if share_of_max(line.written) else f", and {rest} stays"
    text = f"{why}: they come down by {plain(less)} %{stays}."
    return (Reason(code="lighter back-offs", text=text, values={"percent": less}),)


def next_lighter(line: LineWent) -> Decimal | None:
    """How many times as heavy as written back-offs and drops are to be; None: as they are written."""
    told = _told(line)
    if not told:
        return None
    before = line.sets[0].lighter
    short = fell_short(line)
    if short:
        stood = min((times for pair in short if (times := _times(line, pair))), default=Decimal(1))
        return round(min(stood, before or stood) * _cut(line), 4)
    if before is None or line.missed or not _was_easy(told):
        return before
    more = round(before * (1 + A_CUT), 4)
    return more if more < 1 else None


def change(line: LineWent) -> float:
    """What the loads of back-offs and drops are multiplied by from this time to the next, by how they went."""
    if fell_short(line):
        return float(_cut(line))
    before = line.sets[0].lighter
    return float((next_lighter(line) or 1) / before) if before else 1.0


def _was_easy(pairs: Sequence[Pair]) -> bool:
    """Whether all of it was done, with a rep to spare where the plan says what to leave."""
    return all(pair.at_top for pair in pairs) and min(overs_of(pairs), default=Decimal(1)) >= 1


def _cut(line: LineWent) -> Decimal:
    """What they come down to: what the max allows for what they ask, within bounds."""
    allowed = 1.0
    if line.demand and line.max:
        allowed = line.demand.lighter(float(line.was_kg + (line.part or 0)), line.max)
    return min(max(Decimal(str(round(allowed, 4))), 1 - LARGEST_CUT), 1 - A_CUT)


def _times(line: LineWent, pair: Pair) -> Decimal | None:
    """How many times as heavy as written a back-off or a drop was planned; None where that cannot be told.

    Of drops in a row the first one tells: what is taken off it, the others take off with it.
    """
    own = next(each for each in line.sets if (each.round, each.number) == pair.place)
    bouts, number = own.bouts, pair.done.position.bout - 1
    while isinstance(bouts[number].load, OfPrevious) and is_lighter(bouts[number - 1].load):
        number -= 1
    match bouts[number].load:
        case OfTop(shift=shift):
            base = max(_settled(bout for each in line.sets for bout in each.bouts if not is_lighter(bout.load)))
        case OfPrevious(shift=shift):
            base = max(_settled(bouts[number - 1 : number]))
        case _:
            return None
    (stood,) = _settled(bouts[number : number + 1])
    written = shifted(base, shift, line.part)
    if written is None or line.part is None or written + line.part <= 0:
        return None
    return (stood + line.part) / (written + line.part)


def _settled(bouts: Iterable[PlannedBout]) -> list[Decimal]:
    """The loads of some bouts."""
    return [bout.settled.kg if bout.settled else Decimal(0) for bout in bouts]
