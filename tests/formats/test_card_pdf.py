"""The card as a PDF, read back by another library (pypdf)."""

from datetime import UTC, date, datetime
from io import BytesIO

from hypothesis import given, settings
from pypdf import PdfReader

from fortis.core.card import card_of
from fortis.core.structure.notation import read
from fortis.core.structure.prescription import lay_out
from fortis.formats.card_pdf import write_card
from tests.strategies import sessions_of

NOW = datetime(2026, 3, 2, 9, tzinfo=UTC)


def printed(session, **more):
    card = card_of(session, lay_out(session), date(2026, 3, 2), "about 40 min, 30 reps", **more)
    return PdfReader(BytesIO(write_card(card, NOW)))


def test_a_session_is_on_one_sheet_with_all_that_is_asked():
    pdf = printed(
        read("# Żuraw, Πιέσεις\nBack squat [belt]: 3 x 5 at 102.5 kg leave 2 rest 3:00"),
        cues={"Back squat": "hips lower"},
    )
    (page,) = pdf.pages
    text = page.extract_text()
    for part in ("Żuraw, Πιέσεις", "Monday, 2 March 2026", "about 40 min, 30 reps", "Back squat", "belt"):
        assert part in text
    assert "From last time: hips lower" in text
    assert (text.count("5 leave 2"), text.split().count("102.5"), text.split().count("3:00")) == (3, 4, 3)
    assert pdf.metadata.title == "Żuraw, Πιέσεις"
    assert [round(float(side) / 72 * 25.4) for side in page.mediabox[2:]] == [210, 297]


def test_a_long_session_goes_on_over_sheets_with_nothing_beyond_their_edge():
    line = "Curl: 6 sets of (12 to failure, drop 20% to failure, drop 20% to failure) each side rest 2:00"
    pdf = printed(read("\n".join([line] * 8)))
    assert len(pdf.pages) > 2
    places = []
    for page in pdf.pages:
        page.extract_text(visitor_text=lambda text, _, at, *__: text.strip() and places.append((at[4], at[5])))
    assert min(y for _, y in places) > 20
    assert all(20 < x < 595 - 20 for x, _ in places)
    assert sum(page.extract_text().count("max to failure") for page in pdf.pages) == 8 * 6 * 2 * 2


@settings(max_examples=6)
@given(sessions_of())
def test_every_session_can_be_printed(session):
    pdf = printed(session)
    text = " ".join(page.extract_text() for page in pdf.pages)
    assert all(name in text for group in session.groups for name in [group.entries[0].exercise] if name.isascii())
