"""The forty weeks before the demo's last twelve: two seasons that are over, and a week away."""

from collections.abc import Mapping, Sequence
from datetime import date, timedelta

from fortis.core.season.model import Aim, AimLift, Block, Kind, LightSchool, Season, Weekday
from fortis.core.structure.model import SetUp
from fortis.demo.season import BENCH, DEADLIFT, OPENERS, SQUAT, WAVE, week_of

WEEKS = 40
WEEKLY_GAIN = 0.004
"""What a week adds to every max, as a share of it."""
WINTER_WEEKS = 18
PREP = "prep: hip drills 4 min, ankle rocks 2 min"
REMEMBERED = (
    ("Bench press", SetUp(), "8 at 60 kg leave 2"),
    ("Front squat", SetUp(items=("belt",)), "5 at 80 kg leave 2"),
    ("Trap-bar deadlift", SetUp(items=("belt", "high handles")), "5 at 120 kg leave 2"),
)
"""What the lifter told when they began, so that their first percentages had a max."""
MISSED = (31, 32, 70)
"""Sessions that were not done, by their number: three evenings with a cold."""
_LOADS = {"press": "32.5", "dip": "bw", "chin": "bw+5 kg", "row": "50", "split": "15", "extension": "35"}
_LATER = {"press": "35", "dip": "bw+2.5 kg", "chin": "bw+12.5 kg", "row": "55", "split": "17.5", "extension": "40"}


def seasons_behind(starts: date, days: Mapping[str, Weekday]) -> Sequence[Season]:
    """The seasons from a Monday on. `days` are the weekdays of the sessions, by title."""
    of_eights = week_of(days, _building("3|4|5 x 8 at 62% +2% a round", "3|4|5 x 5 at 70% +2% a round", _LOADS))
    of_fives = week_of(days, _building("3|4|5 x 5 at 72% +2% a round", "3|4|5 x 4 at 75% +2% a round", _LATER))
    eights = Block(kind=Kind.BUILDING, name="eights", rounds=2, weeks=3, days=of_eights)
    fives = Block(kind=Kind.BUILDING, name="fives", rounds=2, weeks=3, days=of_fives)
    fives_again = Block(kind=Kind.BUILDING, name="fives again", weeks=3, days=of_fives)
    heavy = Block(kind=Kind.HEAVY, name="3, 2, 1", weeks=3, days=week_of(days, _heavy()))
    half, short = (Block(kind=Kind.LIGHT, school=school) for school in (LightSchool.HALF, LightSchool.SHORT))
    autumn = Season(
        title="Autumn, build",
        starts=starts,
        blocks=(eights, half, fives, short, fives_again, half, heavy),
    )
    openers = week_of({"Openers": days["Press and row"]}, {"Openers": f"{BENCH}: {OPENERS}\n{SQUAT}: {OPENERS}"})
    winter_starts = starts + timedelta(weeks=autumn.weeks)
    winter = Season(
        title="Winter, test",
        starts=winter_starts,
        blocks=(eights, short, fives, half, heavy, Block(kind=Kind.PEAKING, name="test", days=openers)),
        aim=Aim(
            what="test",
            on=winter_starts + timedelta(weeks=WINTER_WEEKS) - timedelta(days=1),
            lifts=(AimLift(exercise=BENCH),),
        ),
    )
    return autumn, winter


def _building(bench: str, squat: str, loads: Mapping[str, str]) -> dict[str, str]:
    return {
        "Press and row": f"""{BENCH}: {bench} leave 2 rest 2:30
pair, 3 rounds, rest 1:30:
  Ring dip: 6-8 at {loads["dip"]} leave 2
  Ring row: 8-10 leave 1
Overhead press: 3 x 6-8 at {loads["press"]} kg leave 2 rest 2:00""",
        "Pull": f"""{DEADLIFT}: 3 x 4 at 72% +2% a round leave 2 rest 3:00
Weighted chin-up: 3 x 4-6 at {loads["chin"]} leave 2 rest 2:30
Seal row: 3 x 8-10 at {loads["row"]} kg leave 2 rest 2:00""",
        "Legs": f"""{PREP}
{SQUAT}: {squat} leave 2 rest 3:00
Split squat: 3 x 8-10 at {loads["split"]} kg each side leave 1 rest 1:30
Leg extension: 3 x 10-12 at {loads["extension"]} kg leave 1 rest 1:30""",
    }


def _heavy() -> dict[str, str]:
    return {
        "Press and row": f"{BENCH}: {WAVE}\nRing row: 3 x 8-10 leave 1 rest 1:30",
        "Pull": f"{DEADLIFT}: 3|3|2 x 2 at 85|88|90% leave 1 rest 4:00\nSeal row: 3 x 8 at 55 kg leave 2 rest 2:00",
        "Legs": f"{PREP}\n{SQUAT}: {WAVE}\nLeg extension: 2 x 10-12 at 40 kg leave 2 rest 1:30",
    }
