"""What several views show of a session."""

from collections.abc import Mapping
from datetime import date, datetime
from typing import Self

from pydantic import BaseModel

from fortis.core.basis import Basis
from fortis.core.foretelling import foretell
from fortis.core.line_loads import waits_for_max
from fortis.core.loading.warm_up import WarmUpSet
from fortis.core.progression.policy import BY_EFFORT, Policy
from fortis.core.reason import Reason
from fortis.core.strength.estimate import Estimate
from fortis.core.structure.model import FixedReps, Session, SetUp
from fortis.core.structure.notation import read
from fortis.core.structure.prescription import Prescription, Settled, instead_words
from fortis.core.structure.timeline import Timeline, timeline
from fortis.core.structure.writing import write_runs
from fortis.core.tally.costing import Costing, cost_of_plan
from fortis.core.tally.records import Record
from fortis.core.tally.work import Conditions
from fortis.core.units import Unit
from fortis.core.value import Kilograms
from fortis.store.sessions import State, state_of
from fortis.store.tables import SessionRow


class LiftLine(BaseModel):
    """One lift of a plan: its sets as written, the loads settled for it in order, the way up to them, and why.

    `waits_for_max` says that loads are missing because nothing is known of the lift. `reach` is a record that is
    likely at hand, `last_kg` the heaviest load of the last time with the same set-up. `policy` is
    how the lift of that id, the one that is written, progresses; `instead` is what it has changed by now of the
    written sets, reps and rests, in words, empty where nothing is.
    """

    exercise: str
    setup: SetUp
    lift_id: str
    policy: Policy
    group: int
    rounds: int | None
    written: str
    instead: str
    loads: list[Settled]
    warm_up: list[WarmUpSet]
    reasons: list[Reason]
    waits_for_max: bool
    last_kg: Kilograms | None = None
    reach: Record | None = None


class Bounds(BaseModel):
    """A max in kg, and between what it lies four times in five."""

    kg: float
    low: float
    high: float

    @classmethod
    def of(cls, max_: Estimate) -> Self:
        """What an estimate tells of a max."""
        return cls(kg=max_.kg, low=max_.low, high=max_.high)


def with_bounds(change: float, low: float, high: float, unit: str, times: float = 1) -> str:
    """A difference with its bounds in words, so many times what it is: `+0.4 reps (-0.1 to +0.9)`."""
    told = [f"{each * times:+.1f}" for each in (change, low, high)]
    return f"{told[0]} {unit} ({told[1]} to {told[2]})"


class SessionCard(BaseModel):
    """A session in short. Sessions of one `slot` stand in for each other."""

    id: str
    slot: str
    title: str
    state: State
    planned_on: date | None
    started_at: datetime | None
    finished_at: datetime | None


class SessionPlan(SessionCard):
    """A session with its loads, in time, with what to expect of its bouts."""

    costing: Costing
    timeline: Timeline
    lifts: list[LiftLine]


def card(row: SessionRow) -> SessionCard:
    """A session in short."""
    return SessionCard(
        id=row.id,
        slot=row.slot,
        title=row.title,
        state=state_of(row),
        planned_on=row.planned_on,
        started_at=row.started_at,
        finished_at=row.finished_at,
    )


def plan(row: SessionRow, prescription: Prescription, basis: Basis) -> SessionPlan:
    """A session with its settled loads."""
    session = read(row.written, Unit(row.unit))
    laid_out = foretell(timeline(prescription), prescription, basis)
    return SessionPlan(
        **card(row).model_dump(),
        costing=cost_of_plan(prescription, laid_out.total_seconds, under(basis)),
        timeline=laid_out,
        lifts=lift_lines(session, prescription, basis),
    )


def under(basis: Basis) -> Conditions:
    """The conditions in which a session to come is added up."""
    return Conditions(basis.body_kg, basis.kit, basis.ways)


def planned_cost(prescription: Prescription, basis: Basis) -> Costing:
    """What a session to come adds up to."""
    return cost_of_plan(prescription, timeline(prescription).total_seconds, under(basis))


NO_POLICIES: Mapping[str, Policy] = {}


def lift_lines(
    session: Session, prescription: Prescription, basis: Basis, policies: Mapping[str, Policy] = NO_POLICIES
) -> list[LiftLine]:
    """Every entry of a session with its loads, in order; `policies` are those of lifts, by id."""
    lines = []
    by_entry = prescription.by_entry()
    for number, group in enumerate(session.groups, start=1):
        for at, entry in enumerate(group.entries, start=1):
            sets = by_entry[number, at]
            work = [each for each in sets if not each.is_warm_up]
            settled = [bout.settled for each in work for bout in each.bouts if bout.settled]
            distinct = list({load.kg: load for load in reversed(settled)}.values())[::-1]
            reasons = {reason.text: reason for load in distinct for reason in load.reasons}
            lines.append(
                LiftLine(
                    exercise=sets[0].exercise,
                    setup=sets[-1].setup,
                    lift_id=(written := sets[-1].rung_of or sets[-1].key)[0],
                    policy=policies.get(written[0], BY_EFFORT),
                    group=number,
                    rounds=None if group.is_straight else group.rounds,
                    written=write_runs(entry.sets),
                    instead=instead_words(work),
                    loads=distinct,
                    warm_up=[
                        WarmUpSet(kg=bout.settled.kg, reps=bout.reps.count)
                        for each in sets
                        if each.is_warm_up
                        for bout in each.bouts
                        if bout.settled and isinstance(bout.reps, FixedReps)
                    ],
                    reasons=list(reasons.values()),
                    waits_for_max=any(waits_for_max(each, basis) for each in sets),
                    last_kg=basis.last.get(sets[0].key),
                )
            )
    return lines
