"""Dates and times as people write them in tables."""

import re
from datetime import UTC, date, datetime, time, tzinfo
from enum import StrEnum
from functools import lru_cache

from dateutil import parser

NOON = time(12)
"""When something was done of which only the day is known."""
_NUMBERS = re.compile(r"(\d{1,4})([-/. ])(\d{1,2})\2\s?(\d{1,4})\.?(?:[T,\s]+(?P<time>.+))?")
_TIME = re.compile(r"(\d{1,2})[:.h](\d{2})(?:[:.](\d{2})(?:[.,]\d+)?)?\s*(?:([ap])\.?m\.?)?", re.IGNORECASE)


class DateOrder(StrEnum):
    """In which order a date written in numbers has its parts."""

    YEAR_FIRST = "year, month, day"
    DAY_FIRST = "day, month, year"
    MONTH_FIRST = "month, day, year"


class NoMomentError(ValueError):
    """A text that is no date, or no time of day."""


@lru_cache(maxsize=4_096)
def moment(written: str, at: str, order: DateOrder, zone: tzinfo) -> datetime:
    """The moment that is written as a date, with the time in it or beside it in `at`; noon where there is none.

    Raises `NoMomentError`.
    """
    day, clock, own_zone = _parts(written, order)
    if at:
        clock = _time(at)
    return datetime.combine(day, NOON if clock is None else clock, own_zone or zone)


def _parts(written: str, order: DateOrder) -> tuple[date, time | None, tzinfo | None]:
    try:
        known = datetime.fromisoformat(written)
    except ValueError:
        pass
    else:
        has_time = any(letter in written for letter in "T:")
        return known.date(), known.time() if has_time else None, known.tzinfo
    if found := _NUMBERS.fullmatch(written):
        return _day(found[1], found[3], found[4], order), _time(found["time"]) if found["time"] else None, None
    return _in_words(written, order)


def is_day(written: str, order: DateOrder) -> bool:
    """Whether a date that is written in numbers is one in that order."""
    found = _NUMBERS.fullmatch(written)
    try:
        return found is not None and bool(_day(found[1], found[3], found[4], order))
    except NoMomentError:
        return False


def _day(first: str, second: str, third: str, order: DateOrder) -> date:
    one, two, three = int(first), int(second), int(third)
    if len(first) == 4:
        year, month, day = one, two, three
    elif order is DateOrder.YEAR_FIRST:
        raise NoMomentError("the year does not come first")
    elif order is DateOrder.DAY_FIRST:
        day, month, year = one, two, three
    else:
        month, day, year = one, two, three
    if year < 100:
        year += 2000
    try:
        return date(year, month, day)
    except ValueError as error:
        raise NoMomentError(f"there is no such day when it is read as {order}") from error


def _time(written: str) -> time:
    found = _TIME.fullmatch(written.strip())
    if not found:
        raise NoMomentError(f"“{written}” is no time of day")
    hour, minute, second = int(found[1]), int(found[2]), int(found[3] or 0)
    if found[4]:
        hour = hour % 12 + (12 if found[4].lower() == "p" else 0)
    try:
        return time(hour, minute, second)
    except ValueError as error:
        raise NoMomentError(f"“{written}” is no time of day") from error


def _in_words(written: str, order: DateOrder) -> tuple[date, time | None, tzinfo | None]:
    """A date with the name of its month. What is not written would be filled in, so it is read twice."""
    if not re.search(r"[^\W\d_]{3}", written) or not re.search(r"\d", written):
        raise NoMomentError("it is no date")
    try:
        read = [
            parser.parse(written, dayfirst=order is DateOrder.DAY_FIRST, default=default)
            for default in (datetime(1904, 1, 1, 1, tzinfo=UTC), datetime(2000, 2, 2, 2, tzinfo=UTC))
        ]
    except (ValueError, OverflowError) as error:
        raise NoMomentError("it is no date") from error
    one, other = read
    if one.date() != other.date():
        raise NoMomentError("the year, the month or the day is missing")
    return one.date(), one.time() if one.hour == other.hour else None, one.tzinfo if one.tzinfo is not UTC else None
