"""The season of the demo: under way for five weeks, with a light week, a wave and a meet ahead."""

from collections.abc import Mapping
from datetime import date, timedelta

from fortis.core.season.model import Aim, AimLift, Block, Day, Kind, LightSchool, Season, Weekday
from fortis.core.structure.model import SetUp
from fortis.core.tally.week import monday_of

WEEKS_BEHIND = 5
BUILDING_WEEKS = 8
WAVE = "3|2|1 at 87|91|95% rest 4:00; 2 x 3 at top -10% rest 3:00"
OPENERS = "3 at 70%; 2 at 80%; 1 at 88% rest 3:00"
SQUAT, BENCH, DEADLIFT = "Front squat [belt]", "Bench press", "Trap-bar deadlift [belt, high handles]"


def season(today: date, texts: dict[str, tuple[int, str]]) -> Season:
    """A season under way on a day. `texts` are its sessions now, by title: how many days off, and their lines."""
    days = {title: weekday_of(today + timedelta(days=after)) for title, (after, _) in texts.items()}
    starts = monday_of(today) - timedelta(weeks=WEEKS_BEHIND)

    building = week_of(days, {title: text for title, (_, text) in texts.items()})
    heavy = week_of(
        days,
        {
            "Press and row": f"{BENCH}: {WAVE}\nRing row: 3 x 8-10 leave 1 rest 1:30",
            "Pull": f"{DEADLIFT}: 3|3|2 x 2 at 85|88|90% leave 1 rest 4:00\nSeal row: 3 x 8 leave 2 rest 2:00",
            "Legs": f"{SQUAT}: {WAVE}\nLeg extension: 2 x 10-12 leave 2 rest 1:30",
        },
    )
    openers = week_of({"Openers": Weekday.TUESDAY}, {"Openers": f"{SQUAT}: {OPENERS}\n{BENCH}: {OPENERS}"})
    blocks = (
        Block(kind=Kind.BUILDING, weeks=BUILDING_WEEKS, days=building),
        Block(kind=Kind.LIGHT, school=LightSchool.SHORT),
        Block(kind=Kind.HEAVY, name="3, 2, 1", weeks=3, days=heavy),
        Block(kind=Kind.PEAKING, name="ease off", days=openers),
    )
    last = starts + timedelta(weeks=BUILDING_WEEKS + 4, days=Weekday.SATURDAY.number)
    lifts = AimLift(exercise="Front squat", setup=SetUp(items=("belt",))), AimLift(exercise=BENCH)
    return Season(title="River meet", starts=starts, blocks=blocks, aim=Aim(what="meet", on=last, lifts=lifts))


def week_of(days: Mapping[str, Weekday], texts: Mapping[str, str]) -> tuple[Day, ...]:
    """The sessions of a week by their titles, on their days."""
    found = [Day(weekday=days[title], title=title, lines=tuple(text.splitlines())) for title, text in texts.items()]
    return tuple(sorted(found, key=lambda day: day.weekday.number))


def weekday_of(day: date) -> Weekday:
    """The day of the week of a date."""
    return list(Weekday)[day.weekday()]
