"""Working out anew what was changed of: a pump, a gauge at a time."""

from __future__ import annotations

import logging
import time
from typing import Any

from django.db import DatabaseError, transaction

from finegap.core import VERSION
from finegap.core.renewing import wears_up
from finegap.core.standing import PartNow
from finegap.due import models
from finegap.due.models import DueKind, DueLine, Stale
from finegap.due.standing import BESIDE, coming_of, day_of, falls_due, readings_of, service_due, sheet_now, standing_of
from finegap.inventory.models import Certificate, Gauge
from finegap.pumps.models import PartMoved, Pump

_LOG = logging.getLogger(__name__)
AT_ONCE = 60
"""So many are worked out before a list is answered; the server's keeper does the rest."""
_LONGEST_S = 3.0
"""A list is not kept waiting longer. A pump takes some milliseconds, the first of a process half a second for its imports."""
_WORST = 3
_MOST_NUMBERS = 200


def catch_up(most: int = AT_ONCE, seconds: float = _LONGEST_S) -> int:
    """Work out anew what was changed of, the first noted first.

    Parameters
    ----------
    most : int
        So many at once.
    seconds : float
        And no longer than that.

    Returns
    -------
    int
        How many are left. Where nothing can be written all of them are: what is shown is then older than the records.
        One that cannot be worked out is left, too, and keeps no other from it.
    """
    until = time.monotonic() + seconds
    failed: list[int] = []
    try:
        for _ in range(most):  # one by one: working out a pump may mark those that have a part of it
            stale = Stale.objects.exclude(pk__in=failed).order_by("pk").first()
            if stale is None or time.monotonic() > until:
                break
            try:
                _one(stale)
            except DatabaseError:
                raise
            except Exception:  # whatever is wrong with one pump, the lists of all the others are answered
                failed.append(stale.pk)
                _LOG.exception("How %s stands cannot be worked out.", stale.pump or stale.gauge)
    except DatabaseError:
        _LOG.warning("What falls due could not be worked out anew.", exc_info=True)
    return Stale.objects.count()


def work_out(tag: str) -> None:
    """Work out anew how one pump stands, where something was changed of it; where nothing can be written, what was known stays."""
    try:
        stale = Stale.objects.filter(pump__tag=tag).first()
        if stale is not None:
            _one(stale)
    except DatabaseError:
        _LOG.warning("How %s stands could not be worked out anew.", tag, exc_info=True)


def _one(stale: Stale) -> None:
    with transaction.atomic():
        Stale.objects.filter(pk=stale.pk).delete()
        if stale.gauge_id is not None:
            _gauge(stale.gauge_id)
        elif stale.pump_id is not None:
            pump = Pump.objects.select_related("sheet").prefetch_related(*BESIDE).filter(pk=stale.pump_id).first()
            if pump is not None:
                _pump(pump)
                if not stale.passed:
                    _pass_on(pump)


def _gauge(pk: int) -> None:
    DueLine.objects.filter(gauge=pk).delete()
    gauge: Gauge | None = Gauge.objects.filter(pk=pk).first()
    if gauge is not None and not gauge.retired:
        certificate: Certificate = gauge.now
        said = f"Calibration due; certificate {certificate.number or 'without a number'}."
        DueLine.objects.create(
            gauge=gauge, kind=DueKind.CALIBRATION, name=f"{gauge.tag} {gauge.kind}", said=said, day=certificate.due
        )


def _pump(pump: Pump) -> None:
    readings = readings_of(pump)
    standing = standing_of(pump, readings)
    found = falls_due(pump, standing, service_due(pump, readings))
    DueLine.objects.filter(pump=pump).delete()
    DueLine.objects.bulk_create(
        DueLine(pump=pump, kind=one.kind, key=one.key, name=one.name[:160], said=one.said[:300], left_h=one.left_h, day=one.day)
        for one in found
    )
    soonest = min((one for one in found if one.day), key=lambda one: (one.day or 0, not one.is_over), default=None)
    last, coming = readings[-1] if readings else None, coming_of(pump, standing)
    models.Standing.objects.update_or_create(
        pump=pump,
        defaults={
            "hours": last.hours if last else None,
            "read": day_of(last.day) if last else None,
            "rate": standing.rate if standing else None,
            "day": soonest.day if soonest else None,
            "said": soonest.name if soonest else "",
            "over": soonest is not None and soonest.is_over,
            "left_h": coming.left_h if coming else None,
            "overhauls": len(standing.overhauls) if standing else 0,
            "overhauled": day_of(standing.overhauls[-1][0]) if standing and standing.overhauls else None,
            "worst": [bar_of(part) for part in standing.worst[:_WORST]] if standing else [],
            "words": words_of(pump),
            "core": VERSION,
        },
    )


def _pass_on(pump: Pump) -> None:
    """Pumps that have a part of this one stand on its records, too; and those that have it from them."""
    found, front = {pump.pk}, {pump.pk}
    while front and len(found) < AT_ONCE:
        takers = PartMoved.objects.filter(pump__in=front, struck_reason="").values_list("taker", flat=True)
        front = set(takers[:AT_ONCE]) - found
        found |= front
    for pk in found - {pump.pk}:
        Stale.objects.get_or_create(pump_id=pk, defaults={"passed": True})


def words_of(pump: Pump) -> str:
    """What a pump is found by: tag, label, service, place, serial, liquid, material, sheet, maker, model, numbers of its parts."""
    sheet = sheet_now(pump)
    own = [pump.tag, pump.code, pump.service, pump.location, pump.serial, pump.liquid, pump.material, pump.sheet.title]
    if sheet is not None:
        catalogue = sheet.catalogue
        numbers = [one.number for one in catalogue.parts] + [one.number for one in catalogue.kits]
        own += [sheet.maker, sheet.model, *numbers[:_MOST_NUMBERS]]
    return "\n".join(own).casefold()


def bar_of(part: PartNow) -> dict[str, Any]:
    """A size as a list draws it: lengths in mm."""
    limit, last = part.spec.limit, part.last
    assert limit is not None
    assert last is not None
    up = wears_up(part.feature, limit)
    return {
        "key": part.feature.key,
        "number": part.feature.number,
        "name": part.feature.name,
        "new": [_short(mm) for mm in part.spec.new_mm or ()],
        "limit": _short(limit.upper_mm if up else limit.lower_mm),
        "mm": _short(last.value_mm),
        "u": _short(last.u_mm),
        "measured": part.measured,
        "verdict": part.verdict.value if part.verdict else "",
        "left_h": None if part.left_h is None else round(part.left_h),
        "fine": part.fine,
        "later": _short(part.worn_mm),
    }


def _short(mm: float | None) -> float | None:
    """A length to the hundredth of a micrometre: a bar is not drawn finer."""
    return None if mm is None else round(mm, 5)
