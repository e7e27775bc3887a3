"""Climbing from rung to rung: over a longer range, or up a ladder, where all went as planned."""

from fortis.core.basis import Rung
from fortis.core.progression.decision import Decision, Move
from fortis.core.progression.line_went import LineWent
from fortis.core.progression.policy import CLIMBING, PolicyKind
from fortis.core.progression.rungs import rung_at, rung_on
from fortis.core.reason import Reason
from fortis.core.structure.writing import write_lift


def climbed(line: LineWent) -> Decision | None:
    """The next rung where all went as planned; nothing else changes on the way."""
    all_went = line.went_as_planned and line.all_done
    if line.policy.kind not in CLIMBING or not all_went or not next_place(line):
        return None
    held = line.held
    if held is not None and held < line.policy.rung_at:
        return None
    rung = line.policy.rungs[next_place(line)]
    text = f"All went as planned: the next rung, {rung}, and nothing else changes."
    if line.policy.kind is PolicyKind.RANGE:
        text = f"All went as planned: the same load over a longer range, {rung}."
    return Move.NEXT_RUNG, line.was_kg, line.aim, (Reason(code="next rung", text=text),)


def no_rung(line: LineWent) -> tuple[Reason, ...]:
    """That a lift is to climb, and what is written is none of its rungs."""
    if line.policy.kind not in CLIMBING or _place(line) >= 0:
        return ()
    name = write_lift(line.exercise.name, line.sets[0].setup)
    text = f"{name} is none of the rungs: write the one you are on into the plan."
    return (Reason(code="no rung", text=text),)


def _place(line: LineWent) -> int:
    return rung_on(line.policy, line.sets[0]) if line.policy.kind in CLIMBING else -1


def next_place(line: LineWent) -> int:
    """The place of the rung after this one; 0 where there is none."""
    place = _place(line)
    return place + 1 if 0 <= place < len(line.policy.rungs) - 1 else 0


def next_rung(line: LineWent, move: Move) -> Rung | None:
    """The rung of next time: the next one, or the one that stands in for what is written."""
    if move is Move.NEXT_RUNG:
        return rung_at(line.policy, line.sets[0], next_place(line))
    first = line.sets[0]
    stays = first.rung_of is not None and _place(line) >= 0
    return Rung(exercise=first.exercise, setup=first.setup) if stays else None
