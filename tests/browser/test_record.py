"""What the record keeps and what the screens ask for it: corrections shown, reserves as said, what to do first."""

import re
import sqlite3
from contextlib import closing

import pytest
from playwright.sync_api import expect

from tests.browser.test_floor import begin, record
from tests.browser.test_loop import compose
from tests.browser.test_views import axe
from tests.serving import rows

SINGLE = re.compile("^Correct 1 at 110 kg, [0-9] left, set 1 of Front squat")
"""The heavy single of the demo's last leg day."""


def test_a_correction_is_shown_on_demand(desktop, serving):
    begin(desktop, "# Browser day\nBack squat: 5 at 100 kg leave 2\n")
    record(desktop, 5, 2)
    expect(desktop.get_by_role("status").filter(has_text="saved")).to_be_visible()
    desktop.get_by_role("radio", name="4 reps").click()
    expect(desktop.get_by_role("status").filter(has_text="saved")).to_be_visible()
    desktop.get_by_role("button", name="Finish the session").click()
    desktop.wait_for_url("**/ledger/*")
    desktop.get_by_role("button", name="corrected").click()
    told = desktop.get_by_role("listitem").filter(
        has_text=re.compile(r"5 at 100 kg, 2 left, \w+ \d\d:\d\d, computer")
    )
    expect(told).to_be_visible()
    expect(desktop.get_by_role("listitem").filter(has_text="then 4 at 100 kg")).to_be_visible()
    assert axe(desktop) == []
    versions = rows(serving, "select version, device from bout_version order by at desc limit 3")
    assert sorted(version for version, _ in versions) == [1, 2, 3]
    assert all(device.startswith("computer") for _, device in versions)


def test_what_is_told_in_two_taps_is_no_correction(desktop):
    begin(desktop, "# Browser day\nBack squat: 5 at 100 kg leave 2\n")
    record(desktop, 5, 2)
    desktop.get_by_role("button", name="Finish the session").click()
    desktop.wait_for_url("**/ledger/*")
    expect(desktop.get_by_text("5 at 100 kg, 2 left")).to_be_visible()
    expect(desktop.get_by_role("button", name="corrected")).to_have_count(0)


def test_reserves_are_kept_as_said(phone, serving):
    begin(phone, "# Browser day\nBack squat: 3 x 5 at 100 kg leave 2 rest 3:00\n")
    record(phone, 5, 2)
    phone.get_by_role("button", name="and a half").tap()
    expect(phone.get_by_text("2½ left in the tank")).to_be_visible()
    phone.get_by_role("button", name="Go now").tap()
    phone.get_by_role("radio", name="5 reps").tap()
    phone.get_by_role("radio", name="5 or more left").tap()
    expect(phone.get_by_text("5 or more left in the tank")).to_be_visible()
    expect(phone.get_by_role("status").filter(has_text="saved")).to_be_visible()
    said = rows(serving, "select reserve + 0, or_more from bout order by done_at desc limit 2")
    assert said == [(5, 1), (2.5, 0)]


def test_keys_tell_reserves_exactly(desktop, serving):
    begin(desktop, "# Browser day\nBack squat: 2 x 5 at 100 kg leave 2 rest 3:00\n")
    desktop.keyboard.press("Space")
    desktop.keyboard.press("5")
    desktop.keyboard.press("Shift+7")
    desktop.keyboard.press("h")
    expect(desktop.get_by_text("7½ left in the tank")).to_be_visible()
    expect(desktop.get_by_role("status").filter(has_text="saved")).to_be_visible()
    assert rows(serving, "select reserve, or_more from bout order by done_at desc limit 1") == [("7.5", 0)]


def test_the_floor_without_a_session_shows_the_one_that_is_due(desktop, phone):
    for page in (desktop, phone):
        page.goto("/floor")
        expect(page.get_by_role("heading", name="Press and row")).to_be_visible()
        expect(page.get_by_role("group", name="Score of Bench press")).to_be_visible()
        expect(page.get_by_text(re.compile(r"about \d+ min"))).to_be_visible()
        expect(page.get_by_role("region", name="Or start another").get_by_role("link")).not_to_have_count(0)
        assert axe(page) == []
    phone.get_by_role("link", name="Pull").first.tap()
    expect(phone.get_by_role("heading", name="Pull")).to_be_visible()
    desktop.keyboard.press("Space")
    expect(desktop.get_by_role("button", name="Begin")).to_be_visible()


def test_ready_to_begin_the_floor_says_what_to_do_and_how_long_it_takes(desktop, serving):
    with sqlite3.connect(serving.database) as database:
        database.execute("update lifter set warm_ups = 'few big jumps'")
    begin(desktop, "# Browser day\nBack squat: 2 x 5 at 100 kg leave 2 rest 3:00\n")
    clock = desktop.get_by_role("region", name="Clock")
    expect(clock).to_contain_text("Warm up")
    expect(clock).to_contain_text(re.compile(r"\d sets, about \d+ min, then your work sets"))
    expect(clock.get_by_role("timer")).to_have_count(0)
    score = desktop.get_by_role("group", name="Score of Back squat")
    expect(score.locator("text").filter(has_text=re.compile("^20$")).first).to_be_visible()
    desktop.keyboard.press("w")
    expect(clock).to_contain_text("Set 1")
    expect(clock).to_contain_text("about 15 s of work")


@pytest.mark.long_log
def test_a_year_is_leafed_through_to_its_first_session_with_few_rows_drawn(desktop, serving):
    (first,) = rows(
        serving, "select id, title from session where finished_at is not null order by started_at limit 1"
    )
    desktop.goto("/ledger")
    lines = desktop.get_by_role("row")
    earliest = desktop.locator(f"a[href='/ledger/{first[0]}']")
    expect(desktop.get_by_role("link", name="day").first).to_be_visible()
    for _ in range(60):
        if earliest.count():
            break
        desktop.mouse.wheel(0, 2_000)
        desktop.wait_for_timeout(50)
    expect(earliest).to_be_visible()
    assert lines.count() < 60
    assert axe(desktop) == []
    earliest.click()
    expect(desktop.get_by_role("heading", name=first[1])).to_be_visible()
    desktop.go_back()
    expect(earliest).to_be_visible()


def test_body_weight_is_asked_for_once(desktop, serving):
    with sqlite3.connect(serving.database) as database:
        database.execute("delete from body_weight")
    desktop.goto("/")
    expect(desktop.get_by_text("Fortis does not know it yet")).to_be_visible()
    desktop.get_by_label("Body weight, kg").fill("82,5")
    desktop.get_by_role("button", name="Note it").click()
    expect(desktop.get_by_text("Fortis does not know it yet")).to_have_count(0)
    assert rows(serving, "select kg from body_weight") == [("82.5",)]


def test_line_numbers_stay_with_their_lines_when_lines_wrap(phone):
    long = "Leg extension: 1 set of (12 to failure, drop 20% to failure, drop 20% to failure) rest 2:00"
    compose(phone, f"# Wrapped\n{long}\n{long}\nPlank: hold 30s\n{long}\nPlank: hold 20s")
    expect(phone.get_by_role("group", name="Score of Plank").first).to_be_visible()
    phone.wait_for_timeout(400)
    numbers, lines = phone.evaluate(
        """() => {
            const tops = (found) => [...found].map((each) => Math.round(each.getBoundingClientRect().top));
            const numbers = [...document.querySelectorAll(".cm-lineNumbers .cm-gutterElement")];
            const shown = numbers.filter((each) => getComputedStyle(each).visibility !== "hidden");
            return [tops(shown), tops(document.querySelectorAll(".cm-line"))];
        }"""
    )
    assert len(lines) == 6
    assert all(abs(number - line) <= 2 for number, line in zip(numbers, lines, strict=True)), (numbers, lines)
    assert lines[2] - lines[1] > 40


def test_a_session_that_has_been_started_keeps_its_text(desktop):
    begin(desktop)
    address = desktop.url.replace("floor", "compose")
    desktop.goto(address)
    expect(desktop.get_by_text("its text stays as it was played")).to_be_visible()
    expect(desktop.get_by_role("button", name="Save without a date")).to_be_disabled()


def test_a_bout_is_set_right_in_place_and_what_follows_changes(desktop, serving):
    desktop.goto("/ledger")
    desktop.get_by_role("link", name="Legs", exact=True).first.click()
    row = desktop.get_by_role("row").filter(has_text="Front squat belt")
    expect(row).to_contain_text("1,530 kg")
    max_before = row.get_by_role("cell").nth(5).inner_text()
    desktop.get_by_role("button", name=SINGLE).click()
    form = desktop.get_by_role("form", name="Correct set 1 of Front squat")
    form.get_by_label("Load, kg").fill("10o")
    form.get_by_role("button", name="Set it right").click()
    expect(form.get_by_role("alert")).to_contain_text("The load is a number of kilograms")
    form.get_by_label("Load, kg").fill("125")
    form.get_by_label("Left in the tank").select_option("0")
    form.get_by_label("Note for next time").fill("bar path")
    form.get_by_role("button", name="Set it right").click()
    expect(form).not_to_be_visible()
    expect(row).to_contain_text("1,545 kg")
    expect(row.get_by_role("cell").nth(5)).not_to_have_text(max_before)
    desktop.get_by_role("button", name="corrected").click()
    expect(desktop.get_by_role("listitem").filter(has_text="first 1 at 110 kg")).to_be_visible()
    assert axe(desktop) == []
    assert rows(serving, "select kg, reserve + 0, note, version from bout where version > 1") == [
        ("125", 0, "bar path", 2)
    ]


def test_a_bout_that_was_written_elsewhere_meanwhile_is_not_written_over(desktop, serving):
    desktop.goto("/ledger")
    desktop.get_by_role("link", name="Legs", exact=True).first.click()
    desktop.get_by_role("button", name=SINGLE).click()
    with closing(sqlite3.connect(serving.database)) as elsewhere, elsewhere:
        elsewhere.execute("update bout set version = 2, reps = 2 where kg + 0 = 110 and reps = 1")
    form = desktop.get_by_role("form", name="Correct set 1 of Front squat")
    form.get_by_label("Reps", exact=True).fill("4")
    form.get_by_role("button", name="Set it right").click()
    expect(form.get_by_role("alert")).to_contain_text("written elsewhere since")
    expect(form.get_by_label("Reps", exact=True)).to_have_value("4")
