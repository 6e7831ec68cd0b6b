"""Reading what falls due."""

from __future__ import annotations

import csv
import datetime as dt
import io
from collections import Counter
from collections.abc import Iterable, Iterator
from itertools import chain

from django.db.models import Count, OuterRef, Q, QuerySet, Subquery
from django.utils import timezone

from finegap.api.lists import words_in
from finegap.bench.models import Job
from finegap.due.models import DueKind, DueLine
from finegap.due.responses import DueAhead, DueCount, DueLineResponse, DueWeek
from finegap.formats.calendar import MOST as CALENDAR
from finegap.formats.calendar import Entry
from finegap.formats.tables import safe

WEEKS = 12
"""So many weeks ahead are shown."""
MOST = 5000
"""Lines of a file."""
_WEEK = 7


def lines() -> QuerySet[DueLine]:
    """All that falls due, the soonest first."""
    on_bench = Job.objects.filter(pump=OuterRef("pump"), ended="").values("number")[:1]
    return DueLine.objects.select_related("pump", "gauge").annotate(on_bench=Subquery(on_bench))


def ahead_until() -> dt.date:
    """The last day of the twelve weeks."""
    return timezone.localdate() + dt.timedelta(days=_WEEK * WEEKS - 1)


def in_weeks(rows: QuerySet[DueLine]) -> QuerySet[DueLine]:
    """What falls due by the end of the twelve weeks, or is past due."""
    return rows.filter(day__lte=ahead_until())


def having(said: str) -> Q:
    """Lines that have every word of a text: of their pump, what falls due, or the gauge."""
    found = Q()
    for word in words_in(said.casefold()):
        found &= Q(pump__standing__words__contains=word) | Q(name__icontains=word)
    return found


def due_lines(rows: Iterable[DueLine]) -> list[DueLineResponse]:
    """Lines as a list says them."""
    today = timezone.localdate()
    return [
        DueLineResponse(
            kind=one.kind,
            pump=one.pump.tag if one.pump else "",
            gauge=one.gauge.tag if one.gauge else "",
            name=one.name,
            said=one.said,
            service=one.pump.service if one.pump else "",
            place=one.pump.location if one.pump else "",
            lent=bool(one.pump and one.pump.lent),
            on_bench=one.on_bench,  # type: ignore[attr-defined]
            day=one.day,
            late=(one.day is not None and one.day < today) or (one.left_h is not None and one.left_h < 0),
        )
        for one in rows
    ]


def ahead(rows: QuerySet[DueLine], behind: int) -> DueAhead:
    """The ribbon: counted in the database, a number a day and kind."""
    today = timezone.localdate()
    each = in_weeks(rows).order_by().values_list("day", "kind")
    counted = each.annotate(count=Count("pk"), over=Count("pk", filter=Q(left_h__lt=0)))
    late: Counter[str] = Counter()
    weeks = [Counter[str]() for _ in range(WEEKS)]
    for day, kind, count, over in counted:
        past = count if day < today else over
        late[kind] += past
        weeks[max((day - today).days, 0) // _WEEK][kind] += count - past
    undated = dict(rows.filter(day=None).order_by().values_list("kind").annotate(count=Count("pk")))
    return DueAhead(
        _counts(late),
        [DueWeek(today + dt.timedelta(days=_WEEK * i), _counts(week)) for i, week in enumerate(weeks)],
        _counts(Counter(undated)),
        behind,
    )


def _counts(of: Counter[str]) -> list[DueCount]:
    return [DueCount(kind.value, of[kind.value]) for kind in DueKind if of[kind.value]]


_COLUMNS = ("Day", "Past due", "What", "Pump", "Gauge", "Name", "Place", "On loan", "Details")
WORDS = {
    DueKind.INSPECTION: "inspection",
    DueKind.SERVICE: "service by hours",
    DueKind.KIT: "parts to order",
    DueKind.CALIBRATION: "calibration",
}
"""What each kind is called."""


def as_csv(rows: QuerySet[DueLine]) -> Iterator[str]:
    """A table, line by line; none of its cells is a formula."""
    text = io.StringIO()
    written = csv.writer(text)
    yield "\ufeff"
    for cells in chain([_COLUMNS], map(_cells, due_lines(rows[:MOST]))):
        written.writerow([safe(cell) for cell in cells])
        yield text.getvalue()
        text.seek(0)
        text.truncate()


def _cells(one: DueLineResponse) -> tuple[object, ...]:
    day = "" if one.day is None else one.day.isoformat()
    late, lent = "yes" if one.late else "", "yes" if one.lent else ""
    return (day, late, WORDS[DueKind(one.kind)], one.pump, one.gauge, one.name, one.place, lent, one.said)


def as_entries(rows: QuerySet[DueLine]) -> Iterator[Entry]:
    """What falls due on a day, for a calendar; of a pump or gauge the same thing keeps its key while its hours stay."""
    for one in rows.filter(day__isnull=False).order_by("day", "pk")[:CALENDAR]:
        assert one.day is not None
        if one.pump is not None:
            of, place, key = f"{one.pump.tag} {one.pump.service}", one.pump.location, one.pump.code
            place += " (on loan)" if one.pump.lent else ""
        else:
            of, place, key = "", "", one.gauge.tag if one.gauge else ""
        summary = f"{of}: {one.name}" if of else f"{one.name}: calibration"
        yield Entry(f"{key}-{one.kind}-{one.key or one.kind}", one.day, summary, one.said, place)
