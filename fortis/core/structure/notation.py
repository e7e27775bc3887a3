"""The written notation, read: text in, a session out, or what is wrong with the text and where."""

import re
from collections.abc import Iterator
from dataclasses import dataclass
from decimal import Decimal
from difflib import get_close_matches
from functools import lru_cache
from typing import Any, NamedTuple

from lark import Lark, Token
from lark.exceptions import UnexpectedCharacters, UnexpectedInput, UnexpectedToken
from lark.tree import Meta, Tree

from fortis.core.cache import cached
from fortis.core.exercises import LONGEST_NAME
from fortis.core.structure.model import (
    LONGEST_ITEM,
    MOST_ITEMS,
    BodyPlus,
    Bout,
    Entry,
    FailureKind,
    FixedReps,
    Group,
    Hold,
    LastTime,
    Leave,
    Lifting,
    MaxReps,
    OfPrevious,
    OfTop,
    Percent,
    Preparation,
    PreparationLine,
    RangeOfMotion,
    RepMax,
    RepRange,
    Rpe,
    Session,
    Set,
    Sets,
    SetUp,
    Shift,
    Side,
    Tempo,
    Terms,
    ToFailure,
    Weight,
    WeightRange,
)
from fortis.core.units import HEAVIEST, Unit
from fortis.core.value import Value, one_spelling

LONGEST_LINE = 2_000
LONGEST_TEXT = 100_000
MOST_SETS = 50
MOST_REPS = 500
MOST_ROUNDS = 50
MOST_BOUTS_IN_A_SET = 40
MOST_BOUTS = 1_000
LONGEST_SECONDS = 3_600
LONGEST_PHASE = 60
"""Seconds of one part of a tempo."""
MOST_PREPARED = 20
LONGEST_PREPARED = 80


class Problem(Value):
    """What is wrong, where (both counted from 1), what would be right there, and a likely mend."""

    line: int
    column: int
    message: str
    expected: tuple[str, ...] = ()
    nearest: str | None = None

    def __str__(self) -> str:
        mend = f" Did you mean {self.nearest}?" if self.nearest else ""
        return f"line {self.line}, column {self.column}: {self.message}{mend}"


class NotationError(ValueError):
    """A text that is no session. `problems` has one for each faulty line."""

    def __init__(self, problems: tuple[Problem, ...]) -> None:
        self.problems = problems
        super().__init__("\n".join(str(problem) for problem in problems))


@dataclass(frozen=True)
class Reading:
    """What could be read of a text: the groups without fault, the line of each of their entries, the problems."""

    session: Session
    lines: tuple[tuple[int, ...], ...]
    problems: tuple[Problem, ...]


def read(text: str, unit: Unit = Unit.KG) -> Session:
    """Read a session; a load without a unit is in `unit`. Raises `NotationError`."""
    reading = examine(text, unit)
    if reading.problems:
        raise NotationError(reading.problems)
    return reading.session


def read_sets(written: str, unit: Unit = Unit.KG) -> tuple[Sets, ...]:
    """Read what stands behind a lift's colon: `3 x 5 at 60 kg; 8`. Raises `NotationError`, with its own columns."""
    opening = "Lift: "
    try:
        session = read(opening + written, unit)
    except NotationError as error:
        raise NotationError(
            tuple(each.model_copy(update={"column": max(each.column - len(opening), 1)}) for each in error.problems)
        ) from None
    return session.groups[0].entries[0].sets


def examine(text: str, unit: Unit = Unit.KG) -> Reading:
    """Read what can be read, line by line, so that one slip does not hide the rest."""
    if len(text) > LONGEST_TEXT:
        message = f"The text has {len(text):,} characters; a session holds {LONGEST_TEXT:,} at most."
        return Reading(Session(groups=()), (), (Problem(line=1, column=1, message=message),))
    return _Examination(unit).examine(text.expandtabs(4).splitlines())


_PREP = re.compile(r"\s*prep\s*:", re.IGNORECASE)
_PREPARED = re.compile(
    r"(?P<what>.*?)(?P<time>(?<!\S)(?:\d{1,5}:\d\d|\d{1,6}\s*(?:seconds?|secs?|s|minutes?|mins?|m)))?",
    re.IGNORECASE,
)
_HEAD = re.compile(r"\s*(pair|circuit)\s*[,:]", re.IGNORECASE)
_SETS_IN_NAME = re.compile(r"[^\[\]:;#]*?\d\s*(x|×|sets?\s+of)\s*[\d(]", re.IGNORECASE)


class _Slip(Exception):
    """Something that parses and cannot be meant. Caught and given its place by the examination."""

    def __init__(self, message: str, place: Token | int, nearest: str | None = None) -> None:
        column = place.column if isinstance(place, Token) else place
        self.message, self.column, self.nearest = message, column or 1, nearest
        super().__init__(message)


class _Examination:
    """Goes through the lines once, gathering groups and problems."""

    def __init__(self, unit: Unit) -> None:
        self.unit = unit
        self.title = ""
        self.prep: list[PreparationLine] = []
        self.groups: list[Group] = []
        self.lines: list[tuple[int, ...]] = []
        self.problems: list[Problem] = []
        self.head: tuple[int, Group] | None = None
        self.members: list[tuple[int, Entry]] = []
        self.faulty_member = False
        self.remarks: list[str] = []

    def examine(self, lines: list[str]) -> Reading:
        for number, line in enumerate(lines, start=1):
            self._line(number, line)
        self._close_group()
        if not self.groups and not self.problems:
            self._wrong(1, 1, "Nothing is planned yet. Write a lift and its sets: Back squat: 3 x 5 at 60 kg.")
        after = tuple(self.remarks)
        while after and not after[-1]:
            after = after[:-1]
        session = Session(title=self.title, prep=tuple(self.prep), groups=tuple(self.groups), after=after)
        if sum(map(_bout_count, self.groups)) > MOST_BOUTS:
            self._wrong(1, 1, f"This is over {MOST_BOUTS:,} bouts, more than a session can hold.")
            return Reading(Session(title=self.title, groups=()), (), tuple(self.problems))
        return Reading(session, tuple(self.lines), tuple(self.problems))

    def _line(self, number: int, line: str) -> None:
        if len(line) > LONGEST_LINE:
            message = f"This line has {len(line):,} characters; a line holds {LONGEST_LINE:,}."
            self._wrong(number, LONGEST_LINE, message)
            return
        code, hash_mark, remark = line.partition("#")
        remark = _printable(remark.lstrip("#"))
        if code.strip():
            self._code(number, code, remark)
        elif not hash_mark:
            if self._has_begun:
                self.remarks.append("")
        elif self._has_begun:
            self.remarks.append(f"# {remark}".rstrip())
        else:
            self.title = remark

    @property
    def _has_begun(self) -> bool:
        return bool(self.title or self.prep or self.groups or self.head or self.remarks)

    def _code(self, number: int, line: str, remark: str) -> None:
        if is_preparation(line):
            self._prepare(number, line, remark)
            return
        indented = line[0] == " "
        if not indented:
            self._close_group()
        if _SETS_IN_NAME.match(line):
            message = "A colon goes between the lift and its sets: Back squat: 3 x 5 at 60 kg."
            self._wrong(number, 1, message)
            return
        parsed = self._parse(_start_of(line), number, line)
        if parsed is None:
            self.faulty_member = self.faulty_member or indented
            return
        if self.remarks or remark:
            parsed = parsed.model_copy(update={"before": tuple(self.remarks), "remark": remark})
            self.remarks.clear()
        match parsed:
            case Group():
                self.head = (number, parsed)
            case Entry() if indented and self.head:
                self.members.append((number, parsed))
            case Entry():
                self.groups.append(Group(entries=(parsed,)))
                self.lines.append((number,))

    def _prepare(self, number: int, line: str, remark: str) -> None:
        try:
            if self.groups or self.head:
                raise _Slip("Preparation comes first: move this line above the lifts.", 1)
            items = tuple(_preparations(line))
            if sum(len(each.items) for each in self.prep) + len(items) > MOST_PREPARED:
                raise _Slip(f"A session has {MOST_PREPARED} things to prepare with at most.", 1)
        except _Slip as slip:
            self._wrong(number, slip.column, slip.message)
            return
        self.prep.append(PreparationLine(items=items, before=tuple(self.remarks), remark=remark))
        self.remarks.clear()

    def _parse(self, start: str, number: int, line: str) -> Entry | Group | None:
        try:
            return _built(line, start, self.unit)
        except _Slip as slip:
            self._wrong(number, slip.column, slip.message, nearest=slip.nearest)
        except UnexpectedInput as error:
            self.problems.append(_unexpected(error, number, line))
        return None

    def _close_group(self) -> None:
        if self.head is None:
            return
        number, head = self.head
        self.head = None
        members, self.members = self.members, []
        faulty, self.faulty_member = self.faulty_member, False
        if len(members) < 2 and not faulty:
            self._wrong(number, 1, "A pair or circuit needs two or more lifts, each on an indented line under it.")
        if len(members) < 2:
            return
        self.groups.append(head.model_copy(update={"entries": tuple(entry for _, entry in members)}))
        self.lines.append(tuple(line for line, _ in members))

    def _wrong(self, line: int, column: int, message: str, nearest: str | None = None) -> None:
        self.problems.append(Problem(line=line, column=column, message=message, nearest=nearest))


def is_preparation(line: str) -> bool:
    """Whether a line says what is done before the first lift."""
    return bool(_PREP.match(line))


def _preparations(line: str) -> Iterator[Preparation]:
    """What a line of preparation has, parted by commas, each with its time behind it where one is written."""
    at = line.index(":") + 1
    for part in re.split("[,;]", line[at:]):
        column = at + len(part) - len(part.lstrip()) + 1
        at += len(part) + 1
        found = _PREPARED.fullmatch(part.strip())
        what = _printable(found["what"]) if found else ""
        if not found or not what:
            raise _Slip(
                "Say what is done before the first lift: prep: hip drills 5 min, heat on the elbow.", column
            )
        if len(what) > LONGEST_PREPARED:
            raise _Slip(f"A preparation has {LONGEST_PREPARED} letters at most.", column)
        yield Preparation(what=what, seconds=_time(found["time"], column) if found["time"] else None)


def _start_of(line: str) -> str:
    return "head" if _HEAD.match(line) else "entry"


@cached(4_096)
def _built(line: str, start: str, unit: Unit) -> Entry | Group:
    built: Entry | Group = _Building(unit).build(_parser().parse(line, start=start))
    return built


def parse_line(line: str) -> Tree[Token]:
    """The parse tree of one line without its remark. Raises lark's `UnexpectedInput`."""
    return _parser().parse(line, start=_start_of(line))


def _printable(text: str) -> str:
    """A title or remark on one line, without what no screen can show."""
    return " ".join("".join(letter if letter.isprintable() else " " for letter in text).split())


def _bout_count(group: Group) -> int:
    rounds = group.rounds or 1
    return sum(rounds * sets.count * len(sets.each.bouts) for entry in group.entries for sets in entry.sets)


@lru_cache(maxsize=1)
def _parser() -> Lark:
    return Lark.open_from_package(
        "fortis.core.structure",
        "notation.lark",
        parser="lalr",
        start=["entry", "head"],
        maybe_placeholders=False,
        propagate_positions=True,
    )


# --- building the model -----------------------------------------------------------------------------------


def _decimal(token: str) -> Decimal:
    return Decimal(token.replace(",", "."))


def _number(token: Token, low: int, high: int, what: str) -> int:
    if not low <= int(token) <= high:
        raise _Slip(f"{what} must be {low} to {high}, not {int(token):,}.", token)
    return int(token)


def seconds_of(time: str) -> int:
    """The seconds a written time comes to: `25s`, `3 min`, `3:00`."""
    if ":" in time:
        minutes, seconds = time.split(":")
        return int(minutes) * 60 + int(seconds)
    amount = int(re.match(r"\d+", time).group())  # type: ignore[union-attr]
    return amount * 60 if re.search(r"\d\s*m", time, re.IGNORECASE) else amount


def _seconds(token: Token) -> int:
    return _time(token, token)


def _time(written: str, place: Token | int) -> int:
    if ":" in written and int(written.split(":")[1]) > 59:
        raise _Slip("Seconds after the colon go from 00 to 59.", place)
    total = seconds_of(written)
    if not 1 <= total <= LONGEST_SECONDS:
        raise _Slip("A time must be 1 second to 1 hour.", place)
    return total


def _one_space(token: str) -> str:
    return " ".join(token.lower().split())


class _Count(NamedTuple):
    """How many sets alike."""

    sets: int


class _Target(NamedTuple):
    """What a bout opens with: a rep target, or a drop that stands for as many as possible."""

    reps: Any
    terms: dict[str, Any]


class _Pause(NamedTuple):
    """A short rest written between two bouts."""

    seconds: int
    token: Token


class _Building:
    """Turns the parse tree of one line into the model, minding what numbers can mean.

    A method a rule, called with its parts; those in `_PLACED` are told where the rule begins as well. Lark's
    own transformers do the same at twice the cost, and this is on the way of every key typed.
    """

    def __init__(self, unit: Unit) -> None:
        self._default = unit

    def build(self, tree: Tree[Token]) -> Any:
        parts = [self.build(child) if isinstance(child, Tree) else child for child in tree.children]
        rule = getattr(self, tree.data)
        return rule(tree.meta, parts) if tree.data in _PLACED else rule(parts)

    # loads

    def _unit(self, token: Token | None) -> Unit:
        if token is None:
            return self._default
        return Unit.LB if token.lower().startswith("lb") else Unit.KG

    def _amount(self, token: Token, unit: Unit) -> Decimal:
        amount = _decimal(token)
        weight = Weight(amount=amount, unit=unit)
        if not 0 < weight.kg <= HEAVIEST:
            raise _Slip(f"A load must be above 0 and at most {HEAVIEST:,} kg.", token)
        return amount

    def weight(self, parts: list[Token]) -> Weight:
        unit = self._unit(parts.pop() if parts[-1].type == "UNIT" else None)
        if parts[0].type == "SIGN":
            mend = f"bw{parts[0].replace('−', '-')}{parts[1]} {unit}"
            raise _Slip("A load has no sign. For body weight with help or extra write bw first.", parts[0], mend)
        return Weight(amount=self._amount(parts[0], unit), unit=unit)

    def weight_range(self, parts: list[Token]) -> WeightRange:
        unit = self._unit(parts[2] if len(parts) > 2 else None)
        low, high = self._amount(parts[0], unit), self._amount(parts[1], unit)
        if low >= high:
            raise _Slip(
                "A range of loads goes from the lighter to the heavier.", parts[0], f"{parts[1]}-{parts[0]}"
            )
        return WeightRange(low=low, high=high, unit=unit)

    def percent(self, parts: list[Token]) -> Percent:
        percent = _decimal(parts[0])
        if not 0 < percent <= 200:
            raise _Slip("A percentage of the max must be above 0 and at most 200.", parts[0])
        if len(parts) == 2:
            return Percent(percent=percent)
        unit = self._unit(parts[3] if len(parts) > 3 else None)
        return Percent(percent=percent, of=Weight(amount=self._amount(parts[2], unit), unit=unit))

    def rep_max(self, parts: list[Token]) -> RepMax:
        digits = re.match(r"\d+", parts[0]).group()  # type: ignore[union-attr]
        if not 1 <= int(digits) <= 50:
            raise _Slip("A rep max goes from 1RM to 50RM.", parts[0])
        return RepMax(reps=int(digits))

    def body(self, parts: list[Token]) -> BodyPlus:
        if not parts:
            return BodyPlus(unit=self._default)
        unit = self._unit(parts[2] if len(parts) > 2 else None)
        amount = self._amount(parts[1], unit)
        return BodyPlus(amount=amount if parts[0] == "+" else -amount, unit=unit)

    def of_top(self, parts: list[Token]) -> OfTop:
        return OfTop(shift=self._signed_shift(parts) or Shift(amount=Decimal(0)))

    def last_time(self, parts: list[Token]) -> LastTime:
        return LastTime(shift=self._signed_shift(parts))

    def _signed_shift(self, parts: list[Token]) -> Shift | None:
        if not parts:
            return None
        shift = self._shift(parts[1], parts[2])
        return shift.model_copy(update={"amount": (1 if parts[0] == "+" else -1) * shift.amount})

    def _shift(self, number: Token, unit: Token | None) -> Shift:
        amount = _decimal(number)
        name = "%" if unit == "%" else self._unit(unit).value
        most = 99 if name == "%" else 1000
        if not 0 < amount <= most:
            raise _Slip(f"A change of load must be above 0 and at most {most}{name}.", number)
        return Shift(amount=amount, unit=name)

    def shift(self, parts: list[Token]) -> Shift:
        return self._shift(parts[0], parts[1] if len(parts) > 1 else None)

    # how many

    def fixed(self, parts: list[Token]) -> FixedReps:
        return FixedReps(count=_number(parts[0], 1, MOST_REPS, "Reps"))

    def rep_range(self, parts: list[Token]) -> RepRange:
        low, high = (_number(part, 1, MOST_REPS, "Reps") for part in parts)
        if low >= high:
            raise _Slip("A range of reps goes from fewer to more.", parts[0], f"{parts[1]}-{parts[0]}")
        return RepRange(low=low, high=high)

    def as_many(self, _: list[Token]) -> MaxReps:
        return MaxReps()

    def hold(self, parts: list[Token]) -> Hold:
        return Hold(seconds=_seconds(parts[0]))

    # terms, each a pair of field name and value with the token to blame

    def load(self, parts: list[Any]) -> dict[str, Any]:
        return {"load": parts[0]}

    def climb(self, parts: list[Any]) -> dict[str, Any]:
        return {"climb": parts[0]}

    def drop(self, parts: list[Any]) -> dict[str, Any]:
        shift = parts[0]
        return {"load": OfPrevious(shift=shift.model_copy(update={"amount": -shift.amount}))}

    def addition(self, parts: list[Any]) -> dict[str, Any]:
        return {"load": OfPrevious(shift=parts[0])}

    def leave(self, parts: list[Token]) -> dict[str, Any]:
        low = _number(parts[0], 0, 10, "Reps to leave")
        high = _number(parts[-1], 0, 10, "Reps to leave")
        if low > high:
            raise _Slip("A range of reps to leave goes from fewer to more.", parts[0], f"{high}-{low}")
        return {"effort": Leave(low=low, high=high)}

    def rpe(self, parts: list[Token]) -> dict[str, Any]:
        value = _decimal(parts[0])
        if not 1 <= value <= 10:
            raise _Slip("RPE goes from 1 to 10; it is 10 less the reps left.", parts[0])
        return {"effort": Rpe(value=value)}

    def failure(self, parts: list[Token]) -> dict[str, Any]:
        word = parts[0].split()[0].lower()
        return {"effort": ToFailure(how=FailureKind.ANY if word == "failure" else FailureKind(word))}

    def tempo(self, parts: list[Token]) -> dict[str, Any]:
        pieces = [piece.strip().lower() for piece in parts[0].split("-")]
        if len(pieces) != 4:
            mend = "-".join((*pieces, *("2", "0", "1", "0")[len(pieces) :])[:4])
            raise _Slip("A tempo has four parts, lowering-pause-lifting-pause in seconds.", parts[0], mend)
        lowering, bottom, lifting, top = pieces
        if "x" in lowering + bottom + top or (lifting != "x" and not lifting.isdigit()):
            raise _Slip("Only the lifting part of a tempo may be x, as fast as possible.", parts[0])
        if any(piece != "x" and int(piece) > LONGEST_PHASE for piece in pieces):
            raise _Slip(f"Each part of a tempo is {LONGEST_PHASE} seconds at most.", parts[0])
        tempo = Tempo(
            lowering=int(lowering),
            bottom=int(bottom),
            lifting="x" if lifting == "x" else int(lifting),
            top=int(top),
        )
        if tempo.seconds == 0:
            raise _Slip("A tempo of no seconds at all is no tempo.", parts[0], "2-0-1-0")
        return {"tempo": tempo}

    def range_of_motion(self, parts: list[Token]) -> dict[str, Any]:
        return {"range_of_motion": RangeOfMotion(_one_space(parts[0]))}

    def side(self, parts: list[Token]) -> dict[str, Any]:
        side = Side(_one_space(parts[0]))
        if len(parts) == 1:
            return {"side": side}
        if not side.is_each:
            raise _Slip("A rest between the sides needs both of them: each side 30s apart.", parts[1])
        return {"side": side, "apart": _seconds(parts[1])}

    def lifting(self, parts: list[Token]) -> dict[str, Any]:
        return {"lifting": Lifting(_one_space(parts[0]))}

    def rest(self, parts: list[Token]) -> dict[str, Any]:
        return {"rest": _seconds(parts[0])}

    def within(self, parts: list[Token]) -> dict[str, Any]:
        return {"within": _seconds(parts[0])}

    def every(self, parts: list[Token]) -> dict[str, Any]:
        return {"every": _seconds(parts[0])}

    def span(self, parts: list[Token]) -> dict[str, Any]:
        return {"span": _seconds(parts[0])}

    # pieces

    def bout_target(self, parts: list[Any]) -> _Target:
        return _Target(MaxReps(), parts[0]) if isinstance(parts[0], dict) else _Target(parts[0], {})

    def bout(self, meta: Meta, parts: list[Any]) -> Bout:
        target: _Target = parts[0]
        return Bout(reps=target.reps, terms=Terms(**_gathered([target.terms, *parts[1:]], meta)))

    def short_rest(self, parts: list[Token]) -> _Pause:
        return _Pause(_seconds(parts[0]), parts[0])

    def count(self, parts: list[Token]) -> _Count:
        return _Count(_number(parts[0], 1, MOST_SETS, "Sets"))

    def run(self, meta: Meta, parts: list[Any]) -> Sets:
        count = parts.pop(0).sets if isinstance(parts[0], _Count) else 1
        terms = [part for part in parts if isinstance(part, dict)]
        pieces = [part for part in parts if not isinstance(part, dict)]
        if isinstance(pieces[0], _Target):
            terms.insert(0, pieces[0].terms)
        gathered = _gathered(terms, meta)
        rest, within, every, span = (gathered.pop(name, None) for name in ("rest", "within", "every", "span"))
        if rest and every:
            raise _Slip("A set starts every so often or after a rest, not both; keep one.", meta.column)
        if span and count > 1:
            raise _Slip("A block of minutes takes as many sets as fit; leave the count out.", meta.column)
        bouts = sum(isinstance(piece, Bout) for piece in pieces)
        if within and bouts < 2:
            message = "within is the rest between the bouts of a set, and this set is one bout: write rest 3:00."
            raise _Slip(message, meta.column, nearest="rest")
        if isinstance(pieces[0], _Target):
            each = Set(bouts=(Bout(reps=pieces[0].reps, terms=Terms(**gathered)),))
        else:
            each = _whole_set(pieces, Terms(**gathered), within, meta)
        return Sets(each=each, count=count, rest=rest, every=every, span=span)

    def setup(self, parts: list[Token]) -> SetUp:
        items = [(item, part) for part in parts if (item := one_spelling(part))]
        if len(items) > MOST_ITEMS:
            raise _Slip(f"A set-up has {MOST_ITEMS} items at most.", items[MOST_ITEMS][1])
        for item, part in items:
            if len(item) > LONGEST_ITEM:
                raise _Slip(f"An item of a set-up has {LONGEST_ITEM} letters at most.", part)
        return SetUp(items=tuple(item for item, _ in items))

    def entry(self, meta: Meta, parts: list[Any]) -> Entry:
        setup = parts[1] if isinstance(parts[1], SetUp) else SetUp()
        sets = tuple(part for part in parts if isinstance(part, Sets))
        first = sets[0].each
        if isinstance(first.bouts[0].terms.over(first.terms).load, OfPrevious):
            message = (
                "There is nothing to drop from or add to yet: the first bout of a lift needs a load of its own."
            )
            raise _Slip(message, meta.column)
        name = one_spelling(parts[0])
        if len(name) > LONGEST_NAME:
            raise _Slip(f"The name of a lift has {LONGEST_NAME} letters at most.", meta.column)
        return Entry(exercise=name, setup=setup, sets=sets)

    # groups

    def rounds(self, parts: list[Token]) -> dict[str, Any]:
        return {"rounds": _number(parts[0], 1, MOST_ROUNDS, "Rounds")}

    def head_rest(self, parts: list[Token]) -> dict[str, Any]:
        return {"rest": _seconds(parts[0])}

    def head_between(self, parts: list[Token]) -> dict[str, Any]:
        return {"between": _seconds(parts[0])}

    def head_every(self, parts: list[Token]) -> dict[str, Any]:
        return {"every": _seconds(parts[0])}

    def head_span(self, parts: list[Token]) -> dict[str, Any]:
        return {"span": _seconds(parts[0])}

    def head(self, meta: Meta, parts: list[Any]) -> Group:
        options = _gathered(parts[1:], meta)
        if "every" in options and ("rest" in options or "between" in options):
            raise _Slip("Rounds start every so often or after a rest, not both; keep one.", meta.column)
        if "span" in options and "rounds" in options:
            raise _Slip("A block of minutes takes as many rounds as fit; leave the rounds out.", meta.column)
        return Group(entries=(), **options)


_PLACED = frozenset({"bout", "run", "head", "entry"})


def _gathered(terms: list[dict[str, Any]], meta: Meta) -> dict[str, Any]:
    gathered: dict[str, Any] = {}
    for term in terms:
        for name in term:
            if name in gathered:
                what = name.replace("_", " ")
                raise _Slip(f"Here are two of the same kind ({what}); keep one.", meta.column)
        gathered |= term
    return gathered


def _whole_set(pieces: list[Bout | _Pause], terms: Terms, within: int | None, meta: Meta) -> Set:
    """Join bouts and the short rests written between them into one set."""
    bouts: list[Bout] = []
    for piece in pieces:
        if isinstance(piece, Bout):
            bouts.append(piece)
            continue
        if not bouts or bouts[-1].rest is not None:
            raise _Slip("A short rest goes between two bouts.", piece.token)
        bouts[-1] = bouts[-1].model_copy(update={"rest": piece.seconds})
    if isinstance(pieces[-1], _Pause):
        message = "A short rest goes between two bouts; rest after the set is written rest 3:00."
        raise _Slip(message, pieces[-1].token)
    if len(bouts) > MOST_BOUTS_IN_A_SET:
        raise _Slip(f"A set holds {MOST_BOUTS_IN_A_SET} bouts at most.", meta.column)
    if len(bouts) == 1:
        return Set(bouts=(bouts[0].model_copy(update={"terms": bouts[0].terms.over(terms)}),))
    return Set(bouts=tuple(bouts), terms=terms, within=within)


# --- saying what was expected -----------------------------------------------------------------------------

_WORDS = {
    "INT": "a number of reps or sets",
    "NUMBER": "a number",
    "TIME": "a time (25s, 3:00)",
    "UNIT": "kg, lb",
    "PERCENT": "%",
    "REP_MAX": "a rep max (12RM)",
    "TEMPO": "a tempo (3-1-1-0)",
    "TIMES": "x",
    "_SETS_OF": "sets of",
    "_ROUNDS": "rounds",
    "FAILURE": "failure, technical failure, muscular failure",
    "RANGE_OF_MOTION": "stretched halves, shortened halves, alternating halves",
    "SIDE": "each side, each side weaker first, left, right",
    "LIFTING": "two up one down, helped up",
    "SETUP_ITEM": "what is worn or used (belt)",
    "NAME": "a lift",
    "SIGN": "+, -",
    "$END": "the end of the line",
    "COLON": ":",
    "SEMICOLON": ";",
    "COMMA": ",",
    "LPAR": "(",
    "RPAR": ")",
    "LSQB": "[",
    "RSQB": "]",
    "MINUS": "-",
}


def _unexpected(error: UnexpectedInput, number: int, line: str) -> Problem:
    """Put a parser's surprise into a lifter's words."""
    code = line.rstrip()
    if isinstance(error, UnexpectedCharacters):
        column, terminals = error.column, set(error.allowed)
    elif isinstance(error, UnexpectedToken) and error.token.type != "$END":
        column, terminals = error.column, set(error.accepts or error.expected)
    else:
        accepts = error.accepts or error.expected if isinstance(error, UnexpectedToken) else set()
        column, terminals = len(code) + 1, set(accepts)
    expected = tuple(sorted(_WORDS.get(name, name.lower()) for name in terminals if not name.startswith("__")))
    begun = 0
    if code[column - 1 : column].isalpha():
        begun = len(re.search(r"[^\W\d_]*$", code[: column - 1]).group())  # type: ignore[union-attr]
        column -= begun
    word = re.match(r"[^\s,;:()\[\]]*", code[column - 1 :]).group()  # type: ignore[union-attr]
    if ":" not in code:
        message = "A lift needs a colon and its sets after it: Back squat: 3 x 5 at 60 kg."
        return Problem(line=number, column=max(len(code), 1), message=message, expected=(":",))
    found = f"“{word[:30]}” does not fit here." if word else _not_there(code, column)
    if "UNIT" in terminals and word.isalpha() and re.search(r"\d\s*$", code[: column - 1]):
        close = get_close_matches(word.lower(), _KEYWORDS, n=1, cutoff=0.6)
        if not close:
            message = f"“{word[:30]}” is not a unit Fortis knows. Write kg, lb or %."
            return Problem(line=number, column=column, message=message, expected=("kg, lb", "%"))
    nearest = _nearest(line, column, word)
    if begun and nearest:
        message = f"“{word[:30]}” is no word of the notation."
        return Problem(line=number, column=column, message=message, expected=(nearest,), nearest=nearest)
    offered = ", ".join(sorted(expected, key=lambda words: not words[0].isalnum())[:8])
    return Problem(
        line=number,
        column=column,
        message=f"{found} Expected {'one of: ' if len(expected) > 1 else ''}{offered}.",
        expected=expected,
        nearest=nearest,
    )


def _nearest(line: str, column: int, word: str) -> str | None:
    """The known word closest to a wrong one with which the line can be read past it."""
    before, after = line[: column - 1], line[column - 1 + len(word) :]
    for close in get_close_matches(word.lower(), _KEYWORDS, n=4, cutoff=0.55) if word else ():
        try:
            parse_line(f"{before}{close}{after}")
        except UnexpectedCharacters as error:
            if error.column <= len(before) + len(close):
                continue
        except UnexpectedInput as error:
            at_the_end = isinstance(error, UnexpectedToken) and error.token.type == "$END"
            if not at_the_end and error.column <= len(before) + len(close):
                continue
        return close
    return None


def _not_there(code: str, column: int) -> str:
    if column > len(code):
        return "The sets are missing: write 3 x 5 at 60 kg." if code.endswith(":") else "The line stops too soon."
    return f"“{code[column - 1]}” does not fit here."


_KEYWORDS = (
    "at", "up", "drop", "leave", "rpe", "to failure", "failure", "tempo", "each side", "left", "right", "rest",
    "within", "sets of", "max", "hold", "kg", "lb", "bw", "top", "stretched halves", "shortened halves", "rounds",
    "between", "every", "for", "of", "add", "last", "apart", "each side weaker first", "each side right first",
)  # fmt: skip
