"""Takes the pictures in docs/screenshots from the demo: `make screenshots`."""

import re
import tempfile
from pathlib import Path

from playwright.sync_api import Browser, Page, sync_playwright

from fortis.demo.log import make_demo
from tests.browser.test_import import STRANGE, bring
from tests.browser.test_loop import compose
from tests.serving import CHROMIUM, FLAGS, Serving

FOLDER = Path(__file__).parents[2] / "docs" / "screenshots"
DESKTOP = {"viewport": {"width": 1280, "height": 800}}
PHONE = {"viewport": {"width": 390, "height": 844}, "has_touch": True, "is_mobile": True}


def shoot(page: Page, name: str) -> None:
    """Take one picture, once the page has come to rest."""
    page.wait_for_timeout(700)
    page.screenshot(path=FOLDER / f"{name}.png")


def record(page: Page, left: int) -> None:
    """Start the next bout, and record it with the reps that were planned: a second tap at once would not count."""
    page.wait_for_timeout(600)
    page.get_by_role("button", name=re.compile("^(Go now|Begin)")).click()
    page.get_by_role("button", name=re.compile("^Done")).click()
    page.get_by_role("radio", name=f"{left} left", exact=True).click()


def gallery(page: Page, name: str) -> None:
    """All structures, drawn."""
    page.set_viewport_size({"width": 1280, "height": 1560})
    page.goto("/compose")
    page.get_by_role("button", name="Structures").click()
    page.get_by_role("button", name="Cluster").click()
    shoot(page, name)
    page.set_viewport_size(DESKTOP["viewport"])


def plan(page: Page, written: str) -> None:
    """Write a session and save it for today."""
    compose(page, written)
    page.get_by_role("button", name="Save as planned").click()
    page.wait_for_url("**/")


def start(page: Page, title: str) -> None:
    """Start a planned session, its first warm-up skipped."""
    page.goto("/")
    heading = page.get_by_role("heading", name=title, level=1)
    page.locator("section", has=heading).get_by_role("button", name="Start").click()
    page.wait_for_url("**/floor/*")
    page.get_by_role("button", name="Begin").wait_for()
    page.keyboard.press("w")
    page.get_by_role("button", name="Skip the warm-up").wait_for(state="hidden")


def floor(desktop: Page, phone: Page, dim: Page) -> None:
    """The Floor at work, and in a drop."""
    start(desktop, "Press and row")
    record(desktop, 3)
    record(desktop, 1)
    shoot(desktop, "floor")
    for page, name in ((phone, "floor-phone"), (dim, "floor-phone-dark")):
        page.goto(desktop.url)
        shoot(page, name)
    plan(desktop, "# Strip\nBench press: 1 set of (8 at 85 kg to failure, drop 20%, drop 20%)\nRing row: 2 x 8")
    start(desktop, "Strip")
    record(desktop, 0)
    shoot(desktop, "floor-drop")


def views(desktop: Page, phone: Page, dim: Page) -> None:
    """Go through the views as a lifter would."""
    desktop.goto("/")
    desktop.get_by_role("heading", name="Press and row").wait_for()
    shoot(desktop, "today")
    phone.goto("/")
    phone.get_by_role("heading", name="Press and row").wait_for()
    shoot(phone, "today-phone")
    desktop.goto("/compose")
    desktop.get_by_role("button", name="Start from an example").click()
    desktop.get_by_role("group", name="Score of Trap-bar deadlift").click()
    shoot(desktop, "compose")
    gallery(desktop, "structures")
    desktop.keyboard.press("Escape")
    desktop.goto("/kit")
    shoot(desktop, "kit")
    desktop.goto("/ledger")
    shoot(desktop, "ledger")
    desktop.get_by_role("link", name="Legs", exact=True).first.click()
    desktop.get_by_role("region", name="As it was played").wait_for()
    shoot(desktop, "past-session")
    desktop.go_back()
    desktop.get_by_role("link", name="Week of").nth(-2).click()
    desktop.get_by_role("heading", name="In numbers").wait_for()
    shoot(desktop, "week")
    bring(desktop, STRANGE)
    desktop.get_by_role("button", name="Write").wait_for()
    shoot(desktop, "import")
    for page, name in ((desktop, "strength"), (phone, "strength-phone")):
        strength(page, name)
    for page, name in ((desktop, "season"), (phone, "season-phone")):
        page.goto("/season")
        page.get_by_role("region", name="The week").wait_for()
        shoot(page, name)
    desktop.goto("/season/day")
    desktop.get_by_label("Opener at").first.wait_for()
    shoot(desktop, "meet-day")
    floor(desktop, phone, dim)


def strength(page: Page, name: str) -> None:
    """What is known of a lift."""
    page.goto("/strength?lift=front-squat&setup=belt")
    page.get_by_text("bouts it is known from").wait_for()
    page.get_by_text("sets near failure were foretold").wait_for(timeout=60_000)
    shoot(page, name)


def main() -> None:
    """Serve a fresh demo and take all the pictures."""
    FOLDER.mkdir(parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory() as folder, sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=CHROMIUM, args=FLAGS)
        weeks, year = (Serving(Path(folder) / f"{name}.db") for name in ("weeks", "year"))
        make_demo(weeks.database)
        make_demo(year.database, year=True)
        try:
            for serving in (weeks, year):
                serving.start()
            dim = {**PHONE, "color_scheme": "dark"}
            views(*(page(browser, year, options) for options in (DESKTOP, PHONE, dim)))
            strength(page(browser, weeks, DESKTOP), "strength-weeks")
        finally:
            browser.close()
            for serving in (weeks, year):
                serving.kill()


def page(browser: Browser, serving: Serving, options: dict) -> Page:
    """A page of its own."""
    return browser.new_context(base_url=serving.address, **options).new_page()


if __name__ == "__main__":
    main()
