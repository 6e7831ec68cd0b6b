"""Reading the fleet: its lines, from what was worked out of each pump, and what a pump is chosen from."""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence
from typing import Any

from django.db.models import OuterRef, Q, QuerySet, Subquery
from django.utils import timezone

from finegap.api.lists import words_in
from finegap.api.shown import NamedResponse
from finegap.bench.models import Job
from finegap.core.assembly.elastomers import MEDIA
from finegap.core.families import FAMILIES
from finegap.core.families.builds import OF_THE_JOB
from finegap.core.formatting import bare, grouped
from finegap.core.sheet import read_sheet
from finegap.due.models import Standing
from finegap.fleet.responses import BarResponse, LabelOf, NextResponse, PumpChoices, PumpLine, PumpOption
from finegap.pumps.models import Pump
from finegap.sheets.models import Sheet, SheetRevision


def pumps() -> QuerySet[Pump]:
    """Every pump by tag, with the job it is on the bench for and how it stands."""
    on_bench = Job.objects.filter(pump=OuterRef("pk"), ended="").values("number")[:1]
    return Pump.objects.select_related("sheet", "standing").annotate(on_bench=Subquery(on_bench))


def found_by(said: str) -> Q:
    """Pumps that have every word of a text somewhere: tag, label, service, place, serial, liquid, sheet, maker, part number."""
    found = Q()
    for word in words_in(said.casefold()):
        found &= Q(standing__words__contains=word)
    return found


def pump_lines(rows: Sequence[Pump]) -> list[PumpLine]:
    """Pumps as a list says them; nothing but their rows is read."""
    today = timezone.localdate()
    return [pump_line(pump, today) for pump in rows]


def pump_line(pump: Pump, today: dt.date) -> PumpLine:
    """A pump in a line."""
    standing = getattr(pump, "standing", None) or Standing()
    day = standing.day
    return PumpLine(
        tag=pump.tag,
        service=pump.service,
        location=pump.location,
        serial=pump.serial,
        sheet=pump.sheet.title,
        slug=pump.sheet.slug,
        liquid=pump.liquid,
        on_bench=pump.on_bench,  # type: ignore[attr-defined]
        retired=pump.retired,
        lent=pump.lent,
        hours=f"{grouped(standing.hours)}\u00a0h" if standing.hours is not None else "",
        read=standing.read,
        rate=f"{standing.rate:.0f} h a week" if standing.rate else "",
        overhauls=standing.overhauls,
        overhauled=standing.overhauled,
        worst=[bar(one) for one in standing.worst],
        next=NextResponse(standing.said, day, standing.over or day < today) if day is not None else None,
        left=left_said(standing.left_h),
    )


def left_said(hours: float | None) -> str:
    """Hours until the next inspection, in words."""
    if hours is None:
        return ""
    return f"{grouped(hours)}\u00a0h left" if hours >= 0 else f"{grouped(-hours)}\u00a0h past"


def bar(kept: dict[str, Any]) -> BarResponse:
    """A size as it was kept, to be drawn."""
    return BarResponse(
        key=kept["key"],
        number=kept["number"],
        name=kept["name"],
        new=kept["new"],
        limit=kept["limit"],
        limit_text=bare(kept["limit"], kept["fine"]),
        mm=kept["mm"],
        expanded_mm=2 * kept["u"],
        text=bare(kept["mm"], kept["fine"]),
        later=kept["later"],
        measured=kept["measured"],
        verdict=kept["verdict"],
        left=left_said(None if kept["left_h"] is None else round(kept["left_h"], -1)),  # a forecast is no better than that
    )


def label_of(code: str) -> LabelOf | None:
    """The pump a label is on; ``None`` where there is none."""
    pump = pumps().filter(code=code.upper()).first()
    return None if pump is None else LabelOf(pump.tag, pump.on_bench, pump.retired)  # type: ignore[attr-defined]


def symptoms_of(tag: str) -> list[NamedResponse] | None:
    """Why a pump of this family may come in; ``None`` where there is no such pump."""
    pump = Pump.objects.filter(tag=tag).first()
    if pump is None:
        return None
    key = SheetRevision.objects.filter(sheet=pump.sheet_id).values_list("content__family", flat=True).first()
    family = FAMILIES.get(key or "")
    return [NamedResponse(s.key, s.name) for s in family.symptoms] if family else []


def pump_choices(slug: str) -> PumpChoices | None:
    """What a pump of a sheet is chosen from, by the sheet's latest revision; ``None`` where there is no such sheet."""
    sheet = Sheet.objects.filter(slug=slug).prefetch_related("revisions").first()
    return choices_of(sheet) if sheet else None


def choices_of(sheet: Sheet) -> PumpChoices:
    """The same of a sheet that was read."""
    revision = next(iter(sheet.revisions.all()), None)
    spec = read_sheet(revision.content) if revision else None
    # What the sheet's numbers are for is not the pump's to choose, and how far a job goes is the job's.
    options = [o for o in spec.family.options if not o.is_convention and o.key not in ("means", OF_THE_JOB)] if spec else []
    return PumpChoices(
        sheet=sheet.slug,
        title=sheet.title,
        materials=list(dict.fromkeys(row.material for row in spec.rows)) if spec else [],
        media=[NamedResponse(key, one.name) for key, one in MEDIA.items()],
        options=[
            PumpOption(
                o.key,
                o.name,
                [NamedResponse(key, words) for key, words in o.choices.items()],
                spec.build.get(o.key, "") if spec and spec.build.get(o.key) in o.choices else next(iter(o.choices)),
                {key: list(choices) for key, choices in o.when.items()},
            )
            for o in options
        ],
    )
