"""A browser, and a served copy of the demo for each test."""

import sqlite3

import pytest
from playwright.sync_api import expect, sync_playwright

from bench.log import make_log
from fortis.store.database import open_database
from tests import ahead
from tests.serving import CHROMIUM, FLAGS, Serving, Threaded

LONGEST_WAIT = 40_000
"""Milliseconds that anything may take on a busy machine; what takes long for a lifter is measured, not tested."""
expect.set_options(timeout=LONGEST_WAIT)


@pytest.fixture(scope="session")
def browser():
    with sync_playwright() as playwright:
        chromium = playwright.chromium.launch(executable_path=CHROMIUM, args=FLAGS)
        yield chromium
        chromium.close()


@pytest.fixture
def serving(request, demo_at, tmp_path):
    """A served copy of the demo whose lifter plans no warm-ups; a test that wants them turns them on.

    A test marked `alone` gets a server in a process of its own, to kill or to time; one marked `long_log` a year of
    sessions, one marked `new_lifter` none.
    """
    kind = Serving if request.node.get_closest_marker("alone") else Threaded
    served = kind(tmp_path / "demo.db")
    if request.node.get_closest_marker("long_log"):
        make_log(served.database, 1)
    elif request.node.get_closest_marker("new_lifter"):
        open_database(served.database).kw["bind"].dispose()
    else:
        demo_at(served.database)
    with sqlite3.connect(served.database) as database:
        database.execute("update lifter set warm_ups = null")
    database.close()
    served.start()
    yield served
    served.stop()


TELL_VIOLATIONS = """addEventListener("securitypolicyviolation", (told) => {
  const { sourceFile, violatedDirective, blockedURI } = told;
  if (sourceFile.startsWith(location.origin)) console.log("policy:", violatedDirective, blockedURI, sourceFile);
});"""
"""What the page's own scripts do against its policy is a fault; what the browser itself does in a text is not."""


def _device(browser, serving, **options):
    context = browser.new_context(base_url=serving.address, **options)
    context.set_default_timeout(LONGEST_WAIT)
    if ahead.DAYS:
        context.add_init_script(ahead.IN_THE_BROWSER)
    page = context.new_page()
    faults: list[str] = []
    page.on("pageerror", lambda error: faults.append(str(error)))
    page.on("console", lambda said: said.text.startswith("policy:") and faults.append(said.text))
    page.add_init_script(TELL_VIOLATIONS)
    yield page
    context.close()
    assert faults == []


DESKTOP = {"viewport": {"width": 1280, "height": 800}}


@pytest.fixture
def desktop(browser, serving):
    yield from _device(browser, serving, **DESKTOP)


@pytest.fixture
def other(browser, serving):
    """A second device of the same lifter."""
    yield from _device(browser, serving, **DESKTOP)


@pytest.fixture
def phone(browser, serving):
    options = {"viewport": {"width": 390, "height": 844}, "has_touch": True, "is_mobile": True}
    yield from _device(browser, serving, **options)
