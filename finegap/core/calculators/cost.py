"""Sums of what a gap becomes and costs: heat, slip, and the duty as a whole."""

from __future__ import annotations

from finegap.core.calculators.gap import DENSITY, temperature_asked, viscosity_asked
from finegap.core.calculators.model import Calculator, Input, TypedInputs, mm
from finegap.core.errors import FieldError
from finegap.core.formatting import Amount, Kind, length
from finegap.core.gap.heat import Body, HeatedPart, Warming, hot_gap, warming_up
from finegap.core.gap.losses import Losses, Path, TestPoint
from finegap.core.gap.performance import perform
from finegap.core.gap.slip import Annulus, Fluid, Slot, untold
from finegap.core.materials import MATERIALS, Expansion
from finegap.core.quantities import AllowedSign
from finegap.core.result_lines import ResultLine, Status
from finegap.core.units import Dimension

_SOURCE = "differential growth; expansions from memory of handbooks, or as given"


def _part(given: TypedInputs, key: str, length_mm: float) -> HeatedPart:
    own = given.maybe(f"{key}_expansion")
    return HeatedPart(length_mm, MATERIALS[given.text(key)].expansion if own is None else Expansion.of(own))


def _hot(given: TypedInputs) -> tuple[ResultLine, ...]:
    cold, span = given.value("cold"), given.value("span")
    minutes = given.maybe("rotor_minutes"), given.maybe("casing_minutes")
    if (minutes[0] is None) != (minutes[1] is None):
        raise FieldError("minutes to follow", "one of the two is missing.", "Expected both, or neither.")
    body = Body(
        _part(given, "casing", span),
        _part(given, "rotor", given.maybe("rotor_length") or span),
        _part(given, "head", given.maybe("head_reach") or 0.0),
        Warming(minutes[0], minutes[1]) if minutes[0] is not None and minutes[1] is not None else None,
        given.maybe("least") or 0.0,
    )
    at = {key: given.value(f"{key}_at") for key in ("casing", "rotor")}
    hot = hot_gap(cold, body, at["casing"], at["rotor"], _SOURCE)
    words = hot.says if hot.touches else length(hot.gap_mm, fine=True)
    status = Status.STOP if hot.touches else Status.ASK if hot.unknown else Status.GOOD
    lines = [ResultLine("Gap when hot", words, status, hot.working)]
    start = given.maybe("start_at")
    if start is not None:
        warm = warming_up(cold, body, start, at["casing"], at["rotor"], _SOURCE)
        status = Status.GOOD if not warm.touches else Status.STOP if warm.is_known else Status.CARE
        lines.append(ResultLine("While warming up", warm.says, status, warm.working))
    unknown = body.unknown(*at.values(), *(() if start is None else (start,)))
    if unknown is not None:
        lines.append(ResultLine("Expansion", unknown, Status.ASK))
    return tuple(lines)


def _fluid(given: TypedInputs) -> Fluid:
    return Fluid(given.value("viscosity"), given.value("density"))


def _passes(of: Slot | Annulus) -> ResultLine:
    none = untold(of)
    return (
        ResultLine("Slip", none, Status.ASK)
        if none
        else ResultLine("Slip", Amount(of.flow_m3_s * 60_000, Kind.FLOW), working=of.working)
    )


def _slot(given: TypedInputs) -> tuple[ResultLine, ...]:
    pressure = given.value("pressure")
    slot = Slot(given.value("gap"), given.value("width"), given.value("length"), pressure, _fluid(given), given.value("wall"))
    lines = [_passes(slot)]
    if slot.wall_m_s:
        lines.append(
            ResultLine("Of it dragged by the wall", Amount(slot.drag_m3_s * 60_000, Kind.FLOW), working=slot.working_of_drag)
        )
    if slot.flow_m3_s < 0:
        lines.append(ResultLine("Which way", "The wall drags more back than the pressure drives.", Status.CARE))
    return tuple(lines)


def _annulus(given: TypedInputs) -> tuple[ResultLine, ...]:
    return (
        _passes(
            Annulus(
                given.value("shaft"), given.value("clearance"), given.value("length"), given.value("pressure"), _fluid(given),
                given.value("eccentricity"),
            )
        ),
    )  # fmt: skip


def _duty(given: TypedInputs) -> tuple[ResultLine, ...]:
    lands = {name: given.maybe(name) for name in ("end_width", "end_length", "radial_width", "radial_length")}
    paths = [Path("end", "End clearance", lands["end_width"], lands["end_length"])]
    gaps, fresh = {"end": given.value("end")}, {}
    radial = given.maybe("radial")
    if radial is not None:
        paths.append(Path("radial", "Radial clearance", lands["radial_width"], lands["radial_length"]))
        gaps["radial"] = radial
    fresh = {key: mm for key in ("end", "radial") for mm in [given.maybe(f"{key}_new")] if mm is not None}
    losses = Losses(given.value("displacement"), tuple(paths), _test(given, radial))
    done = perform(losses, gaps, fresh, given.value("pressure"), given.value("speed"), _fluid(given))
    assert done is not None
    return done.lines()


def _test(given: TypedInputs, radial: float | None) -> TestPoint | None:
    keys = ("test_flow", "test_pressure", "test_viscosity", "test_speed", "test_end")
    values = [given.maybe(key) for key in keys]
    if all(v is None for v in values):
        return None
    missing = next((key for key, v in zip(keys, values, strict=True) if v is None), None)
    if missing:
        raise FieldError(missing.replace("_", " "), "nothing was entered.", "Expected all of the test, or none of it.")
    flow, pressure, viscosity, speed, end = (v or 0.0 for v in values)
    gaps = {"end": end}
    if radial is not None:
        gaps["radial"] = given.maybe("test_radial") or radial
    return TestPoint(flow, pressure, viscosity, speed, gaps)


_METALS = tuple((name, name) for name in MATERIALS)
_PRESSURE = Input("pressure", "pressure difference", Dimension.PRESSURE, sign=AllowedSign.NOT_NEGATIVE)
_FLUID = (viscosity_asked("viscosity", "viscosity when pumping"), DENSITY)


def _own(key: str) -> Input:
    return Input(f"{key}_expansion", f"own expansion of the {key} in µm/(m·K)", number=(-10, 200), optional=True)


def _minutes(key: str) -> Input:
    return Input(f"{key}_minutes", f"{key} follows the liquid in, minutes", number=(0.01, 10_000), optional=True)


COST = (
    Calculator(
        "hot-gap",
        "Gap when hot, and while warming up",
        (
            mm("cold", "cold gap"),
            mm("span", "thrust location to head"),
            Input("casing", "casing of", choices=_METALS, usual="cast iron"),
            temperature_asked("casing_at", "casing at"),
            Input("rotor", "rotor and shaft of", choices=_METALS, usual="steel"),
            temperature_asked("rotor_at", "rotor at"),
            _own("casing"),
            _own("rotor"),
            mm("rotor_length", "thrust location to rotor face, if another", optional=True),
            mm("head_reach", "how far the head reaches into the casing", AllowedSign.NOT_NEGATIVE, optional=True),
            Input("head", "head of", choices=_METALS, usual="cast iron"),
            _own("head"),
            temperature_asked("start_at", "warmed up from", optional=True),
            _minutes("rotor"),
            _minutes("casing"),
            mm("least", "hot gap that must be left", AllowedSign.NOT_NEGATIVE, optional=True),
        ),
        _hot,
    ),
    Calculator(
        "slot",
        "Slip through a flat gap",
        (
            mm("gap", "gap"),
            mm("width", "width across the flow"),
            mm("length", "length along the flow"),
            _PRESSURE,
            *_FLUID,
            Input("wall", "speed of the moving wall in m/s, against the slip negative", number=(-100, 100), usual="0"),
        ),
        _slot,
    ),
    Calculator(
        "annulus",
        "Slip along a shaft",
        (
            mm("shaft", "shaft"),
            mm("clearance", "clearance on the diameter"),
            mm("length", "length"),
            _PRESSURE,
            *_FLUID,
            Input("eccentricity", "eccentricity, 0 to 1", number=(0, 1), usual="0"),
        ),
        _annulus,
    ),
    Calculator(
        "performance",
        "Flow, slip and lost power at a duty",
        (
            Input("displacement", "displacement a turn", Dimension.VOLUME),
            Input("speed", "speed in r/min", number=(0.1, 20_000)),
            _PRESSURE,
            *_FLUID,
            mm("end", "end clearance"),
            mm("end_new", "end clearance as new", optional=True),
            mm("end_width", "land of the end: width", optional=True),
            mm("end_length", "land of the end: length", optional=True),
            mm("radial", "radial clearance, on the radius", optional=True),
            mm("radial_new", "radial clearance as new", optional=True),
            mm("radial_width", "land of the tips: width", optional=True),
            mm("radial_length", "land of the tips: length", optional=True),
            Input("test_flow", "test: flow", Dimension.FLOW, optional=True),
            Input("test_pressure", "test: pressure difference", Dimension.PRESSURE, optional=True),
            Input("test_viscosity", "test: viscosity", Dimension.VISCOSITY, optional=True),
            Input("test_speed", "test: speed in r/min", number=(0.1, 20_000), optional=True),
            mm("test_end", "test: end clearance", optional=True),
            mm("test_radial", "test: radial clearance", optional=True),
        ),
        _duty,
    ),
)
