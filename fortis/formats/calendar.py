"""Planned sessions as a calendar (iCalendar, RFC 5545)."""

from collections.abc import Iterable
from datetime import date, datetime, timedelta
from typing import NamedTuple

from icalendar import Calendar, Event


class Appointment(NamedTuple):
    """A session on its day: its id, name and text, and how long it is likely to take."""

    id: str
    day: date
    title: str
    written: str
    minutes: int


def write_calendar(appointments: Iterable[Appointment], written_at: datetime) -> bytes:
    """A calendar of sessions, each for its whole day: when on that day is the lifter's to say."""
    calendar = Calendar()
    calendar.add("prodid", "-//Fortis//Planned sessions//EN")
    calendar.add("version", "2.0")
    for each in appointments:
        event = Event()
        event.add("uid", f"{each.id}@fortis")
        event.add("dtstamp", written_at)
        event.add("dtstart", each.day)
        event.add("dtend", each.day + timedelta(days=1))
        event.add("summary", f"{each.title}, about {each.minutes} min")
        event.add("description", each.written)
        event.add("transp", "TRANSPARENT")
        calendar.add_component(event)
    return bytes(calendar.to_ical())
