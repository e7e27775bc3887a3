"""The season file, read: text in, a season out, or what is wrong with the text and where."""

import re
from collections.abc import Container, Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from datetime import date, timedelta
from difflib import get_close_matches
from itertools import accumulate, count, islice, repeat
from typing import Any

from fortis.core.cache import cached
from fortis.core.season.changing import ChangeError, Week, has_lift, lines_in
from fortis.core.season.model import (
    Aim,
    AimLift,
    Away,
    Block,
    Day,
    Kind,
    LightSchool,
    LightWeek,
    Method,
    Season,
    Trial,
    Weekday,
)
from fortis.core.season.trial import sets_of
from fortis.core.season.writing import BY_LOT, write_away, write_school, write_trial
from fortis.core.structure.model import SetUp
from fortis.core.structure.notation import LONGEST_LINE, LONGEST_TEXT, NotationError, Problem, examine
from fortis.core.tally.week import monday_of
from fortis.core.units import Unit
from fortis.core.value import ISO_DATE

SEASONS_KEPT = 8
"""Seasons that are read once: the one under way is asked for with every Today."""
MOST_WEEKS = 104
"""A season has two years at most."""
MOST_DAYS = 14
"""Sessions in a week."""
MOST_SESSIONS, MOST_LINES = 500, 10_000
"""Sessions of a season, and their lines in all weeks together."""

_FROM = re.compile(r"from\s+(?P<on>\S+)\s*$", re.IGNORECASE)
_AIM = re.compile(r"(?P<what>meet|test)\s+(?P<on>[^\s:]+)\s*(?::\s*(?P<lifts>.*))?$", re.IGNORECASE)
_AWAY = re.compile(r"(?P<how>away|missed)\s+(?P<on>[^\s:]+)\s*(?::\s*(?P<why>.*))?$", re.IGNORECASE)
_LIGHT = re.compile(r"(?P<how>light|lightened)\s+(?P<on>\d[^\s:]*)\s*(?::\s*(?P<school>.*))?$", re.IGNORECASE)
_TRIAL = re.compile(
    r"trial\s+(?P<on>[^\s,]+)\s*,\s*(?P<weeks>\d{1,3})\s+weeks\s*,\s*in\s+(?P<tried>\d{1,3}(?:[\s,]+\d{1,3})*)"
    r"\s*:\s*(?P<lift>[^\[\]:#]+(?:\[[^\[\]:#]*\])?)\s*:\s*(?P<what>[^#]+?)\s*$",
    re.IGNORECASE,
)
_BLOCK = re.compile(
    rf"(?P<kind>{'|'.join(Kind)})\b\s*(?:\((?P<name>[^()]*)\))?\s*(?P<more>(?:,[^,:]*)*):?\s*$", re.IGNORECASE
)
_ROUNDS = re.compile(r"(?P<rounds>\d{1,3})\s+rounds?\s+of\s+(?P<weeks>\d{1,3})\s+weeks?$", re.IGNORECASE)
_WEEKS = re.compile(r"(?P<weeks>\d{1,3})\s+weeks?$", re.IGNORECASE)
_DAY = re.compile(r"(?P<day>[a-z]+)\s*(?:,\s*(?P<title>[^:#]*?))?\s*:\s*$", re.IGNORECASE)
_SCHOOL = re.compile(rf"(?:{'|'.join(LightSchool)})(?:{BY_LOT})?".replace(" ", r"\s+"), re.IGNORECASE)
_LIFT = re.compile(r"\s*([^\[\],]+?)\s*(?:\[([^\]]*)\])?\s*(?:,|$)")


class SeasonError(ValueError):
    """A text that is no season. `problems` has one for each faulty line."""

    def __init__(self, problems: tuple[Problem, ...]) -> None:
        self.problems = problems
        super().__init__("\n".join(str(problem) for problem in problems))


@cached(SEASONS_KEPT)
def read_season(text: str, unit: Unit = Unit.KG) -> Season:
    """Read a season, every week of it; a load without a unit is in `unit`. Raises `SeasonError`."""
    season, problems = examine_season(text, unit)
    if season is None or problems:
        raise SeasonError(problems)
    return season


def examine_season(text: str, unit: Unit = Unit.KG) -> tuple[Season | None, tuple[Problem, ...]]:
    """Read what can be read. Without a season there are problems."""
    if len(text) > LONGEST_TEXT:
        message = f"The text has {len(text):,} characters; a season holds {LONGEST_TEXT:,} at most."
        return None, (Problem(line=1, column=1, message=message),)
    return _Examination(unit).examine(text.expandtabs(4).splitlines())


@dataclass
class _Day:
    weekday: Weekday
    title: str
    indent: int
    lines: list[tuple[int, str]] = field(default_factory=list)


@dataclass
class _Block:
    line: int
    block: Block
    days: list[_Day] = field(default_factory=list)


class _Slip(Exception):
    """What is wrong with a line, and at which column."""

    def __init__(self, message: str, column: int = 1, nearest: str | None = None) -> None:
        self.message, self.column, self.nearest = message, column, nearest
        super().__init__(message)


class _Examination:
    """Goes through the lines once, then through the weeks."""

    def __init__(self, unit: Unit) -> None:
        self.unit = unit
        self.title = ""
        self.starts: date | None = None
        self.aim: Aim | None = None
        self.away: dict[date, Away | LightWeek] = {}
        self.light_lines: dict[date, int] = {}
        self.trials: list[Trial] = []
        self.blocks: list[_Block] = []
        self.problems: list[Problem] = []

    def examine(self, lines: list[str]) -> tuple[Season | None, tuple[Problem, ...]]:
        for number, line in enumerate(lines, start=1):
            try:
                self._line(number, line.rstrip())
            except _Slip as slip:
                self._wrong(number, slip.column, slip.message, slip.nearest)
            except LiftsError as error:
                self._wrong(number, 1, str(error))
        if not self._is_too_long():
            for block in self.blocks:
                self._weeks(block)
        season = self._season()
        return season, tuple(sorted(self.problems, key=lambda each: (each.line, each.column)))

    def _is_too_long(self) -> bool:
        """Whether there is more than a season holds; what is wrong with its lines is not looked for then."""
        weeks = [(block.block.rounds * block.block.weeks, block) for block in self.blocks]
        for many, most, what in (
            (sum(of for of, _ in weeks), MOST_WEEKS, "weeks"),
            (sum(of * len(block.days) for of, block in weeks), MOST_SESSIONS, "sessions"),
            (
                sum(of * len(day.lines) for of, block in weeks for day in block.days),
                MOST_LINES,
                "lines in all weeks",
            ),
            (len(self.away), MOST_WEEKS, "weeks away or light"),
        ):
            if many > most:
                self._wrong(1, 1, f"These are {many:,} {what}; a season has {most:,} at most.")
                return True
        return False

    def _line(self, number: int, line: str) -> None:
        if len(line) > LONGEST_LINE:
            raise _Slip(f"This line has {len(line):,} characters; a line holds {LONGEST_LINE:,}.", LONGEST_LINE)
        bare = line.lstrip()
        indent = len(line) - len(bare)
        day = self.blocks[-1].days[-1] if self.blocks and self.blocks[-1].days else None
        if not bare:
            return
        if day and indent > day.indent:
            day.lines.append((number, line))
        elif bare.startswith("#"):
            if not self.title and not self.blocks:
                self.title = " ".join(bare.lstrip("#").split())
        elif indent:
            self._day(bare, indent)
        else:
            self._head(number, bare)

    def _head(self, number: int, line: str) -> None:
        if found := _FROM.match(line):
            if self.starts:
                raise _Slip("The season has a first day already.")
            day = _date(found["on"], found.start("on") + 1)
            self.starts = monday_of(day)
        elif found := _AIM.match(line):
            if self.aim:
                raise _Slip(f"The season leads to a {self.aim.what} already.")
            on = _date(found["on"], found.start("on") + 1)
            self.aim = Aim(what=found["what"].lower(), on=on, lifts=tuple(read_lifts(found["lifts"] or "")))
        elif found := _AWAY.match(line):
            missed, why = found["how"].lower() == "missed", " ".join((found["why"] or "").split())
            self._off(Away(monday=_monday(found), missed=missed, why=why), found.start("on") + 1)
        elif found := _LIGHT.match(line):
            school, by_lot = _school(found["school"] or "", found.start("school") + 1)
            instead = found["how"].lower() == "lightened"
            week = LightWeek(monday=_monday(found), school=school, instead=instead, by_lot=by_lot)
            self._off(week, found.start("on") + 1)
            self.light_lines[week.monday] = number
        elif line.lower().startswith("trial "):
            self.trials.append(self._trial(line))
        elif found := _BLOCK.match(line):
            self.blocks.append(_Block(number, _block(found)))
        else:
            first = re.match(r"[^\W\d]*", line)
            word = first[0].lower() if first else ""
            near = get_close_matches(
                word, [*Kind, "from", "meet", "test", "away", "missed", "lightened", "trial"], n=1
            )
            raise _Slip(
                "A season has a line 'from' with its first day, a line 'meet' or 'test' with a date where it leads "
                "to one, and blocks: building, heavy, peaking, light or free.",
                nearest=near[0] if near else None,
            )

    def _trial(self, line: str) -> Trial:
        found = _TRIAL.match(line)
        if not found:
            raise _Slip(
                "A trial has a Monday, its weeks, those in which it is tried, a lift and what is tried: "
                "trial 2026-11-30, 8 weeks, in 1 4 5 8: Front squat [belt]: heavy single first."
            )
        weeks, tried = int(found["weeks"]), _numbers(found["tried"])
        if not MOST_WEEKS >= weeks >= 2:
            raise _Slip(f"A trial has 2 to {MOST_WEEKS} weeks.", found.start("weeks") + 1)
        if tried[0] < 1 or tried[-1] > weeks or len(tried) == weeks:
            message = f"It is tried in some of the weeks 1 to {weeks}, and in some it is not."
            raise _Slip(message, found.start("tried") + 1)
        lift = _lift(found["lift"])
        trial = Trial(
            monday=_monday(found),
            weeks=weeks,
            tried=tuple(tried),
            exercise=lift.exercise,
            setup=lift.setup,
            **_what(found),
        )
        for other in self.trials:
            if other.overlaps(trial):
                raise _Slip(f"One trial at a time: that of {other.monday} goes on until {other.last}.")
        self._sets(trial, found)
        return trial

    def _sets(self, trial: Trial, found: re.Match[str]) -> None:
        """Read the sets that are tried, those of every week."""
        try:
            for number in () if trial.method else trial.tried:
                sets_of(trial, number, self.unit)
        except ChangeError as error:
            raise _Slip(str(error), found.start("what") + error.column) from None
        except NotationError as error:
            near = get_close_matches(trial.sets.lower(), list(Method), n=1)
            (problem, *_) = error.problems
            column = found.start("what") + problem.column
            raise _Slip(problem.message, column, near[0] if near else problem.nearest) from None

    def _off(self, week: Away | LightWeek, column: int) -> None:
        """Take in a week that is not trained as its block says."""
        if week.monday in self.away:
            raise _Slip(f"The week of {week.monday} is away or light already.", column)
        self.away[week.monday] = week

    def _day(self, line: str, indent: int) -> None:
        if not self.blocks:
            raise _Slip("A day belongs to a block: write its line first, such as 'building, 3 weeks:'.", indent + 1)
        found = _DAY.match(line)
        weekday = found and _weekday(found["day"])
        if not found or not weekday:
            word = re.match(r"\w*", line)
            near = get_close_matches(word[0].capitalize() if word else "", list(Weekday), n=1)
            message = "In a block stand its days, such as 'Tuesday, Legs:', and further in their lifts."
            raise _Slip(message, indent + 1, near[0] if near else None)
        days = self.blocks[-1].days
        if days and indent != days[0].indent:
            raise _Slip("The days of a block stand under each other.", indent + 1)
        if len(days) == MOST_DAYS:
            raise _Slip(f"A week has {MOST_DAYS} sessions at most.", indent + 1)
        title = " ".join((found["title"] or weekday).split())
        if any(title.lower() == each.title.lower() for each in days):
            raise _Slip(f"There is a session {title} in this week already: give this one a name of its own.", 1)
        days.append(_Day(weekday, title, indent))

    def _weeks(self, block: _Block) -> None:
        """Read every session of a block in every week; a fault that stands in several is told once."""
        told: set[tuple[int, str]] = set()
        for day in block.days:
            for week in weeks_of(block.block):
                for problem in self._of_week(day, week):
                    if (problem.line, problem.message) not in told:
                        told.add((problem.line, problem.message))
                        self.problems.append(problem)

    def _of_week(self, day: _Day, week: Week) -> Iterator[Problem]:
        numbers, texts = [0], [f"# {day.title}"]
        within = _indent([line for _, line in day.lines])
        for at, found in lines_in([line[within:] for _, line in day.lines], week):
            number = day.lines[at][0]
            if isinstance(found, ChangeError):
                yield Problem(line=number, column=found.column + within, message=str(found))
                continue
            numbers.append(number)
            texts.append(found)
        if not any(map(has_lift, texts)):
            return
        for problem in examine("\n".join(texts), self.unit).problems:
            in_file = numbers[min(problem.line, len(numbers)) - 1] or day.lines[0][0]
            yield problem.model_copy(update={"line": in_file, "column": problem.column + within})

    def _season(self) -> Season | None:
        if not self.blocks and not self.problems:
            self._wrong(1, 1, "Nothing is planned yet. Write a block and its days, such as 'building, 3 weeks:'.")
        if self.starts is None and not self.problems:
            self._wrong(1, 1, "Say when the season begins, such as 'from 2026-10-12'.")
        if not self.problems:
            for before, each in zip([None, *self.blocks], self.blocks, strict=False):
                self._fits(each, before)
        if self.starts is None or not self.blocks:
            return None
        off = [self.away[monday] for monday in sorted(self.away)]
        season = Season(
            title=self.title or "Season",
            starts=self.starts,
            blocks=tuple(
                each.block.model_copy(update={"days": tuple(map(_as_day, each.days))}) for each in self.blocks
            ),
            aim=self.aim,
            away=tuple(each for each in off if isinstance(each, Away)),
            light=tuple(each for each in off if isinstance(each, LightWeek)),
            trials=tuple(sorted(self.trials, key=lambda each: each.monday)),
        )
        if season.weeks > MOST_WEEKS:
            return None
        last = season.mondays[-1] + timedelta(days=6)
        if season.aim and not season.starts <= season.aim.on <= last:
            within = f"the season, {season.starts} to {last}"
            self._wrong(1, 1, f"The {season.aim.what} on {season.aim.on} is not within {within}.")
        trained = blocks_by_monday(season)
        for week in season.light:
            self._is_light(week, trained)
        return season

    def _is_light(self, week: LightWeek, trained: Mapping[date, Block]) -> None:
        """A light week needs a week of training that it is made of: its own, or the one before it.

        `trained` are the blocks of the weeks by their Mondays, in order.
        """
        if week.instead:
            made_of = trained.get(week.monday)
        else:
            before = [block for day, block in trained.items() if day < week.monday]
            made_of = before[-1] if 0 < len(before) < len(trained) else None
        if made_of is None or not made_of.days:
            what = "with sessions of its own" if week.instead else "after a week with sessions"
            self._wrong(
                self.light_lines[week.monday],
                1,
                f"A light week is one of the season, {what}; {week.monday} is not.",
            )

    def _fits(self, each: _Block, before: _Block | None) -> None:
        block, days = each.block, each.days
        if block.kind is Kind.FREE and days:
            self._wrong(each.line, 1, "A free week has no sessions.")
        if block.school and days:
            self._wrong(each.line, 1, f"'{block.school}' follows from the week before it: leave its days out.")
        if block.kind is Kind.LIGHT and not block.school and not days:
            ways = f"{block.kind}, 1 week, {LightSchool.SHORT}", f"{block.kind}, 1 week, {LightSchool.HALF}"
            self._wrong(each.line, 1, f"Say how the week is light: '{ways[0]}' or '{ways[1]}', or write its days.")
        if block.school and (before is None or before.block.kind.is_easy):
            self._wrong(each.line, 1, "A light week that follows from the one before it needs such a week.")
        if not block.kind.is_easy and not days:
            self._wrong(each.line, 1, "Write the days of this block under it, such as '  Tuesday, Legs:'.")
        for day in days:
            if not any(has_lift(line) for _, line in day.lines):
                self._wrong(each.line, 1, f"{day.title} has no lifts yet: write them further in, under its day.")

    def _wrong(self, line: int, column: int, message: str, nearest: str | None = None) -> None:
        self.problems.append(Problem(line=line, column=column, message=message, nearest=nearest))


def blocks_by_monday(season: Season) -> dict[date, Block]:
    """The block of every week by its Monday, in order."""
    by_week = (each for block in season.blocks for each in repeat(block, block.rounds * block.weeks))
    return dict(zip(season.mondays, by_week, strict=True))


def past_its_day(season: Season) -> tuple[date, ...]:
    """The Mondays of the weeks that build up to the day a season leads to, and begin only after it."""
    if season.aim is None:
        return ()
    blocks = blocks_by_monday(season).items()
    return tuple(day for day, block in blocks if day > season.aim.on and not block.kind.is_easy)


def trained_mondays(season: Season) -> tuple[date, ...]:
    """The Mondays of the weeks of hard training, in order: neither light nor free nor away."""
    easy = easy_mondays(season)
    return tuple(day for day in season.mondays if day not in easy)


def easy_mondays(season: Season) -> frozenset[date]:
    """The Mondays of the weeks that are light, free or away, as a season has them."""
    easy = (day for day, block in blocks_by_monday(season).items() if block.kind.is_easy)
    return frozenset((*easy, *(each.monday for each in season.off)))


def with_away(text: str, monday: date, away: Away | LightWeek | None) -> str:
    """A season's text with a week away or light, or without any for that Monday; the rest stays as it is typed.

    Light weeks and trials after it go with the plan where that is put off, or is no longer.
    """
    before = [line for line in text.splitlines() if _monday_on(line, _AWAY, _LIGHT) == monday]
    lines = [line for line in text.splitlines() if line not in before]
    now = write_away(away) if away else None
    later = (now is not None and _puts_off(now)) - sum(map(_puts_off, before))
    gone = {found for line in lines if (found := _monday_on(line, _AWAY))}
    lines = [_light_later(line, monday, later, gone) for line in lines]
    mondays = _trained(text.splitlines()), _trained([*lines, *filter(None, [now])])
    return _with_head([_trial_later(line, *mondays) for line in lines], now)


def with_schools(text: str, season: Season, schools: Mapping[date, LightSchool]) -> str:
    """A season's text with the schools, drawn by lot, of the light weeks and blocks that begin on some Mondays."""
    lines = text.splitlines()
    ends = accumulate(block.rounds * block.weeks for block in season.blocks)
    begin = iter([season.mondays[first] for first in (0, *ends) if first < season.weeks])
    for at, line in enumerate(lines):
        monday = next(begin) if _BLOCK.match(line) else _monday_on(line, _LIGHT)
        if monday and monday in schools and (named := list(_SCHOOL.finditer(line))):
            (start, end), school = named[-1].span(), write_school(schools[monday], by_lot=True)
            lines[at] = f"{line[:start]}{school}{line[end:]}"
    return "\n".join(lines) + "\n"


class TrainedError(ValueError):
    """A week cannot go back over the week of a Monday, in which something is trained."""

    def __init__(self, monday: date) -> None:
        self.monday = monday
        super().__init__(monday.isoformat())


def with_week_moved(text: str, monday: date, to: date) -> str:
    """A season's text with a week, and all that follows it, on another Monday.

    Later, those in between are weeks away; earlier, those that were are away no more. Raises `TrainedError` where
    one that it would go back over is none.
    """
    first, last = min(monday, to), max(monday, to)
    between = [first + timedelta(weeks=number) for number in range((last - first) // timedelta(weeks=1))]
    if to < monday:
        away = {_monday_on(line, _AWAY) for line in text.splitlines() if _AWAY.match(line) and _puts_off(line)}
        if trained := [each for each in between if each not in away]:
            raise TrainedError(trained[-1])
    for each in between:
        text = with_away(text, each, Away(monday=each) if to > monday else None)
    return text


def _puts_off(line: str) -> bool:
    """Whether all that follows a week is a week later for its line."""
    return line.split()[0].lower() in ("away", "light")


def _light_later(line: str, after: date, weeks: int, gone: Container[date]) -> str:
    """The line of a light week after a Monday, so many weeks later, where nobody is away."""
    told, monday = _LIGHT.match(line), _monday_on(line, _LIGHT)
    if told is None or monday is None or monday <= after or not weeks:
        return line
    step = timedelta(weeks=weeks)
    found = monday + step
    while found in gone:
        found += step
    return f"{line[: told.start('on')]}{found.isoformat()}{line[told.end('on') :]}"


def _trial_later(line: str, before: Sequence[date], after: Sequence[date]) -> str:
    """The line of a trial on the same weeks of the season, which were on some Mondays before and are on others now.

    It begins and ends with them; for weeks that are between them now nothing is drawn.
    """
    told, monday = _TRIAL.match(line), _monday_on(line, _TRIAL)
    if told is None or monday is None:
        return line
    moved = {
        number: after[before.index(on)]
        for number in range(1, int(told["weeks"]) + 1)
        if (on := monday + timedelta(weeks=number - 1)) in before
    }
    if not moved:
        return line
    begins, ends = min(moved.values()), max(moved.values())
    tried = [_weeks_between(begins, moved[each]) for each in _numbers(told["tried"]) if each in moved]
    long = _weeks_between(begins, ends)
    return f"trial {begins}, {long} weeks, in {' '.join(map(str, tried))}{line[told.end('tried') :]}"


def _weeks_between(first: date, last: date) -> int:
    """The weeks from one Monday to another, both counted."""
    return (last - first) // timedelta(weeks=1) + 1


def _numbers(told: str) -> list[int]:
    return sorted({int(each) for each in re.findall(r"\d+", told)})


def _trained(lines: Sequence[str]) -> Sequence[date]:
    """The Mondays for which the lines of a season have something planned, as many as the longest can have."""
    starts = next((monday for line in lines if (monday := _monday_on(line, _FROM))), None)
    off = {monday for line in lines if (monday := _monday_on(line, _AWAY, _LIGHT)) and _puts_off(line)}
    days = (starts + timedelta(weeks=number) for number in count()) if starts else iter(())
    return tuple(islice((day for day in days if day not in off), MOST_WEEKS))


def with_trial(text: str, monday: date, trial: Trial | None) -> str:
    """A season's text with a trial, or without the one that begins on a Monday; the rest stays as it is typed."""
    lines = [line for line in text.splitlines() if _monday_on(line, _TRIAL) != monday]
    return _with_head(lines, write_trial(trial) if trial else None)


def _with_head(lines: list[str], more: str | None) -> str:
    """The lines of a season with one more at the end of its head."""
    if more:
        of_head = (_FROM, _AIM, _AWAY, _LIGHT, _TRIAL)
        head = [at for at, line in enumerate(lines) if any(each.match(line) for each in of_head)]
        lines.insert(head[-1] + 1 if head else 0, more)
    return "\n".join(lines) + "\n"


def _monday_on(line: str, *kinds: re.Pattern[str]) -> date | None:
    """The Monday that a line of some kinds is about; None for any other line."""
    found = next((match for kind in kinds if (match := kind.match(line))), None)
    if not found or not ISO_DATE.fullmatch(found["on"]):
        return None
    return monday_of(date.fromisoformat(found["on"]))


def weeks_of(block: Block) -> Iterator[Week]:
    """The weeks of a block, round by round."""
    for number in range(1, block.rounds + 1):
        for week in range(1, block.weeks + 1):
            yield Week(number, week, block.weeks)


def _what(found: re.Match[str]) -> dict[str, Any]:
    """What is tried: a method by its name, or sets in the written notation."""
    told = " ".join(found["what"].split())
    method = next((each for each in Method if each == told.lower()), None)
    return {"method": method} if method else {"sets": told}


def _as_day(day: _Day) -> Day:
    within = _indent([line for _, line in day.lines])
    return Day(weekday=day.weekday, title=day.title, lines=tuple(line[within:] for _, line in day.lines))


def _indent(lines: Sequence[str]) -> int:
    """How far in the line stands that is furthest out."""
    return min((len(line) - len(line.lstrip()) for line in lines), default=0)


def _date(written: str, column: int) -> date:
    try:
        day = date.fromisoformat(written if ISO_DATE.fullmatch(written) else "")
    except ValueError:
        raise _Slip("A date is written as year, month and day, like 2026-10-12.", column) from None
    if not 1900 <= day.year <= 2200:
        raise _Slip("A season is in the years 1900 to 2200.", column)
    return day


def _monday(found: re.Match[str]) -> date:
    return monday_of(_date(found["on"], found.start("on") + 1))


def _as_school(written: str) -> tuple[LightSchool, bool] | None:
    """A school, and whether it was drawn by lot."""
    told = " ".join(written.lower().split())
    name = told.removesuffix(BY_LOT)
    school = next((each for each in LightSchool if each == name), None)
    return (school, name != told) if school else None


def _school(written: str, column: int) -> tuple[LightSchool, bool]:
    told = " ".join(written.lower().split())
    if found := _as_school(told):
        return found
    near = get_close_matches(told, list(LightSchool), n=1)
    raise _Slip(
        f"A light week is '{LightSchool.SHORT}' or '{LightSchool.HALF}'.", column, near[0] if near else None
    )


def _weekday(written: str) -> Weekday | None:
    """A day of the week by its name or the first three letters of it, or more."""
    found = [day for day in Weekday if day.lower().startswith(written.lower()) and len(written) >= 3]
    return found[0] if found else None


class LiftsError(ValueError):
    """A text that is no list of lifts."""


def read_lifts(written: str) -> Iterator[AimLift]:
    """Read lifts with their set-ups: `Front squat [belt], Bench press`. Raises `LiftsError`."""
    at = 0
    while written[at:].strip():
        found = _LIFT.match(written, at)
        if not found:
            raise LiftsError(
                "Lifts are parted by commas, their set-up in brackets: Front squat [belt], Bench press."
            )
        yield _as_lift(found)
        at = found.end()


def _lift(written: str) -> AimLift:
    """One lift with its set-up."""
    found = _LIFT.fullmatch(written)
    if not found:
        raise _Slip("A trial is of one lift, its set-up in brackets: Front squat [belt].")
    return _as_lift(found)


def _as_lift(found: re.Match[str]) -> AimLift:
    items = tuple(filter(None, (" ".join(item.split()) for item in (found[2] or "").split(","))))
    return AimLift(exercise=" ".join(found[1].split()), setup=SetUp(items=items))


def _block(found: re.Match[str]) -> Block:
    told: dict[str, object] = {}
    for match in re.finditer(r",\s*([^,]*)", found["more"] or ""):
        option, column = match[1].strip(), found.start("more") + match.start(1) + 1
        if not option:
            continue
        numbers = _ROUNDS.match(option) or _WEEKS.match(option)
        if numbers:
            told |= {name: _number(value, column) for name, value in numbers.groupdict().items()}
        elif school := _as_school(option):
            told["school"], told["by_lot"] = school
        else:
            near = get_close_matches(option.lower(), [*LightSchool, "3 weeks", "2 rounds of 3 weeks"], n=1)
            message = f"A block says how many weeks it has, '3 weeks' or '2 rounds of 3 weeks'; not '{option}'."
            raise _Slip(message, column, near[0] if near else None)
    if "school" in told and found["kind"].lower() != Kind.LIGHT:
        raise _Slip(f"Only a light week is '{told['school']}'.")
    name = " ".join((found["name"] or "").split())
    return Block.model_validate({"kind": found["kind"].lower(), "name": name, **told})


def _number(written: str, column: int) -> int:
    if not 1 <= int(written) <= MOST_WEEKS:
        raise _Slip(f"A block has 1 to {MOST_WEEKS} rounds and weeks.", column)
    return int(written)
