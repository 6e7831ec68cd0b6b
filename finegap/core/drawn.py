"""The drawing of a pump to its sheet, with its numbers placed for a screen.

Places depend on the sheet, the build, the unit and the screen, and on nothing that is measured: with room beside each number for
the widest it can say, no number moves when a reading is saved.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from enum import Enum, auto
from typing import Protocol

from finegap.core.assembly.declared import Building
from finegap.core.drawing.labels import APART_PX, BESIDE_PX, RING_PX, Columns, Screen, columns, placed, width_px
from finegap.core.drawing.marks import Mark, Point
from finegap.core.drawing.views import Pump, View
from finegap.core.families.family import Family
from finegap.core.families.features import Feature, FeatureKind
from finegap.core.formatting import Kind, Units, system_of
from finegap.core.means.timing import TimingMeans
from finegap.core.measuring.verdict import Verdict
from finegap.core.quantities import from_internal
from finegap.core.sheet_parts import FeatureSpec
from finegap.core.units import Dimension

BETWEEN_PX = 10
"""Between one view and the next."""
CALLS = {Verdict.WATCH: "Watch", Verdict.CHANGE: "Change", Verdict.MEASURE_AGAIN: "again"}
"""A verdict as it is said beside a size; Keep is the closed ring alone."""
OPEN = ("to measure", "measure first", "to look at", "look first", "no size given")
"""What is said of a part that is not measured, or not looked at, yet."""
OPEN_SHORT = ("to do", "first")
"""The same where names have no room."""
LEFT = ("888\u00a0880\u00a0h left", "888\u00a0880\u00a0h past", "not measured", "not known")
"""What is said of a part between two overhauls, the hours as many as a meter shows."""
SOUND = "sound"
_LONG = 4
"""A detail of so many digits is no count."""
SEVERAL = "{n} marks"
"""Of damage that lets a part stay, where there is more than one kind."""


class Beside(Enum):
    """What stands beside the numbers."""

    JOB = auto()
    """The size as found or left, and its verdict."""
    LIFE = auto()
    """The hours its wear leaves of it, or its size; in two lines where names have no room. The ring alone tells the verdict."""


@dataclass(frozen=True)
class Number:
    """A number beside the drawing: its ring, where its words begin or end, and its leader; all in px.

    ``right`` when its words stand right of the ring; then they begin at ``text_x``, else they end there. ``stations`` are where it
    is measured, ``faces`` what lies on either side of it, and ``mate`` the feature of the other face. Set asks for it as
    ``set_as``.
    """

    key: str
    number: int
    name: str
    x: float
    y: float
    right: bool
    text_x: float
    port: Point
    spot: Point
    stations: Mapping[str, Point]
    faces: tuple[str, str]
    mate: str
    set_as: str


@dataclass(frozen=True)
class Placed:
    """A view where it is drawn: its marks in mm, ``scale`` px to one, about ``x``, ``y``."""

    name: str
    x: float
    y: float
    scale: float
    marks: tuple[Mark, ...]


@dataclass(frozen=True)
class Drawn:
    """A pump as it is drawn on one screen, in px; ``words_px`` is the room for words beside each number, ``row_px`` its height."""

    width: int
    height: int
    words_px: float
    row_px: float
    views: tuple[Placed, ...]
    numbers: tuple[Number, ...]


class Printed(Protocol):
    """What a drawing takes from a sheet, whole or not."""

    @property
    def details(self) -> Mapping[str, str]:
        """Counts and weights."""

    @property
    def building(self) -> Building:
        """Press fits, packing, bearings."""

    @property
    def mesh(self) -> TimingMeans | None:
        """Its timing gears."""

    def spec(self, key: str) -> FeatureSpec:
        """Size and limit of a feature."""


def drawn(family: Family, sheet: Printed, units: Units, screen: Screen, beside: Beside = Beside.JOB) -> Drawn:
    """A pump as it is drawn.

    Parameters
    ----------
    family : Family
        As the pump is built.
    sheet : Printed
        The sheet it works to, as far as that is known.
    units : Units
        Its sizes are shown in.
    screen : Screen
        It is laid out for.
    beside : Beside
        What stands beside its numbers.

    Raises
    ------
    FieldError
        It has more numbers than go round a drawing.
    """
    views = family.views(_pump(family, sheet))
    features = [feature for feature in family.features if any(feature.key in view.spots for view in views)]
    words = max((width for one in features for width in _widths(one, sheet, units, screen, beside)), default=0.0)
    at = columns(screen, len(features), words)
    laid = _stacked(views, at)
    found = {f.key: one for f in features for view, of in zip(laid, views, strict=True) for one in _on_screen(view, of, f)}
    ports = placed({key: spot for key, (spot, _) in found.items()}, at)
    numbers = tuple(_number(feature, family, *found[feature.key], ports[feature.key], at) for feature in features)
    return Drawn(screen.width, screen.height, words, at.height / at.rows, laid, numbers)


def _pump(family: Family, sheet: Printed) -> Pump:
    """What the sheet prints that is drawn by: sizes of parts, seats, the packing, the first bearing, the timing gears."""
    features = (f for f in family.features if f.kind.is_size)
    sizes = {f.key: sum(new) / 2 for f in features if (new := sheet.spec(f.key).new_mm)}
    building = sheet.building
    sizes |= {f"{key}_seat": sum(press.seat_mm) / 2 for key, press in building.presses.items()}
    if building.packing:
        sizes["packing"] = building.packing.section_mm
    if building.bearings:
        sizes |= {"bearing_outside": building.bearings[0].outside_mm, "bearing_width": building.bearings[0].width_mm}
    if sheet.mesh:
        sizes["pitch_diameter"] = sheet.mesh.timing.pitch_mm
    counted = {f.counted for f in family.features if f.counted}
    counts = {key: int(said) for key, said in sheet.details.items() if said.isascii() and said.isdigit() and len(said) < _LONG}
    counts |= {one.detail: len(one.names({**sheet.details, **(family.build or {})})) for one in counted}
    return Pump(family.build or family.complete({}), sizes, counts)


def _stacked(views: tuple[View, ...], at: Columns) -> tuple[Placed, ...]:
    """The views at one scale, as large as they go between the columns, one below the other."""
    if not views:
        return ()
    wide, high = at.right - at.left - 2 * APART_PX, at.height - BETWEEN_PX * (len(views) - 1)
    scale = min(wide / max(view.width for view in views), high / sum(view.height for view in views))
    below = (high - scale * sum(view.height for view in views)) / 2
    laid = []
    for view in views:
        left = (at.left + at.right - scale * view.width) / 2
        laid.append(Placed(view.name, left - scale * view.box[0], below - scale * view.box[1], scale, view.marks))
        below += scale * view.height + BETWEEN_PX
    return tuple(laid)


def _on_screen(placed: Placed, view: View, feature: Feature) -> Iterator[tuple[Point, dict[str, Point]]]:
    """Where a feature is, and each of its stations, if it is on this view."""

    def px(x: float, y: float) -> Point:
        return placed.x + placed.scale * x, placed.y + placed.scale * y

    if feature.key in view.spots:
        spot = view.spot(feature.key)
        stations = spot.stations((s.key, s.plane, s.direction) for s in feature.stations)
        yield px(spot.x, spot.y), {key: px(*point) for key, point in stations.items()}


def _number(feature: Feature, family: Family, spot: Point, stations: dict[str, Point], port: Point, at: Columns) -> Number:
    right = port[0] == at.right
    away = 1 if right else -1
    x = port[0] + away * RING_PX
    text_x = x + away * (RING_PX + BESIDE_PX)
    name = feature.label or feature.name
    faces, mate = faces_of(feature, family)
    return Number(feature.key, feature.number, name, x, port[1], right, text_x, port, spot, stations, faces, mate, feature.set_as)


def faces_of(feature: Feature, family: Family) -> tuple[tuple[str, str], str]:
    """The two faces at a feature, the nearer to its zero first, and the feature of the other face where that is measured.

    A size has the face it is of, and that of its partner in a running clearance; without one there is nothing on the other side.
    """
    if feature.kind is FeatureKind.PAIR:
        return (family.by_key[feature.shaft].part, family.by_key[feature.bore].part), ""
    pairs = [one for one in family.features if one.kind is FeatureKind.PAIR]
    if feature.kind is FeatureKind.EXTERNAL:
        mate = next((one.bore for one in pairs if one.shaft == feature.key), "")
        return (feature.part, family.by_key[mate].part if mate else ""), mate
    if feature.kind.is_inside:
        mate = next((one.shaft for one in pairs if one.bore == feature.key), "")
        return (family.by_key[mate].part if mate else "", feature.part), mate
    return feature.between or (feature.part, ""), ""


def _widths(feature: Feature, sheet: Printed, units: Units, screen: Screen, beside: Beside) -> Iterator[float]:
    """Of everything that can stand beside its number."""
    for first, second in said(feature, sheet, units, screen, beside):
        yield width_px(first, bold=not screen.named)
        yield width_px(second, bold=True)


def said(feature: Feature, sheet: Printed, units: Units, screen: Screen, beside: Beside = Beside.JOB) -> Iterator[tuple[str, str]]:
    """The two lines beside a number in everything that can be known of it: the widest size and every verdict."""
    if beside is Beside.LIFE:
        name = feature.label or feature.name
        words = (*LEFT, f"{_widest(feature, sheet, units)} {system_of(_kind(feature, sheet), units)[0]}")
        yield from ((name, word) if screen.named else in_two(word) for word in words)
        return
    values = _seen(feature) if feature.kind is FeatureKind.CHECK else (_widest(feature, sheet, units),)
    if screen.named:
        name = feature.label or feature.name
        yield from ((name, word) for word in (*OPEN, *values, *CALLS.values()))
        if feature.kind is not FeatureKind.CHECK:
            yield from ((name, f"{value} · {call}") for value in values for call in CALLS.values())
    else:
        yield from ((value, call) for value in (*values, *OPEN_SHORT) for call in ("", *CALLS.values()))


def in_two(words: str) -> tuple[str, str]:
    """Words in two lines, the last word in the second."""
    first, _, second = words.rpartition(" ")
    return (first, second) if first else (second, "")


def _seen(feature: Feature) -> tuple[str, ...]:
    """What can be said of a part that is looked at and stays."""
    kept = [damage.name for damage in feature.damages if damage.verdict is Verdict.KEEP]
    return (SOUND, SEVERAL.format(n=len(feature.damages)), *kept)


def _kind(feature: Feature, sheet: Printed) -> Kind:
    return Kind.FINE_LENGTH if sheet.spec(feature.key).fine else Kind.LENGTH


def _widest(feature: Feature, sheet: Printed, units: Units) -> str:
    """The widest size it can have: a digit more before the mark than the sheet prints, and one more behind it than is usual."""
    spec = sheet.spec(feature.key)
    limit = spec.limit
    printed = (*(spec.new_mm or ()), *((limit.lower_mm, limit.upper_mm) if limit else ()))
    most = max((abs(size) for size in printed if size is not None), default=0.0)
    unit, decimals, _ = system_of(_kind(feature, sheet), units)
    before = len(str(int(from_internal(most, Dimension.LENGTH, unit)))) + (not feature.kind.is_gap)
    return f"{'0' * before}.{'0' * (decimals + 1)}"
