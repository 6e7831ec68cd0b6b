"""Sums of a handbook: threads and what they carry, a bearing's play, a lip on its shaft, a shaft's bend, a helix."""

from __future__ import annotations

from finegap.core.assembly.play import BallBearing, lip_mm
from finegap.core.assembly.thread_load import PROOF_MPA, preload_of, proof_load_n, shares_of, stress_area_mm2
from finegap.core.assembly.torque import thread_of
from finegap.core.calculators.model import Calculator, Input, TypedInputs, mm
from finegap.core.errors import FieldError
from finegap.core.formatting import Amount, Amounts, Bare, Kind, Sentence, length
from finegap.core.gap.bend import STEEL_MPA, Overhung
from finegap.core.gap.helix import Flank, Read
from finegap.core.gap.viscosity_index import viscosity_index
from finegap.core.quantities import AllowedSign
from finegap.core.result_lines import ResultLine, Status
from finegap.core.units import Dimension
from finegap.core.working import Given, Working

_WEDGE = "wedge of the thread, flanks of 60° (VDI 2230-1, ISO 16047; from memory)"


def _torque(given: TypedInputs) -> tuple[ResultLine, ...]:
    thread = thread_of(given.text("thread"))
    in_thread, under_head = given.value("friction_thread"), given.value("friction_head")
    face = given.value("face")
    torque, force = given.maybe("torque"), given.maybe("preload")
    if (torque is None) == (force is None):
        raise FieldError("torque", "one of torque and preload is wanted.", "Expected the one that is known, and the other empty.")
    preload = force if force is not None else preload_of(torque or 0.0, thread, in_thread, under_head, face)
    shares = shares_of(preload, thread, in_thread, under_head, face)
    numbers = (
        Given("d", f"nominal diameter of {thread.name}", length(thread.diameter_mm)),
        Given("P", "pitch", length(thread.pitch_mm)),
        Given("μₜ", "friction in the thread", f"{in_thread:g}"),
        Given("μₕ", "friction under the head", f"{under_head:g}"),
        Given("Dₖ", "mean diameter of the face", length(face)),
    )
    said_torque, said_force = Amount(shares.torque_n_m, Kind.FINE_TORQUE), Amount(preload, Kind.FORCE)
    factor = Sentence("{k}", {"k": f"{1000 * shares.torque_n_m / (preload * thread.diameter_mm):.3f}"})
    parts: Amounts = {
        "stretch": Amount(shares.stretch_n_m, Kind.FINE_TORQUE),
        "thread": Amount(shares.thread_n_m, Kind.FINE_TORQUE),
        "head": Amount(shares.head_n_m, Kind.FINE_TORQUE),
    }
    formula = "T = F·( d₂/2·tan(φ + ρ′) + μₕ·Dₖ/2 ),   tan φ = P/(π·d₂),   tan ρ′ = μₜ/cos 30°"
    return (
        ResultLine("Torque", said_torque, working=Working("Torque for a preload", formula, numbers, said_torque, _WEDGE)),
        ResultLine("Preload", said_force, working=Working("Preload from a torque", formula, numbers, said_force, _WEDGE)),
        ResultLine("Of which", Sentence("{stretch} stretch it, {thread} are lost in the thread, {head} under the head", parts)),
        ResultLine(
            "Nut factor",
            factor,
            working=Working("Nut factor", "K = T/(d·F)", numbers, factor, "definition; it is no friction coefficient"),
        ),
    )


def _proof(given: TypedInputs) -> tuple[ResultLine, ...]:
    thread, strength = thread_of(given.text("thread")), given.text("class")
    load, wanted = proof_load_n(thread, strength), given.maybe("preload")
    numbers = (
        Given("Aₛ", f"stress area of {thread.name}", f"{stress_area_mm2(thread):.1f} mm²"),
        Given("Sₚ", f"proof stress of {strength}", f"{load / stress_area_mm2(thread):g} MPa"),
    )
    said = Amount(load, Kind.FORCE)
    source = "ISO 898-1:2013, table 3 (from memory)"
    lines = (ResultLine("Proof load", said, working=Working("Proof load", "F = Sₚ·Aₛ", numbers, said, source)),)
    if wanted is None:
        return lines
    share = wanted / load
    words = Sentence("{share} of it", {"share": Amount(100 * share, Kind.SHARE)})
    return (*lines, ResultLine("The preload is", words, Status.GOOD if share <= 1 else Status.STOP))


def _play(given: TypedInputs) -> tuple[ResultLine, ...]:
    bearing = BallBearing(given.value("ball"), given.value("inner"), given.value("outer"), given.value("radial"))
    said, angle = length(bearing.axial_mm, fine=True), Amount(bearing.angle_deg, Kind.ANGLE)
    numbers = (
        Given("D", "ball", length(bearing.ball_mm)),
        Given("f", "radii of the grooves over the ball", f"{bearing.inner:g} and {bearing.outer:g}"),
        Given("G", "play across, on the diameter", length(bearing.radial_mm, fine=True)),
        Given("A", "(f₁ + f₂ − 1)·D", length(bearing.centres_mm, fine=True)),
    )
    source = "geometry of two grooves and a ball, without load (Harris, Rolling Bearing Analysis; from memory)"
    return (
        ResultLine("Play along", said, working=Working("Play along", "√(4·A·G − G²)", numbers, said, source)),
        ResultLine("Angle of contact then", angle, working=Working("Free angle", "cos α = 1 − G/(2·A)", numbers, angle, source)),
    )


def _lip(given: TypedInputs) -> tuple[ResultLine, ...]:
    shaft, lip = ((given.value(f"{of}_low"), given.value(f"{of}_high")) for of in ("shaft", "lip"))
    least, most = lip_mm(shaft, lip)
    numbers = tuple(
        Given(
            "",
            f"{name}, from and to",
            Sentence("{low} to {high}", {"low": length(of[0], fine=True), "high": length(of[1], fine=True)}),
        )
        for name, of in (("shaft", shaft), ("free lip", lip))
    )
    amounts: Amounts = {"least": Bare(length(least, fine=True)), "most": length(most, fine=True)}
    said = Sentence("{least} to {most}", amounts)
    working = Working(
        "Lip on its shaft", "shaft − free lip", numbers, said, "arithmetic of the limits; what is wanted is the seal maker's"
    )
    if least > 0:
        return (ResultLine("The lip is stretched by", said, working=working),)
    words = Sentence("{least} to {most}: at the least it does not touch", amounts)
    return (ResultLine("The lip is stretched by", words, Status.STOP, working),)


def _bend(given: TypedInputs) -> tuple[ResultLine, ...]:
    shaft = Overhung(*(given.value(key) for key in ("span", "overhang", "rotor", "shaft", "across", "modulus")))
    pressure, gap = given.value("pressure"), given.maybe("gap")
    bend, force = shaft.bend_mm(pressure), Amount(shaft.force_n(pressure), Kind.FORCE)
    working = shaft.working(pressure)
    lines = (
        ResultLine("The pressure pushes with", force, working=Working("Force", "Δp·b·D", working.given, force, "definition")),
        ResultLine("The free end bends by", length(bend, fine=True), working=working),
    )
    if gap is None:
        return lines
    left = gap - bend
    if left <= 0:
        words = Sentence("nothing: it touches on the suction side", {})
        return (*lines, ResultLine("Left of the gap there", words, Status.STOP, working))
    numbers = (Given("c", "gap without pressure", length(gap, fine=True)), Given("y", "bend", length(bend, fine=True)))
    said = length(left, fine=True)
    return (
        *lines,
        ResultLine("Left of the gap there", said, working=Working("Gap under pressure", "c − y", numbers, said, "geometry")),
    )


def _flank(given: TypedInputs) -> tuple[ResultLine, ...]:
    flank = Flank(given.value("lead"), given.value("pitch"), given.maybe("lean") or 0.0)
    read = next(one for one in Read if one.value == given.text("read"))
    left, right = given.value("left"), given.value("right")
    shift = flank.shift_mm(left, right, read)
    both = flank.after_mm(left, right, read, shift)
    numbers = (
        Given("l", "gap left", length(left, fine=True)),
        Given("r", "gap right", length(right, fine=True)),
        Given("", "read", read.value),
        Given("lead", "pitch times starts", length(flank.lead_mm)),
        Given("D", "pitch diameter", length(flank.pitch_mm)),
        Given("α", "flank in a cut along the axis", Amount(flank.lean_deg, Kind.ANGLE)),
    )
    side = "left" if shift > 0 else "right"
    formula = "s = (l − r)/2, along the axis;   along = square·√(1 + tan²α + tan²λ) = round·tan λ,   tan λ = lead/(π·D)"
    source = "geometry of a helical surface: the normal of z = f(r) + lead·θ/2π"
    if abs(shift) < _NOTHING_MM:
        return (ResultLine("Both alike", "leave it"),)
    along, turn = length(abs(shift), fine=True), Amount(abs(flank.turn_deg(shift)), Kind.FINE_ANGLE)
    move = Sentence("{along} towards the {side}", {"along": along, "side": side})
    after = Sentence("{both} on either side", {"both": length(both[0], fine=True)})
    return (
        ResultLine("Shift one screw along its axis", move, working=Working("Shift", formula, numbers, along, source)),
        ResultLine("Or turn it, which is the same move", turn, working=Working("Turn", "φ = 360°·s / lead", numbers, turn, source)),
        ResultLine("Each gap is then", after),
    )


def _index(given: TypedInputs) -> tuple[ResultLine, ...]:
    index, working = viscosity_index(given.value("at_40"), given.value("at_100"))
    return (ResultLine("Viscosity index", f"{index:.0f}", working=working),)


_NOTHING_MM = 1e-6
_THREAD = Input("thread", "thread, such as M12 or 1/2-13")
HANDBOOK = (
    Calculator(
        "nut-factor",
        "Torque and preload, friction apart",
        (
            _THREAD,
            Input("torque", "torque", Dimension.TORQUE, optional=True),
            Input("preload", "or preload", Dimension.FORCE, optional=True),
            Input("friction_thread", "friction in the thread", number=(0.001, 1), usual="0.12"),
            Input("friction_head", "friction under the head", number=(0.001, 1), usual="0.12"),
            mm("face", "mean diameter of the face under head or nut"),
        ),
        _torque,
    ),
    Calculator(
        "proof-load",
        "Proof load of a bolt",
        (
            _THREAD,
            Input("class", "property class", choices=tuple((one, one) for one in PROOF_MPA), usual="8.8"),
            Input("preload", "preload", Dimension.FORCE, optional=True),
        ),
        _proof,
    ),
    Calculator(
        "bearing-play",
        "Play of a ball bearing along its shaft",
        (
            mm("ball", "ball"),
            Input("inner", "inner groove, its radius over the ball", number=(0.5, 0.6), usual="0.52"),
            Input("outer", "outer groove, its radius over the ball", number=(0.5, 0.6), usual="0.53"),
            mm("radial", "play across, on the diameter", AllowedSign.NOT_NEGATIVE),
        ),
        _play,
    ),
    Calculator(
        "bend",
        "Bend of an overhung shaft under pressure",
        (
            mm("span", "between the bearings"),
            mm("overhang", "front bearing to the end of the rotor"),
            mm("rotor", "rotor, length"),
            mm("shaft", "shaft"),
            mm("across", "over the tips of the rotor"),
            Input("modulus", "modulus", Dimension.STRESS, usual=f"{STEEL_MPA:.0f} MPa"),
            Input("pressure", "pressure difference", Dimension.PRESSURE),
            mm("gap", "gap at the tips without pressure", optional=True),
        ),
        _bend,
    ),
    Calculator(
        "flank-gap",
        "Flank gaps of two screws made alike",
        (
            mm("left", "narrowest at the left", AllowedSign.NOT_NEGATIVE),
            mm("right", "narrowest at the right", AllowedSign.NOT_NEGATIVE),
            Input("read", "read", choices=tuple((one.value, one.value) for one in Read), usual=Read.AXIAL.value),
            mm("lead", "lead: pitch times starts"),
            mm("pitch", "pitch diameter"),
            Input("lean", "flank, from square to the axis", Dimension.ANGLE, sign=AllowedSign.NOT_NEGATIVE, optional=True),
        ),
        _flank,
    ),
    Calculator(
        "viscosity-index",
        "Viscosity index of an oil",
        (Input("at_40", "at 40 °C", Dimension.VISCOSITY), Input("at_100", "at 100 °C", Dimension.VISCOSITY)),
        _index,
    ),
    Calculator(
        "lip",
        "Lip seal on its shaft",
        (
            mm("shaft_low", "shaft, from"),
            mm("shaft_high", "shaft, to"),
            mm("lip_low", "free lip, from"),
            mm("lip_high", "free lip, to"),
        ),
        _lip,
    ),
)
