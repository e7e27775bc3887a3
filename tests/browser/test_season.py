"""The Season in the browser: planned from text, looked at week by week, put off, changed and ended."""

import re
from datetime import UTC, datetime, timedelta
from uuid import uuid4

import pytest
from playwright.sync_api import expect

from tests.browser.test_views import axe
from tests.logs import bring, tired_log


def begin(page):
    page.goto("/season")
    expect(page.get_by_role("heading", name="No season is under way")).to_be_visible()
    page.get_by_role("button", name="Plan this season").click()
    expect(page.get_by_role("heading", name="Winter", level=1)).to_be_visible()


@pytest.mark.new_lifter
@pytest.mark.parametrize("width", ["desktop", "phone"])
def test_a_season_is_planned_from_text_and_read_without_fault(request, width):
    page = request.getfixturevalue(width)
    begin(page)
    week = page.get_by_role("region", name="The week")
    expect(week.get_by_role("heading", name="Week 1, building")).to_be_visible()
    expect(week.get_by_role("link", name=re.compile("Lower body"))).to_be_visible()
    expect(page.get_by_text("Bars are the tonnage of a week")).to_be_visible()
    assert axe(page) == []
    page.goto("/")
    expect(page.get_by_role("link", name=re.compile("^Lower body"))).not_to_have_count(0)


@pytest.mark.new_lifter
def test_weeks_are_gone_through_and_the_phone_shows_one_at_a_time(phone):
    begin(phone)
    expect(phone.get_by_role("columnheader", name=re.compile("Week of"))).to_have_count(1)
    phone.get_by_role("button", name="The week after").click()
    expect(phone.get_by_role("heading", name="Week 2, building")).to_be_visible()
    phone.get_by_role("group", name="Tonnage and average load; arrows").press("ArrowLeft")
    expect(phone.get_by_role("heading", name="Week 1, building")).to_be_visible()


@pytest.mark.new_lifter
def test_a_week_is_put_off_left_out_and_trained_after_all(desktop):
    begin(desktop)
    weeks = desktop.get_by_role("columnheader", name=re.compile("Week of"))
    expect(weeks).to_have_count(10)
    heavy = desktop.get_by_role("columnheader", name="Heavy")
    expect(heavy).to_be_visible()
    weeks.nth(1).get_by_role("button").click()
    desktop.get_by_role("button", name="Move it a week later").click()
    expect(weeks).to_have_count(11)
    expect(desktop.get_by_role("heading", name="Away", level=2)).to_be_visible()
    desktop.get_by_role("button", name="Train this week after all").click()
    expect(weeks).to_have_count(10)
    desktop.get_by_role("button", name="Leave it out").click()
    week = desktop.get_by_role("region", name="The week")
    expect(week.get_by_role("link")).to_have_count(0)
    desktop.get_by_role("button", name="Train this week after all").click()
    expect(week.get_by_role("link")).to_have_count(2)


@pytest.mark.new_lifter
def test_a_slip_in_the_text_is_told_and_a_change_reaches_the_sessions(desktop):
    begin(desktop)
    desktop.get_by_text("The season as text").first.click()
    text = desktop.get_by_role("textbox", name="The season as text")
    written = text.input_value()
    text.fill(written.replace("3|4|5 x 5 at 75%", "3|4|5 x 5 at 75% lave 2"))
    slip = desktop.get_by_role("list", name="What is wrong with it").get_by_role("listitem").first
    expect(slip).to_contain_text("Line 6: ")
    expect(slip).to_contain_text("Did you mean “leave”?")
    expect(desktop.get_by_role("button", name="Save the change")).to_be_disabled()
    text.fill(written.replace("2 rounds of 3 weeks", "3 weeks").replace(" +3% a round", ""))
    expect(desktop.get_by_text("7 weeks, 14 sessions.")).to_be_visible()
    desktop.get_by_role("button", name="Save the change").click()
    expect(desktop.get_by_role("columnheader", name=re.compile("Week of"))).to_have_count(7)


@pytest.mark.new_lifter
def test_a_session_is_dragged_to_another_day(desktop):
    begin(desktop)
    week = desktop.get_by_role("region", name="The week")
    expect(week.get_by_role("link", name=re.compile(r"Lower body\s*Tue"))).to_be_visible()
    small = desktop.get_by_role("link", name=re.compile("Lower body, Tue")).first
    friday = desktop.get_by_role("row", name=re.compile("^Fri")).get_by_role("cell").first
    small.drag_to(friday)
    expect(week.get_by_role("link", name=re.compile(r"Lower body\s*Fri"))).to_be_visible()


@pytest.mark.new_lifter
def test_a_week_is_dragged_to_a_later_one_and_back(desktop):
    begin(desktop)
    weeks = desktop.get_by_role("columnheader", name=re.compile("Week of"))
    blocks = desktop.get_by_role("row").first.get_by_role("columnheader")
    expect(weeks.nth(1)).to_be_visible()
    many, names = weeks.count(), blocks.all_inner_texts()
    weeks.nth(1).get_by_role("button").drag_to(weeks.nth(3))
    expect(weeks).to_have_count(many + 2)
    expect(blocks.nth(1)).to_have_text("Away")
    weeks.nth(3).get_by_role("button").drag_to(weeks.nth(0))
    expect(weeks).to_have_count(many + 2)
    weeks.nth(3).get_by_role("button").drag_to(weeks.nth(1))
    expect(weeks).to_have_count(many)
    assert blocks.all_inner_texts() == names


def test_weeks_put_off_until_after_the_meet_are_told(desktop):
    desktop.goto("/season")
    week = desktop.get_by_role("columnheader", name=re.compile("Week of")).nth(6).get_by_role("button")
    week.click()
    desktop.get_by_role("button", name="Move it a week later").click()
    expect(desktop.get_by_text("One week that builds up to the meet begins only after it.")).to_be_visible()
    assert axe(desktop) == []
    desktop.get_by_role("button", name="Train this week after all").click()
    expect(desktop.get_by_text(re.compile("only after it"))).to_have_count(0)


@pytest.mark.new_lifter
def test_a_season_is_ended_at_the_second_word(desktop):
    begin(desktop)
    desktop.get_by_text("The season as text").first.click()
    desktop.get_by_role("button", name="End the season").click()
    desktop.get_by_role("button", name="Go on with it").click()
    desktop.get_by_role("button", name="End the season").click()
    desktop.get_by_role("button", name="End it").click()
    expect(desktop.get_by_role("heading", name="No season is under way")).to_be_visible()


@pytest.mark.parametrize("width", ["desktop", "phone"])
def test_what_was_done_and_what_is_to_come_stand_in_their_weeks(request, width):
    page = request.getfixturevalue(width)
    page.goto("/season")
    expect(page.get_by_role("heading", name="River meet", level=1)).to_be_visible()
    expect(page.get_by_text(re.compile("^[67] weeks to the meet, Sat"))).to_be_visible()
    week = page.get_by_role("region", name="The week")
    expect(week.get_by_role("heading", name="Week 6, building")).to_be_visible()
    expect(week.get_by_text("6 of 8 weeks of its block, this week")).to_be_visible()
    expect(page.get_by_text(re.compile(r"kg done of"))).to_be_visible()
    squat = page.get_by_role("region", name="Attempts").get_by_role("row", name="Front squat belt")
    expect(squat).to_contain_text(re.compile(r"1\d\d(\.5)?\s*9\d %"))
    told = page.get_by_text(re.compile("four times in five"))
    expect(told).to_contain_text("kg, between")
    page.get_by_role("button", name="Bench press", exact=True).click()
    plot = page.get_by_role("group", name="The max of Bench press; arrows")
    now = told.inner_text()
    plot.press("ArrowRight")
    expect(told).not_to_have_text(now)
    page.emulate_media(media="print")
    expect(page.get_by_role("columnheader", name=re.compile("Week of"))).not_to_have_count(0)
    expect(page.get_by_role("button", name="Move it a week later")).to_have_count(0)
    page.emulate_media(media="screen")
    assert page.evaluate("document.documentElement.scrollWidth") == page.viewport_size["width"]
    assert axe(page) == []
    week.get_by_role("link", name=re.compile("today")).click()
    expect(page.get_by_role("heading", name="Press and row")).to_be_visible()


@pytest.mark.new_lifter
@pytest.mark.parametrize("width", ["desktop", "phone"])
def test_a_light_week_that_is_due_is_told_seen_through_made_and_taken_back(request, width, serving, tmp_path):
    page = request.getfixturevalue(width)
    bring(tired_log(datetime.now(UTC).astimezone().date()), tmp_path, serving.database)
    begin(page)
    page.goto("/")
    page.get_by_role("link", name="All signs, and what it would be").click()
    watch = page.get_by_role("region", name="The watch")
    expect(watch).to_contain_text("The log says that a light week is due.")
    expect(watch).to_contain_text("The same loads leave 2.0 reps less than before: Back squat, Bench press.")
    assert axe(page) == []
    if width == "phone":
        page.get_by_role("button", name="The week after").click()
    else:
        page.get_by_role("columnheader", name=re.compile("Week of")).nth(1).get_by_role("button").click()
    page.get_by_text("Make this week light").click()
    page.get_by_role("radio", name=re.compile("^half the load, and all that follows")).check()
    expect(page.get_by_text("Back squat: 3 x 5 at 37.5%")).to_be_visible()
    page.get_by_role("button", name="Make it light").click()
    week = page.get_by_role("region", name="The week")
    expect(week.get_by_role("heading", name="Light", exact=True)).to_be_visible()
    expect(week).to_contain_text("half the load, as you chose.")
    expect(week.get_by_role("link")).to_have_count(2)
    page.get_by_role("button", name="Train it as planned after all").click()
    expect(week.get_by_role("heading", name="Week 2, building")).to_be_visible()


@pytest.mark.new_lifter
@pytest.mark.parametrize("width", ["desktop", "phone"])
def test_a_season_is_suggested_chosen_changed_and_planned(request, width):
    page = request.getfixturevalue(width)
    page.goto("/season")
    form = page.get_by_role("region", name="Suggest a season")
    form.get_by_label("It is for").select_option("strength above all")
    form.get_by_label("Days a week").select_option("4")
    form.get_by_label("It leads to").select_option("a meet")
    form.get_by_label("On", exact=True).fill(str(datetime.now(UTC).date() + timedelta(weeks=15)))
    form.get_by_label("Lifts that matter").fill("Bench pres")
    form.get_by_role("checkbox", name="Knees").check()
    suggest = form.get_by_role("button", name="Suggest a season")
    suggest.click()
    expect(form.get_by_text("Did you mean Bench press?")).to_be_visible()
    form.get_by_label("Lifts that matter").fill("Bench press")
    suggest.click()
    proposal = page.get_by_role("article", name="Upper and lower body twice")
    expect(proposal).to_contain_text("Step loading: more sets each week")
    expect(proposal).to_contain_text("Left out for your knees")
    expect(page.get_by_role("article")).to_have_count(2)
    assert axe(page) == []
    proposal.get_by_role("button", name="Take this one").click()
    expect(page.get_by_role("heading", name="The one you took")).to_be_visible()
    page.get_by_role("button", name="Plan this season").click()
    expect(page.get_by_role("heading", name="To the meet", level=1)).to_be_visible()
    expect(page.get_by_role("region", name="The week").get_by_role("link")).to_have_count(4)


@pytest.mark.new_lifter
@pytest.mark.parametrize("width", ["desktop", "phone"])
def test_from_nothing_three_questions_lead_to_the_first_set(request, width):
    page = request.getfixturevalue(width)
    page.goto("/")
    expect(page.get_by_text("not medical advice")).to_be_visible()
    assert axe(page) == []
    page.get_by_role("radio", name="Less than a year").check(force=True)
    page.get_by_role("button", name="Plan my first weeks").click()
    expect(page.get_by_role("heading", name="Whole body A", level=1)).to_be_visible()
    expect(page.get_by_text("not medical advice")).not_to_be_visible()
    page.get_by_role("button", name="Start").click()
    page.wait_for_url("**/floor/*")
    page.get_by_role("button", name="Begin").click()
    expect(page.get_by_role("button", name="Done")).to_be_visible()


@pytest.mark.parametrize("width", ["desktop", "phone"])
def test_the_page_of_the_day_is_set_ticked_and_stays_without_a_connection(request, width, serving):
    page = request.getfixturevalue(width)
    page.goto("/season")
    page.get_by_role("link", name="The page of the day").click()
    squat = page.get_by_role("region", name="Front squat, belt")
    expect(squat.get_by_role("listitem").filter(has_text="opener")).to_contain_text("10:00")
    squat.get_by_label("Opener at").fill("14:30")
    squat.get_by_role("checkbox").first.check()
    expect(squat.get_by_role("listitem").filter(has_text="second")).to_contain_text("14:40")
    assert axe(page) == []
    page.evaluate("navigator.serviceWorker.ready")
    serving.stop()
    page.reload()
    expect(page.get_by_text("No connection: this is as it was kept on this device.")).to_be_visible()
    expect(squat.get_by_role("listitem").filter(has_text="second")).to_contain_text("14:40")
    expect(squat.get_by_role("checkbox").first).to_be_checked()


@pytest.mark.parametrize("width", ["desktop", "phone"])
def test_something_is_tried_in_weeks_drawn_by_lot_and_left(request, width):
    page = request.getfixturevalue(width)
    page.goto("/season")
    trials = page.get_by_role("region", name="Trials")
    trials.get_by_text("Try something").click()
    trials.get_by_label("The lift").select_option("Bench press")
    trials.get_by_label("What to try").select_option("heavy single first")
    expect(trials).to_contain_text("1 at 90% rest 4:00; 4 x 5 at 75 kg leave 2 rest 3:00")
    expect(trials).to_contain_text("Heavy singles want safeties or a spotter.")
    assert axe(page) == []
    trials.get_by_role("button", name="Draw the weeks").click()
    expect(trials).to_contain_text("Bench press: heavy single first")
    drawn = trials.get_by_role("img", name=re.compile("^week 1 (with it|as usual), .*week [0-9] left out"))
    expect(drawn).to_be_visible()
    expect(trials).to_contain_text("dotted ones count for neither: light, free or away")
    expect(trials).to_contain_text("0 sessions with it, 0 as usual: from 3 each a difference is told.")
    assert axe(page) == []
    page.locator("summary", has_text="The season as text").click()
    expect(page.get_by_label("The season as text")).to_have_value(
        re.compile("trial .*, [0-9]+ weeks, in .*: Bench press: heavy single first")
    )
    trials.get_by_role("button", name="Leave the trial").click()
    expect(trials).not_to_contain_text("Bench press: heavy single first")
    trials.get_by_text("Try something").click()
    trials.get_by_label("What to try").select_option("other sets")
    trials.get_by_label("Its sets").fill("3 x 8 at 60 lg")
    trials.get_by_role("button", name="Draw the weeks").click()
    expect(trials).to_contain_text("is not a unit Fortis knows")


LONG = """# Spring
from {monday}

building, 7 weeks:
  Tuesday, Legs:
    Front squat [belt]: 4 x 5 at 75% leave 2 rest 3:00
light, 1 week, half the load
building, 3 weeks:
  Tuesday, Legs:
    Front squat [belt]: 4 x 5 at 75% leave 2 rest 3:00
light, 1 week, half the load
"""


@pytest.mark.parametrize("width", ["desktop", "phone"])
def test_waves_and_light_weeks_are_drawn_by_lot(request, width, today):
    page = request.getfixturevalue(width)
    page.goto("/season")
    before = page.request.get("/api/season").json()["season"]["id"]
    page.request.post(f"/api/season/{before}/end")
    written = LONG.format(monday=today - timedelta(days=today.weekday()))
    assert page.request.put(f"/api/season/{uuid4()}", data={"written": written}).ok
    page.reload()
    trials = page.get_by_role("region", name="Trials")
    trials.get_by_text("Try something").click()
    trials.get_by_label("What to try").select_option("waves over weeks")
    expect(trials).to_contain_text("one of every two such rounds is with it, drawn by lot")
    trials.get_by_role("button", name="Draw the weeks").click()
    expect(trials.get_by_role("img", name=re.compile("^week 1 .*, week 6 "))).to_be_visible()
    page.locator("summary", has_text="The season as text").click()
    text = page.get_by_label("The season as text")
    expect(text).to_have_value(re.compile(r"6 weeks, in (1 2 3|4 5 6): Front squat \[belt\]: 3\|2\|1 at"))
    trials.get_by_text("Draw how the 2 light weeks to come are").click()
    assert axe(page) == []
    trials.get_by_role("button", name=re.compile("^Draw until")).click()
    expect(trials).to_contain_text("Behind you so far: 0 heavy and short, 0 with half the load.")
    expect(text).to_have_value(re.compile("light, 1 week, half the load by lot"))
    expect(text).to_have_value(re.compile("light, 1 week, heavy and short by lot"))


@pytest.mark.new_lifter
@pytest.mark.parametrize("width", ["desktop", "phone"])
def test_a_week_is_made_to_fit_what_there_is(request, width):
    page = request.getfixturevalue(width)
    begin(page)
    week = page.get_by_role("region", name="The week")
    week.get_by_text("Fit this week to what there is").click()
    week.get_by_label("Sessions there is time for").select_option("1")
    expect(week).to_contain_text("Left out: Leg extension (2 sets), Ring dip (2 sets), Ring row (2 sets).")
    expect(week).to_contain_text("put aside, its main lift done with the others")
    assert axe(page) == []
    week.get_by_role("button", name="Change the week").click()
    expect(week.get_by_role("link", name=re.compile("^Upper body"))).to_have_count(0)
    week.get_by_role("button", name="Plan it as the season has it").click()
    expect(week.get_by_role("link", name=re.compile("^Upper body"))).to_be_visible()


def test_a_text_that_was_changed_in_two_windows_is_chosen_between(desktop):
    def text_of(page):
        page.goto("/season")
        page.locator("summary", has_text="The season as text").click()
        return page.get_by_label("The season as text")

    mine, theirs = text_of(desktop), text_of(desktop.context.new_page())
    first = mine.input_value()
    theirs.fill(first.replace("River meet", "Lake meet"))
    theirs.page.get_by_role("button", name="Save the change").click()
    expect(theirs.page.get_by_role("heading", name="Lake meet", level=1)).to_be_visible()
    mine.fill(first.replace("River meet", "Sea meet"))
    desktop.get_by_role("button", name="Save the change").click()
    expect(desktop.get_by_text("The season was changed elsewhere meanwhile. Yours is still here.")).to_be_visible()
    expect(mine).to_have_value(re.compile("Sea meet"))
    assert axe(desktop) == []
    desktop.get_by_role("button", name="Take the other one").click()
    expect(mine).to_have_value(first.replace("River meet", "Lake meet"))
    mine.fill(first.replace("River meet", "Hill meet"))
    desktop.get_by_role("button", name="Save the change").click()
    expect(desktop.get_by_role("heading", name="Hill meet", level=1)).to_be_visible()
