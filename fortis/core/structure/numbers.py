"""The numbers of a written line, each with its place and its meaning, so that they can be turned one by one."""

import re
from collections import Counter
from decimal import Decimal

from lark import Token, Tree
from lark.exceptions import UnexpectedInput

from fortis.core.structure.notation import parse_line, seconds_of
from fortis.core.value import Number, Value


class WrittenNumber(Value):
    """One number: the `length` characters from `column` (from 1) say `value`; another is written with `suffix`."""

    label: str
    column: int
    length: int
    value: Number
    step: Number
    suffix: str = ""


_STEPS = {"kg": Decimal("2.5"), "lb": Decimal(5), "%": Decimal(1)}
_LABELS: dict[str, tuple[str, ...]] = {
    "count": ("Sets",),
    "fixed": ("Reps",),
    "rep_range": ("Fewest reps", "Most reps"),
    "hold": ("Hold, seconds",),
    "weight": ("Load",),
    "weight_range": ("Lightest load", "Heaviest load"),
    "percent": ("Per cent of max", "Chosen max"),
    "rep_max": ("Rep max",),
    "body": ("Beside body weight",),
    "of_top": ("From the top set",),
    "last_time": ("From last time",),
    "drop": ("Drop",),
    "addition": ("Add",),
    "climb": ("Climb a set",),
    "leave": ("Reps left", "Most reps left"),
    "rpe": ("RPE",),
    "side": ("Between sides, seconds",),
    "rest": ("Rest, seconds",),
    "within": ("Short rest, seconds",),
    "short_rest": ("Short rest, seconds",),
    "every": ("Every, seconds",),
    "span": ("For, seconds",),
    "rounds": ("Rounds",),
    "head_rest": ("Rest, seconds",),
    "head_between": ("Between lifts, seconds",),
    "head_every": ("Every, seconds",),
    "head_span": ("For, seconds",),
}


def numbers(line: str) -> tuple[WrittenNumber, ...]:
    """The numbers of a line in the written notation; none where it cannot be read."""
    try:
        tree = parse_line(line.partition("#")[0])
    except UnexpectedInput:
        return ()
    found = [number for part in tree.iter_subtrees() for number in _of(part)]
    found.sort(key=lambda number: number.column)
    many = Counter(number.label for number in found)
    seen: Counter[str] = Counter()
    numbered = []
    for number in found:
        seen[number.label] += 1
        label = f"{number.label} ({seen[number.label]})" if many[number.label] > 1 else number.label
        numbered.append(number.model_copy(update={"label": label}))
    return tuple(numbered)


def _of(part: Tree[Token]) -> list[WrittenNumber]:
    labels = _LABELS.get(part.data)
    if labels is None:
        return []
    inner = [part, *(child for child in part.children if isinstance(child, Tree) and child.data == "shift")]
    tokens = [token for tree in inner for token in tree.children if isinstance(token, Token)]
    unit = next((_unit(token) for token in tokens if token.type in ("UNIT", "PERCENT")), "kg")
    counted = [token for token in tokens if token.type in ("INT", "NUMBER", "TIME", "REP_MAX")]
    return [_number(token, label, unit) for token, label in zip(counted, labels, strict=False)]


def _unit(token: Token) -> str:
    return "%" if token.type == "PERCENT" else token[:2].lower()


def _number(token: Token, label: str, unit: str) -> WrittenNumber:
    where = {"label": label, "column": token.column or 1, "length": len(token)}
    if token.type == "TIME":
        seconds = seconds_of(token)
        return WrittenNumber(**where, value=Decimal(seconds), step=Decimal(5 if seconds < 60 else 15), suffix="s")
    if token.type == "REP_MAX":
        digits = re.sub(r"\D", "", token)
        return WrittenNumber(**where, value=Decimal(digits), step=Decimal(1), suffix="RM")
    amount = Decimal(token.replace(",", "."))
    weighed = token.type == "NUMBER" and label != "RPE" and label != "Per cent of max"
    return WrittenNumber(**where, value=amount, step=_STEPS[unit] if weighed else Decimal(1))
