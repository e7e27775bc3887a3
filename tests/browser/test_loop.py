"""A lifter's whole loop in a real browser: compose, play, add up, next loads, ledger."""

import json
import re

import pytest
from playwright.sync_api import expect

from tests.serving import rows

WRITTEN = """# Browser day
Bench press: 2 x 5 at 70 kg leave 2 rest 3:00
Leg extension: 1 set of (10 at 45 kg to failure, drop 20% to failure)
Trap-bar deadlift: 1 set of (2, 2) at 100 kg leave 1 within 10s
pair, 2 rounds, rest 1:00:
  Ring dip: 6-8 at bw leave 2
  Ring row: 8-10 at bw leave 1
"""
BOUTS = 2 + 2 + 2 + 4


def compose(page, written=WRITTEN):
    page.goto("/compose")
    return write(page, written)


def write(page, written):
    """Put `written` in place of whatever the written form holds, by the keys a lifter presses.

    Not `fill`: it selects and inserts from a script in one go, and an editor that is just taking the focus puts the
    text before what was there.
    """
    form = page.get_by_role("textbox", name="Written form")
    form.focus()
    page.keyboard.press("Control+A")
    page.keyboard.insert_text(written)
    if written:
        expect(page.locator(".cm-line")).to_have_text(written.split("\n"))
    return form


def save(page):
    page.get_by_role("button", name="Save as planned").click()
    page.wait_for_url("**/")
    expect(page.get_by_role("heading", name="Browser day", level=1)).to_be_visible()


def start(page, title, button="Begin"):
    page.goto("/")
    page.locator("section", has=page.get_by_role("heading", name=title)).get_by_role("button", name="Start").click()
    page.wait_for_url("**/floor/*")
    expect(page.get_by_role("button", name=button)).to_be_visible()


def play_five(page, written):
    """Compose a session of one set, do five with two left, and finish it."""
    compose(page, written)
    save(page)
    start(page, "Browser day")
    page.get_by_role("button", name="Begin").click()
    page.get_by_role("radio", name="5 reps").click()
    page.get_by_role("radio", name="2 left", exact=True).click()
    page.get_by_role("button", name=re.compile("Finish")).click()
    page.wait_for_url("**/ledger/*")


def recorded(serving):
    return rows(
        serving,
        'select exercise, bout."set", bout, kg + 0, reps, reserve + 0, ended from bout '
        "join session on session.id = session_id where title = 'Browser day' and taken_back_at is null "
        "order by done_at",
    )


@pytest.mark.alone
def test_compose_play_reload_kill_add_up_and_plan_again(desktop, serving):
    page = desktop
    compose(page)
    expect(page.get_by_text("5 × max").or_(page.get_by_text("35 × max"))).to_be_visible()
    save(page)

    start(page, "Browser day")
    page.keyboard.press("Space")
    expect(page.get_by_role("button", name="Done as planned")).to_be_visible()
    page.keyboard.press("5")
    page.keyboard.press("Shift+2")
    expect(page.get_by_text("2 left in the tank")).to_be_visible()
    expect(page.get_by_role("status").filter(has_text="saved")).to_be_visible()
    expect(page.get_by_role("timer")).to_have_text(re.compile("2:5"))

    page.reload()
    expect(page.get_by_text("2 left in the tank")).to_be_visible()
    expect(page.get_by_role("timer")).to_have_text(re.compile("2:5"))

    page.keyboard.press("Space")
    expect(page.get_by_role("button", name="Done as planned")).to_be_visible()
    page.reload()
    expect(page.get_by_role("button", name="Done as planned")).to_be_visible()

    serving.kill()
    page.get_by_role("radio", name="5 reps").click()
    page.get_by_role("radio", name="3 left", exact=True).click()
    expect(page.get_by_text("kept on this device")).to_be_visible()
    serving.start()
    expect(page.get_by_role("status").filter(has_text="saved")).to_be_visible(timeout=20_000)

    page.get_by_role("button", name="Go now").click()
    page.get_by_role("radio", name="12 reps").click()
    page.get_by_role("radio", name="0 left", exact=True).click()
    expect(page.get_by_text("Straight on")).to_be_visible()
    page.get_by_role("button", name="Begin").click()
    page.get_by_role("button", name="Done").click()
    expect(page.get_by_text("How many did you get?")).to_be_visible()
    expect(page.get_by_role("status").filter(has_text="saved")).to_be_visible()
    assert len(recorded(serving)) == 3
    page.get_by_role("radio", name="8 reps").click()
    page.get_by_role("radio", name="0 left", exact=True).click()

    page.get_by_role("button", name="Go now").click()
    page.keyboard.press("Space")
    expect(page.get_by_text("Breathe, stay with it")).to_be_visible()
    page.keyboard.press("r")
    expect(page.get_by_role("timer")).to_have_text(re.compile(r"0:2[0-5]"))
    page.wait_for_timeout(600)  # a second press right after the end of a bout is not a start
    page.keyboard.press("Space")
    page.keyboard.press("1")
    page.keyboard.press("x")
    for reps, left in ((8, 2), (9, 1), (7, 2), (8, 1)):
        page.get_by_role("button", name=re.compile("Go now|Begin")).click()
        page.get_by_role("radio", name=f"{reps} reps").click()
        page.get_by_role("radio", name=f"{left} left", exact=True).click()
    page.get_by_role("button", name="Finish the session").click()
    page.wait_for_url("**/ledger/*")

    assert [row[:1] + row[3:6] for row in recorded(serving)] == [
        ("Bench press", 70.0, 5, 2),
        ("Bench press", 70.0, 5, 3),
        ("Leg extension", 45.0, 12, 0),
        ("Leg extension", 35.0, 8, 0),
        ("Trap-bar deadlift", 100.0, 2, None),
        ("Trap-bar deadlift", 100.0, 1, 0),
        ("Ring dip", 0.0, 8, 2),
        ("Ring row", 0.0, 9, 1),
        ("Ring dip", 0.0, 7, 2),
        ("Ring row", 0.0, 8, 1),
    ]
    expect(page.get_by_role("heading", name="Added up")).to_be_visible()
    following = page.get_by_role("region", name="Next time")
    expect(following.get_by_role("article").filter(has_text="Bench press")).to_contain_text("kg")
    expect(following.get_by_role("article").filter(has_text="Trap-bar deadlift")).to_contain_text("down from 100")

    page.get_by_role("button", name="Plan it again in a week").click()
    page.get_by_role("link", name="Browser day").first.click()
    page.wait_for_url("**/compose/*")
    expect(page.get_by_role("textbox", name="Written form")).to_contain_text("# Browser day")

    page.get_by_role("link", name="Ledger").click()
    row = page.get_by_role("row").filter(has_text="Browser day")
    row.get_by_role("link").click()
    expect(page.get_by_role("heading", name="Every bout")).to_be_visible()
    expect(
        page.get_by_role("table").filter(has_text="drop").or_(page.get_by_text("12 at 45 kg, 0 left"))
    ).to_be_visible()


def test_how_a_lift_goes_on_is_chosen_at_its_next_load_and_today_follows(desktop):
    page, written = desktop, "# Browser day\nBack squat: 1 x 5 at 60 kg leave 2 rest 3:00\n"
    play_five(page, written)
    squat = page.get_by_role("article", name="Next time: Back squat")
    expect(squat).to_contain_text("your max stands at")
    squat.get_by_label("Progress").select_option("double progression")
    expect(squat).to_contain_text("same load, more reps (6)")
    squat.get_by_label("Reps to add at most").fill("0")
    squat.get_by_label("Reps to add at most").press("Enter")
    expect(squat.get_by_role("alert")).to_contain_text("more_reps")
    squat.get_by_label("Progress").select_option("more sets")
    expect(squat).to_contain_text("same load, one set more (2)")
    expect(squat).to_contain_text("set 2 of 2, the hardest, likely ends with")
    squat.get_by_label("Sets at most").fill("1")
    squat.get_by_label("Sets at most").press("Enter")
    expect(squat).not_to_contain_text("one set more (2)")
    squat.get_by_label("Sets at most").fill("nobody knows")
    squat.get_by_label("Sets at most").press("Enter")
    expect(squat.get_by_role("alert")).to_contain_text("most_sets")
    squat.get_by_label("Sets at most").fill("5")
    squat.get_by_label("Sets at most").press("Enter")
    expect(squat).to_contain_text("same load, one set more (2)")
    compose(page, written)
    save(page)
    expect(page.get_by_text("All went as planned: one set more at the same load, 2 instead of 1.")).to_be_visible()
    expect(page.get_by_text("5 at 60 kg leave 2 rest 3:00, now 2 sets")).to_be_visible()


def test_forty_minutes_leave_out_what_costs_least(desktop, serving):
    compose(
        desktop,
        "# Browser day\nBack squat: 5 x 5 at 100 kg leave 2 rest 3:00\n"
        "Leg press: 4 x 10 at 120 kg leave 2 rest 3:00\nLeg extension: 4 x 12 at 40 kg leave 1 rest 2:00\n",
    )
    save(desktop)
    due = desktop.locator("section", has=desktop.get_by_role("heading", name="Browser day", level=1)).last
    due.get_by_role("button", name="I have less time").click()
    less = desktop.get_by_role("region", name="Less time")
    minutes = less.get_by_label(re.compile("I have"))
    minutes.fill("x")
    expect(less.get_by_role("alert")).to_have_text("Write a whole number of minutes, 5 to 300.")
    minutes.fill("300")
    expect(less).to_contain_text("All of it fits")
    minutes.fill("40")
    expect(less).to_contain_text(re.compile(r"Left out: .*sets? of leg extension"))
    expect(less).to_contain_text("hard sets: quads")
    less.get_by_role("button", name="Start it in 40 minutes").click()
    desktop.wait_for_url("**/floor/*")
    expect(desktop.get_by_role("status").filter(has_text="saved")).to_be_visible()
    (adjusted,) = rows(serving, "select adjustments from session where title = 'Browser day'")
    assert all(position.startswith("3.") for position in json.loads(adjusted[0])["skipped"])


@pytest.mark.parametrize(
    ("written", "policy", "rungs", "following"),
    [
        ("Back squat [pin 8]: 5 at 60 kg leave 2", "a longer range", "pin 8; pin 7", "pin 7"),
        ("Ring row: 5 at bw leave 2", "a ladder", "Ring row; Ring row [feet up]", "feet up"),
    ],
)
def test_a_lift_climbs_from_rung_to_rung(desktop, written, policy, rungs, following):
    play_five(desktop, f"# Browser day\n{written}\n")
    load = desktop.get_by_role("article", name=re.compile("^Next time"))
    load.get_by_label("Progress").select_option(policy)
    field = load.get_by_label(re.compile("first$"))
    field.fill("one alone")
    field.press("Enter")
    expect(load.get_by_role("alert")).to_contain_text("needs two rungs at least")
    load.get_by_label("Progress").select_option(policy)
    field.fill(rungs)
    field.press("Enter")
    expect(load).to_contain_text("the next rung")
    expect(load).to_contain_text(following)
    desktop.get_by_role("button", name="Plan it again in a week").click()
    desktop.wait_for_url("**/")
    desktop.get_by_role("link", name="Browser day").first.click()
    desktop.wait_for_url("**/compose/*")
    expect(desktop.get_by_text(following).first).to_be_visible()
