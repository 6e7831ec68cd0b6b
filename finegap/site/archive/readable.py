"""Tables for a spreadsheet, beside the rows that are read back: what most people look for first."""

from __future__ import annotations

import csv
import io
import zipfile
from collections.abc import Iterable, Iterator
from typing import IO

from finegap.bench.models import Job, Reading
from finegap.core.gauges import GaugeKind
from finegap.core.units import Dimension
from finegap.formats.tables import safe
from finegap.inventory.models import Gauge, ShelfLine
from finegap.inventory.tables import GAUGES, SHELF
from finegap.pumps.models import Pump

_AT_ONCE = 500
_UNITS = {Dimension.LENGTH: ("mm", "mm"), Dimension.TORQUE: ("N.m", "N.m"), Dimension.TEMPERATURE: ("C", "K")}
"""Of a range, and of a step."""

Cells = Iterable[object]


def write_tables(packed: zipfile.ZipFile) -> None:
    """Each as CSV; those of gauges and of the shelf can be read in again from the toolbox."""
    for name, columns, rows in (
        ("gauges", tuple(GAUGES), _gauges()),
        ("shelf", tuple(SHELF), _shelf()),
        ("pumps", ("Tag", "Service", "Place", "Serial", "Sheet", "Material", "Liquid", "Viscosity", "Hazards"), _pumps()),
        ("jobs", ("Number", "Pump", "Reason", "Opened", "By", "Ended", "Signed", "Gap left (mm)"), _jobs()),
        (
            "readings",
            ("Job", "Feature", "Phase", "Station", "Typed", "Value (mm)", "Gauge", "By", "At", "Struck out because"),
            _readings(),
        ),
    ):
        with packed.open(f"tables/{name}.csv", "w", force_zip64=True) as into:
            _write(into, columns, rows)


def _write(into: IO[bytes], columns: Cells, rows: Iterator[Cells]) -> None:
    with io.TextIOWrapper(into, "utf-8-sig", newline="") as text:
        out = csv.writer(text)
        out.writerow(columns)
        out.writerows([safe(cell) for cell in row] for row in rows)


def _gauges() -> Iterator[Cells]:
    for gauge in Gauge.objects.filter(retired=None).iterator(_AT_ONCE):
        unit, step = _UNITS[GaugeKind(gauge.kind).dimension]
        now = gauge.now
        yield (
            gauge.tag, gauge.kind, f"{now.low:g} {unit}", f"{now.high:g} {unit}", f"{now.resolution:g} {step}",
            f"{now.expanded:g} {step}", f"{now.k:g}", now.calibrated, now.due, now.number,
            "" if now.repeatability is None else f"{now.repeatability:g} {step}",
            " ".join(f"{leaf / 1000:g}" for leaf in now.leaves_um), gauge.mark,
        )  # fmt: skip


def _shelf() -> Iterator[Cells]:
    for line in ShelfLine.objects.select_related("sheet").iterator(_AT_ONCE):
        yield line.sheet.slug, f"{line.thickness_um / 1000:g} mm", line.count


def _pumps() -> Iterator[Cells]:
    for pump in Pump.objects.select_related("sheet").iterator(_AT_ONCE):
        yield (
            pump.tag, pump.service, pump.location, pump.serial, pump.sheet.title, pump.material, pump.liquid, pump.viscosity_typed,
            pump.hazards,
        )  # fmt: skip


def _jobs() -> Iterator[Cells]:
    jobs = Job.objects.select_related("pump", "opened_by", "sign_off").defer("sign_off__document").order_by("number")
    for job in jobs.iterator(_AT_ONCE):
        signed = job.sign_off if job.is_signed else None
        yield (
            job.number, job.pump.tag, job.reason, job.opened_at.isoformat(), job.opened_by.username, job.ended,
            signed.when.isoformat() if signed else "", signed.gap_mm if signed else "",
        )  # fmt: skip


def _readings() -> Iterator[Cells]:
    rows = Reading.objects.select_related("job", "gauge", "by").order_by("job__number", "order")
    for row in rows.iterator(_AT_ONCE):
        yield (
            row.job.number, row.feature, row.phase, row.station, row.typed, f"{row.value_mm:.6g}", row.gauge.tag, row.by.username,
            row.when.isoformat(), row.struck_reason,
        )  # fmt: skip
