"""Sums of Set: viscosity, the bearing housing, and feeler leaves."""

from __future__ import annotations

from dataclasses import replace

from finegap.core.calculators.model import Calculator, Input, TypedInputs, mm
from finegap.core.errors import FieldError
from finegap.core.formatting import Amount, Kind, Sentence, between, length, rule_fraction
from finegap.core.gap.housing import Housing, ThreadHand
from finegap.core.gap.leaves import INSIDE, go_and_no_go, pile_for, pile_working
from finegap.core.gap.move import Way
from finegap.core.gap.viscosity import GRADE_C, GRADES, SAME_K, Liquid, grade_mm2_s, kinematic_mm2_s, read_viscosity
from finegap.core.measuring.feeler import MOST_LEAVES, read_leaves
from finegap.core.quantities import AllowedSign, split_at
from finegap.core.result_lines import ResultLine, Status
from finegap.core.saybolt import saybolt_seconds
from finegap.core.units import Dimension
from finegap.core.working import Given, Working


def viscosity_asked(key: str, name: str) -> Input:
    """A viscosity that is asked for."""
    return Input(key, name, Dimension.VISCOSITY)


def temperature_asked(key: str, name: str, usual: str = "", optional: bool = False) -> Input:
    """A temperature that is asked for."""
    return Input(key, name, Dimension.TEMPERATURE, sign=AllowedSign.ANY, usual=usual, optional=optional)


def _two_points(given: TypedInputs) -> tuple[ResultLine, ...]:
    for name in ("first", "second"):
        _check_at(given, name)
    liquid = Liquid(given.value("first"), given.value("first_at"), given.value("second"), given.value("second_at"))
    at = given.value("at")
    return _viscosity("Viscosity", Amount(liquid.at(at), Kind.FINE_VISCOSITY), liquid.working(at), liquid, at)


def _check_at(given: TypedInputs, name: str) -> None:
    """A viscosity that says its temperature belongs to the one asked for beside it."""
    _, at = split_at(given.text(name))
    if not at:
        return
    said, beside = given.entry.quantity(at, Dimension.TEMPERATURE, f"{name} viscosity").value, given.value(f"{name}_at")
    if abs(said - beside) > SAME_K:
        raise FieldError(f"{name} at", f"the viscosity is said to be at {at}.", "Expected the same temperature.")


def _viscosity(name: str, amount: Amount, working: Working, liquid: Liquid | None, at_c: float) -> tuple[ResultLine, ...]:
    """A viscosity in lines; one too far outside its points is asked about."""
    far = None if liquid is None else liquid.far(at_c)
    asked = () if far is None else (ResultLine("Too far outside its points", far, Status.ASK),)
    return (ResultLine(name, amount, Status.ASK if asked else Status.GOOD, working), *asked, *_saybolt(amount.value, at_c))


def _saybolt(mm2_s: float, at_c: float) -> tuple[ResultLine, ...]:
    try:
        seconds = saybolt_seconds(mm2_s, at_c)
    except FieldError:
        return ()  # thinner than the scale begins
    working = Working(
        "Saybolt universal seconds",
        "t = (4.6324·ν + (1 + 0.03264·ν) / ((3930.2 + 262.7·ν + 23.97·ν² + 1.646·ν³)·10⁻⁵))·(1 + 0.000061·(T − 100 °F))",
        (Given("ν", "kinematic viscosity", Amount(mm2_s, Kind.FINE_VISCOSITY)), Given("T", "at", Amount(at_c, Kind.TEMPERATURE))),
        Sentence("{t} SSU", {"t": f"{seconds:.1f}"}),
        "ASTM D2161 (from memory)",
    )
    return (ResultLine("In Saybolt seconds", f"{seconds:.1f} SSU", working=working),)


def _grade(given: TypedInputs) -> tuple[ResultLine, ...]:
    grade = int(given.text("grade"))
    middle = grade_mm2_s(grade)
    working = Working(
        "ISO viscosity grade",
        "middle ± 10 %",
        (Given("VG", "grade", str(grade)),),
        Amount(middle, Kind.FINE_VISCOSITY),
        "ISO 3448, table 1 (from memory)",
        (Sentence("At {at} alone: for another temperature a second point of the liquid is needed.",
                  {"at": Amount(GRADE_C, Kind.TEMPERATURE)}),),
    )  # fmt: skip
    span = between(0.9 * middle, 1.1 * middle, Kind.FINE_VISCOSITY)
    return (
        ResultLine("At 40 °C, middle of the grade", Amount(middle, Kind.FINE_VISCOSITY), working=working),
        ResultLine("A new oil of the grade", span),
    )


def _kinematic(given: TypedInputs) -> tuple[ResultLine, ...]:
    dynamic, density = given.value("dynamic"), given.value("density")
    viscosity = kinematic_mm2_s(dynamic, density)
    working = Working(
        "Kinematic viscosity",
        "ν = μ / ρ",
        (Given("μ", "dynamic viscosity", f"{dynamic:g} mPa·s (cP)"), Given("ρ", "density", f"{density:g} kg/m³")),
        Amount(viscosity, Kind.FINE_VISCOSITY),
        "definition",
    )
    return (ResultLine("Kinematic viscosity", Amount(viscosity, Kind.FINE_VISCOSITY), working=working),)


def _any(given: TypedInputs) -> tuple[ResultLine, ...]:
    at = given.value("at")
    known = read_viscosity(given.text("viscosity"), at, given.maybe("density"), entry=replace(given.entry, meant=True))
    amount = Amount(known.pumping_mm2_s, Kind.FINE_VISCOSITY)
    working = known.liquid.working(at) if known.liquid else Working(
        "Viscosity when pumping", "ν as given, or μ / ρ", (Given("", "as given", given.text("viscosity")),), amount,
        "definition; ASTM D2161 for Saybolt seconds (from memory)",
    )  # fmt: skip
    return _viscosity("Viscosity when pumping", amount, working, known.liquid, at)


def _lash(given: TypedInputs) -> tuple[ResultLine, ...]:
    housing, arc = _housing(given), given.value("arc")
    lash = housing.clearance_mm(arc)
    working = Working(
        "Axial play of thread and bearing",
        "lash = s·lead / (π·D)",
        (
            Given("s", "arc turned before the rotor follows", length(arc)),
            Given("D", "outside diameter of the housing", length(housing.diameter_mm)),
            Given("lead", "advance per turn, starts × pitch", length(housing.lead_mm, fine=True)),
        ),
        length(lash, fine=True),
        "screw geometry; arc, not chord",
    )
    return (
        ResultLine("Axial play (lash)", length(lash, fine=True), working=working),
        ResultLine(
            "What it does",
            Sentence("Zero by first drag, then opened by an arc without it: the gap comes out {lash} too narrow. "
                     "Zero by backing off leaves it taken up.", {"lash": length(lash, fine=True)}),
            Status.CARE if lash > 0 else Status.GOOD,
        ),
    )  # fmt: skip


def _housing(given: TypedInputs) -> Housing:
    return Housing(given.value("diameter"), given.value("lead"), ThreadHand(given.text("hand")))


_HALF_A_TURN = 180


def _chord(housing: Housing, clearance_mm: float, numbers: tuple[Given, ...]) -> ResultLine:
    said = length(housing.chord_mm(clearance_mm))
    working = Working("Straight from mark to mark", "D·sin(φ/2),   φ = 360°·c / lead", numbers, said, "geometry of a circle")
    return ResultLine("Straight across, by caliper", said, working=working)


def _arc(given: TypedInputs) -> tuple[ResultLine, ...]:
    housing, clearance = _housing(given), given.value("clearance")
    arc = housing.arc_mm(clearance)
    numbers = (
        Given("c", "clearance", length(clearance, fine=True)),
        Given("D", "outside diameter of the housing", length(housing.diameter_mm)),
        Given("lead", "advance per turn, starts × pitch", length(housing.lead_mm, fine=True)),
    )
    laid = Working("Arc along the outside", "s = c·π·D / lead", numbers, length(arc), "screw geometry; arc, not chord")
    turned = Amount(housing.angle_deg(clearance), Kind.ANGLE)
    angle = Working("Angle", "φ = 360°·c / lead", numbers, turned, "screw geometry")
    chord = (_chord(housing, clearance, numbers),) if housing.angle_deg(clearance) < _HALF_A_TURN else ()
    opens = f"{housing.turns(Way.OPEN)} opens, {housing.turns(Way.CLOSE)} closes, seen from the shaft end"
    return (
        ResultLine("Arc along the outside", length(arc), working=laid),
        *chord,
        ResultLine("Turn", turned, working=angle),
        ResultLine("On a steel rule laid round it", f"{rule_fraction(arc)} in"),
        ResultLine("Which way", opens),
    )


def _clearance(given: TypedInputs) -> tuple[ResultLine, ...]:
    housing, arc = _housing(given), given.value("arc")
    clearance = length(housing.clearance_mm(arc), fine=True)
    working = Working(
        "Clearance for an arc",
        "c = s·lead / (π·D)",
        (
            Given("s", "arc along the outside", length(arc)),
            Given("D", "outside diameter of the housing", length(housing.diameter_mm)),
            Given("lead", "advance per turn, starts × pitch", length(housing.lead_mm, fine=True)),
        ),
        clearance,
        "screw geometry; arc, not chord",
    )
    return (ResultLine("Clearance", clearance, working=working),)


def _leaves_of(given: TypedInputs) -> tuple[int, ...]:
    return read_leaves(given.text("leaves"), given.entry.unit(Dimension.LENGTH), given.entry.mark)


def _pile(given: TypedInputs) -> tuple[ResultLine, ...]:
    pile = pile_for(_leaves_of(given), round(given.value("thickness") * 1000))
    words = Sentence("{off} thicker than wanted." if pile.off_um > 0 else "{off} thinner than wanted.",
                     {"off": length(abs(pile.off_um) / 1000, fine=True)})  # fmt: skip
    off = ResultLine("Off", words, Status.CARE, pile_working(pile))
    return (ResultLine("Leaves", pile.words, working=pile_working(pile)), *((off,) if pile.off_um else ()))


def _window(given: TypedInputs) -> tuple[ResultLine, ...]:
    go, stop = go_and_no_go(_leaves_of(given), round(given.value("low") * 1000), round(given.value("high") * 1000))
    none = f"This set makes no pile of up to {MOST_LEAVES} leaves there: another set, or another way to measure."
    return (
        ResultLine(
            "These must go", go.words if go else none, Status.GOOD if go else Status.STOP, pile_working(go, INSIDE) if go else None
        ),
        ResultLine(
            "These must not",
            stop.words if stop else none,
            Status.GOOD if stop else Status.STOP,
            pile_working(stop, INSIDE) if stop else None,
        ),
    )


_HAND = Input("hand", "thread", choices=(("right", "right-hand"), ("left", "left-hand")), usual="right")
_HOUSING = (mm("diameter", "outside diameter of the housing"), mm("lead", "lead, starts × pitch"), _HAND)
DENSITY = Input("density", "density in kg/m³", number=(300, 3000), usual="900")
_LEAVES = Input("leaves", "leaves of the set, with spaces between", Dimension.LENGTH, long=True)

GAP = (
    Calculator(
        "viscosity",
        "Viscosity at another temperature",
        (
            viscosity_asked("first", "first viscosity"),
            temperature_asked("first_at", "first at", "40 C"),
            viscosity_asked("second", "second viscosity"),
            temperature_asked("second_at", "second at", "100 C"),
            temperature_asked("at", "wanted at"),
        ),
        _two_points,
    ),
    Calculator(
        "liquid",
        "Viscosity as people have it",
        (
            Input("viscosity", "viscosity, or two points of the liquid"),
            temperature_asked("at", "pumping temperature"),
            Input("density", "density in kg/m³, for cP", number=(300, 3000), optional=True),
        ),
        _any,
    ),
    Calculator(
        "grade",
        "ISO viscosity grade",
        (Input("grade", "grade", choices=tuple((str(g), f"VG {g}") for g in sorted(GRADES))),),
        _grade,
    ),
    Calculator(
        "kinematic",
        "Kinematic viscosity from cP and density",
        (Input("dynamic", "dynamic viscosity in mPa·s (cP)", number=(0.01, 1e8)), DENSITY),
        _kinematic,
    ),
    Calculator("arc", "Arc of a bearing housing", (*_HOUSING, mm("clearance", "change of clearance")), _arc),
    Calculator("clearance", "Clearance of an arc", (*_HOUSING, mm("arc", "arc along the outside")), _clearance),
    Calculator(
        "lash",
        "Axial play from an arc",
        (*_HOUSING, mm("arc", "arc turned before the rotor follows", AllowedSign.NOT_NEGATIVE)),
        _lash,
    ),
    Calculator("leaves", "Leaves for a thickness", (_LEAVES, mm("thickness", "thickness wanted")), _pile),
    Calculator("go-no-go", "Leaves that prove a window", (_LEAVES, mm("low", "smallest gap"), mm("high", "largest gap")), _window),
)
