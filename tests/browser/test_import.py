"""A strange log is brought, looked at, corrected, written, and taken back."""

import re

import pytest
from playwright.sync_api import expect

from tests.browser.test_views import axe
from tests.logs import singles_log

STRANGE = (
    "Datum;Übung;Satz;Gewicht (kg);Wdh;Stimmung;Notiz\n"
    '03.03.2026;Kniebeuge;1;100,0;5;gut;"zwei\nZeilen"\n'
    "03.03.2026;Kniebeuge;2;102,5;5;gut;\n"
    "03.03.2026;Kniebeuge;3;102,5;;gut;\n"
    "03.03.2026;Bench press;1;80;8;gut;\n"
    "35.03.2026;Bench press;2;80;7;gut;\n"
    "07.03.2026;Schlitten;1;60;20;gut;\n"
)


def bring(page, content, name="strange.csv"):
    page.goto("/ledger")
    page.get_by_role("link", name="Bring a log").click()
    page.get_by_label("Choose a file").set_input_files(
        {
            "name": name,
            "mimeType": "text/csv",
            "buffer": content if isinstance(content, bytes) else content.encode(),
        }
    )


@pytest.mark.new_lifter
def test_a_strange_log_is_brought_and_taken_back(phone):
    page = phone
    bring(page, STRANGE)
    write = page.get_by_role("button", name="Write 4 bouts into my record")
    expect(write).to_be_visible()
    expect(page.get_by_label("Gewicht (kg) holds")).to_have_value("load")
    expect(page.get_by_label("Decimals follow")).to_have_value(",")
    expect(page.get_by_text("Line 5, Wdh: is empty, so there is no set to take.")).to_be_visible()
    assert axe(page) == []
    squat = page.get_by_label("Kniebeuge is")
    squat.fill("Back squat")
    squat.press("Enter")
    expect(page.get_by_text("Back squat: 5 at 100 kg; 5 at 102.5 kg")).to_be_visible()
    sled = page.get_by_label("Schlitten is")
    sled.fill("")
    sled.press("Enter")
    page.get_by_role("button", name="Write 3 bouts into my record").click()
    expect(page.get_by_text("1 session with 3 bouts are in your record.")).to_be_visible()
    expect(page.get_by_role("region", name="What Fortis makes of it")).to_contain_text("Bench press")
    page.get_by_role("link", name="See them in the Ledger").click()
    expect(page.get_by_role("row").filter(has_text="Back squat, Bench press")).to_contain_text("1,653 kg")
    page.get_by_role("link", name="Session", exact=True).click()
    expect(page.get_by_role("group", name="Score of Back squat")).to_be_visible()
    page.goto("/ledger/import")
    page.get_by_role("button", name="Take it back").click()
    expect(page.get_by_role("button", name="Bring it back")).to_be_visible()
    page.get_by_role("link", name="Ledger", exact=True).last.click()
    expect(page.get_by_text("Nothing has been lifted yet.")).to_be_visible()
    page.goto("/ledger/import")
    page.get_by_role("button", name="Bring it back").click()
    expect(page.get_by_role("button", name="Take it back")).to_be_visible()


@pytest.mark.new_lifter
@pytest.mark.parametrize("width", ["desktop", "phone"])
def test_what_a_log_says_of_todays_strength_is_told_at_once(request, width, today):
    page = request.getfixturevalue(width)
    bring(page, singles_log(today))
    page.get_by_role("button", name=re.compile("^Write [0-9]+ bouts into my record")).click()
    made = page.get_by_role("region", name="What Fortis makes of it")
    squat = made.get_by_role("row").filter(has_text="Back squat")
    expect(squat).to_contain_text(re.compile(r"1[23][0-9](\.5)?\skg"))
    assert axe(page) == []
    squat.get_by_role("link").click()
    expect(page.get_by_role("heading", name="Back squat", level=1)).to_be_visible()


@pytest.mark.new_lifter
def test_a_wrong_guess_is_set_right(desktop):
    page = desktop
    bring(page, "when,what,a,b\n2026-03-02,Squat,5,100\n2026-03-02,Squat,5,100\n")
    expect(page.get_by_label("a holds")).to_have_value("reps")
    page.get_by_label("b holds").select_option("nothing of use")
    expect(page.get_by_text("Back squat: 2 x 5", exact=True)).to_be_visible()
    page.get_by_label("a holds").select_option("the load")
    expect(page.get_by_role("alert")).to_contain_text("No column is said to hold the reps")
    page.get_by_label("b holds").select_option("reps")
    page.get_by_label("Loads without a unit are").select_option("pounds")
    expect(page.get_by_text("Back squat: 2 x 100 at 5 lb")).to_be_visible()


@pytest.mark.new_lifter
def test_what_is_no_table_is_refused_in_words(desktop):
    page = desktop
    bring(page, b"PK\x03\x04", "sheet.xlsx.csv")
    expect(page.get_by_role("alert")).to_contain_text("a spreadsheet or archive")
    page.get_by_role("button", name="Another file").click()
    expect(page.get_by_label("Choose a file")).to_be_attached()
    page.goto("/ledger/import?file=00000000-0000-4000-8000-000000000000")
    expect(page.get_by_role("alert")).to_contain_text("choose it again")
