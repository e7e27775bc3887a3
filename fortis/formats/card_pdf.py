"""A session card as a PDF, on A4: room to write in every box, the boxes of a set side by side."""

from datetime import datetime
from pathlib import Path

from fpdf import FPDF
from fpdf.enums import MethodReturnValue

from fortis.core.card import Card, CardBout, CardGroup, CardLift, CardSet
from fortis.core.sentence import capitalised

FONTS = Path(__file__).parent / "fonts"
INK, FAINT, HAIRLINE, WORK, REST = (29, 33, 39), (103, 100, 90), (190, 186, 174), (168, 50, 28), (30, 90, 102)

MARGIN, WIDTH, BOTTOM = 14.0, 182.0, 278.0
"""The sheet in mm: margins left and above, the width to print on, and how far down."""
INDENT = 4.0
BOX, SMALL_BOX, HEIGHT, GAP = 27.0, 20.0, 16.0, 10.0
"""A box of a set of one bout, one of several, how high they are, and the room for a rest between sets."""
LINE = 4.6
FOOT = (
    "Loads in kg. In a box: reps, then reps left, 5 / 2. "
    "Sharp or new pain, dizziness or anything in the chest: stop, and ask a licensed professional."
)


def write_card(card: Card, printed_at: datetime) -> bytes:
    """A card as a PDF. What the fonts do not have is printed as an empty square."""
    return bytes(_Sheet(card, printed_at).output())


class _Sheet(FPDF):
    def __init__(self, card: Card, printed_at: datetime) -> None:
        super().__init__(format="A4")
        self.card = card
        self.set_auto_page_break(auto=False)
        self.set_margins(MARGIN, MARGIN)
        self.c_margin = 0
        self.set_title(card.title)
        self.set_creator("Fortis")
        self.set_creation_date(printed_at)
        for family in ("Archivo", "ArchivoExtended"):
            self.add_font(family, "", FONTS / f"{family}-Regular.ttf")
            self.add_font(family, "B", FONTS / f"{family}-Bold.ttf")
        self.add_font("DejaVu", "", FONTS / "DejaVuSans-Subset.ttf")
        self.set_fallback_fonts(["ArchivoExtended", "DejaVu"], exact_match=False)
        self.add_page()
        self._head()
        for group in card.groups:
            self._group(group)
        self._notes()

    def footer(self) -> None:
        """What holds for every sheet, and which of them this is."""
        self.set_xy(MARGIN, BOTTOM + 4)
        self._say(FOOT, 7.5, colour=FAINT, width=WIDTH - 14)
        self.set_xy(MARGIN + WIDTH - 14, BOTTOM + 4)
        self._say(f"{self.page_no()}", 7.5, colour=FAINT, width=14, align="R")

    def _say(
        self, text: str, size: float, *, bold: bool = False, colour: tuple[int, int, int] = INK, width: float = 0,
        align: str = "L", wraps: bool = False,
    ) -> None:  # fmt: skip
        """A text where the pen is; one that may not wrap is made to fit its width."""
        self.set_font("Archivo", "B" if bold else "", size)
        self.set_text_color(*colour)
        height = size * 0.46
        if wraps:
            self.multi_cell(width, height, text, align="L", new_x="LMARGIN", new_y="NEXT")
            return
        broad = self.get_string_width(text)
        if width and broad > width:
            self.set_font_size(max(size * width / broad, 4.0))
        self.cell(width, height, text, align=align)

    def _head(self) -> None:
        card, top = self.card, MARGIN
        self.set_xy(MARGIN, top)
        self._say(card.title, 20, bold=True, width=WIDTH - 50)
        if card.day:
            self.set_xy(MARGIN + WIDTH - 50, top + 2.4)
            self._say(f"{card.day:%A}, {card.day.day} {card.day:%B %Y}", 10.5, width=50, align="R")
        self.set_xy(MARGIN, top + 10)
        self._say(card.summary, 10.5, colour=FAINT, width=WIDTH)
        self.set_y(top + 17)
        if card.before:
            self._say(f"Before you lift: {card.before}", 10.5, width=WIDTH, wraps=True)
            self.set_y(self.get_y() + 2)
        self._rule(INK)

    def _rule(self, colour: tuple[int, int, int]) -> None:
        self.set_draw_color(*colour)
        self.set_line_width(0.25)
        self.line(MARGIN, self.get_y(), MARGIN + WIDTH, self.get_y())
        self.set_y(self.get_y() + 3)

    def _group(self, group: CardGroup) -> None:
        left = MARGIN + (INDENT if group.head else 0)
        self._need(self._height_of(group.lifts[0], left) + (LINE + 1 if group.head else 0))
        top = self.get_y()
        if group.head:
            self.set_x(left)
            self._say(capitalised(group.head), 9.5, colour=FAINT)
            self.set_y(top + LINE + 1)
        for lift in group.lifts:
            self._need(self._height_of(lift, left))
            page, top = self.page_no(), min(top, self.get_y())
            self._lift(lift, left)
            if group.head:
                self._bracket(top if self.page_no() == page else MARGIN)
            top = self.get_y() - 3
        self._rule(HAIRLINE)

    def _bracket(self, top: float) -> None:
        """What holds the lifts of a group together, from there down to where the pen is."""
        self.set_draw_color(*INK)
        self.set_line_width(0.6)
        self.line(MARGIN + 0.3, top, MARGIN + 0.3, self.get_y() - 3)

    def _lift(self, lift: CardLift, left: float) -> None:
        width = MARGIN + WIDTH - left
        self.set_x(left)
        self._say(lift.name, 13, bold=True, width=width * 0.7)
        if lift.setup:
            broad = min(self.get_string_width(lift.name), width * 0.7)
            self.set_xy(left + broad + 3, self.get_y() + 1.2)
            self._say(lift.setup, 9.5, colour=FAINT, width=width - broad - 3)
            self.set_y(self.get_y() - 1.2)
        self.set_y(self.get_y() + 6.6)
        for text, colour in ((lift.written, INK), *((hint, FAINT) for hint in lift.hints)):
            self.set_x(left)
            self._say(text, 9.5, colour=colour, width=width, wraps=True)
        self.set_y(self.get_y() + 1.5)
        x = left
        for each in lift.sets:
            x = self._set(each, x, left)
        self.set_y(self.get_y() + HEIGHT + 4)

    def _set(self, each: CardSet, x: float, left: float) -> float:
        """The boxes of a set from `x` on, or on the next line; returns where the next set goes."""
        right, box = MARGIN + WIDTH, _box(each)
        if x > left and x + box * min(len(each.bouts), int((right - left) / box)) > right:
            x = self._next_line(left)
        for bout in each.bouts:
            if x + box > right + 0.01:
                x = self._next_line(left)
            self._bout(bout, x, box)
            x += box
        if each.rest:
            self.set_xy(x, self.get_y() + HEIGHT / 2 - 2)
            self._say(each.rest, 8, bold=True, colour=REST, width=GAP, align="C")
            self.set_y(self.get_y() - HEIGHT / 2 + 2)
        return x + GAP

    def _next_line(self, left: float) -> float:
        self.set_y(self.get_y() + HEIGHT + 2)
        self._need(HEIGHT)
        return left

    def _bout(self, bout: CardBout, x: float, width: float) -> None:
        y = self.get_y()
        self.set_draw_color(*INK)
        self.set_line_width(0.25)
        self.rect(x, y, width, HEIGHT)
        self.set_xy(x + 1, y + 1)
        self._say(bout.load, 9, bold=True, width=width - 2)
        self.set_xy(x + 1, y + (5 if bout.load else 1))
        self._say(bout.asked, 7.5, colour=FAINT, width=width - 2)
        self.set_xy(x + 1, y + 9)
        self._say(bout.done, 12, bold=True, colour=WORK, width=width - 2, align="C")
        if bout.rest:
            self.set_xy(x + width - 8, y + HEIGHT - 3.6)
            self._say(bout.rest, 6.5, bold=True, colour=REST, width=7.4, align="R")
        self.set_xy(x, y)

    def _notes(self) -> None:
        self._need(26)
        self._say("Notes", 9.5, colour=FAINT)
        self.set_draw_color(*HAIRLINE)
        for _ in range(3):
            self.set_y(self.get_y() + 8)
            self.line(MARGIN, self.get_y(), MARGIN + WIDTH, self.get_y())

    def _need(self, height: float) -> None:
        """On to the next sheet where so much does not fit on this one."""
        if self.get_y() + height > BOTTOM:
            self.add_page()
            self.set_y(MARGIN)

    def _height_of(self, lift: CardLift, left: float) -> float:
        """How much a lift needs to begin with: its words and the first line of boxes."""
        width = MARGIN + WIDTH - left
        self.set_font("Archivo", "", 9.5)
        return 8.1 + HEIGHT + sum(self._lines(text, width) for text in (lift.written, *lift.hints)) * LINE

    def _lines(self, text: str, width: float) -> int:
        lines = self.multi_cell(width, LINE, text, dry_run=True, output=MethodReturnValue.LINES)
        assert isinstance(lines, list)
        return len(lines)


def _box(each: CardSet) -> float:
    return BOX if len(each.bouts) == 1 else SMALL_BOX
