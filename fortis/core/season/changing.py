"""What changes from week to week in a line: `3|4|5 x 5 at 75% +3% a round`.

A choice `a|b|c` is for the first, second and third week of a round, its last part for all that follow. A step
`+2.5 kg a week` grows with every week of the block, `a round` with every round; it stands behind a load and is
added to it: points to a percentage, a share where only the step is in per cent. `week 2: …` and `weeks 1-2: …`
before a line keep it, and what is further in under it, to those weeks of a round.
"""

import re
from collections.abc import Callable, Iterable, Iterator
from decimal import Decimal
from typing import NamedTuple

from fortis.core.cache import cached
from fortis.core.structure.notation import is_preparation
from fortis.core.units import plain

_PART = r"(?:[^\s|;,:()\[\]]|(?<=\d),(?=\d))+"
_CHOICE = re.compile(rf"{_PART}(?:\|{_PART})+")
_SUFFIX = re.compile(r"[\d.,]*\d([^\d.,\-]+)")
_NUMBER, _UNIT = r"\d+(?:[.,]\d+)?", r"(?:kgs?|lbs?|%)"
_STEP = re.compile(
    rf"(?:(?P<bw>\bbw\b)(?:\s*(?P<way>[+\-−])\s*(?P<hung>{_NUMBER})\s*(?P<hung_unit>{_UNIT})?)??"
    rf"|(?P<load>{_NUMBER})\s*(?P<unit>{_UNIT})?)"
    rf"\s*(?P<sign>[+\-−])\s*(?P<step>{_NUMBER})\s*(?P<of>{_UNIT})?\s+a\s+(?P<per>week|round)\b",
    re.IGNORECASE,
)
_ONLY = re.compile(r"^(?P<indent>\s*)weeks?\s+(?P<from>\d+)(?:\s*-\s*(?P<to>\d+))?\s*:\s*(?=\S)", re.IGNORECASE)


class Week(NamedTuple):
    """A week in its block: the number of its round, and its own in that, both from 1; `length` is a round's."""

    round: int
    week: int
    length: int

    @property
    def before(self) -> int:
        """Weeks of the block before it."""
        return (self.round - 1) * self.length + self.week - 1


class ChangeError(ValueError):
    """A part that cannot mean a change; `column` counts from 1."""

    def __init__(self, message: str, column: int) -> None:
        self.column = column
        super().__init__(message)


def lines_in(lines: Iterable[str], week: Week) -> Iterator[tuple[int, str | ChangeError]]:
    """The lines of a session that are for a week, as they are in it, each with its place; or what is wrong."""
    left_out = False
    for at, line in enumerate(lines):
        indented = line.startswith(" ")
        if indented and left_out:
            continue
        try:
            text = in_week(line, week)
        except ChangeError as error:
            yield at, error
            continue
        if text is not None:
            yield at, text
        left_out = text is None if not indented else left_out


def has_lift(line: str) -> bool:
    """Whether there is more on a line than a remark or a preparation."""
    return bool(line.partition("#")[0].strip()) and not is_preparation(line)


def weeks_in(line: str) -> int:
    """The weeks of the shortest round that a line can stand in: as many as its longest choice has parts."""
    code = line.partition("#")[0]
    return max((len(found[0].split("|")) for found in _CHOICE.finditer(code)), default=1)


@cached(4_096)
def in_week(line: str, week: Week) -> str | None:
    """A line as it is in a week; None where it is for other weeks. Raises `ChangeError`."""
    only = _ONLY.match(line)
    if only:
        first, last = int(only["from"]), int(only["to"] or only["from"])
        if not 1 <= first <= last <= week.length:
            raise ChangeError(f"A round of this block has the weeks 1 to {week.length}.", only.start("from") + 1)
        if not first <= week.week <= last:
            return None
        line = only["indent"] + line[only.end() :]
    code, mark, remark = line.partition("#")
    chosen = _CHOICE.sub(_choice(week), code)
    return _STEP.sub(_stepped(week), chosen) + mark + remark


def _choice(week: Week) -> Callable[[re.Match[str]], str]:
    def choose(found: re.Match[str]) -> str:
        parts = found[0].split("|")
        if len(parts) > week.length:
            many = f"{len(parts)} weeks, and a round of this block has {week.length}"
            raise ChangeError(f"{found[0]} is for {many}.", found.start() + 1)
        part, suffix = parts[min(week.week, len(parts)) - 1], _SUFFIX.fullmatch(parts[-1])
        return part + suffix[1] if suffix and part[-1].isdigit() else part

    return choose


def _stepped(week: Week) -> Callable[[re.Match[str]], str]:
    def step(found: re.Match[str]) -> str:
        unit, of = _unit(found["unit"] or found["hung_unit"]), _unit(found["of"])
        load = _decimal(found["load"] or found["hung"] or "0") * _sign(found["way"])
        by = _decimal(found["step"]) * _sign(found["sign"])
        by *= week.before if found["per"].lower() == "week" else week.round - 1
        shares = of == "%" and unit != "%" and not found["bw"]
        if unit != of and not shares and (found["hung"] or not found["bw"]):
            meant = f"{found['step']}{'%' if unit == '%' else f' {unit}' if unit else ''} a {found['per']}"
            raise ChangeError(f"A step has the unit of its load: write {meant}.", found.start("step") + 1)
        total = round(load * (1 + by / 100) if shares else load + by, 2)
        named = unit or ("" if shares else of)
        after = named if named == "%" else f" {named}" if named else ""
        if found["bw"]:
            return f"bw{'-' if total < 0 else '+'}{plain(abs(total))}{after}" if total else "bw"
        if total <= 0:
            raise ChangeError("With so many steps down nothing is left of the load.", found.start("step") + 1)
        return f"{plain(total)}{after}"

    return step


def _decimal(written: str) -> Decimal:
    return Decimal(written.replace(",", "."))


def _sign(written: str | None) -> int:
    return -1 if written in ("-", "−") else 1


def _unit(written: str | None) -> str:
    return (written or "").lower().rstrip("s")
