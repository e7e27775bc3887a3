"""Seasons to test with."""

from datetime import date

from hypothesis import strategies as st

from fortis.core.season.model import (
    Aim,
    AimLift,
    Away,
    Block,
    Day,
    Kind,
    LightSchool,
    LightWeek,
    Method,
    Season,
    Trial,
    Weekday,
)
from fortis.core.structure.model import SetUp

MEET = """# River meet
from 2026-10-12
meet 2027-01-02: Front squat [belt], Bench press

building (from 75 %), 2 rounds of 3 weeks:
  Tuesday, Legs:
    Front squat [belt]: 3|4|5 x 5 at 75% +3% a round leave 2 rest 3:00
    Leg extension: 2|3|3 x 10-12 leave 1
  Thursday, Press and row:
    Bench press: 4 x 5 at 75 kg +2.5 kg a week leave 2 rest 3:00
    pair, 2|3 rounds, rest 1:30:
      Ring dip: 6-8 at bw +2.5 kg a round leave 2
      Ring row: 8-10 leave 1

light, 1 week, heavy and short

heavy, 2 rounds of 3 weeks:
  Tuesday, Legs:
    Front squat [belt]: 3|2|1 at 87|91|95% +2% a round rest 4:00; 2 x 3 at top -10%
  Saturday, Press:
    # the single comes from the bench
    weeks 1-2: Bench press: 3|2 x 2 at 90%

free, 1 week
"""

_lines = st.sampled_from(
    [
        "Front squat [belt]: 3|4|5 x 5 at 75% +3% a round leave 2",
        "Bench press: 4 x 5 at 75 kg +2.5 kg a week rest 3:00",
        "weeks 1-1: Curl: 2|3 x 8-10|6-8 at 12|10RM  # elbows in | still",
        "week 1: pair, 2|3 rounds, rest 60s:\n  Ring dip: 6-8 at bw +5 kg a week\n  Ring row: 8-10",
        "# breathe",
        "Dip: 3 x 5 at bw-10 kg +2.5 kg a week",
    ]
)
_names = st.sampled_from(["Legs", "Press & row", "Été 2", "Whole body"])


@st.composite
def _day(draw, title):
    lines = [*draw(st.lists(_lines, max_size=4)), "Ring row: 2|3|3 x 8"]
    return Day(weekday=draw(st.sampled_from(list(Weekday))), title=title, lines=tuple("\n".join(lines).split("\n")))


@st.composite
def _blocks(draw):
    found = []
    for _ in range(draw(st.integers(1, 4))):
        kind = draw(st.sampled_from(list(Kind)))
        numbers = {"weeks": draw(st.integers(3, 5)), "rounds": draw(st.integers(1, 3))}
        name = draw(st.sampled_from(["", "from 75 %"]))
        titles = draw(st.lists(_names, min_size=1, max_size=3, unique=True))
        school = draw(st.sampled_from(list(LightSchool)))
        if kind is Kind.FREE:
            found.append(Block(kind=kind, name=name, **numbers))
        elif kind is Kind.LIGHT and found and found[-1].days and found[-1].kind is not Kind.LIGHT:
            by_lot = draw(st.booleans())
            found.append(Block(kind=kind, name=name, school=school, by_lot=by_lot, **numbers))
        else:
            found.append(Block(kind=kind, name=name, days=tuple(draw(_day(title)) for title in titles), **numbers))
    return tuple(found)


aims = st.sampled_from(
    [
        None,
        Aim(what="test", on=date(2026, 10, 31), lifts=()),
        Aim(
            what="meet",
            on=date(2026, 10, 31),
            lifts=(AimLift(exercise="Squat", setup=SetUp(items=("belt", "b"))), AimLift(exercise="Dip")),
        ),
    ]
)


@st.composite
def _with_light(draw, season):
    """The same with a third week that is light, between its neighbours or in place of its own sessions."""
    if not season.blocks[0].days or not draw(st.booleans()):
        return season
    school, instead = draw(st.sampled_from(list(LightSchool))), draw(st.booleans())
    monday, by_lot = date(2026, 10, 26), draw(st.booleans())
    week = LightWeek(monday=monday, school=school, instead=instead, by_lot=by_lot)
    return season.model_copy(update={"light": (week,)})


seasons = st.builds(
    Season,
    title=st.sampled_from(["River meet", "Été 🏔"]),
    starts=st.just(date(2026, 10, 12)),
    blocks=_blocks(),
    aim=aims,
    away=st.sampled_from(
        [
            (),
            (Away(monday=date(2026, 10, 19), why="ill"),),
            (Away(monday=date(2026, 10, 19)), Away(monday=date(2026, 11, 2), missed=True, why="work: no gym")),
        ]
    ),
    trials=st.sampled_from(
        [
            (),
            (
                Trial(
                    monday=date(2026, 10, 12),
                    weeks=4,
                    tried=(1, 4),
                    exercise="Front squat",
                    setup=SetUp(items=("belt",)),
                    method=Method.LONGER,
                ),
                Trial(
                    monday=date(2026, 11, 9),
                    weeks=2,
                    tried=(2,),
                    exercise="Dip",
                    sets="2 x 3|2 at bw+10 kg +2.5 kg a round; 1 set of (5, 15s, 5) leave 1",
                ),
            ),
        ]
    ),
).flatmap(_with_light)
