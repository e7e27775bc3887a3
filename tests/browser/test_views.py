"""Each view by itself: the phone, the keys, slips of the pen, two tabs, and what axe finds."""

import json
import re
from pathlib import Path

import pytest
from playwright.sync_api import expect

from tests.browser.test_loop import WRITTEN, compose, recorded, save, start, write

AXE = (Path(__file__).parents[2] / "web/node_modules/axe-core/axe.min.js").read_text()


def test_the_whole_session_by_thumb(phone, serving):
    page = phone
    compose(page)
    save(page)
    start(page, "Browser day")
    page.get_by_role("button", name="Begin").tap()
    reps = page.get_by_role("radio", name="5 reps").bounding_box()
    left = page.get_by_role("radio", name="1 left", exact=True).bounding_box()
    assert min(reps["width"], reps["height"], left["width"], left["height"]) >= 44
    page.mouse.move(reps["x"] + 22, reps["y"] + 22)
    page.mouse.down()
    page.mouse.move(left["x"] + 22, left["y"] + 22)
    page.mouse.up()
    expect(page.get_by_text("1 left in the tank")).to_be_visible()
    page.get_by_role("button", name="Undo").tap()
    page.get_by_role("button", name="Begin").tap()
    page.get_by_role("radio", name="4 reps").tap()
    expect(page.get_by_text("Fewer reps than planned: what ended it?")).to_be_visible()
    page.get_by_role("radio", name="Form slipped").tap()
    page.get_by_text("Another load?").tap()
    page.get_by_label("Lifted, kg").fill("67,5")
    page.get_by_role("button", name="Note it").tap()
    for _ in range(9):
        page.get_by_role("button", name=re.compile("Go now|Begin")).tap()
        page.get_by_role("button", name=re.compile("^Done")).tap()
        if page.get_by_text("How many did you get?").is_visible():
            page.get_by_role("radio", name="9 reps").tap()
        page.wait_for_timeout(600)  # a second tap right after the end of a bout is not a start
    page.get_by_role("button", name="Finish the session").tap()
    page.wait_for_url("**/ledger/*")
    done = recorded(serving)
    assert len(done) == 10
    assert done[0] == ("Bench press", 1, 1, 67.5, 4, None, "form slipped")
    width = page.evaluate("document.documentElement.scrollWidth")
    assert width == 390


ON_A_PHONE = {
    "/": "How ready are you?",
    "/compose": "Save as planned",
    "/season": "Tonnage and average load",
    "/ledger": "Earlier weeks",
    "/strength": "sets near failure were foretold",
    "/kit": "Name of the place",
}
"""Views and words that are there once they are."""


@pytest.mark.parametrize("width", [320, 390])
def test_views_fit_the_narrowest_phones(phone, width):
    phone.set_viewport_size({"width": width, "height": 700})
    for address, words in ON_A_PHONE.items():
        phone.goto(address)
        expect(phone.get_by_text(words).first).to_be_visible()
        assert phone.evaluate("document.documentElement.scrollWidth") == width, address


def test_a_slip_of_the_pen_is_told_and_mended_and_nothing_is_lost(desktop):
    form = compose(desktop, "# Pen\nFront squat: 3 x 5 at 60 stone\nSeal row: 3 x 8 at 50 kg tempo 3-1")
    expect(desktop.get_by_text("Line 2, column 26: “stone” is not a unit Fortis knows.")).to_be_visible()
    desktop.get_by_role("button", name="Write 3-1-1-0").click()
    expect(form).to_contain_text("tempo 3-1-1-0")
    expect(desktop.get_by_text("Line 3")).not_to_be_visible()
    desktop.get_by_role("button", name="Save as planned").click()
    expect(desktop.get_by_role("alert")).to_contain_text("stone")
    desktop.reload()
    expect(form).to_contain_text("60 stone")
    write(desktop, "# Pen\nFront squat: 3 x 5 at 60,5 kg")
    expect(desktop.get_by_text("not a unit")).not_to_be_visible()
    form.press("Control+Enter")
    expect(desktop.get_by_role("heading", name="Pen", level=1)).to_be_visible()


def test_an_unknown_lift_is_taken_and_the_near_one_offered(desktop):
    form = compose(desktop, "Back squatt: 5 at 60")
    desktop.get_by_role("button", name="Use Back squat").click()
    expect(form).to_have_text("Back squat: 5 at 60")


def test_lifts_and_words_are_offered_while_writing(desktop):
    form = compose(desktop, "")
    form.press_sequentially("Seal")
    desktop.get_by_role("option", name="Seal row").wait_for()
    desktop.wait_for_timeout(150)
    form.press("Enter")
    form.press_sequentially("3 x 5 lea")
    desktop.get_by_role("option", name=re.compile("leave")).wait_for()
    desktop.wait_for_timeout(150)
    form.press("Enter")
    expect(form).to_have_text("Seal row: 3 x 5 leave 2")


def test_lifts_that_come_late_are_offered_for_the_name_begun(desktop):
    waiting, come = [], []
    desktop.route("**/api/compose/lifts", lambda route: route.continue_() if come else waiting.append(route))
    form = compose(desktop, "")
    form.press_sequentially("Seal")
    expect(desktop.get_by_role("option", name="Seal row")).to_have_count(0)
    come.append("from now on")
    for route in waiting:
        route.continue_()
    desktop.get_by_role("option", name="Seal row").wait_for()


def test_a_caution_is_mended_in_one_press_undone_and_set_aside(desktop):
    form = compose(desktop, "# Pull\n\nDeadlift: 3 x 5 at 100 kg to failure  # belt on")
    caution = desktop.get_by_role("listitem").filter(has_text="Deadlift to failure: stop with 2 left instead.")
    expect(caution).to_contain_text("Can hurt you.")
    caution.get_by_role("button", name="Leave 2").click()
    expect(form).to_contain_text("Deadlift: 3 x 5 at 100 kg leave 2  # belt on")
    expect(caution).not_to_be_visible()
    form.press("Control+z")
    expect(caution).to_be_visible()
    caution.get_by_role("button", name="Set aside").click()
    desktop.get_by_role("menuitem", name="For deadlift, for good").click()
    expect(caution).not_to_be_visible()
    desktop.reload()
    expect(desktop.get_by_text("1 set aside.")).to_be_visible()
    expect(caution).not_to_be_visible()
    desktop.get_by_role("button", name="Hear them again").click()
    expect(caution).to_be_visible()


def test_the_plan_stands_beside_the_last_of_its_name(desktop):
    compose(desktop, "# Legs\nFront squat [belt]: 3 x 5 at 75%\nLeg extension: 2 x 12 at 45 kg leave 2")
    cost = desktop.get_by_role("table", name="What this session comes to")
    expect(cost.get_by_role("row").filter(has_text="Tonnage")).to_contain_text("5,")
    expect(desktop.get_by_text("as your last 12 sessions went")).to_be_visible()


def test_caret_and_score_show_each_other(desktop):
    compose(desktop, "# Two\nFront squat: 3 x 5 at 60 kg\nSeal row: 3 x 8 at 50 kg")
    score = desktop.get_by_role("group", name="Score of Seal row")
    score.click()
    expect(desktop.locator(".cm-activeLine")).to_have_text("Seal row: 3 x 8 at 50 kg")
    expect(desktop.locator(".border-work", has=score)).to_be_visible()


def test_two_tabs_are_one_record(desktop, serving):
    compose(desktop)
    save(desktop)
    start(desktop, "Browser day")
    other = desktop.context.new_page()
    other.goto(desktop.url)
    for page in (desktop, other):
        page.get_by_role("button", name=re.compile("Begin|Done as planned")).wait_for()
    desktop.get_by_role("button", name="Begin").click()
    for page in (desktop, other):
        page.get_by_role("radio", name="5 reps").click()
        expect(page.get_by_role("status").filter(has_text="saved")).to_be_visible()
    assert len(recorded(serving)) == 1


def test_keys_are_listed_and_go_to_the_views(desktop):
    desktop.goto("/")
    expect(desktop.get_by_role("heading", name="Press and row")).to_be_visible()
    desktop.keyboard.press("?")
    dialog = desktop.get_by_role("dialog", name="Keys")
    expect(dialog).to_contain_text("Start today's session")
    desktop.keyboard.press("Escape")
    desktop.keyboard.press("g")
    desktop.keyboard.press("l")
    expect(desktop.get_by_role("heading", name="Ledger")).to_be_visible()
    desktop.keyboard.press("Shift+D")
    assert desktop.evaluate("document.documentElement.dataset.theme") == "dark"


@pytest.mark.alone
def test_a_bout_kept_on_the_device_outlives_the_tab(desktop, serving):
    compose(desktop)
    save(desktop)
    start(desktop, "Browser day")
    address = desktop.url
    serving.kill()
    desktop.get_by_role("button", name="Begin").click()
    desktop.get_by_role("radio", name="5 reps").click()
    expect(desktop.get_by_text("kept on this device")).to_be_visible()
    desktop.wait_for_timeout(200)
    desktop.goto("about:blank")
    serving.start()
    desktop.goto(address)
    expect(desktop.get_by_role("status").filter(has_text="saved")).to_be_visible()
    expect(desktop.get_by_text("5 done")).to_be_visible()
    assert len(recorded(serving)) == 1


@pytest.mark.parametrize("theme", ["light", "dark"])
def test_axe_finds_nothing(desktop, theme):
    desktop.emulate_media(color_scheme=theme)
    compose(desktop, WRITTEN + "Unknown lift: 5 at\n")
    desktop.wait_for_timeout(600)
    faults = {"compose": axe(desktop)}
    compose(desktop)
    save(desktop)
    faults["today"] = axe(desktop)
    start(desktop, "Browser day")
    faults["floor, ready"] = axe(desktop)
    desktop.keyboard.press("Space")
    faults["floor, working"] = axe(desktop)
    desktop.get_by_role("radio", name="4 reps").click()
    faults["floor, resting"] = axe(desktop)
    desktop.goto("/ledger")
    expect(desktop.get_by_role("link", name="Legs").first).to_be_visible()
    faults["ledger"] = axe(desktop)
    desktop.get_by_role("link", name="Legs").first.click()
    expect(desktop.get_by_role("heading", name="Every bout")).to_be_visible()
    faults["past session"] = axe(desktop)
    desktop.goto("/strength")
    expect(desktop.get_by_text("sets near failure were foretold")).to_be_visible()
    desktop.get_by_text("bouts it is known from").click()
    faults["strength"] = axe(desktop)
    assert {view: found for view, found in faults.items() if found} == {}


AXE_RUN = """axe.run({
  runOnly: ["wcag2a", "wcag2aa", "wcag21aa", "wcag22aa", "best-practice"],
  resultTypes: ["violations"],
}).then(({ violations }) => violations)"""
"""What is in order is not told: on a long page that takes longer than the looking."""


def axe(page):
    page.evaluate(AXE)
    return [
        f"{fault['id']}: {json.dumps([node['html'][:140] for node in fault['nodes'][:2]])}"
        for fault in page.evaluate(AXE_RUN)
    ]


def test_keys_and_clicks_mix(desktop, serving):
    compose(desktop)
    save(desktop)
    start(desktop, "Browser day")
    for reps in (4, 5):
        desktop.keyboard.press("Space")
        desktop.get_by_role("radio", name=f"{reps} reps").click()
        expect(desktop.get_by_text(f"{reps} done")).to_be_visible()
    desktop.get_by_role("button", name="Undo").click()
    expect(desktop.get_by_text("4 done")).to_be_visible()
    desktop.keyboard.press("Space")
    desktop.keyboard.press("1")
    desktop.keyboard.press("2")
    expect(desktop.get_by_text("12 done")).to_be_visible()
    desktop.get_by_role("button", name="Undo").focus()
    desktop.keyboard.press("Tab")
    desktop.keyboard.press("Shift+Tab")
    desktop.keyboard.press("Space")
    expect(desktop.get_by_text("4 done")).to_be_visible()
    expect(desktop.get_by_role("status").filter(has_text="saved")).to_be_visible()
    assert [row[4] for row in recorded(serving)] == [4]


def test_a_double_tap_ends_a_bout_and_keeps_the_rest(desktop, serving):
    compose(desktop)
    save(desktop)
    start(desktop, "Browser day")
    desktop.get_by_role("button", name="Begin").click()
    desktop.get_by_role("button", name="Done as planned").dblclick()
    expect(desktop.get_by_role("button", name="Go now")).to_be_visible()
    expect(desktop.get_by_role("status").filter(has_text="saved")).to_be_visible()
    assert len(recorded(serving)) == 1


def test_a_structure_is_chosen_turned_and_added(desktop):
    form = compose(desktop, "# Built\nBack squat: 5 at 60 kg")
    desktop.get_by_role("button", name="Structures").click()
    dialog = desktop.get_by_role("dialog", name="Structures")
    expect(dialog.get_by_role("region", name="For strength").get_by_role("button")).to_have_count(6)
    dialog.get_by_role("button", name="Cluster").click()
    expect(dialog.get_by_text("Where every mini-set costs an unrack")).to_be_visible()
    dialog.get_by_role("combobox", name="Lift").fill("Deadlift")
    dialog.get_by_role("spinbutton", name="Sets").fill("4")
    written = "Deadlift: 4 sets of (2, 2, 2) at 87% leave 1 within 10s rest 240s"
    expect(dialog.get_by_text(written)).to_be_visible()
    assert axe(desktop) == []
    dialog.get_by_role("button", name="Add to the session").click()
    expect(form).to_contain_text(f"Back squat: 5 at 60 kg{written}")
    expect(desktop.get_by_role("group", name="Score of Deadlift")).to_be_visible()
    form.press("Control+z")
    expect(form).not_to_contain_text("Deadlift")


def test_a_view_that_cannot_be_fetched_says_so_and_can_be_had_anew(desktop):
    desktop.route("**/registerSW.js", lambda route: route.abort())
    desktop.route("**/Kit-*.js", lambda route: route.abort())
    desktop.goto("/ledger")
    desktop.get_by_role("link", name="Kit", exact=True).click()
    expect(desktop.get_by_role("heading", name="This view could not be shown")).to_be_visible()
    desktop.unroute("**/Kit-*.js")
    desktop.get_by_role("button", name="Load the page again").click()
    expect(desktop.get_by_role("heading", name="Kit", level=1)).to_be_visible()
