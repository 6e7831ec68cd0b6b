"""What was done to a pump, in one timeline: jobs, meter, oil and grease, moves, parts, papers, notes, its sheet's revisions.

Each source is asked for its newest lines alone, as many as the page needs; a page makes as many SQL queries as there are sources.
"""

from __future__ import annotations

import datetime as dt
from collections.abc import Callable, Iterator
from heapq import merge
from itertools import islice

from django.db.models import Q, QuerySet
from django.utils import timezone

from finegap.bench.models import Abandonment, Amendment, Job, Photo, SignOff, SizeOnRecord
from finegap.core.formatting import Sentence, Shown, Text, grouped, length
from finegap.due.standing import sheet_now
from finegap.fleet.page import moved_said
from finegap.fleet.responses import LifeLine, OverhaulResponse, OverhaulSize, PumpPhoto
from finegap.formats.days import written
from finegap.pumps.models import EarlierOverhaul, Lubricated, MeterReading, Moved, PartMoved, Pump, PumpDocument, PumpNote
from finegap.sheets.models import SheetRevision

PAGE = 50
LAST_PAGE = 40
EXPORTED = 20_000
"""Lines of each kind that a file of a pump's life has at most."""
_OVERHAULS, _PHOTOS = 6, 24

Source = Callable[[Pump, int], Iterator[LifeLine]]


def pump_of(tag: str) -> Pump | None:
    """A pump by its tag, with its sheet."""
    return Pump.objects.select_related("sheet").filter(tag=tag).first()


def life_of(pump: Pump, page: int) -> tuple[list[LifeLine], bool]:
    """A page of what was done to a pump, the newest first, and whether there is more."""
    first = PAGE * (page - 1)
    lines = list(islice(_merged(pump, first + PAGE + 1), first, first + PAGE + 1))
    return lines[:PAGE], len(lines) > PAGE and page < LAST_PAGE


def whole_life(pump: Pump) -> Iterator[LifeLine]:
    """All that was done to a pump, the newest first."""
    return _merged(pump, EXPORTED)


def _merged(pump: Pump, most: int) -> Iterator[LifeLine]:
    return merge(*(source(pump, most) for source in _SOURCES), key=lambda line: line.on, reverse=True)


def _opened(pump: Pump, most: int) -> Iterator[LifeLine]:
    rows = Job.objects.filter(pump=pump).select_related("opened_by").order_by("-opened_at")
    for job in rows.only("number", "opened_at", "reason", "hours_run", "opened_by")[:most]:
        hours = f", at {grouped(job.hours_run)}\u00a0h" if job.hours_run is not None else ""
        yield _line(job.opened_at, "job", f"Job {job.number} opened{hours}: {job.reason}", job.opened_by, job.number)


def _signed(pump: Pump, most: int) -> Iterator[LifeLine]:
    said = ("at", "by", "job__number", "gap_mm", "gap_in", "verdicts")
    rows = SignOff.objects.filter(job__pump=pump).select_related("by", "job").only(*said).order_by("-at")
    for one in rows[:most]:
        gap = Shown(f"{one.gap_mm} mm", f"{one.gap_in} in") if one.gap_mm else ""
        words = "Job {number} signed" + ("; gap left at {gap}" if one.gap_mm else "") + "{found}."
        found = ", ".join(f"{count} {verdict}" for verdict, count in sorted(one.verdicts.items()))
        told = Sentence(words, {"number": str(one.job.number), "gap": gap, "found": f"; found: {found}" if found else ""})
        yield _line(one.at, "job", told, one.by, one.job.number)


def _amended(pump: Pump, most: int) -> Iterator[LifeLine]:
    for one in Amendment.objects.filter(job__pump=pump).select_related("by", "job").order_by("-at")[:most]:
        void = " It counts no more for this pump." if one.void else ""
        yield _line(one.at, "job", f"Job {one.job.number} amended: {one.what[:200]}{void}", one.by, one.job.number)


def _abandoned(pump: Pump, most: int) -> Iterator[LifeLine]:
    for one in Abandonment.objects.filter(job__pump=pump).select_related("by", "job").order_by("-at")[:most]:
        yield _line(one.at, "job", f"Job {one.job.number} abandoned: {one.reason}", one.by, one.job.number)


def _metered(pump: Pump, most: int) -> Iterator[LifeLine]:
    for one in _newest(MeterReading.objects.filter(pump=pump), most):
        read = f" ({one.read})" if one.read else ""
        new = f"; replaced, the old one ended at {grouped(one.old_last)}\u00a0h" if one.old_last is not None else ""
        yield _line(
            _at(one.day, one.at), "meter", f"Meter read: {grouped(one.hours)}\u00a0h{read}{new}", one.by, None, one.struck_reason
        )


def _oiled(pump: Pump, most: int) -> Iterator[LifeLine]:
    for one in Lubricated.objects.filter(pump=pump).select_related("by").order_by("-at")[:most]:
        yield _line(one.at, "service", f"{one.name}, at {grouped(one.hours)}\u00a0h", one.by, None, one.struck_reason)


def _before(pump: Pump, most: int) -> Iterator[LifeLine]:
    for one in _newest(EarlierOverhaul.objects.filter(pump=pump), most):
        said = f"Overhaul before this record, at {grouped(one.hours)}\u00a0h; {one.source}"
        yield _line(_at(one.day), "job", said, one.by, None, one.struck_reason)


def _moved(pump: Pump, most: int) -> Iterator[LifeLine]:
    for one in _newest(Moved.objects.filter(pump=pump), most):
        back = f", back by {written(one.back)}" if one.back else ""
        verb = f"Lent to {one.to}{back}" if one.lent else f"Moved from {one.was} to {one.to}"
        yield _line(_at(one.day, one.at), "place", f"{verb}{f': {one.note}' if one.note else ''}", one.by, None, one.struck_reason)


def _parts(pump: Pump, most: int) -> Iterator[LifeLine]:
    rows = PartMoved.objects.filter(Q(pump=pump) | Q(taker=pump)).select_related("pump", "taker")
    for one in _newest(rows, most):
        yield _line(_at(one.day, one.at), "part", moved_said(one, pump), one.by, None, one.struck_reason)


def _notes(pump: Pump, most: int) -> Iterator[LifeLine]:
    for one in PumpNote.objects.filter(pump=pump).select_related("by").order_by("-at")[:most]:
        yield _line(one.at, "note", one.text, one.by, None, one.struck_reason)


def _papers(pump: Pump, most: int) -> Iterator[LifeLine]:
    for one in PumpDocument.objects.filter(pump=pump).select_related("by").order_by("-at")[:most]:
        yield _line(one.at, "paper", f"Paper added: {one.name}", one.by, None, one.struck_reason)


def _sheets(pump: Pump, most: int) -> Iterator[LifeLine]:
    rows = SheetRevision.objects.filter(sheet=pump.sheet_id).select_related("added_by").defer("content", "typed")
    for one in rows.order_by("-added_at")[:most]:
        yield _line(one.added_at, "sheet", f"{pump.sheet.title}: revision {one.revision} added", one.added_by)


_SOURCES: tuple[Source, ...] = (
    _opened, _signed, _amended, _abandoned, _metered, _oiled, _before, _moved, _parts, _notes, _papers, _sheets,
)  # fmt: skip


def _newest(rows: QuerySet, most: int) -> list:  # type: ignore[type-arg]
    """Rows of a day, the newest first, in the order of the moments they stand at in the timeline."""
    found = list(rows.select_related("by").order_by("-day", "-at")[:most])
    return sorted(found, key=lambda one: _at(one.day, one.at if not isinstance(one, EarlierOverhaul) else None), reverse=True)


def _at(day: dt.date, written_at: dt.datetime | None = None) -> dt.datetime:
    """The moment a thing of a day stands at: when it was written down, where that was on the day itself; else its noon."""
    if written_at is not None and timezone.localdate(written_at) == day:
        return written_at
    return timezone.make_aware(dt.datetime.combine(day, dt.time(12)))


def _line(on: dt.datetime, kind: str, said: Text, by: object, job: int | None = None, struck: str = "") -> LifeLine:
    name = getattr(by, "get_full_name", str)() or str(by)
    return LifeLine(on, kind, said, name, job, struck)


def overhauls_of(pump: Pump, page: int) -> tuple[list[OverhaulResponse], bool]:
    """A page of the signed overhauls of a pump with their sizes, the newest first, and whether there are more."""
    first = _OVERHAULS * (page - 1)
    said = ("number", "reason", "hours_run", "sign_off__at", "sign_off__gap_mm", "sign_off__gap_in")
    rows = Job.objects.filter(pump=pump, ended="signed").select_related("sign_off").only(*said).prefetch_related("amendments")
    jobs = list(rows.order_by("-number")[first : first + _OVERHAULS + 1])
    sizes: dict[int, list[SizeOnRecord]] = {}
    for size in SizeOnRecord.objects.filter(job__in=[job.pk for job in jobs[:_OVERHAULS]]):
        sizes.setdefault(size.job_id, []).append(size)
    sheet = sheet_now(pump)
    names = {f.key: (f.number, f.name, sheet.spec(f.key).fine, f.is_set) for f in sheet.family.features} if sheet else {}
    return [_overhaul(job, sizes.get(job.pk, []), names) for job in jobs[:_OVERHAULS]], len(jobs) > _OVERHAULS


def _overhaul(job: Job, sizes: list[SizeOnRecord], names: dict[str, tuple[int, str, bool, bool]]) -> OverhaulResponse:
    signature = job.sign_off
    named = [(names.get(size.feature, (0, size.feature.replace("_", " "), False, False)), size) for size in sizes if _says(size)]
    shown = sorted(named, key=lambda one: one[0])
    return OverhaulResponse(
        number=job.number,
        signed_at=signature.at,
        hours=f"{grouped(job.hours_run)}\u00a0h" if job.hours_run is not None else "",
        reason=job.reason,
        ended="void" if any(one.void for one in job.amendments.all()) else "",
        gap=Shown(f"{signature.gap_mm} mm", f"{signature.gap_in} in") if signature.gap_mm else "",
        sizes=[
            OverhaulSize(number, name, _size(size.found_mm, fine), _size(size.left_mm, fine), size.changed, is_set)
            for (number, name, fine, is_set), size in shown
        ],
    )


def _says(size: SizeOnRecord) -> bool:
    return size.found_mm is not None or size.left_mm is not None


def _size(mm: float | None, fine: bool) -> Text:
    return "" if mm is None else length(mm, fine)


def photos_of(pump: Pump, page: int) -> tuple[list[PumpPhoto], bool]:
    """A page of photographs from the jobs on a pump, the newest first, and whether there are more."""
    first = _PHOTOS * (page - 1)
    rows = Photo.objects.filter(job__pump=pump).select_related("job").order_by("-at", "pk")
    sheet = sheet_now(pump)
    names = {f.key: f.name for f in sheet.family.features} if sheet else {}
    found = list(rows[first : first + _PHOTOS + 1])
    return [
        PumpPhoto(
            f"/api/jobs/{one.job.number}/photos/{one.id}",
            one.job.number,
            names.get(one.feature, one.feature.replace("_", " ")) if one.feature else "a step",
            one.note,
            one.at,
        )
        for one in found[:_PHOTOS]
    ], len(found) > _PHOTOS
