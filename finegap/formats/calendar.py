"""What falls due as a calendar (iCalendar, RFC 5545): whole days, with a reminder a week before."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterable
from dataclasses import dataclass

_REMINDER = dt.timedelta(days=-7)
MOST = 1000
"""Events of a calendar: programs that fetch it read no more in a sitting (no source)."""


@dataclass(frozen=True)
class Entry:
    """Something that falls due on a day. The same thing keeps its ``key``: a calendar moves it and does not show it twice."""

    key: str
    day: dt.date
    summary: str
    details: str
    place: str = ""


def as_ics(entries: Iterable[Entry], stamp: dt.datetime, name: str = "", hours: int = 0) -> bytes:
    """A calendar, an event a thing that falls due.

    Parameters
    ----------
    entries : iterable of Entry
        The first ``MOST`` of them are taken.
    stamp : datetime
        When it is made. What is past due stands on that day: nobody looks at last month.
    name : str
        What a program calls it.
    hours : int
        How often a program that keeps it should fetch it anew, where it is fetched by an address.
    """
    from icalendar import Alarm, Calendar, Event

    calendar = Calendar()
    calendar.add("prodid", "-//Fine Gap//due//EN")
    calendar.add("version", "2.0")
    if name:
        calendar.add("name", name)
        calendar.add("x-wr-calname", name)
    if hours:
        calendar.add("refresh-interval", dt.timedelta(hours=hours), parameters={"value": "DURATION"})
    for entry, _ in zip(entries, range(MOST), strict=False):
        day = max(entry.day, stamp.date())
        event = Event()
        event.add("uid", f"{entry.key}@fine-gap".replace(" ", "-").lower())
        event.add("dtstamp", stamp)
        event.add("dtstart", day)
        event.add("dtend", day + dt.timedelta(days=1))
        event.add("summary", entry.summary)
        event.add("description", entry.details)
        event.add("transp", "TRANSPARENT")
        if entry.place:
            event.add("location", entry.place)
        alarm = Alarm()
        alarm.add("action", "DISPLAY")
        alarm.add("description", entry.summary)
        alarm.add("trigger", _REMINDER)
        event.add_component(alarm)
        calendar.add_component(event)
    return bytes(calendar.to_ical())
