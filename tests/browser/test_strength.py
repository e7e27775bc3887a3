"""Strength: what every lift's max is, what it is known from, and how well the lifter is known."""

import re
from datetime import UTC, datetime

import pytest
from playwright.sync_api import expect

from tests.browser.test_floor import ready_offline
from tests.browser.test_loop import compose, start
from tests.browser.test_views import axe
from tests.logs import bring, singles_log
from tests.serving import rows


def test_a_max_is_shown_with_its_bounds_and_every_bout_tells_what_it_says(desktop):
    desktop.goto("/")
    expect(desktop.get_by_role("heading", name="Press and row")).to_be_visible()
    desktop.keyboard.press("g")
    desktop.keyboard.press("s")
    expect(desktop.get_by_role("heading", level=1)).to_contain_text("Front squat")
    expect(desktop.get_by_text(re.compile(r"between \d+(\.5)? and \d+(\.5)?, four times in five"))).to_be_visible()
    plot = desktop.get_by_role("img", name=re.compile("The max over 12 sessions"))
    told = desktop.locator("p", has_text="of what that session says")
    before = told.inner_text()
    plot.locator("ellipse").first.hover(force=True)  # the marks of a session may lie over each other
    expect(told).not_to_have_text(before)
    expect(told).to_contain_text(re.compile(r"\d at \d+, \d left, fresh, on .*: by itself"))
    desktop.get_by_text(re.compile(r"All \d+ bouts it is known from")).click()
    desktop.get_by_role("row").nth(8).get_by_role("link").click()
    expect(desktop.get_by_role("heading", name="Every bout")).to_be_visible()


def test_another_lift_is_a_choice_that_stays_in_the_address(desktop):
    desktop.goto("/strength")
    desktop.get_by_role("button", name="Another lift").click()
    desktop.get_by_role("menuitem", name="Bench press").click()
    expect(desktop.get_by_role("heading", level=1)).to_contain_text("Bench press")
    desktop.reload()
    expect(desktop.get_by_role("heading", level=1)).to_contain_text("Bench press")
    expect(desktop.get_by_text("sets near failure were foretold")).to_be_visible()


@pytest.mark.new_lifter
def test_a_new_lifter_is_told_where_a_first_estimate_comes_from(desktop):
    desktop.goto("/strength")
    expect(desktop.get_by_role("heading", name="Nothing is known of your strength yet")).to_be_visible()


@pytest.mark.new_lifter
def test_a_recent_set_settles_the_loads_right_where_they_are_missing(desktop):
    compose(desktop, "# First\nBack squat: 3 x 5 at 75% leave 2\nBench press: 3 x 5 leave 2")
    expect(desktop.get_by_text("not settled")).to_have_count(2)
    field = desktop.get_by_label(re.compile("Nothing is known of back squat yet"))
    field.fill("six at 80")
    field.press("Enter")
    expect(desktop.get_by_role("alert")).to_contain_text("“six” does not fit here. Write one set with its load")
    field.fill("5 at 100 leave 2")
    field.press("Enter")
    expect(desktop.get_by_text("not settled")).to_have_count(1)
    expect(desktop.get_by_role("group", name="Score of Back squat")).to_contain_text(re.compile(r"9\d(\.5)?9\d"))
    desktop.get_by_role("button", name="Save as planned").click()
    expect(desktop.get_by_role("heading", name="First", level=1)).to_be_visible()
    expect(desktop.get_by_text("The score foretells")).to_be_visible()
    desktop.get_by_label(re.compile("Nothing is known of bench press yet")).fill("max 90 kg")
    desktop.get_by_role("button", name="Take it").click()
    expect(desktop.get_by_text("choose on the day")).to_have_count(0)
    desktop.goto("/strength?lift=bench-press")
    expect(desktop.get_by_text("from what you remembered on")).to_be_visible()
    desktop.get_by_text("The bout it is known from").click()
    desktop.get_by_role("button", name="Take it back").click()
    expect(desktop.get_by_role("heading", level=1)).to_contain_text("Back squat")


def test_today_foretells_in_its_score(desktop):
    desktop.goto("/")
    score = desktop.locator("figure", has=desktop.get_by_role("group", name="Score of Bench press"))
    expect(score.locator("figcaption")).to_contain_text(re.compile(r"about \d left expected"))
    assert desktop.evaluate("document.documentElement.scrollWidth") == 1280


def test_how_a_lift_progresses_is_chosen_on_its_page(desktop):
    desktop.goto("/strength?lift=bench-press")
    desktop.get_by_label("Progress").select_option("keep")
    expect(desktop.get_by_text("Nothing changes until you say so.")).to_be_visible()
    desktop.reload()
    expect(desktop.get_by_label("Progress")).to_have_value("keep")


@pytest.mark.new_lifter
def test_a_share_of_an_unknown_max_is_no_load_on_the_floor(desktop):
    compose(desktop, "# First\nBack squat: 1 at 88% leave 1")
    desktop.get_by_role("button", name="Save as planned").click()
    desktop.wait_for_url("**/")
    start(desktop, "First")
    load = desktop.get_by_role("region", name="Load")
    expect(load).to_contain_text("your load")
    expect(load).to_contain_text("88 % was asked, of a max that is not known yet.")
    expect(load).to_contain_text("Stop adding where 1 would be left after 1.")
    expect(desktop.get_by_text("first 1 at your load")).to_be_visible()


def five(page, left):
    page.get_by_role("button", name=re.compile("^(Go now|Begin)")).click()
    page.get_by_role("radio", name="5 reps").click()
    page.get_by_role("radio", name=left, exact=True).click()


@pytest.mark.new_lifter
def test_the_first_session_of_a_new_lifter_finds_its_load_offline(desktop, serving):
    """Up from the empty bar by fives, until fewer than five are left: the work follows from that."""
    desktop.goto("/kit")
    desktop.get_by_label("Warm-ups").select_option("few big jumps")
    expect(desktop.get_by_label("Warm-ups")).to_have_value("few big jumps")
    compose(desktop, "# First\nBack squat: 3 x 5 leave 2")
    desktop.get_by_role("button", name="Save as planned").click()
    desktop.wait_for_url("**/")
    expect(desktop.get_by_text("Way up: fives at 20, 30, 37.5, 45 kg and on")).to_be_visible()
    start(desktop, "First")
    ready_offline(desktop)
    desktop.context.set_offline(True)
    load, advice = desktop.get_by_role("region", name="Load"), desktop.get_by_role("status", name="Advice")
    for kg, following in (("20", "30"), ("30", "37.5")):
        expect(load).to_contain_text(kg)
        five(desktop, "5 or more left")
        expect(advice).to_contain_text(f"still light. Go on to {following}.")
    five(desktop, "3 left")
    expect(advice).to_contain_text("5 at 37.5 with 3 left: a max of about 47 kg. Work with 35 kg")
    desktop.keyboard.press("a")
    expect(load).to_contain_text("Set 1 of 3")
    expect(load).to_contain_text("35")
    five(desktop, "2 left")
    expect(advice).to_contain_text("As planned: stay at 35.")
    desktop.context.set_offline(False)
    expect(desktop.get_by_role("status").filter(has_text="saved")).to_be_visible(timeout=20_000)
    kept = rows(serving, 'select "set", kg + 0, reserve + 0 from bout where taken_back_at is null order by done_at')
    assert kept == [(0, 20, 5), (0, 30, 5), (0, 37.5, 3), (1, 35, 2)]


def test_the_max_over_time_is_read_by_key_and_taken_along(desktop):
    desktop.goto("/strength?lift=front-squat&setup=belt")
    plot = desktop.get_by_role("group", name="The max over time")
    told = plot.locator("[aria-live]")
    first = told.inner_text()
    plot.focus()
    desktop.keyboard.press("ArrowLeft")
    expect(told).not_to_have_text(first)
    desktop.keyboard.press("ArrowRight")
    expect(told).to_have_text(first)
    for what in ("the max over time", "your rep curve"):
        desktop.get_by_role("button", name=f"Save {what}").click()
        with desktop.expect_download() as download:
            desktop.get_by_role("menuitem", name="Numbers (CSV)").click()
        header, *rows = download.value.path().read_text().splitlines()
        assert header.count(",") >= 2
        assert len(rows) >= 10


def test_records_stand_on_the_curve_and_beside_body_weight(phone):
    phone.goto("/kit")
    with phone.expect_response(lambda answer: '"both_dumbbells":false' in (answer.request.post_data or "")):
        phone.get_by_label("Points beside body weight").select_option("women")
        phone.get_by_label("A pair of dumbbells").select_option("counts one")
    phone.reload()
    expect(phone.get_by_label("A pair of dumbbells")).to_have_value("false")
    phone.goto("/strength")
    expect(phone.get_by_text("points by DOTS")).to_be_visible()
    records = phone.get_by_role("region", name="Records with this set-up")
    expect(records.get_by_role("row", name="1 115 kg 1.39 × the same")).to_be_visible()
    records.get_by_text("Records of the time shown, by day").click()
    expect(records.get_by_text("1 at 115 kg, before that 1 at")).to_be_visible()
    expect(phone.get_by_role("img", name="Body weight, between 81.7 and 82.7 kg")).to_be_visible()


def test_left_stands_against_right(desktop):
    desktop.goto("/strength?lift=split-squat")
    expect(desktop.get_by_role("heading", name="Left against right")).to_be_visible()
    told = desktop.locator("p", has_text="Solid is left, dashed right")
    last = told.inner_text()
    desktop.get_by_role("group", name="Left against right; arrows").press("ArrowLeft")
    expect(told).not_to_have_text(last)
    expect(told).to_contain_text(re.compile(r"left [\d.]+ kg, right [\d.]+ kg|both sides equal"))
    assert axe(desktop) == []


def test_every_plot_of_a_lift_is_read_with_the_arrow_keys(desktop):
    desktop.goto("/strength")
    curve = desktop.get_by_role("group", name="Your rep curve; arrows")
    expect(curve.get_by_text("5 reps: ")).to_be_visible()
    curve.press("ArrowRight")
    expect(curve.get_by_text("6 reps: ")).to_be_visible()
    plot = desktop.get_by_role("group", name="The max over time; arrows")
    record = plot.get_by_text("A record of that day: 1 at 115")
    plot.focus()
    for _ in range(25):
        plot.press("ArrowLeft")
        if record.is_visible():
            break
    expect(record).to_be_visible()


@pytest.mark.new_lifter
def test_what_the_log_says_of_things_never_tried_is_told_with_its_bounds(desktop, serving, tmp_path):
    bring(singles_log(datetime.now(UTC).astimezone().date()), tmp_path, serving.database)
    desktop.goto("/strength")
    seen = desktop.get_by_role("region", name="What your log says")
    expect(seen).to_contain_text(re.compile(r"After a heavy single first your sets ran \+\d\.\d reps \(\+"))
    assert axe(desktop) == []
    seen.get_by_role("link", name="try it in weeks drawn by lot").click()
    expect(desktop.get_by_role("heading", name="No season is under way")).to_be_visible()
