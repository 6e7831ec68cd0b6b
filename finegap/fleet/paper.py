"""What a pump gives out on paper: its blank bench sheet, and the labels of pumps."""

from __future__ import annotations

from collections.abc import Iterable

from finegap.core.drawing.labels import Screen
from finegap.core.drawn import drawn
from finegap.core.families.features import Feature, FeatureKind
from finegap.core.formatting import Units, bare, between_edges, render
from finegap.core.measuring.verdict import Limit
from finegap.core.sheet import SpecSheet
from finegap.due.standing import family_now, sheet_now
from finegap.fleet.queries import pumps
from finegap.formats.bench_sheet import Blank, BlankSheet
from finegap.formats.labels import Label
from finegap.pumps.models import Pump

_TRIES = ("try 1", "try 2", "try 3", "try 4")


def blank_sheet(tag: str, units: Units) -> BlankSheet | None:
    """The blank bench sheet of a pump; ``None`` where there is no such pump, or its sheet has no revision."""
    pump = pumps().prefetch_related("sheet__revisions").filter(tag=tag).first()
    sheet, family = (sheet_now(pump), family_now(pump)) if pump else (None, None)
    if pump is None or sheet is None or family is None:
        return None
    sizes, looks, gaps = [], [], []
    for feature in family.features:
        if feature.kind is FeatureKind.PAIR or feature.press:
            continue  # a pair is worked out, a press is made
        if feature.kind is FeatureKind.CHECK:
            looks.append(Blank(feature.number, feature.name, "", "", ("",)))
            continue
        if feature.stations:  # found first, whether it is set later or not
            sizes.append(_blank(feature, sheet, units, tuple(station.label for station in feature.stations)))
        if feature.is_set:
            gaps.append(_blank(feature, sheet, units, _TRIES))
    return BlankSheet(
        tag=pump.tag,
        lines=_lines(pump, sheet),
        cautions=(
            "Isolate, lock and tag; pressure relieved, drained, flushed before it is opened. Local law and site rules come first.",
            *([f"Liquid: {pump.hazards}."] if pump.hazards else []),
        ),
        unit={Units.MM: "mm", Units.IN: "inches", Units.THOU: "thousandths of an inch"}[units],
        drawn=drawn(family, sheet, units, Screen.WIDE),
        sizes=tuple(sizes),
        looks=tuple(looks),
        gaps=tuple(gaps),
    )


def _lines(pump: Pump, sheet: SpecSheet) -> tuple[str, ...]:
    return (
        f"{pump.service}, {pump.location}. {sheet.maker} {sheet.model}, serial {pump.serial}, {pump.material}.",
        f"Limits by {sheet.title}, revision {sheet.revision} of {sheet.date}.",
    )


def _blank(feature: Feature, sheet: SpecSheet, units: Units, boxes: tuple[str, ...]) -> Blank:
    spec = sheet.spec(feature.key)
    new = "" if spec.new_mm is None else f"new {render(between_edges(*spec.new_mm, spec.fine), units)}"
    if spec.new_mm is not None and spec.new_mm[0] == spec.new_mm[1]:
        new = f"new {render(bare(spec.new_mm[0], spec.fine), units)}"
    return Blank(feature.number, feature.name, new, _limit(spec.limit, spec.fine, units), boxes)


def _limit(limit: Limit | None, fine: bool, units: Units) -> str:
    if limit is None:
        return ""
    if limit.lower_mm is not None and limit.upper_mm is not None:
        return f"from {render(between_edges(limit.lower_mm, limit.upper_mm, fine), units)}"
    word, mm = ("max", limit.upper_mm) if limit.upper_mm is not None else ("min", limit.lower_mm)
    return f"{word} {render(bare(mm or 0.0, fine), units)}"


def labels_of(found: Iterable[Pump], origin: str) -> list[Label]:
    """Labels of pumps; ``origin`` is the address of the server, which their codes begin with."""
    return [Label(pump.tag, pump.service, pump.serial, pump.code, f"{origin}/p/{pump.code}") for pump in found]
