"""A session that follows the day: by the tables a phone carries from the start, and by those made anew."""

from decimal import Decimal
from random import Random
from typing import NamedTuple

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from fortis.core.adjustments import Adjustments, LoadChange, until_followed
from fortis.core.exercises import LIBRARY
from fortis.core.played import as_played, entry_name
from fortis.core.progression.advice import Bar, Course
from fortis.core.progression.advice_table import all_advice, lines_of, load_name
from fortis.core.progression.within_range import choices
from fortis.core.strength.estimate import Estimate
from fortis.core.structure.counting import least_of
from fortis.core.structure.model import SetUp, lift_key
from tests.core.kits import FULL
from tests.core.test_advice import looked_up, settled

BAR = Bar(FULL, Decimal(80))
MAXES = {
    lift_key(LIBRARY.find(name), SetUp()): Estimate(kg=kg, low=kg * 0.97, high=kg * 1.03)
    for name, kg in (("Back squat", 150), ("Front squat", 120), ("Bench press", 105), ("Dip", 130))
}
PRESSES = "Bench press: 4 x 7 at 75 kg leave 2 rest 3:00\nDip: 3 x 8 at bw+10 kg leave 2"
SESSIONS = (
    PRESSES,
    "Back squat: 5 x 5 leave 2 rest 3:00\nFront squat: 3 x 5 at 90 kg leave 2",
    "Back squat: 1 x 5 at 85% rest 3:00; 3 x 8 leave 2 rest 3:00\nFront squat: 2 x 5 leave 2",
    "pair, rest 90s, between 20s:\n  Bench press: 4 x 5 leave 2\n  Dip: 4 x 6 at bw+15 kg leave 2",
    "Back squat: 1 x 3 at 130 kg leave 1; 3 sets of (5 at 110 kg leave 2, drop 20%)",
)


class Session:
    """A session played: what is advised by the tables from the start, or by those made anew after each change."""

    def __init__(self, text):
        self.planned, self.changed = settled(text, MAXES), Adjustments()
        self.first = self.anew()

    def anew(self):
        """The tables as they are made of the session as it stands."""
        before, followed = until_followed(self.changed)
        return all_advice(as_played(self.planned, before), BAR, MAXES, followed=followed)

    def stands(self):
        """The bouts of the work as they are to be done."""
        sets = as_played(self.planned, self.changed).sets
        return [(each, bout) for each in sets for bout in each.bouts if not each.is_warm_up]

    def kgs(self, exercise):
        return [float(bout.settled.kg) for each, bout in self.stands() if each.exercise == exercise]

    def advised(self, table, at, number, left):
        each, bout = self.stands()[at]
        return looked_up(table, each.position(bout), load_name(bout.settled.kg), number, left)

    def to_do(self, at, advice):
        """What advice would change: bouts that have the load it speaks of."""
        each, _ = self.stands()[at]
        own = [(entry_name(each), change.after(each.number)) for change in advice.loads]
        others = [(other.entry, change) for other in advice.others for change in other.loads]
        return [(entry, change) for entry, change in own + others if self._concerns(entry, change)]

    def _concerns(self, entry, change):
        return any(
            entry_name(each) == entry
            and each.number >= change.set
            and bout.number == change.bout
            and bout.settled.kg == change.was_kg
            for each, bout in self.stands()
        )

    def is_back(self, at):
        """Whether a bout has the load it was planned with, though its lift had another one since."""
        each, bout = self.stands()[at]
        loads = self.changed.loads.get(entry_name(each), ())
        return any(change.kg == bout.settled.kg for change in loads) and any(
            change.was_kg == bout.settled.kg for change in loads
        )

    def take(self, changes):
        loads = dict(self.changed.loads)
        for entry, change in changes:
            loads[entry] = (*loads.get(entry, ()), change)
        self.changed = Adjustments(loads=loads)

    def outcome(self, at, number, left):
        """Do a bout and take what the tables made anew advise; returns that."""
        advice = self.advised(self.anew(), at, number, left)
        if advice:
            self.take(self.to_do(at, advice))
        return advice


class Said(NamedTuple):
    missing: int
    left: str


def counted(advice, before):
    """What is told where the bout before it was off one way."""
    return advice.again if advice.again and before == advice.was else advice


OUTCOMES = st.lists(
    st.one_of(st.builds(Said, st.just(0), st.sampled_from(["0", "1", "2", "3", "5+"])), st.just(Said(1, "0"))),
    min_size=8,
    max_size=8,
)


@settings(max_examples=25)
@given(st.sampled_from(SESSIONS), OUTCOMES)
def test_with_and_without_a_connection_the_same_is_advised(text, outcomes):
    """As far as a phone without one can know: it looks up by the load of a bout, and knows no way that led to it.

    So it can leave out a drop that came another way to its load.
    """
    session, off = Session(text), {}
    for at, said in enumerate(outcomes[: len(session.stands())]):
        each, bout = session.stands()[at]
        number = max(least_of(bout.reps) - said.missing, 0)
        online, offline = (
            session.advised(table, at, number, said.left) for table in (session.anew(), session.first)
        )
        line = entry_name(each), bout.number
        if offline is None or session.is_back(at):
            continue
        assert online is not None, (text, outcomes, at, offline.text)
        before, off[line] = off.get(line), online.was
        online, offline = counted(online, before), counted(offline, before)
        assert (online.course, online.text, online.kg) == (offline.course, offline.text, offline.kg)
        to_do, known = session.to_do(at, online), session.to_do(at, offline)
        assert known == [each for each in to_do if each in known or len(session.stands()[at][0].bouts) == 1]
        session.take(session.to_do(at, online))
        again = session.advised(session.anew(), at, number, said.left)
        assert again is None or session.to_do(at, counted(again, before)) == []


def test_a_bad_day_is_counted_once():
    """Each bad set makes the rest of its lift lighter; other lifts follow the first one, and no further."""
    session = Session(PRESSES)
    first = session.outcome(0, 7, "0")
    assert (first.course, session.kgs("Bench press")) == (Course.LIGHTER, [75, 67.5, 67.5, 67.5])
    others = session.kgs("Dip")
    assert others[0] < 10
    second = session.outcome(1, 7, "0")
    assert (second.course, second.others) == (Course.LIGHTER, ())
    assert not any(reason.code == "day" for reason in second.reasons)
    assert session.kgs("Bench press")[2] < 67.5
    assert session.outcome(2, 7, "2").text == f"As planned: stay at {session.kgs('Bench press')[2]:g}."
    assert session.kgs("Dip") == others


def test_a_lift_that_followed_the_day_tells_nothing_more_of_it():
    session = Session(PRESSES)
    session.outcome(0, 7, "0")
    dips = session.outcome(4, 8, "2")
    assert (dips.course, dips.others, dips.text.split(":")[0]) == (Course.GO_ON, (), "As planned")


def test_advice_taken_is_told_as_it_was_and_not_made_again():
    session = Session(PRESSES)
    advice = session.outcome(0, 7, "0")
    again = session.advised(session.anew(), 0, 7, "0")
    assert (again.text, again.kg, again.loads) == (advice.text, advice.kg, advice.loads)
    assert session.to_do(0, again) == []


def test_a_load_of_ones_own_after_advice_is_what_the_next_set_is_judged_by():
    session = Session(PRESSES)
    session.outcome(0, 7, "0")
    session.take([("1.1", LoadChange(set=2, was_kg=Decimal("67.5"), kg=Decimal(70)))])
    assert session.kgs("Bench press") == [75, 70, 70, 70]
    assert session.outcome(1, 7, "2").text == "As planned: stay at 70."
    assert session.outcome(1, 6, "0").kg < 70


def test_a_load_of_ones_own_alone_leaves_a_line_to_the_day():
    session = Session(PRESSES)
    session.take([("1.1", LoadChange(set=1, was_kg=Decimal(75), kg=Decimal(80)))])
    assert session.outcome(0, 6, "0").others
    assert session.kgs("Bench press")[1] < 80


def test_a_range_settled_by_its_warm_ups_is_no_day_that_was_followed():
    session = Session(
        "Back squat: 3 at 115-125 kg leave 1; 3 at top -10% leave 3\nFront squat: 3 x 5 at 100 kg leave 2"
    )
    (ways,) = choices(session.planned, BAR).values()
    session.take([("1.1", change) for change in ways[-1].loads])
    assert session.kgs("Back squat")[0] == 125
    assert session.outcome(0, 2, "0").others
    assert session.kgs("Front squat")[0] < 100


@pytest.mark.parametrize("text", SESSIONS)
def test_stages_end_with_the_session_as_it_stands(text):
    """Whatever was changed, and by whom, one change after the other."""
    random, session = Random(text), Session(text)
    for _ in range(30):
        at = random.randrange(len(session.stands()))
        each, bout = session.stands()[at]
        kg = bout.settled.kg + random.choice([-5, Decimal("-2.5"), Decimal("2.5")])
        own = {"bout": bout.number, "was_kg": bout.settled.kg, "kg": kg, "follows_day": random.random() < 0.7}
        session.take([(entry_name(each), LoadChange(set=each.number, **own))])
        before, followed = until_followed(session.changed)
        assert before.loads.keys() | followed.keys() == session.changed.loads.keys()
        assert all(
            before.loads[name] + followed.get(name, ()) == session.changed.loads[name] for name in before.loads
        )
        stands = as_played(session.planned, session.changed)
        for line in lines_of(as_played(session.planned, before), BAR, MAXES, followed=followed):
            (_, *after) = stages = line.stages()
            now = stages[-1].line
            assert now.sets == tuple(each for each in stands.sets if line.holds(each) and not each.is_warm_up)
            assert bool(after) == (now.asks.max is None)
