"""How a pump stands by its records, and what falls due of it: read from the rows, worked out by the core."""

from __future__ import annotations

import datetime as dt
import json
import logging
from dataclasses import dataclass
from functools import lru_cache

from django.utils import timezone

from finegap.bench.models import Amendment, Job
from finegap.bench.past import whole_past
from finegap.bench.records import sheet_from
from finegap.core.errors import FieldError
from finegap.core.families.builds import is_overhaul
from finegap.core.families.family import Family
from finegap.core.formatting import Units, grouped
from finegap.core.ordering import Order
from finegap.core.sheet import SpecSheet
from finegap.core.standing import Coming, Standing, stand
from finegap.core.wear.lubrication import Due, Metered, due, total_at
from finegap.due.models import DueKind
from finegap.pumps import meter
from finegap.pumps.models import Pump

_LOG = logging.getLogger(__name__)
BESIDE = ("sheet__revisions", "meter", "jobs", "earlier", "lubricated")
"""What is read of a pump beside its own row."""


@dataclass(frozen=True)
class Falls:
    """One thing that falls due of a pump; ``day`` is ``None`` where the meter does not tell the rate."""

    kind: DueKind
    key: str
    name: str
    said: str
    left_h: float | None
    day: dt.date | None

    @property
    def is_over(self) -> bool:
        """Its hours are up, whatever the day."""
        return self.left_h is not None and self.left_h < 0


def sheet_now(pump: Pump) -> SpecSheet | None:
    """The newest revision of a pump's sheet; ``None`` where there is none, or it is of a family, or has a part, that is no more."""
    revision = next(iter(pump.sheet.revisions.all()), None)
    try:
        return None if revision is None else sheet_from(json.dumps(revision.content))
    except FieldError as wrong:
        _LOG.warning("The sheet of %s cannot be read: %s", pump.tag, wrong)
        return None


@lru_cache(maxsize=256)
def _built(content: str, build: tuple[tuple[str, str], ...]) -> Family:
    return sheet_from(content).family_of(dict(build))


def family_now(pump: Pump) -> Family | None:
    """The family as a pump is built by its sheet of now; ``None`` as above, or where the sheet knows such a build no more."""
    revision = next(iter(pump.sheet.revisions.all()), None)
    try:
        return None if revision is None else _built(json.dumps(revision.content), tuple(sorted(pump.build.items())))
    except FieldError as wrong:
        _LOG.warning("How %s is built cannot be read: %s", pump.tag, wrong)
        return None


def standing_of(pump: Pump, readings: list[Metered]) -> Standing | None:
    """How a pump stands; ``None`` where its sheet has no revision."""
    sheet, family = sheet_now(pump), family_now(pump)
    if sheet is None or family is None:
        return None
    return stand(
        sheet,
        family,
        whole_past(pump, sheet, readings),
        _overhauls(pump, readings, sheet),
        readings,
        pump.pressure_bar * pump.speed_r_min,
        pump.overhaul_every_h,
        pump.hours_per_week,
    )


def _overhauls(pump: Pump, readings: list[Metered], sheet: SpecSheet) -> list[tuple[int, float]]:
    """Days and hours of overhauls that count, oldest first: those entered from before this record, and those signed in it.

    One signed without its hours is taken at the last reading before it: the next is due no later for it.
    """
    found: list[tuple[int, float | None]] = [
        (one.day.toordinal(), float(one.hours)) for one in pump.earlier.all() if not one.struck_reason
    ]
    void = Amendment.objects.filter(void=True).values("job")
    signed = Job.objects.filter(pump=pump.pk, ended="signed").exclude(pk__in=void).order_by("number")
    for at, run, build in signed.values_list("opened_at", "hours_run", "build"):
        if is_overhaul(sheet.family.options, {**sheet.build, **build}):
            found.append((timezone.localdate(at).toordinal(), run))
    known = []
    for day, hours in sorted(found, key=lambda one: one[0]):
        before = [one.hours for one in readings if one.day <= day]
        if hours is not None or before:
            known.append((day, total_at(readings, day, before[-1] if hours is None else hours)))
    return known


def service_due(pump: Pump, readings: list[Metered]) -> tuple[Due, ...]:
    """Oil, grease and whatever else the sheet asks for by running hours."""
    sheet = sheet_now(pump)
    if sheet is None:
        return ()
    counted = (one for one in pump.lubricated.all() if not one.struck_reason)
    done = {one.name: Metered(timezone.localdate(one.at).toordinal(), float(one.hours)) for one in counted}
    return due(sheet.lubrication, readings, done, pump.wet, pump.start_c, pump.hours_per_week)


def falls_due(pump: Pump, standing: Standing | None, service: tuple[Due, ...]) -> list[Falls]:
    """All that falls due of a pump; nothing of a retired one."""
    if pump.retired:
        return []
    found = [
        Falls(DueKind.SERVICE, one.plan.name, one.plan.name, one.sentence.render(Units.MM), one.left_h, day_of(one.day))
        for one in service
    ]
    coming = coming_of(pump, standing)
    if standing is None or coming is None:
        return found
    part = next((one.feature for one in standing.parts if one.feature.key == coming.key), None)
    name = f"Inspection: {part.number} {part.name}" if part else "Planned overhaul"
    said = coming.sentence.render(Units.MM)
    found.append(Falls(DueKind.INSPECTION, coming.key, name, said, coming.left_h, day_of(coming.day)))
    order = standing.needs
    day = order_by(order, coming.day)
    if order is not None and order.cover.lines and day is not None:
        found.append(Falls(DueKind.KIT, "", "Parts to order", kit_said(order), None, day))
    return found


def coming_of(pump: Pump, standing: Standing | None) -> Coming | None:
    """The next inspection; none of a retired pump, or of one that is on the bench: it is being inspected."""
    on_bench = any(not job.ended for job in pump.jobs.all())
    return None if standing is None or pump.retired or on_bench else standing.next


def order_by(order: Order | None, inspection: int | None) -> dt.date | None:
    """The last day on which parts are ordered in time: one lead time before the inspection."""
    if order is None or inspection is None:
        return None
    return day_of(inspection - order.cover.lead_days)


def kit_said(order: Order) -> str:
    """What to order, in a line."""
    lines = ", ".join(f"{one.count} × {one.number} {one.name}" for one in order.cover.lines)
    days = order.cover.lead_days
    said = f"{lines}. Lead time {grouped(days)} day{'' if days == 1 else 's'}."
    return said if len(said) <= _LONGEST else f"{said[: _LONGEST - 2]} …"


_LONGEST = 300
"""Letters of a line of the list."""


def day_of(ordinal: int | None) -> dt.date | None:
    """A day of the calendar; ``None`` stays."""
    return None if ordinal is None else dt.date.fromordinal(ordinal)


def readings_of(pump: Pump) -> list[Metered]:
    """The meter of a pump, oldest first."""
    return meter.readings(pump)
