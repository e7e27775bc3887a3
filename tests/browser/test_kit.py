"""Kit: what is on the rack, by typing and by clicking; places; bands weighed; the calculator from anywhere."""

import json
import re

from playwright.sync_api import expect

from tests.browser.test_loop import write
from tests.browser.test_views import axe


def test_the_rack_is_filled_by_typing_and_by_clicking(desktop):
    desktop.goto("/kit")
    plates = desktop.get_by_label("Plates: pairs × kg")
    expect(plates).to_have_value("2x25 1x20 1x10 1x5 1x2.5")
    desktop.get_by_role("button", name="1.25", exact=True).click()
    expect(plates).to_have_value("2x25 1x20 1x10 1x5 1x2.5 1x1.25")
    plates.fill("2x20 heavy")
    plates.press("Enter")
    expect(desktop.get_by_role("alert").first).to_contain_text("“heavy” is not a number of pairs and a plate")
    plates.fill("2x20 0.5x15 1x45lb")
    plates.press("Enter")
    expect(desktop.get_by_role("img", name=re.compile("1 × 15 kg"))).to_be_visible()
    desktop.get_by_label("Dumbbells, kg").fill("10-20 by 5")
    desktop.get_by_label("Dumbbells, kg").press("Enter")
    expect(desktop.get_by_label("Dumbbells, kg")).to_have_value("10 15 20")
    assert axe(desktop) == []
    desktop.reload()
    expect(plates).to_have_value("1x45lb 2x20 0.5x15")


def test_places_are_added_used_saved_read_and_left(desktop, tmp_path):
    desktop.goto("/kit")
    with desktop.expect_download() as download:
        desktop.get_by_role("button", name="Save as a file").click()
    kit = json.loads(download.value.path().read_text())
    kit["place"] = "The cellar"
    (tmp_path / "cellar.json").write_text(json.dumps(kit))
    desktop.get_by_role("button", name="Another place").click()
    expect(desktop.get_by_label("Name of the place")).to_have_value("Another place")
    desktop.get_by_label("Read a file").set_input_files(tmp_path / "cellar.json")
    expect(desktop.get_by_label("Name of the place")).to_have_value("The cellar")
    desktop.get_by_role("button", name="Train here").click()
    expect(desktop.get_by_role("button", name="The cellar here")).to_be_visible()
    desktop.get_by_role("button", name="Take this place away").click()
    expect(desktop.get_by_text("The cellar is gone.")).to_be_visible()
    desktop.get_by_role("button", name="Put it back").click()
    expect(desktop.get_by_role("button", name="The cellar")).to_be_visible()


def test_bands_are_worked_out_from_the_scale(desktop):
    desktop.goto("/kit")
    desktop.get_by_text("Work out what each band adds").click()
    desktop.get_by_label("What the scale showed").fill("green: 18\nred: 30\ngreen + red = 49")
    desktop.get_by_role("button", name="Work it out").click()
    bands = desktop.get_by_role("region", name="Bands, by the pair")
    expect(bands.get_by_text("give or take 0.5 kg.").first).to_be_visible()
    desktop.get_by_role("link", name="Compose").click()
    write(desktop, "# Bands\nBench press [green bands]: 3 at 60 kg")
    expect(desktop.get_by_text("Bottom 60, top 78.3, 69.15 on average.")).to_be_visible()


def test_the_calculator_is_one_key_away(desktop):
    desktop.goto("/ledger")
    expect(desktop.get_by_role("heading", name="Ledger")).to_be_visible()
    desktop.keyboard.press("b")
    dialog = desktop.get_by_role("dialog", name="On the bar")
    dialog.get_by_label("What do I put on for, kg").fill("141, 120")
    expect(dialog.get_by_text("141 cannot be built here; 140 and 145 can.")).to_be_visible()
    expect(dialog.get_by_text("Take the outer 10 off each side.")).to_be_visible()
    dialog.get_by_label("What is on this bar?").fill("25 20 5")
    expect(dialog.get_by_text("120 kg with the 20 kg bar")).to_be_visible()
    assert axe(desktop) == []


def test_the_lifter_weighs_in(desktop):
    desktop.goto("/kit")
    weight = desktop.get_by_role("region", name="Body weight")
    weight.get_by_label("Body weight, kg").fill("83,4")
    weight.get_by_role("button", name="Note it").click()
    expect(weight.get_by_text("83.4 kg")).to_be_visible()
    desktop.get_by_label("Warm-ups").select_option("")
    desktop.get_by_role("link", name="Today").click()
    expect(desktop.get_by_role("heading", name="Press and row")).to_be_visible()
    expect(desktop.get_by_text("Warm up:")).to_have_count(0)
