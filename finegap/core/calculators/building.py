"""Build's sums: fits, press fits, packing, O-rings, elastomers, torque, lock nut, grease."""

from __future__ import annotations

from finegap.core.assembly.disc_spring import DiscSpring, SpringStack, preload_lines
from finegap.core.assembly.elastomers import ELASTOMERS, MEDIA, against_liquid, against_lubricant, lubricants_for
from finegap.core.assembly.fits import SOURCE, fit_of
from finegap.core.assembly.grease import Greased
from finegap.core.assembly.oring import ORing
from finegap.core.assembly.packing import Joints, Packing
from finegap.core.assembly.press import PressFit, Solid
from finegap.core.assembly.torque import FRICTION, Adapter, Joint, Tang, criss_cross, thread_of
from finegap.core.calculators.model import Calculator, Input, TypedInputs, mm
from finegap.core.formatting import Amount, Kind, Sentence, between, length
from finegap.core.materials import MATERIALS, Expansion
from finegap.core.quantities import AllowedSign
from finegap.core.result_lines import ResultLine, Status
from finegap.core.units import Dimension
from finegap.core.working import Given, Working

_MATERIALS = tuple((name, name) for name in MATERIALS)
_OTHER = ("other", "another, as below")


def _press_fit(given: TypedInputs) -> tuple[ResultLine, ...]:
    friction = (given.value("friction_low"), given.value("friction_high"))
    fit = PressFit(
        given.value("bore"), given.value("joint"), given.value("seat_outside"), given.value("length"),
        _solid(given, "bushing"), _known(given.text("seat")), friction,
    )  # fmt: skip
    wanted = given.value("interference")
    service = given.value("temperature")
    return (*fit.lines(wanted), fit.hot_line(wanted, service, service))


def _known(name: str, allowed_mpa: float | None = None) -> Solid:
    material = MATERIALS[name]
    return Solid.of(material, allowed_mpa)


def _solid(given: TypedInputs, key: str) -> Solid:
    allowed = given.maybe("allowed")
    if given.text(key) != _OTHER[0]:
        return _known(given.text(key), allowed)
    expansion = Expansion.of(given.value("expansion"))
    return Solid("the bushing's material", given.value("modulus"), given.value("poisson"), expansion, None, allowed)


def _fit(given: TypedInputs) -> tuple[ResultLine, ...]:
    fit = fit_of(given.text("fit"), given.value("nominal"))
    low, high = fit.interference_mm

    def span(pair: tuple[float, float]) -> Sentence:
        return between(*pair, Kind.FINE_LENGTH)

    working = Working(
        "Limits of size",
        "D + EI to D + ES;   d + ei to d + es",
        (Given("D, d", "nominal", length(fit.nominal_mm)), Given("fit", "ISO 286 code", fit.code)),
        Sentence("hole {hole}, shaft {shaft}", {"hole": span(fit.hole_mm), "shaft": span(fit.shaft_mm)}),
        SOURCE,
    )
    words = "Interference" if low >= 0 else "Clearance" if high <= 0 else "Interference, or clearance where negative"
    spread = (-high, -low) if high <= 0 else (low, high)
    return (
        ResultLine("Seat", span(fit.hole_mm), working=working),
        ResultLine("Bushing, or shaft", span(fit.shaft_mm), working=working),
        ResultLine(words, span(spread), working=working),
    )


def _packing(given: TypedInputs) -> tuple[ResultLine, ...]:
    joints = Joints[given.text("joints").upper()]
    packing = Packing(given.value("shaft"), given.value("section"), int(given.value("rings")), joints)
    clock = ", ".join(joints.said(ring) for ring in range(1, packing.rings + 1))
    return (
        *packing.lines(),
        ResultLine("Joints, from the bottom", clock),
    )


def _o_ring(given: TypedInputs) -> tuple[ResultLine, ...]:
    kind = given.text("kind")
    inside, section, groove, depth, width = map(given.value, ("inside", "section", "groove", "depth", "width"))
    return ORing(inside, section, groove, depth, width, given.text("use") == "moving", kind == "encapsulated").lines()


def _adapter(given: TypedInputs) -> tuple[ResultLine, ...]:
    adapter = Adapter(given.value("wrench"), given.value("adapter"), given.value("angle"))
    at_nut = given.value("torque")
    return (ResultLine("Set the wrench to", Amount(at_nut * adapter.share, Kind.FINE_TORQUE), working=adapter.working(at_nut)),)


def _preload(given: TypedInputs) -> tuple[ResultLine, ...]:
    joint = Joint(thread_of(given.text("thread")), (given.value("friction_low"), given.value("friction_high")), given.maybe("face"))
    torque = given.value("torque")
    low, high = joint.preload_n(torque, torque)
    words = between(low, high, Kind.FORCE)
    return (ResultLine("Preload", words, working=joint.working(torque, torque, "from and to")),)


def _order(given: TypedInputs) -> tuple[ResultLine, ...]:
    return (ResultLine("Tighten in this order, numbered clockwise", ", ".join(map(str, criss_cross(int(given.value("count")))))),)


def _tang(given: TypedInputs) -> tuple[ResultLine, ...]:
    tang = Tang(int(given.value("slots")), int(given.value("tangs")), given.maybe("turn"))
    return (ResultLine("To the next tang", tang.sentence, Status.CARE if tang.always is False else Status.GOOD, tang.working),)


def _grease(given: TypedInputs) -> tuple[ResultLine, ...]:
    greased = Greased(given.value("outside"), given.value("width"), given.maybe("ten"))
    lines = [ResultLine("Grease", Amount(greased.grams, Kind.MASS), working=greased.working)]
    if greased.strokes is not None:
        lines.append(ResultLine("Strokes of this gun", str(greased.strokes), working=greased.working))
    return tuple(lines)


def _elastomer(given: TypedInputs) -> tuple[ResultLine, ...]:
    code = given.text("elastomer")
    lines = [
        against_liquid(code, given.text("liquid"), given.value("temperature")),
        against_lubricant(code, given.text("lubricant")),
    ]
    return (*lines, ResultLine("Lubricants that suit", ", ".join(lubricants_for(code)) or "none known: ask"))


_FRICTIONS = (
    Input("friction_low", "friction, from", number=(0.001, 1), usual=f"{FRICTION['oiled'][0]:g}"),
    Input("friction_high", "friction, to", number=(0.001, 1), usual=f"{FRICTION['oiled'][1]:g}"),
)
_TEMPERATURE = Input("temperature", "temperature in service", Dimension.TEMPERATURE, sign=AllowedSign.ANY)


def _disc_spring(given: TypedInputs) -> tuple[ResultLine, ...]:
    disc = DiscSpring(*(given.value(name) for name in ("outside", "inside", "thickness", "cone")))
    stack = SpringStack(disc, int(given.value("parallel")), int(given.value("series")))
    travel = given.maybe("travel")
    lines = list(preload_lines(disc, given.value("settles"), None))
    if travel is not None:
        each = travel / stack.series
        load = Amount(stack.load_n(travel), Kind.FORCE)
        lines.insert(0, ResultLine("Load of one disc", Amount(disc.load_n(each), Kind.FORCE), working=disc.working(each)))
        shared = (
            Given("F", "load of one disc", Amount(disc.load_n(each), Kind.FORCE)),
            Given("n", "discs in a packet", str(stack.parallel)),
            Given("i", "packets on one another", str(stack.series)),
        )
        together = Working("Load of the stack", "n·F(s/i)", shared, load, "packets share the way, discs the load; no friction")
        lines.insert(0, ResultLine("Load of the stack", load, working=together))
    return tuple(lines)


BUILDING = (
    Calculator("fit", "Limits of a fit", (mm("nominal", "nominal size"), Input("fit", "fit", usual="H7/r6")), _fit),
    Calculator(
        "press-fit",
        "Press fit",
        (
            mm("bore", "bushing, bore"),
            mm("joint", "bushing, outside"),
            mm("seat_outside", "seat, outside"),
            mm("length", "pressed length"),
            mm("interference", "interference"),
            Input("bushing", "bushing of", choices=(*_MATERIALS, _OTHER), usual="tin bronze"),
            Input("seat", "seat of", choices=_MATERIALS, usual="cast iron"),
            *_FRICTIONS,
            _TEMPERATURE,
            Input("modulus", "bushing, modulus", Dimension.STRESS, optional=True),
            Input("poisson", "bushing, Poisson's ratio", number=(0, 0.5), optional=True),
            Input("expansion", "bushing, expansion in µm/(m·K)", number=(0.1, 300), optional=True),
            Input("allowed", "bushing, allowed stress", Dimension.STRESS, optional=True),
        ),
        _press_fit,
    ),
    Calculator(
        "packing",
        "Packing",
        (
            mm("shaft", "shaft"),
            mm("section", "section"),
            Input("rings", "rings", number=(1, 20), whole=True),
            Input("joints", "joints", choices=tuple((j.name.lower(), j.value) for j in Joints), usual="opposite"),
        ),
        _packing,
    ),
    Calculator(
        "o-ring",
        "O-ring in its groove",
        (
            mm("inside", "ring, inside"),
            mm("section", "ring, section"),
            mm("groove", "groove, diameter"),
            mm("depth", "groove, depth"),
            mm("width", "groove, width"),
            Input("use", "use", choices=(("static", "stands still"), ("moving", "something slides on it")), usual="static"),
            Input("kind", "kind", choices=(("ordinary", "ordinary"), ("encapsulated", "PTFE-encapsulated")), usual="ordinary"),
        ),
        _o_ring,
    ),
    Calculator(
        "elastomer",
        "Elastomer, liquid and lubricant",
        (
            Input("elastomer", "elastomer", choices=tuple((e.code, f"{e.code}, {e.name}") for e in ELASTOMERS.values())),
            Input("liquid", "liquid", choices=tuple((m.key, m.name) for m in MEDIA.values())),
            Input("temperature", "temperature of the liquid", Dimension.TEMPERATURE, sign=AllowedSign.ANY),
            Input("lubricant", "lubricant", choices=tuple((m.key, m.name) for m in MEDIA.values() if m.lubricates)),
        ),
        _elastomer,
    ),
    Calculator(
        "adapter",
        "Torque wrench with an adapter",
        (
            Input("torque", "torque at the nut", Dimension.TORQUE),
            mm("wrench", "wrench, drive to grip"),
            mm("adapter", "adapter, drive to nut", sign=AllowedSign.NOT_NEGATIVE),
            Input("angle", "angle of the adapter", Dimension.ANGLE, sign=AllowedSign.NOT_NEGATIVE, usual="0"),
        ),
        _adapter,
    ),
    Calculator(
        "preload",
        "Preload from torque",
        (
            Input("thread", "thread"),
            Input("torque", "torque", Dimension.TORQUE),
            *_FRICTIONS,
            mm("face", "mean diameter under the head", optional=True),
        ),
        _preload,
    ),
    Calculator("order", "Order of tightening", (Input("count", "fasteners", number=(1, 60), whole=True),), _order),
    Calculator(
        "tang",
        "Lock nut and tang",
        (
            Input("slots", "slots of the nut", number=(1, 100), whole=True),
            Input("tangs", "tangs of the washer", number=(1, 100), whole=True),
            Input("turn", "turn from lower to upper torque", Dimension.ANGLE, optional=True),
        ),
        _tang,
    ),
    Calculator(
        "grease",
        "Grease",
        (
            mm("outside", "bearing, outside"),
            mm("width", "bearing, width"),
            Input("ten", "ten strokes weigh", Dimension.MASS, optional=True),
        ),
        _grease,
    ),
    Calculator(
        "disc-spring",
        "Disc spring under a nut",
        (
            mm("outside", "outside diameter"),
            mm("inside", "inside diameter"),
            mm("thickness", "thickness"),
            mm("cone", "cone height, free height less thickness"),
            mm("settles", "how much the joint settles", AllowedSign.NOT_NEGATIVE, usual="0.05 mm"),
            mm("travel", "deflection of the stack", AllowedSign.NOT_NEGATIVE, optional=True),
            Input("parallel", "discs nested in a packet", number=(1, 20), whole=True, usual="1"),
            Input("series", "packets on one another", number=(1, 40), whole=True, usual="1"),
        ),
        _disc_spring,
    ),
)
