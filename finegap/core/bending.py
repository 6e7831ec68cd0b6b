"""What working pressure leaves of a gap that it closes, as that gap was measured in a job."""

from __future__ import annotations

from finegap.core.families.builds import belongs
from finegap.core.families.features import Feature
from finegap.core.formatting import Sentence
from finegap.core.job_record import JobRecord, Phase


def bent(record: JobRecord, feature: Feature, phase: Phase) -> tuple[Sentence, bool] | None:
    """What is left at the narrowest place it closes, in words, and whether that is nothing; ``None`` where nothing bends."""
    shaft, build = record.sheet.bend, record.family.build or {}
    if shaft is None or not feature.closes_at or not record.duty.pressure_bar or not belongs(record.family.overhung, build):
        return None
    read: dict[str, list[float]] = {}
    for reading in record.readings.get((feature.key, phase), ()):
        if reading.station in feature.closes_at:
            read.setdefault(reading.station, []).append(reading.at_20c_mm)
    if not read:
        return None
    gap, place = min((sum(mm) / len(mm), place) for place, mm in read.items())
    return shaft.leaves(gap, record.duty.pressure_bar, place)
