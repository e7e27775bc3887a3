"""The Floor in a real gym: a mixed session by key and by thumb, the server killed, offline, the battery dead."""

import json
import re
import sqlite3
from random import Random
from uuid import uuid4

import pytest
from playwright.sync_api import expect

from tests.browser.test_loop import compose, start
from tests.browser.test_views import axe
from tests.serving import rows

MIXED = """# Browser day
pair, 3 rounds, rest 1:00:
  Ring dip: 6-8 at bw leave 2
  Ring row: 8-10 at bw leave 1
Trap-bar deadlift: 2 sets of (2, 2, 2) at 100 kg leave 1 within 10s rest 2:00
Leg extension: 2 sets of (10 at 45 kg to failure, drop 20% to failure, drop 20% to failure)
Front squat: 3 sets of (1 at 100 kg, 25s, 3 at 80 kg) rest 2:00
Bench press: 3 x 5 at 60 kg leave 2 tempo 3-1-1-0 rest 2:00
Lying leg curl: 2 x 8 at 35 kg leave 2; 1 set of (6 at 35 kg, 4 stretched halves)
Split squat: 2 x 8 each side at 15 kg leave 2 rest 60s
Hollow hold: 2 x hold 20s rest 60s
Overhead press: 3 x 5 at 40 kg leave 2 rest 60s
"""
BOUTS = 40


def plan(page):
    compose(page, MIXED)
    page.get_by_role("button", name="Save as planned").click()
    page.wait_for_url("**/")
    start(page, "Browser day")


def recorded(serving):
    return rows(
        serving,
        'select exercise, "group", round, entry, bout."set", bout, kg + 0, reps, partial_reps, seconds, side, '
        "reserve + 0 from bout join session on session.id = session_id "
        "where title = 'Browser day' and taken_back_at is null "
        'order by "group", round, entry, bout."set", bout',
    )


def told(page):
    """What the page says is to be done now."""
    return page.get_by_role("region", name="Load").inner_text()


def check(serving):
    """Every bout once, in its place, with the numbers given."""
    done = recorded(serving)
    assert len(done) == len({row[1:6] for row in done}) == BOUTS
    by_lift = {}
    for row in done:
        by_lift.setdefault(row[0], []).append(row)
    assert [row[6:8] for row in by_lift["Trap-bar deadlift"]] == [(100, 2)] * 6
    assert [row[6:8] for row in by_lift["Leg extension"]] == [(45, 10), (35, 8), (30, 8)] * 2
    assert [row[6:8] for row in by_lift["Front squat"]] == [(100, 1), (80, 3)] * 3
    assert [row[7:9] for row in by_lift["Lying leg curl"]] == [(8, 0), (8, 0), (6, 0), (0, 4)]
    assert [row[10] for row in by_lift["Split squat"]] == ["left", "right"] * 2
    assert all(row[9] >= 1 for row in by_lift["Hollow hold"])
    assert [row[11] for row in by_lift["Overhead press"]] == [2, 2, 2]
    assert [row[11] for row in by_lift["Bench press"]] == [1, 1, 1]


RESERVE = {"Overhead press": 2, "Bench press": 1}


def lift_of(page):
    return told(page).split("·")[0].strip().removesuffix(" left").removesuffix(" right")


def asks(page):
    """Whether only the lifter can say how many reps there were."""
    return "× max" in told(page)


def bout_by_key(page):
    lift, many = lift_of(page), asks(page)
    page.keyboard.press("Space")
    expect(page.get_by_role("button", name=re.compile("^Done"))).to_be_visible()
    page.keyboard.press("Enter" if lift == "Bench press" else "Space")
    if many:
        expect(page.get_by_text("How many did you get?")).to_be_visible()
        page.keyboard.press("8")
    if lift in RESERVE:
        page.keyboard.press(f"Shift+{RESERVE[lift]}")
    page.wait_for_timeout(520)  # a second press right after the end of a bout is not a start


def bout_by_thumb(page):
    lift, many = lift_of(page), asks(page)
    page.get_by_role("button", name=re.compile("^(Go now|Begin)")).tap()
    page.get_by_role("button", name=re.compile("^Done")).tap()
    if many:
        page.get_by_role("radio", name="8 reps").tap()
    if lift in RESERVE:
        page.get_by_role("radio", name=f"{RESERVE[lift]} left", exact=True).tap()
    page.wait_for_timeout(520)


def play(page, serving, bout, often):
    """Forty bouts: the server killed so often, offline for half of them, the battery dead twice."""
    random = Random(11)
    kills = set(random.sample(range(22, BOUTS), often))
    deaths = {6, 15}
    context, address = page.context, page.url
    for number in range(BOUTS):
        if number == 2:
            context.set_offline(True)
        if number == 22:
            context.set_offline(False)
        if number in deaths:
            page.close(run_before_unload=False)
            page = context.new_page()
            page.set_default_timeout(8_000)
            page.goto(address)
            expect(page.get_by_role("button", name=re.compile("^(Go now|Begin)"))).to_be_visible(timeout=15_000)
        if number in kills:
            serving.kill()
        bout(page)
        if number in kills:
            serving.start()
    expect(page.get_by_role("button", name="Finish the session")).to_be_visible()
    expect(page.get_by_role("status").filter(has_text="saved")).to_be_visible(timeout=30_000)
    return page


def ready_offline(page):
    """Wait until the service worker has the app; a page that was loading when it took over has it once reloaded."""
    ready = "navigator.serviceWorker.ready.then(() => navigator.serviceWorker.controller !== null)"
    if not page.evaluate(ready):
        page.reload()
    while not page.evaluate("navigator.serviceWorker.controller !== null"):
        page.wait_for_timeout(50)


@pytest.mark.alone
@pytest.mark.parametrize("way", ["keys", "thumb"])
def test_forty_bouts_through_every_trouble(request, serving, way):
    page = request.getfixturevalue("desktop" if way == "keys" else "phone")
    plan(page)
    ready_offline(page)
    page = play(page, serving, bout_by_key, 5) if way == "keys" else play(page, serving, bout_by_thumb, 2)
    check(serving)
    page.get_by_role("button", name="Finish the session").click()
    page.wait_for_url("**/ledger/*")
    expect(page.get_by_role("heading", name="Added up")).to_be_visible()


SHORT = "# Browser day\nBack squat: 3 x 5 at 100 kg leave 2 rest 3:00\nRing row: 2 x 8 at bw leave 1\n"


def begin(page, text=SHORT):
    """Stand on the floor at the beginning of a session that was planned and started without looking."""
    session = uuid4()
    for answer in (
        page.request.put(f"/api/compose/sessions/{session}", data={"written": text}),
        page.request.post(f"/api/floor/{session}/start"),
    ):
        assert answer.ok, answer.text()
    page.goto(f"/floor/{session}")
    expect(page.get_by_role("button", name="Begin")).to_be_visible()


def record(page, reps, left):
    page.get_by_role("button", name=re.compile("^(Go now|Begin)")).click()
    page.get_by_role("radio", name=f"{reps} reps").click()
    page.get_by_role("radio", name=f"{left} left", exact=True).click()


def test_advice_is_shown_and_taken_without_a_connection(desktop, serving):
    begin(desktop)
    ready_offline(desktop)
    desktop.context.set_offline(True)
    record(desktop, 5, 1)
    advice = desktop.get_by_role("status", name="Advice")
    expect(advice).to_contain_text("1 left where 2 were planned. If the next set ends so too, drop to 95.")
    record(desktop, 5, 1)
    expect(advice).to_contain_text("Again 1 left where 2 were planned. Drop to 95.")
    assert axe(desktop) == []
    advice.get_by_role("button", name="Use 95 kg").click()
    expect(desktop.get_by_role("region", name="Load")).to_contain_text("95")
    expect(desktop.get_by_text("Each side 25 10 2.5")).to_be_visible()
    desktop.context.set_offline(False)
    expect(desktop.get_by_role("status").filter(has_text="saved")).to_be_visible(timeout=20_000)
    record(desktop, 5, 2)
    expect(desktop.get_by_role("status").filter(has_text="saved")).to_be_visible()
    assert [row[6] for row in recorded(serving)] == [100, 100, 95]


WATCH_THE_LOAD = """() => {
  const load = document.querySelector('section[aria-label="Load"]');
  window.loads = [];
  new MutationObserver(() => window.loads.push(load.innerText)).observe(load, {
    subtree: true, childList: true, characterData: true,
  });
}"""


def test_an_answer_asked_for_before_a_bout_was_saved_takes_nothing_back(desktop):
    begin(desktop)
    load, held = desktop.get_by_role("region", name="Load"), []
    view = re.compile(r"/api/floor/[^/]+$")
    desktop.route(view, lambda route: held.append((route, route.fetch())))
    desktop.evaluate("dispatchEvent(new Event('visibilitychange'))")
    while not held:
        desktop.wait_for_timeout(20)
    record(desktop, 5, 1)
    expect(desktop.get_by_role("status").filter(has_text="saved")).to_be_visible()
    expect(load).to_contain_text("Set 2 of 3")
    desktop.evaluate(WATCH_THE_LOAD)
    with desktop.expect_response(view):
        route, answer = held[0]
        route.fulfill(response=answer)
    desktop.wait_for_timeout(300)
    assert not any("Set 1 of 3" in text for text in desktop.evaluate("loads"))
    expect(load).to_contain_text("Set 2 of 3")
    expect(desktop.get_by_role("radio", name="1 left", exact=True)).to_be_checked()


def test_the_plan_is_changed_on_the_floor_and_back(desktop, serving):
    begin(desktop)
    load = desktop.get_by_role("region", name="Load")

    def do(item):
        desktop.get_by_role("button", name="Change the plan").click()
        desktop.get_by_role("menuitem", name=item).click()

    do("Ring row")
    expect(load).to_contain_text("Ring row · Set 1 of 2")
    do("One more set of ring row")
    expect(load).to_contain_text("Set 1 of 3")
    do("Do another lift instead …")
    desktop.get_by_role("dialog").get_by_role("button", name="Cable row").click()
    expect(load).to_contain_text("Cable row · Set 1 of 3")
    record(desktop, 8, 1)
    do("Leave this set out")
    expect(load).to_contain_text("Set 3 of 3")
    desktop.get_by_role("button", name="Undo").click()
    expect(load).to_contain_text("Set 2 of 3")
    desktop.reload()
    expect(load).to_contain_text("Cable row · Set 2 of 3")
    do("End it here")
    expect(desktop.get_by_role("button", name="Finish the session")).to_be_visible()
    expect(desktop.get_by_role("status").filter(has_text="saved")).to_be_visible()
    assert [row[0] for row in recorded(serving)] == ["Cable row"]


PAIR = """# Browser day
pair, 3 rounds, rest 1:30:
  Ring dip: 6-8 at bw leave 2
  Ring row: 8-10 at bw leave 1
"""


def test_everything_is_taken_back_and_done_again(desktop, serving):
    begin(desktop, PAIR)
    load = desktop.get_by_role("region", name="Load")
    saved = desktop.get_by_role("status").filter(has_text="saved")
    record(desktop, 8, 1)
    desktop.get_by_role("button", name="Change the plan").click()
    desktop.get_by_role("menuitem", name="One more set of ring dip").click()
    record(desktop, 9, 1)
    expect(load).to_contain_text("Ring dip · Set 2 of 4")
    desktop.keyboard.press("u")
    expect(load).to_contain_text("Ring row · Set 1 of 3")
    desktop.keyboard.press("u")
    desktop.keyboard.press("u")
    expect(load).to_contain_text("Ring dip · Set 1 of 3")
    expect(saved).to_be_visible()
    assert recorded(serving) == []
    desktop.reload()
    desktop.get_by_role("button", name="Redo").wait_for()
    for _ in range(2):
        desktop.keyboard.press("Shift+U")
    desktop.get_by_role("button", name="Redo").click()
    expect(load).to_contain_text("Ring dip · Set 2 of 4")
    expect(desktop.get_by_role("button", name="Redo")).to_have_count(0)
    expect(saved).to_be_visible()
    assert [(row[0], row[7], row[11]) for row in recorded(serving)] == [("Ring dip", 8, 1), ("Ring row", 9, 1)]


def test_the_members_of_a_pair_change_places(desktop, serving):
    begin(desktop, PAIR)
    load = desktop.get_by_role("region", name="Load")
    record(desktop, 8, 1)
    record(desktop, 9, 1)
    desktop.get_by_role("button", name="Change the plan").click()
    desktop.get_by_role("menuitem", name="Ring row", exact=True).click()
    for lift in ("Ring row · Set 2", "Ring dip · Set 2", "Ring row · Set 3", "Ring dip · Set 3"):
        expect(load).to_contain_text(lift)
        record(desktop, 8, 1)
        resting = desktop.get_by_role("timer", name="Rest left")
        expect(resting).to_have_count(1 if "row · Set 3" not in lift and "Ring dip · Set 2" in lift else 0)
    expect(desktop.get_by_role("button", name="Finish the session")).to_be_visible()
    expect(desktop.get_by_role("status").filter(has_text="saved")).to_be_visible()
    assert len(recorded(serving)) == 6


def test_a_session_is_finished_without_the_server_and_opened_again(desktop, serving):
    begin(desktop, "# Browser day\nRing row: 1 x 8 at bw\n")
    ready_offline(desktop)
    record(desktop, 8, 1)
    expect(desktop.get_by_role("status").filter(has_text="saved")).to_be_visible()
    desktop.context.set_offline(True)
    desktop.keyboard.press("Enter")
    expect(desktop.get_by_text("Everything is kept on this device.")).to_be_visible()
    for _ in range(2):
        desktop.reload()
        expect(desktop.get_by_role("heading", name="This session is finished")).to_be_visible()
        desktop.wait_for_timeout(300)
    expect(desktop.get_by_role("status").filter(has_text="kept on this device (1)")).to_be_visible()
    assert axe(desktop) == []
    desktop.wait_for_timeout(1_200)
    back = rows(serving, "select datetime('now')")[0][0]
    desktop.context.set_offline(False)
    expect(desktop.get_by_role("status").filter(has_text="saved")).to_be_visible(timeout=20_000)
    ((finished,),) = rows(serving, "select finished_at from session where title = 'Browser day'")
    assert finished < back
    desktop.get_by_role("button", name="See it added up").click()
    desktop.wait_for_url("**/ledger/*")
    desktop.go_back()
    desktop.get_by_role("button", name="Open it again").click()
    expect(desktop.get_by_role("button", name="Finish the session")).to_be_visible()
    assert rows(serving, "select finished_at from session where title = 'Browser day'") == [(None,)]


def test_what_the_record_refuses_steps_aside_and_the_rest_goes_on(desktop, serving):
    begin(desktop, "# Gone\nRing row: 2 x 8 at bw\n")
    gone = desktop.url
    ready_offline(desktop)
    begin(desktop)
    here = desktop.url
    desktop.wait_for_load_state("networkidle")
    desktop.context.set_offline(True)
    desktop.goto(gone)
    record(desktop, 8, 1)
    kept = desktop.get_by_role("status").filter(has_text=re.compile(r"kept on this device \(\d\)"))
    expect(kept).to_have_text(re.compile(r"\(1\)"))
    desktop.goto(here)
    record(desktop, 5, 2)
    expect(kept).to_have_text(re.compile(r"\(2\)"))
    with sqlite3.connect(serving.database) as database:
        (row,) = database.execute("select * from session where title = 'Gone'").fetchall()
        database.execute("delete from session where title = 'Gone'")
    desktop.context.set_offline(False)
    refused = desktop.get_by_role("region", name="Not taken by the record")
    refused.get_by_text("What to do?").click(timeout=20_000)
    expect(refused).to_contain_text("Ring row, set 1: 8")
    expect(refused).to_contain_text("This session is not in the record.")
    expect(desktop.get_by_text("▲ 1 not taken")).to_be_visible()
    with desktop.expect_response(lambda answer: answer.request.method == "PUT"):
        record(desktop, 5, 2)
    assert [row[7] for row in recorded(serving)] == [5, 5]
    assert axe(desktop) == []
    desktop.goto("/")
    refused.get_by_text("What to do?").click()
    with desktop.expect_download() as download:
        refused.get_by_role("button", name="Save as a file").click()
    (entry,) = json.loads(download.value.path().read_text())["not taken by Fortis"]
    assert (entry["done"]["exercise"], entry["done"]["reps"]) == ("Ring row", 8)
    refused.get_by_role("button", name="Try again").click()
    expect(desktop.get_by_text("▲ 1 not taken")).to_be_visible()
    with sqlite3.connect(serving.database) as database:
        database.execute(f"insert into session values ({', '.join('?' * len(row))})", row)
    refused.get_by_text("What to do?").click()
    with desktop.expect_response(lambda answer: answer.request.method == "PUT" and answer.ok):
        refused.get_by_role("button", name="Try again").click()
    expect(refused).to_have_count(0)
    expect(desktop.get_by_text("kept on this device")).to_have_count(0)
    assert rows(serving, "select reps from bout join session on session.id = session_id where title = 'Gone'") == [
        (8,)
    ]


def test_what_was_refused_is_let_go_at_the_second_word(desktop, serving):
    begin(desktop)
    ready_offline(desktop)
    desktop.context.set_offline(True)
    record(desktop, 5, 2)
    with sqlite3.connect(serving.database) as database:
        database.execute("delete from session where title = 'Browser day'")
    desktop.context.set_offline(False)
    refused = desktop.get_by_role("region", name="Not taken by the record")
    refused.get_by_text("What to do?").click(timeout=20_000)
    refused.get_by_role("button", name="Let go").click()
    desktop.reload()
    refused.get_by_text("What to do?").click()
    refused.get_by_role("button", name="Let go").click()
    refused.get_by_role("button", name="Really let go?").click()
    expect(refused).to_have_count(0)
    desktop.reload()
    expect(desktop.get_by_role("heading", level=1)).to_be_visible()
    expect(refused).to_have_count(0)


def test_the_end_of_a_rest_is_seen_by_who_looks_away(desktop):
    begin(desktop, "# Browser day\nRing row: 2 x 8 at bw rest 3s\n")
    record(desktop, 8, 1)
    clock = desktop.get_by_role("region", name="Clock")
    expect(clock).not_to_have_class(re.compile(r"\bflash\b"))
    expect(clock).to_have_class(re.compile(r"\bflash\b"))
    expect(clock).to_contain_text("Rest is over")
    desktop.get_by_role("button", name="Begin").click()
    expect(clock).not_to_have_class(re.compile(r"\bflash\b"))


def test_cues_set_up_half_reps_and_loads_are_noted_and_come_back(desktop, serving):
    begin(desktop)
    record(desktop, 5, 2)
    desktop.get_by_role("button", name="More: half reps").click()
    desktop.get_by_role("button", name="More: half reps").click()
    desktop.get_by_role("button", name="Change it").click()
    desktop.get_by_role("button", name="belt", exact=True).click()
    cue = desktop.get_by_label("Cue for next time")
    cue.fill("hips lower")
    cue.press("Enter")
    expect(desktop.get_by_role("status").filter(has_text="saved")).to_be_visible()
    ((setup, partial, note),) = rows(serving, "select setup, partial_reps, note from bout where note <> ''")
    assert (setup, partial, note) == ('["belt"]', 2, "hips lower")
    desktop.get_by_role("button", name="Change the plan").click()
    desktop.get_by_role("menuitem", name="End it here").click()
    desktop.get_by_role("button", name="Finish the session").click()
    desktop.wait_for_url("**/ledger/*")
    begin(desktop, SHORT.replace("100", "90"))
    expect(desktop.get_by_text("Cue from last time: hips lower")).to_be_visible()


def test_a_hold_is_counted_in_seconds_and_its_end_is_heard(desktop, serving):
    desktop.add_init_script(
        "window.buzzed = []; navigator.vibrate = (pattern) => buzzed.push(Math.round(performance.now()));"
    )
    begin(desktop, "# Browser day\nHollow hold: 2 x hold 2s rest 60s\n")
    desktop.get_by_role("button", name="Begin").click()
    began = desktop.evaluate("performance.now()")
    while not desktop.evaluate("buzzed.length > 0"):
        desktop.wait_for_timeout(50)
    assert desktop.evaluate("buzzed[0]") - began > 1_500
    desktop.get_by_role("button", name=re.compile("^Done")).click()
    held = desktop.get_by_role("radiogroup", name="Seconds held")
    held.get_by_role("radio", name="5 seconds").click()
    expect(desktop.get_by_text("5 s held")).to_be_visible()
    held.get_by_role("radio", name="0 seconds", exact=True).click()
    expect(desktop.get_by_text("Held shorter than planned")).to_be_visible()
    expect(desktop.get_by_role("status").filter(has_text="saved")).to_be_visible()
    assert [row[7:10] for row in recorded(serving)] == [(0, 0, 0)]


AGAINST_THE_CLOCK = """# Browser day
pair, for 2 min:
  Push-up: 8 leave 2
  Ring row: 6 leave 2
Kettlebell swing: 3 x 5 at 24 kg every 60s
"""


def test_a_block_takes_the_rounds_that_fit_and_starts_keep_to_the_clock(desktop, serving):
    desktop.clock.install()
    begin(desktop, AGAINST_THE_CLOCK)
    load, panel = desktop.get_by_role("region", name="Load"), desktop.get_by_role("region", name="Clock")

    def press(then):
        desktop.keyboard.press("Space")
        desktop.clock.run_for(then * 1000)

    def left(name):
        return float(panel.get_by_role("timer", name=name).get_attribute("data-left"))

    expect(load).to_contain_text("Push-up · Set 1 of 2")
    for _ in range(4):
        press(10)
        press(2)
    expect(load).to_contain_text("Push-up · Set 3 of 3")
    assert 55 < left("Left of the block") <= 72
    press(10)
    desktop.clock.run_for(70_000)
    expect(panel.get_by_text("The time of the block is over")).to_be_visible()
    press(2)
    expect(load).to_contain_text("Kettlebell swing · Set 1 of 3")
    desktop.get_by_role("button", name="Undo").click()
    expect(load).to_contain_text("Push-up · Set 3 of 3")
    expect(panel.get_by_text("The block is over")).to_be_visible()
    desktop.get_by_role("button", name="Leave the block").click()
    expect(load).to_contain_text("Kettlebell swing · Set 1 of 3")
    desktop.clock.run_for(1_000)
    press(20)
    press(1)
    expect(panel.get_by_text("Until the next start")).to_be_visible()
    assert 30 < left("Rest left") <= 40
    desktop.clock.run_for(45_000)
    expect(panel.get_by_text("Start now")).to_be_visible()
    press(20)
    press(1)
    assert 20 < left("Rest left") <= 35  # five seconds late, so five less are left
    expect(desktop.get_by_role("status").filter(has_text="saved")).to_be_visible()
    assert len(recorded(serving)) == 6


def test_tapped_reps_are_timed_and_their_slowing_told(desktop, serving):
    desktop.clock.install()
    begin(desktop, "# Browser day\nBack squat: 5 at 60 kg leave 2 tempo 2-0-1-0\nRing row: 8 at bw\n")
    desktop.keyboard.press("Space")
    expect(desktop.get_by_text("rep 1 at 2-0-1-0")).to_be_visible()
    for pause in (3, 3, 3, 9):
        desktop.clock.run_for(pause * 1_000)
        desktop.keyboard.press("Space")
    desktop.keyboard.press("Enter")
    expect(desktop.get_by_text("4 done")).to_be_visible()
    expect(desktop.get_by_text("about 0 left, by the look of it.")).to_be_visible()
    expect(desktop.get_by_role("status").filter(has_text="saved")).to_be_visible()
    (times,) = rows(serving, "select rep_seconds from bout where rep_seconds is not null")[0]
    assert len(times.split(",")) == 4


def test_warm_ups_are_there_and_skipped(desktop, serving):
    desktop.goto("/kit")
    desktop.get_by_label("Warm-ups").select_option("few big jumps")
    begin(desktop)
    load = desktop.get_by_role("region", name="Load")
    expect(load).to_contain_text("Warm-up 1 of")
    record(desktop, 8, 4)
    expect(load).to_contain_text("Warm-up 2 of")
    desktop.keyboard.press("w")
    expect(load).to_contain_text("Set 1 of 3")
    expect(desktop.get_by_text("0 kg so far")).to_be_visible()


def test_the_clock_stops_and_goes_on(desktop):
    begin(desktop)
    record(desktop, 5, 2)
    desktop.keyboard.press("p")
    expect(desktop.get_by_text("The clock stands")).to_be_visible()
    before = desktop.get_by_role("timer").inner_text()
    desktop.wait_for_timeout(1_600)
    assert desktop.get_by_role("timer").inner_text() == before
    desktop.keyboard.press("p")
    desktop.wait_for_timeout(1_600)
    assert desktop.get_by_role("timer").inner_text() != before


def test_two_devices_say_different_things_and_the_lifter_chooses(desktop, other, serving):
    begin(desktop)
    other.goto(desktop.url)
    other.get_by_role("button", name="Begin").wait_for()
    record(desktop, 5, 2)
    expect(desktop.get_by_role("status").filter(has_text="saved")).to_be_visible()
    other.get_by_role("button", name="Begin").click()
    row = other.get_by_role("radio", name="4 reps").bounding_box()
    other.get_by_role("radio", name="4 reps").click()
    other.get_by_role("radio", name="0 left", exact=True).click()
    expect(other.get_by_text("two devices say different things")).to_be_visible()
    assert other.get_by_role("radio", name="4 reps").bounding_box() == row
    assert axe(other) == []
    other.get_by_role("button", name="Here: 4 at 100 kg, 0 left").click()
    expect(other.get_by_role("status").filter(has_text="saved")).to_be_visible()
    assert [row[7] for row in recorded(serving)] == [4]


def test_of_two_devices_that_come_back_online_together_one_is_taken_and_the_other_asks(desktop, other, serving):
    begin(desktop)
    ready_offline(desktop)
    other.goto(desktop.url)
    ready_offline(other)
    for page, reps, left in ((desktop, 5, 2), (other, 4, 0)):
        page.context.set_offline(True)
        record(page, reps, left)
        expect(page.get_by_text("kept on this device (1)")).to_be_visible()
    for page in (desktop, other):
        page.context.set_offline(False)
    asks, saved = "two devices say different things", "● saved"
    for page in (desktop, other):
        expect(page.get_by_text(asks).or_(page.get_by_text(saved))).to_be_visible(timeout=20_000)
    (first,) = [page for page in (desktop, other) if not page.get_by_text(asks).is_visible()]
    second = other if first is desktop else desktop
    taken, refused = (5, 4) if first is desktop else (4, 5)
    expect(second.get_by_text(asks)).to_be_visible()
    assert [row[7] for row in recorded(serving)] == [taken]
    second.get_by_role("button", name=f"Here: {refused} at 100 kg").click()
    expect(second.get_by_role("status").filter(has_text="saved")).to_be_visible()
    assert [row[7] for row in recorded(serving)] == [refused]
    assert len(rows(serving, "select * from bout_version where document is not null")) > 1


def test_two_devices_change_the_plan_and_both_changes_stay(desktop, other):
    begin(desktop)
    other.goto(desktop.url)
    other.get_by_role("button", name="Begin").wait_for()
    for page, change in ((desktop, "One more set of back squat"), (other, "Leave this set out")):
        page.get_by_role("button", name="Change the plan").click()
        page.get_by_role("menuitem", name=change).click()
        expect(page.get_by_role("status").filter(has_text="saved")).to_be_visible()
    expect(other.get_by_text("Back squat · Set 2 of 4")).to_be_visible()
    desktop.reload()
    expect(desktop.get_by_text("Back squat · Set 2 of 4")).to_be_visible()


LOOKED_AT = """async () => {
    const at = Date.now();
    document.dispatchEvent(new Event("visibilitychange"));
    for (let turn = 0; turn < 2; turn++)
        await new Promise((done) => {
            const { port1, port2 } = new MessageChannel();
            port1.onmessage = done;
            port2.postMessage(0);
        });
    return [Number(document.querySelector("[role=timer]").dataset.left) * 1000, at];
}"""


def test_the_clock_drifts_no_more_than_50_ms_in_ten_minutes_hidden(desktop):
    """The page's clock jumps ahead as a throttled, hidden page's does; looked at again, it is right at once."""
    desktop.clock.install()
    begin(desktop, SHORT.replace("rest 3:00", "rest 15:00"))
    desktop.clock.run_for(600)
    desktop.get_by_role("button", name="Begin").click()
    desktop.clock.run_for(400)
    desktop.get_by_role("radio", name="5 reps").click()
    desktop.clock.run_for(400)
    expect(desktop.get_by_role("timer")).to_have_text(re.compile("15:00|14:59"))
    desktop.evaluate("Object.defineProperty(document, 'visibilityState', {value: 'hidden', configurable: true})")
    before, at = desktop.evaluate(LOOKED_AT)
    for _ in range(10):
        desktop.clock.fast_forward(60_000)
        desktop.clock.run_for(1_000)
    after, then = desktop.evaluate(LOOKED_AT)
    drift = abs((before - after) - (then - at))
    print(f"drift over {(then - at) / 1000:.0f} s hidden: {drift:.1f} ms")
    assert then - at >= 600_000
    assert drift <= 50


def test_from_tap_to_paint_under_a_slow_processor(desktop):
    """Printed, not judged by a clock: p95 of thirty real taps at a quarter of the speed (aim 100 ms).

    Figures are the browser's own (Event Timing, in steps of 8 ms): from finger down to the marked rep painted, and
    from finger up to the record of it painted.
    """
    begin(desktop)
    desktop.get_by_role("button", name="Begin").click()
    session = desktop.context.new_cdp_session(desktop)
    session.send("Emulation.setCPUThrottlingRate", {"rate": 4})
    desktop.evaluate(
        """() => {
        window.told = { pointerdown: [], pointerup: [] };
        const watch = (list) => list.getEntries().forEach((seen) => told[seen.name]?.push(seen.duration));
        new PerformanceObserver(watch).observe({ type: "event", durationThreshold: 16 });
    }"""
    )
    for tap in range(30):
        desktop.locator(f'[data-rep="{1 + tap % 6}"]').hover()
        desktop.mouse.down()
        desktop.wait_for_timeout(70)
        desktop.mouse.up()
        desktop.wait_for_timeout(250)
    expect(desktop.get_by_role("radio", name="6 reps")).to_be_checked()
    for name, told in desktop.evaluate("() => told").items():
        taken = sorted([16] * (30 - len(told)) + told)  # what is quicker than 16 ms is not told
        print(f"tap to paint under 4x, {name}: p50 {taken[15]:.0f} ms, p95 {taken[28]:.0f} ms")


def test_a_range_is_settled_by_how_the_last_warm_up_moved(desktop, serving):
    begin(desktop, "# Browser day\nBack squat: 3 at 100-110 kg leave 1; 3 at top -10% leave 3\n")
    load = desktop.get_by_role("region", name="Load")
    ways = load.get_by_role("group", name=re.compile("How did the last warm-up move"))
    expect(ways).to_contain_text("100 to 110 is planned.")
    ways.get_by_role("button", name="light: 110").click()
    expect(load).to_contain_text("110kg")
    expect(desktop.get_by_role("group", name="Score of Back squat")).to_contain_text("100")
    ways.get_by_role("button", name="as usual: 100").click()
    expect(load).to_contain_text("100kg")
    record(desktop, 3, 1)
    expect(ways).to_have_count(0)
    expect(desktop.get_by_role("status").filter(has_text="saved")).to_be_visible()
    assert [row[6] for row in recorded(serving)] == [100]
    assert axe(desktop) == []


def test_an_overshot_top_set_moves_the_rest_offline_and_a_key_leaves_it(desktop, serving):
    """None left where two were planned, with a known max: the back-off and what shares muscles follow."""
    bench = "Bench press: 3 at 85 kg leave 2; 3 x 5 at 75 kg leave 2"
    close = "Close-grip bench press: 2 x 6 at 70 kg"
    begin(desktop, f"# Browser day\n{bench}\n{close}\n")
    ready_offline(desktop)
    desktop.context.set_offline(True)
    record(desktop, 3, 0)
    advice = desktop.get_by_role("status", name="Advice")
    expect(advice).to_contain_text("None left where")
    expect(advice).to_contain_text(re.compile(r"Today looks about \d+ % under the estimated max"))
    expect(advice).to_contain_text("Close-grip bench press (shares its muscles)")
    score = desktop.get_by_role("group", name="Score of Bench press")
    expect(score).to_contain_text(re.compile(r"75 → (65|70)"))
    desktop.keyboard.press("l")
    expect(score).not_to_contain_text("→")
    desktop.keyboard.press("u")
    record(desktop, 3, 0)
    desktop.keyboard.press("a")
    expect(score).to_contain_text(re.compile(r"(65|70)$"))
    desktop.context.set_offline(False)
    expect(desktop.get_by_role("status").filter(has_text="saved")).to_be_visible(timeout=20_000)
    (adjusted,) = rows(serving, "select adjustments from session where title = 'Browser day'")
    assert set(json.loads(adjusted[0])["loads"]) == {"1.1", "2.1"}


def test_a_bad_day_is_counted_once_with_a_connection(phone, serving):
    """With tables made anew after each change: the press goes lighter twice, what shares its muscles once."""
    dips = "Dip: 2 x 6 at bw+10 kg leave 2"
    begin(phone, f"# Browser day\nBench press: 4 x 5 at 80 kg leave 2 rest 3:00\n{dips}\n")
    advice = phone.get_by_role("status", name="Advice")
    loads = []
    for lighter in range(2):
        record(phone, 5, 0)
        expect(advice).to_contain_text("None left where")
        expect(advice.get_by_text("shares its muscles")).to_have_count(1 - lighter)
        expect(advice.get_by_text("under the estimated max")).to_have_count(1 - lighter)
        use = advice.get_by_role("button", name=re.compile("^Use .* kg"))
        kg = re.search(r"Use ([\d.]+) kg", use.inner_text())[1]
        with phone.expect_response(lambda answer: "/api/floor/" in answer.url and answer.request.method == "GET"):
            use.tap()
        expect(advice.get_by_role("button", name=f"{kg} kg it is")).to_be_disabled()
        phone.wait_for_load_state("networkidle")
        expect(advice).to_contain_text(f"Drop to {kg} for the rest.")
        expect(advice.get_by_role("button", name=f"{kg} kg it is")).to_be_disabled()
        loads.append(float(kg))
        phone.wait_for_timeout(520)
    record(phone, 5, 2)
    expect(advice).to_have_text(f"As planned: stay at {loads[1]:g}.")
    phone.wait_for_timeout(520)
    record(phone, 5, 2)
    phone.wait_for_timeout(520)
    record(phone, 6, 4)
    use = advice.get_by_role("button", name=re.compile("^Use "))
    assert re.fullmatch(r"Use bw\+[\d.]+", use.inner_text())
    expect(phone.get_by_role("status").filter(has_text="saved")).to_be_visible()
    (adjusted,) = rows(serving, "select adjustments from session where title = 'Browser day'")
    changes = json.loads(adjusted[0])["loads"]
    assert [float(each["kg"]) for each in changes["1.1"]] == loads
    assert len(changes["2.1"]) == 1
    assert [row[6] for row in recorded(serving)] == [80, *loads, loads[1], float(changes["2.1"][0]["kg"])]


def test_a_rep_that_is_tapped_is_one_word_whatever_moves_under_the_finger(phone, serving):
    """What comes next takes another height: a click after the tap would fall on a number that nobody meant."""
    pair = "pair, 2 rounds, rest 90s:\n  Ring dip: 7 at bw+7.5 kg leave 2\n  Ring row: 7 at bw-2.5 kg leave 1"
    begin(
        phone,
        f"# Browser day\nBench press: 2 x 7 at 60 kg leave 2 rest 3:00\n{pair}\nLeg press: 7 at 80 kg leave 2\n",
    )
    phone.evaluate("""
        window.clicked = [];
        const words = ({ target }) => target.closest("button")?.textContent ?? "no button";
        addEventListener("click", (click) => clicked.push(words(click)), true);
    """)
    for _ in range(6):
        phone.get_by_role("button", name=re.compile("^(Go now|Begin)")).tap()
        phone.get_by_role("radio", name="7 reps").tap()
        phone.wait_for_timeout(520)
    expect(phone.get_by_role("status").filter(has_text="saved")).to_be_visible()
    assert [(row[7], row[11]) for row in recorded(serving)] == [(7, None)] * 6
    assert all(re.match("Go now|Begin", words) for words in phone.evaluate("clicked"))
    phone.get_by_role("radio", name="2 left", exact=True).tap()
    expect(phone.get_by_text("7 done, 2 left in the tank")).to_be_visible()


def test_another_load_that_was_lifted_takes_the_rest_with_it_offline(desktop, serving):
    """The sets to come and what is told by the top set follow, once the lifter says so."""
    begin(desktop, "# Browser day\nBack squat: 2 x 3 at 100 kg leave 2; 1 x 5 at top -10% leave 3 rest 3:00\n")
    ready_offline(desktop)
    desktop.context.set_offline(True)
    record(desktop, 3, 2)
    desktop.get_by_role("button", name="Another load?").click()
    desktop.get_by_label("Lifted, kg").fill("105")
    desktop.get_by_role("button", name="Note it").click()
    advice = desktop.get_by_role("status", name="Advice")
    expect(advice).to_contain_text("105 lifted where 100 was planned.")
    score = desktop.get_by_role("group", name="Score of Back squat")
    expect(score).to_contain_text("100 → 105")
    expect(score).to_contain_text("90 → 95")
    load = desktop.get_by_role("region", name="Load")
    expect(load).not_to_contain_text("No plate change")
    assert axe(desktop) == []
    advice.get_by_role("button", name="Use 105 kg").click()
    expect(advice).to_contain_text("105 kg it is")
    expect(load).to_contain_text("105")
    expect(load).to_contain_text("No plate change")
    desktop.context.set_offline(False)
    expect(desktop.get_by_role("status").filter(has_text="saved")).to_be_visible(timeout=20_000)
    record(desktop, 3, 2)
    expect(advice).not_to_contain_text("lifted where")
    expect(desktop.get_by_role("status").filter(has_text="saved")).to_be_visible()
    assert [row[6] for row in recorded(serving)] == [105, 105]


def test_gear_goes_on_at_its_load_and_the_record_knows(desktop, serving):
    """A load changed on the floor changes what is worn with it, with no connection either."""
    begin(desktop, "# Browser day\nBack squat [belt from 105 kg]: 3 at 100 kg; 3 at 110 kg; 3 at 110 kg\n")
    ready_offline(desktop)
    desktop.context.set_offline(True)
    load = desktop.get_by_role("region", name="Load")
    expect(load).not_to_contain_text("belt")
    record(desktop, 3, 3)
    expect(load).to_contain_text("Belt on from here.")
    record(desktop, 3, 2)
    desktop.context.set_offline(False)
    expect(desktop.get_by_role("status").filter(has_text="saved")).to_be_visible(timeout=20_000)
    worn = rows(
        serving, "select setup from bout join session on session.id = session_id where title = 'Browser day'"
    )
    assert [json.loads(setup) for (setup,) in worn] == [[], ["belt"]]


PREPARED = """# Prepared day
prep: hip drills 5 min, heat on the left elbow
Overhead press: 2 x 5 at 40 kg leave 2 rest 60s
"""


@pytest.mark.parametrize("size", ["desktop", "phone"])
def test_what_is_done_before_the_first_lift_is_ticked_and_stays_with_the_session(request, size):
    page = request.getfixturevalue(size)
    compose(page, PREPARED)
    expect(page.get_by_text("Before you lift: hip drills (5 min), heat on the left elbow")).to_be_visible()
    page.get_by_role("button", name="Save as planned").click()
    page.wait_for_url("**/")
    start(page, "Prepared day", "On to overhead press")
    prepare = page.get_by_role("region", name="Before you lift")
    expect(prepare.get_by_role("checkbox")).to_have_count(2)
    assert axe(page) == []
    ready_offline(page)
    page.context.set_offline(True)
    prepare.get_by_label(re.compile("heat on the left elbow")).check()
    expect(page.get_by_text("kept on this device (1)")).to_be_visible()
    page.reload()
    expect(prepare.get_by_label(re.compile("heat on the left elbow"))).to_be_checked()
    expect(prepare.get_by_label(re.compile("hip drills"))).not_to_be_checked()
    page.context.set_offline(False)
    page.keyboard.press("Space")
    expect(page.get_by_role("region", name="Load")).to_contain_text("Overhead press")
    page.get_by_role("button", name="Before you lift").click()
    prepare.get_by_label(re.compile("hip drills")).check()
    prepare.get_by_role("button", name="On to overhead press").click()
    for _ in range(2):
        bout_by_key(page)
    expect(page.get_by_role("status").filter(has_text="saved")).to_be_visible()
    page.get_by_role("button", name="Finish the session").click()
    page.wait_for_url("**/ledger/**")
    expect(page.get_by_text("Prepared with heat on the left elbow")).to_have_count(0)
    expect(page.get_by_text("Prepared with hip drills (5 min), heat on the left elbow.")).to_be_visible()


def test_a_press_that_ends_over_the_menu_takes_nothing_of_it(desktop):
    begin(desktop)
    button = desktop.get_by_role("button", name="Change the plan").bounding_box()
    desktop.mouse.move(button["x"] + 20, button["y"] + 20)
    desktop.mouse.down()
    end_it = desktop.get_by_role("menuitem", name="End it here")
    expect(end_it).to_be_visible()
    item = end_it.bounding_box()
    desktop.mouse.move(item["x"] + 20, item["y"] + 20, steps=5)
    desktop.mouse.up()
    desktop.wait_for_timeout(300)
    expect(end_it).to_be_visible()
    end_it.click()
    expect(desktop.get_by_role("button", name="Finish the session")).to_be_visible()
