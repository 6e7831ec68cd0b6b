"""What falls due as a calendar file (iCalendar, RFC 5545): whole days, with a reminder a week before."""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence

from finegap.core.formatting import Units
from finegap.core.wear.lubrication import Due

_REMINDER = dt.timedelta(days=-7)


def as_ics(tag: str, service: str, found: Sequence[Due], stamp: dt.datetime) -> bytes:
    """The calendar of a pump: an event a thing that falls due on a known day; the same thing keeps its identity."""
    from icalendar import Alarm, Calendar, Event

    calendar = Calendar()
    calendar.add("prodid", "-//Fine Gap//lubrication//EN")
    calendar.add("version", "2.0")
    for one in found:
        if one.day is None:
            continue
        # what is past due stands on the day the file is fetched: nobody looks at last month
        day = max(dt.date.fromordinal(one.day), stamp.date())
        event = Event()
        event.add("uid", f"{tag}-{one.plan.name}-{one.at_h:.0f}@fine-gap".replace(" ", "-").lower())
        event.add("dtstamp", stamp)
        event.add("dtstart", day)
        event.add("dtend", day + dt.timedelta(days=1))
        event.add("summary", f"{tag} {service}: {one.plan.name}")
        event.add("description", one.sentence.render(Units.MM))
        alarm = Alarm()
        alarm.add("action", "DISPLAY")
        alarm.add("description", f"{tag}: {one.plan.name}")
        alarm.add("trigger", _REMINDER)
        event.add_component(alarm)
        calendar.add_component(event)
    return bytes(calendar.to_ical())
