"""Seasons suggested: by hand, and whatever the wish, one that can be read, fits, and spares what hurts."""

from datetime import date

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from fortis.core.exercises import LIBRARY, Library, LoadKind
from fortis.core.loading.kit import Kit
from fortis.core.season.ahead import weeks_ahead
from fortis.core.season.model import Aim, AimLift, Kind, LightSchool
from fortis.core.season.reading import read_season
from fortis.core.season.splits import PREFERRED, SPLITS, WEEKDAYS, Joint, can_be_done, hurts
from fortis.core.season.suggesting import Experience, Goal, Way, Wish, WishError, suggested
from fortis.core.season.weeks import weeks
from fortis.core.season.writing import write_season
from fortis.core.structure.model import SetUp
from fortis.core.structure.notation import read
from fortis.store.places import USUAL_KIT

FRIDAY = date(2026, 11, 27)
SQUAT = AimLift(exercise="Back squat", setup=SetUp(items=("belt",)))
KNOWN = {("back-squat", "belt"), ("bench-press", "")}
NOTHING = Library(lift for lift in LIBRARY if lift.load_kind is not LoadKind.BODY)
HOME = Kit(place="Home", dumbbells=(10, 20), machines=())


def wish(**told):
    return Wish(begins=FRIDAY, **told)


def blocks(season):
    return [(each.kind.value, each.rounds * each.weeks) for each in season.blocks]


def lines(season, block=0):
    return [line for day in season.blocks[block].days for line in day.lines]


def test_fifteen_weeks_to_a_meet_counted_back_from_it():
    """A week of openers, three heavy ones, a light one; ten are left: six, a light one before them, and three."""
    aim = Aim(what="meet", on=date(2027, 3, 13))
    (first, *_) = suggested(wish(goal=Goal.STRENGTH, aim=aim, lifts=(SQUAT,)), USUAL_KIT, LIBRARY, KNOWN)
    assert blocks(first.season) == [
        ("building", 3), ("light", 1), ("building", 6), ("light", 1), ("heavy", 3), ("peaking", 1),
    ]  # fmt: skip
    assert first.season.starts == date(2026, 11, 30)
    assert first.season.mondays[-1] == date(2027, 3, 8)
    assert lines(first.season)[0] == "Back squat [belt]: 3|4|5 x 5 at 76% +3% a round leave 2 rest 3:00"
    assert lines(first.season, 4)[0] == (
        "Back squat [belt]: 3|2|1 at 87|91|94% rest 4:00; 2 x 3 at top -10% rest 3:00"
    )
    (openers,) = first.season.blocks[-1].days
    assert (openers.weekday, openers.lines) == (
        "Wednesday",
        ("Back squat [belt]: 3 at 70%; 2 at 80%; 1 at 88% rest 3:00",),
    )
    ahead = weeks_ahead(first.season)
    assert [week.kind for week in ahead[8:]] == [Kind.BUILDING] * 2 + [Kind.LIGHT] + [Kind.HEAVY] * 3 + [
        Kind.PEAKING
    ]
    assert [week.percent for week in ahead[4:6]] == [76, 76]
    assert ahead[12].sets < ahead[9].sets


def test_what_leads_up_keeps_its_end_where_weeks_are_few():
    aim = Aim(what="test", on=date(2026, 12, 26))
    (first, *_) = suggested(wish(goal=Goal.STRENGTH, aim=aim, lifts=(SQUAT,)), USUAL_KIT, LIBRARY, KNOWN)
    assert blocks(first.season) == [("building", 1), ("heavy", 2), ("peaking", 1)]
    assert lines(first.season)[0] == "Back squat [belt]: 3 x 5 at 76% +3% a round leave 2 rest 3:00"
    assert "Back squat [belt]: 2|1 at 91|94% rest 4:00; 2 x 3 at top -10% rest 3:00" in lines(first.season, 1)


def test_a_main_lift_that_comes_twice_is_heavy_once():
    (first, *_) = suggested(wish(goal=Goal.STRENGTH), USUAL_KIT, LIBRARY, KNOWN)
    squats = [line for line in lines(first.season) if line.startswith("Back squat")]
    assert squats == ["Back squat: 3|4|5 x 5 leave 2 rest 3:00", "Back squat: 3 x 5-8 leave 3 rest 2:30"]


def test_who_begins_gets_no_percentages_nothing_near_failure_and_no_light_week():
    found = suggested(wish(experience=Experience.NEW), USUAL_KIT, LIBRARY, {("back-squat", "")})
    for each in found:
        assert blocks(each.season) == [("building", 8)]
        assert each.way is Way.EFFORT
        text = write_season(each.season)
        assert "%" not in text
        assert "failure" not in text
        assert "leave 1" not in text
        assert "Chin-up" not in text
        assert {reason.code for reason in each.reasons} >= {"split", "way", "new", "light"}


def test_who_has_trained_for_long_rises_by_less():
    for experience, rise in ((Experience.SOME, 3), (Experience.LONG, 2)):
        wished = wish(experience=experience, goal=Goal.STRENGTH, lifts=(SQUAT,))
        (first, *_) = suggested(wished, USUAL_KIT, LIBRARY, KNOWN)
        assert lines(first.season)[0] == f"Back squat [belt]: 3|4|5 x 5 at 76% +{rise}% a round leave 2 rest 3:00"
        assert any(f"{rise} % heavier" in each.text for each in first.reasons)


def test_proposals_differ_where_practice_does():
    found = suggested(wish(goal=Goal.BOTH), USUAL_KIT, LIBRARY)
    assert len({each.name for each in found}) == 3
    assert [each.way for each in found] == [Way.STEPS, Way.WAVES, Way.EFFORT]
    schools = [{block.school for block in each.season.blocks if block.school} for each in found]
    assert schools == [{LightSchool.SHORT}, {LightSchool.HALF}, set()]


def test_at_once_the_first_session_is_today():
    (first, *_) = suggested(wish(at_once=True), USUAL_KIT, LIBRARY)
    titles = [(each.title, each.on) for week in weeks(first.season) for each in week.sessions]
    assert first.season.starts == date(2026, 11, 23)
    assert ("Whole body A", FRIDAY) in titles
    assert min(on for title, on in titles if title == "Whole body B") == date(2026, 11, 29)


def test_what_does_not_fit_the_time_is_told():
    (short, *_) = suggested(wish(minutes=30), USUAL_KIT, LIBRARY)
    assert any(each.code == "time" and "30 minutes" in each.text for each in short.reasons)
    for week in weeks_ahead(short.season):
        assert week.seconds <= week.sessions * 30 * 60


def test_what_hurts_is_prepared_for_and_its_time_is_counted():
    (spared, *_), (usual, *_) = (suggested(wish(sore=sore), USUAL_KIT, LIBRARY) for sore in ((Joint.WRISTS,), ()))
    assert "prep: drills for the wrists 5 min" in lines(spared.season)
    assert not any(line.startswith("prep:") for line in lines(usual.season))
    all_over = suggested(wish(sore=tuple(Joint)[:4]), USUAL_KIT, LIBRARY)[0]
    assert "prep: drills for what hurts 5 min" in lines(all_over.season)
    (told,) = [each.text for each in spared.reasons if each.code == "sore"]
    assert "Each session begins with drills for your wrists." in told


def test_a_date_too_near_or_too_far_is_told():
    for on in (FRIDAY, date(2028, 1, 1)):
        with pytest.raises(WishError, match="2 to 52 weeks"):
            suggested(wish(aim=Aim(what="meet", on=on)), USUAL_KIT, LIBRARY)


def test_every_usual_lift_is_in_the_library_and_has_its_pattern():
    for pattern, names in PREFERRED.items():
        assert {LIBRARY.find(name).pattern for name in names} == {pattern}


wishes = st.builds(
    wish,
    goal=st.sampled_from(list(Goal)),
    days=st.integers(2, 6),
    minutes=st.integers(20, 150),
    experience=st.sampled_from(list(Experience)),
    at_once=st.booleans(),
    aim=st.none() | st.dates(date(2026, 12, 14), date(2027, 6, 1)).map(lambda on: Aim(what="test", on=on)),
    lifts=st.lists(
        st.sampled_from([SQUAT, AimLift(exercise="Front squat"), AimLift(exercise="Dip")]), max_size=2
    ).map(tuple),
    sore=st.lists(st.sampled_from(list(Joint)), max_size=3, unique=True).map(tuple),
)
kits = st.sampled_from([USUAL_KIT, HOME, USUAL_KIT.model_copy(update={"machines": ()})])


@settings(max_examples=30)
@given(wishes, kits, st.sampled_from([set(), KNOWN]))
def test_whatever_is_wished_it_can_be_read_fits_and_spares_what_hurts(wished, kit, known):
    wanted = {each.exercise for each in wished.lifts}
    found = suggested(wished, kit, LIBRARY, known)
    assert 1 <= len(found) <= 3
    for each in found:
        season = each.season
        assert read_season(write_season(season)) == season
        assert wished.aim is None or season.weeks == (wished.aim.on - season.starts).days // 7 + 1
        for week, ahead in zip(weeks(season), weeks_ahead(season), strict=True):
            kind = season.blocks[week.block - 1].kind
            if kind not in (Kind.PEAKING, Kind.FREE):
                left_out = any(reason.code == "kit" for reason in each.reasons)
                assert (len(week.sessions) == wished.days) is not left_out
                assert len({session.title for session in week.sessions}) == len(week.sessions)
            for session in week.sessions:
                assert bool(read(session.written).prep) is (bool(wished.sore) and kind is not Kind.PEAKING)
                lifts = [
                    LIBRARY.find(entry.exercise)
                    for group in read(session.written).groups
                    for entry in group.entries
                ]
                assert len({lift.id for lift in lifts}) == len(lifts)
                for lift in lifts:
                    assert can_be_done(lift, kit)
                    assert lift.name in wanted or not hurts(lift, wished.sore)
            if ahead.sessions and wished.minutes >= 60:
                assert ahead.seconds / ahead.sessions <= wished.minutes * 60


def test_no_bar_is_proposed_where_there_is_none():
    for each in suggested(wish(), HOME, LIBRARY):
        for line in lines(each.season):
            kind = LIBRARY.find(line.split(":")[0]).load_kind
            assert kind in (LoadKind.DUMBBELL, LoadKind.DUMBBELLS, LoadKind.BODY)


def test_nothing_to_train_with_is_told():
    with pytest.raises(WishError, match="none can be done"):
        suggested(wish(sore=tuple(Joint)), Kit(place="Nowhere", machines=()), NOTHING)


def test_there_is_a_day_for_every_session_of_a_split():
    for days, splits in SPLITS.items():
        assert len(WEEKDAYS[days]) == days
        assert all(len(split.sessions) == days for split in splits)
