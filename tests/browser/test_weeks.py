"""Weeks of the ledger: leafing through them, one week in full, and what a session felt like."""

import csv
import re

import pytest
from playwright.sync_api import expect
from pypdf import PdfReader

from tests.browser.test_views import axe


def test_weeks_are_leafed_through_and_opened(desktop):
    desktop.goto("/ledger")
    weeks = desktop.get_by_role("region", name="Weeks")
    expect(weeks.get_by_role("link", name=re.compile("^Legs, "))).not_to_have_count(0)
    assert axe(desktop) == []
    latest = weeks.get_by_role("link", name="Week of").last.get_attribute("href")
    desktop.keyboard.press("ArrowLeft")
    expect(weeks.get_by_role("link", name="Week of").last).not_to_have_attribute("href", latest)
    weeks.get_by_role("button", name="Later weeks").click()
    expect(weeks.get_by_role("link", name="Week of").last).to_have_attribute("href", latest)
    expect(weeks.get_by_role("button", name="Later weeks")).not_to_be_visible()
    weeks.get_by_role("link", name="Week of").nth(-2).click()
    expect(desktop.get_by_role("heading", name="Week of", level=1)).to_be_visible()
    expect(desktop.get_by_text("on the week before")).to_be_visible()
    assert axe(desktop) == []
    plot = desktop.get_by_role("group", name="Tonnage and average load by week")
    told = plot.locator("[aria-live]")
    (this, *_) = re.findall("Week of [^:]+", told.inner_text())
    plot.focus()
    desktop.keyboard.press("ArrowLeft")
    expect(told).not_to_contain_text(this)


MOVED = """() => new Promise((done) => {
  let moved = 0;
  new PerformanceObserver((list) => {
    for (const each of list.getEntries()) moved += each.value;
  }).observe({ type: "layout-shift", buffered: true });
  setTimeout(() => done(moved), 500);
})"""
"""How far what was drawn of a page has moved since, as browsers score it."""


def test_sessions_are_listed_once_the_weeks_above_them_are_there(desktop):
    held = []
    desktop.route("**/api/ledger/weeks*", lambda route: held.append(route))
    desktop.goto("/ledger")
    expect(desktop.get_by_text("Getting the weeks …")).to_be_visible()
    listed = desktop.get_by_role("link", name="Pull", exact=True)
    expect(listed).to_have_count(0)
    for route in held:
        route.continue_()
    expect(listed.first).to_be_visible()
    assert desktop.evaluate(MOVED) < 0.01


@pytest.mark.long_log
def test_weeks_go_back_to_the_first_one_and_only_those_in_sight_are_drawn(phone):
    phone.goto("/ledger")
    weeks = phone.get_by_role("region", name="Weeks")
    named = weeks.get_by_role("link", name="Week of")
    expect(named).not_to_have_count(0)
    first = phone.request.get("/api/ledger/weeks").json()["first"]
    table = weeks.get_by_role("table", name="Sessions by week and day")
    table.evaluate("table => table.parentElement.scrollTo(0, 0)")
    expect(named.first).to_have_attribute("href", f"/ledger/week/{first}")
    expect(named.first).to_contain_text(first[:4])
    expect(weeks.get_by_role("link", name=re.compile(", [0-9,]+ kg$"))).not_to_have_count(0)
    assert named.count() <= 5
    expect(weeks.get_by_role("button", name="Earlier weeks")).not_to_be_visible()
    assert phone.evaluate("document.documentElement.scrollWidth") == 390
    assert axe(phone) == []
    phone.get_by_role("button", name="Later weeks").click()
    expect(named.first).not_to_have_attribute("href", f"/ledger/week/{first}")


def test_a_plot_is_taken_along_as_numbers_drawing_and_picture(desktop):
    desktop.goto("/ledger")
    desktop.get_by_role("link", name="Week of").nth(-2).click()
    starts = {"Numbers (CSV)": b"Week of,", "Drawing (SVG)": b"<svg", "Picture (PNG)": b"\x89PNG"}
    saved = {}
    for kind, begins in starts.items():
        desktop.get_by_role("button", name="Save tonnage and average load").click()
        with desktop.expect_download() as download:
            desktop.get_by_role("menuitem", name=kind).click()
        saved[kind] = download.value.path().read_bytes()
        assert saved[kind].startswith(begins)
    header, *rows = csv.reader(saved["Numbers (CSV)"].decode().splitlines())
    assert header == ["Week of", "Tonnage, kg", "Average load, kg", "Sessions"]
    assert len(rows) == 12
    assert "var(" not in saved["Drawing (SVG)"].decode()
    desktop.get_by_text("The numbers").first.click()
    cell = desktop.get_by_role("table", name="Tonnage and average load").get_by_role("cell").first
    expect(cell).to_have_text(rows[0][1])


def test_how_hard_sessions_were_makes_the_load_of_their_week(phone):
    phone.goto("/ledger")
    phone.get_by_role("link", name="Week of").nth(-2).click()
    expect(phone.get_by_text("Say after each session how hard it was")).to_be_visible()
    sessions = phone.get_by_role("link", name=re.compile(r"min, [\d,]+ kg"))
    expect(sessions.first).to_be_visible()
    week = phone.url
    for at in range(sessions.count()):
        sessions.nth(at).click()
        phone.get_by_role("radio", name="7, very hard").click()
        expect(phone.get_by_text("Very hard: a load by effort of")).to_be_visible()
        phone.goto(week)
        expect(sessions.first).to_be_visible()
    expect(phone.get_by_role("row", name="Load by effort")).to_be_visible()
    assert axe(phone) == []


def test_a_session_stands_over_the_last_one_like_it(desktop):
    desktop.goto("/ledger")
    desktop.get_by_role("link", name="Legs", exact=True).first.click()
    played = desktop.get_by_role("region", name="As it was played")
    expect(played.get_by_role("group", name="Score of Front squat")).to_have_count(2)
    expect(played.get_by_text("Fair to compare.")).not_to_have_count(0)
    scores = played.get_by_role("group", name="Score of Front squat").all()
    now, then = (score.locator("text").all_text_contents()[:3] for score in scores)
    assert now == then
    assert axe(desktop) == []
    day = desktop.get_by_role("paragraph").first.inner_text()
    played.get_by_role("link").first.click()
    expect(desktop.get_by_role("paragraph").first).not_to_have_text(day)


def test_a_session_is_found_by_its_words_and_come_back_to(desktop):
    desktop.goto("/ledger")
    rows = desktop.get_by_role("row").filter(has=desktop.get_by_role("cell"))
    expect(desktop.get_by_role("region", name="Weeks")).to_be_visible()
    desktop.keyboard.press("/")
    field = desktop.get_by_role("searchbox", name="Find sessions")
    expect(field).to_be_focused()
    field.press_sequentially("squat belt")
    expect(desktop.get_by_role("region", name="Weeks")).not_to_be_visible()
    expect(desktop.get_by_role("link", name="Pull", exact=True)).to_have_count(0)
    expect(desktop.get_by_role("link", name="Legs", exact=True)).not_to_have_count(0)
    rows.get_by_role("link").first.click()
    expect(desktop.get_by_role("heading", name="Legs", level=1)).to_be_visible()
    desktop.go_back()
    expect(field).to_have_value("squat belt")
    expect(desktop.get_by_role("link", name="Pull", exact=True)).to_have_count(0)
    field.fill("ascending mini-sets")
    expect(desktop.get_by_role("link", name="Pull", exact=True)).not_to_have_count(0)
    expect(desktop.get_by_role("link", name="Legs", exact=True)).to_have_count(0)
    field.fill("squat zither")
    expect(desktop.get_by_text("No session has all of “squat zither”")).to_be_visible()
    assert axe(desktop) == []


def test_a_card_is_printed_of_what_is_planned_and_of_what_was_done(desktop):
    desktop.goto("/")
    for words in ("about 26 min", "52 min on the floor"):
        title = desktop.get_by_role("heading", level=1).inner_text()
        with desktop.expect_download() as download:
            desktop.get_by_role("link", name="Card to print (PDF)").first.click()
        assert download.value.suggested_filename == f"{title}.pdf"
        (page, *_) = PdfReader(download.value.path()).pages
        assert words in page.extract_text()
        desktop.goto("/ledger")
        desktop.get_by_role("link", name="Pull", exact=True).first.click()
        expect(desktop.get_by_role("heading", name="Pull", level=1)).to_be_visible()
    assert axe(desktop) == []


def test_on_paper_there_is_nothing_to_press(desktop):
    desktop.goto("/")
    expect(desktop.get_by_role("button", name="Start")).to_be_visible()
    desktop.emulate_media(media="print")
    expect(desktop.get_by_role("heading", name="Press and row")).to_be_visible()
    expect(desktop.get_by_role("group", name="Score of Bench press")).to_be_visible()
    for gone in ("Start", "Change", "Dark theme"):
        expect(desktop.get_by_role("button", name=gone)).to_have_count(0)
    expect(desktop.get_by_role("navigation")).to_have_count(0)


def test_the_record_is_taken_along(phone):
    phone.goto("/ledger")
    for name, begins in (
        ("Every bout (CSV)", b"performed_at,"),
        ("What is planned, as a calendar", b"BEGIN:VCALENDAR"),
    ):
        phone.get_by_role("button", name="Take it with you").click()
        with phone.expect_download() as download:
            phone.get_by_role("menuitem", name=name).click()
        assert download.value.path().read_bytes().startswith(begins)


def test_two_blocks_stand_side_by_side_and_others_are_chosen(desktop):
    desktop.goto("/ledger")
    desktop.get_by_role("link", name="Two blocks").click()
    expect(desktop.get_by_role("heading", name="A week of each")).to_be_visible()
    expect(desktop.get_by_text(re.compile("^A week of the later: tonnage"))).to_be_visible()
    tonnage = desktop.get_by_role("row", name="Tonnage")
    first = tonnage.text_content()
    assert axe(desktop) == []
    beside = desktop.get_by_role("region", name="Beside it")
    beside.get_by_role("textbox", name="Weeks").fill("2")
    beside.get_by_role("textbox", name="Weeks").press("Enter")
    expect(tonnage).not_to_have_text(first)
    expect(beside.get_by_role("combobox")).to_have_value("own")
    chosen = tonnage.text_content()
    desktop.reload()
    expect(tonnage).to_have_text(chosen)
    one = desktop.get_by_role("region", name="One block")
    of_season = one.locator("option", has_text="River meet: block 1")
    one.get_by_role("combobox").select_option(of_season.get_attribute("value"))
    expect(desktop.get_by_text("The two blocks share weeks: choose two that do not.")).to_be_visible()


def test_two_blocks_fit_a_phone(phone):
    phone.goto("/ledger/blocks")
    expect(phone.get_by_role("heading", name="Front squat")).to_be_visible()
    assert phone.evaluate("document.documentElement.scrollWidth <= innerWidth")
    assert axe(phone) == []
