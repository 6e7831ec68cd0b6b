"""Bearings of an internal gear pump, in its usual arrangements. Common practice, no source; the sheet rules."""

from dataclasses import replace

from finegap.core.families.builds import When
from finegap.core.families.internal_gear.builds import COMPACT, COUPLED, HOUSING
from finegap.core.families.stack import Carrier, LinesUp, Points, Shape, Stack, StackPart

_PRESSED = "By its inner ring onto the shaft, by its outer ring into the housing."
_SHAFT = Carrier("shaft", "On the shaft", ("rotor", "drive"))
_BENCH = Carrier("bench", "Housing on the bench", ("pump", "drive"), brought="housing", inside="housing")
_FIXED = {"shaft": ("slot", "groove")}

_NUT = StackPart(
    "lock_nut",
    "Lock nut",
    Shape.NUT,
    "bevelled side towards the bearing",
    Points.ROTOR,
    note="By hand: torque comes later.",
    on="shaft",
)
_TANGED = (
    StackPart(
        "lock_washer",
        "Lock washer",
        Shape.LOCK_WASHER,
        "tangs towards the nut",
        Points.DRIVE,
        ("tab",),
        (LinesUp("tab", "slot", "shaft"),),
        always_new=True,
        feature="lock_washer",
        on="shaft",
    ),
    _NUT,
)


def _lip(key: str, name: str, place: str, on: str) -> StackPart:
    """A thrust lip seal: which way its lip points is the sheet's, or the works'."""
    said = "lips_inner" if key == "inner_lip" else "lips_outer"
    return StackPart(
        key,
        name,
        Shape.LIP_SEAL,
        f"{{{said}}}",
        Points.NEITHER,
        always_new=True,
        elastomer="lip",
        turned_by=said,
        lubricant="lip greased",
        on=on,
        note=f"Pressed square by its rim{place}.",
    )


_HOUSING_IN = StackPart(
    "housing", "Bearing housing, turned into the bracket", Shape.CAP, on="shaft", note="About as many turns as it came out."
)
_BALL_ON_BENCH = (
    _lip("inner_lip", "Lip seal of the housing", " into the housing", on="bench"),
    _lip("outer_lip", "Lip seal of the end cap", " into the cap", on="cap"),
    StackPart(
        "bearing",
        "Thrust bearing",
        Shape.BEARING,
        "printed side towards the drive",
        Points.DRIVE,
        feature="bearings",
        on="bench",
        lubricant="packed with grease",
        note="Pushed in by its outer ring.",
    ),
    StackPart(
        "plugs",
        "Nylon plugs under the radial screws",
        Shape.SCREW,
        on="bench",
        at=2,
        note="A squashed plug lets the screw bite the thread.",
    ),
    StackPart(
        "outer_collar", "Outer collar", Shape.COLLAR, "polished side under the lip", Points.DRIVE, feature="half_rings", on="bench"
    ),
    StackPart("end_cap", "End cap with its lip seal", Shape.CAP, on="bench", checked="turned in until tight against the bearing"),
    StackPart(
        "radial_screws",
        "Radial screws tight",
        Shape.SCREW,
        on="bench",
        checked="the cap turns no more by hand",
        note="A loose cap is axial play, and a gap that moves.",
    ),
)
_HALF_RINGS = (
    StackPart(
        "inner_collar",
        "Inner collar",
        Shape.COLLAR,
        "recess towards the rotor",
        Points.ROTOR,
        feature="half_rings",
        on="shaft",
        at=2,
    ),
    StackPart(
        "half_rings",
        "Half rings",
        Shape.HALF_RING,
        "both in the groove",
        Points.NEITHER,
        ("rims",),
        (LinesUp("rims", "groove", "shaft"),),
        feature="half_rings",
        on="shaft",
        at=1,
        split=True,
    ),
    StackPart(
        "collar_over",
        "Collar pushed over the half rings",
        Shape.COLLAR,
        on="shaft",
        at=2,
        checked="both rings are held in its recess",
    ),
)
_PLAIN_COLLAR = (
    StackPart(
        "inner_collar", "Inner collar", Shape.COLLAR, "recess towards the rotor", Points.ROTOR, feature="half_rings", on="shaft"
    ),
)
_CAP = Carrier("cap", "In the end cap", ("housing", "outside"), brought="end_cap", inside="end_cap")


def _housed(key: str, name: str, parts: tuple[StackPart, ...], when: When) -> Stack:
    """A bearing housing built on the bench and turned in, the nut by hand."""
    return Stack(key, name, "bearing", (*parts, _HOUSING_IN), _FIXED, {**HOUSING, **when}, carriers=_carriers(parts))


def _carriers(parts: tuple[StackPart, ...]) -> tuple[Carrier, ...]:
    """What is built on the bench, then the shaft."""
    return (_BENCH, *([_CAP] if any(part.on == "cap" for part in parts) else []), _SHAFT)


def _inside(parts: tuple[StackPart, ...], name: str) -> tuple[StackPart, ...]:
    return tuple(replace(part, on=name) for part in parts)


_BEHIND_OR_PACKED: When = {"seal": ("packed", "mechanical"), "bearing": ("ball",)}
THRUST = (
    _housed(
        "thrust_half_rings",
        "Thrust bearing housing, half rings",
        (*_BALL_ON_BENCH, *_HALF_RINGS),
        {**_BEHIND_OR_PACKED, "collar": ("half rings",)},
    ),
    _housed(
        "thrust_plain",
        "Thrust bearing housing, plain collar",
        (*_BALL_ON_BENCH, *_PLAIN_COLLAR),
        {**_BEHIND_OR_PACKED, "collar": ("plain",)},
    ),
)

_IN_CASING = Carrier("casing", "In the casing", ("rotor", "drive"))
_INNER_BEARING = StackPart(
    "inner_bearing",
    "Inner bearing",
    Shape.BEARING,
    "printed side towards the drive",
    Points.DRIVE,
    feature="bearings",
    on="casing",
    note=_PRESSED,
)
_INNER = {
    "ring": (
        _INNER_BEARING,
        StackPart(
            "inner_ring",
            "Its retaining ring",
            Shape.CLIP,
            "sharp edge towards the drive",
            Points.DRIVE,
            on="casing",
            checked="sprung fully into its groove",
        ),
    ),
    "washer": (
        _INNER_BEARING,
        StackPart("inner_washer", "Retainer washer", Shape.WASHER, on="casing"),
        StackPart("inner_spacer", "Collar", Shape.COLLAR, on="shaft"),
    ),
}
_OUTER_BEARING = StackPart(
    "outer_bearing",
    "Outer bearing",
    Shape.BEARING,
    "printed side towards the drive",
    Points.DRIVE,
    feature="bearings",
    on="bench",
    lubricant="packed with grease",
)
_OUTER = {
    "ring": (
        _OUTER_BEARING,
        StackPart("outer_ring", "Retaining ring of the housing", Shape.CLIP, on="bench", checked="sprung fully into its groove"),
    ),
    "cap": (
        _OUTER_BEARING,
        StackPart("end_cap", "End cap of the housing", Shape.CAP, on="bench", checked="tight against the bearing"),
    ),
}
COMPACT_BEARINGS = tuple(
    Stack(
        f"compact_{inner}_{outer}",
        "Inner and outer bearing of the compact build",
        "bearing",
        (*_INNER[inner], *_OUTER[outer], _HOUSING_IN),
        _FIXED,
        {**COMPACT, **HOUSING, "bearing": ("ball",), "inner": (inner,), "outer": (outer,)},
        carriers=(_IN_CASING, _SHAFT, _BENCH),
    )
    for inner in _INNER
    for outer in _OUTER
)

_TAPERED_PARTS = (
    _lip("inner_lip", "Inner lip seal", "", ""),
    StackPart(
        "inner_bearing",
        "Inner tapered bearing",
        Shape.TAPERED,
        "wide end of the rollers towards the drive",
        Points.DRIVE,
        feature="bearings",
        note=_PRESSED,
    ),
    StackPart("spacer", "Spacer", Shape.SLEEVE, feature="bearings"),
    StackPart(
        "outer_bearing",
        "Outer tapered bearing",
        Shape.TAPERED,
        "wide end of the rollers towards the rotor",
        Points.ROTOR,
        feature="bearings",
        note=_PRESSED,
    ),
    StackPart("disc_spring", "Disc spring", Shape.DISC_SPRING, "cone towards the nut", Points.DRIVE),
)
_COVER = StackPart(
    "end_cap",
    "End cap",
    Shape.CAP,
    on="bench",
    checked="turned through by hand it has no play and no tight spot",
    note="Preload by the sheet.",
)
TAPERED_HOUSED = _housed(
    "tapered_housed",
    "Pair of tapered bearings in the housing",
    (*_inside(_TAPERED_PARTS, "bench"), _COVER),
    {"bearing": ("tapered",)},
)
TAPERED = Stack(
    "tapered_cover",
    "Pair of tapered bearings with preload",
    "bearing",
    (*_inside(_TAPERED_PARTS, "shaft"), replace(_COVER, on="shaft")),
    _FIXED,
    {"means": ("gaskets", "fixed"), "bearing": ("tapered",)},
    carriers=(_SHAFT,),
)
BALL = Stack(
    "ball_cover",
    "Ball bearing in its cover",
    "bearing",
    (
        _lip("inner_lip", "Inner lip seal", "", on="shaft"),
        StackPart(
            "bearing",
            "Ball bearing",
            Shape.BEARING,
            "printed side towards the drive",
            Points.DRIVE,
            feature="bearings",
            note=_PRESSED,
            on="shaft",
        ),
        StackPart("cover", "Bearing cover with its gasket", Shape.CAP, on="shaft"),
    ),
    _FIXED,
    {"means": ("gaskets", "fixed"), "bearing": ("ball",)},
    carriers=(_SHAFT,),
)


def _locked(stack: Stack) -> tuple[Stack, ...]:
    """A stack with its lock nut: with a washer and its tang, or alone."""
    ended = tuple(part for part in stack.parts if part.key == "cover")
    parts = tuple(part for part in stack.parts if part not in ended)
    return tuple(
        replace(
            stack,
            key=f"{stack.key}_{nut}",
            parts=(*parts, *locking, *ended),
            when={**stack.when, "nut": (nut,)},
            fixed=stack.fixed if nut == "tang" else {"shaft": ("groove",)},
        )
        for nut, locking in (("tang", _TANGED), ("plain", (_NUT,)))
    )


LOCKED = tuple(one for stack in (*THRUST, *COMPACT_BEARINGS, TAPERED_HOUSED, TAPERED, BALL) for one in _locked(stack))
COUPLED_BEARING = Stack(
    "coupled_bearing",
    "Bearing and adjusting ring of the close-coupled build",
    "bearing",
    (
        StackPart("rear_gasket", "Rear gasket", Shape.GASKET, always_new=True, on="shaft"),
        StackPart(
            "bolts", "Two temporary bolts through the rear cover", Shape.TOOL, on="shaft", note="They hold the unit to the housing."
        ),
        StackPart(
            "bearing",
            "Bearing",
            Shape.BEARING,
            "printed side towards the motor",
            Points.DRIVE,
            feature="bearings",
            on="shaft",
            checked="as deep below the cover's face as the sheet says",
        ),
        StackPart("cover", "Bearing cover", Shape.CAP, on="shaft"),
        StackPart("bolts_out", "Temporary bolts out", Shape.OUT, on="shaft", takes_out="bolts"),
        StackPart("ring", "Adjusting ring, loose", Shape.COLLAR, on="shaft", checked="it slides by hand"),
        StackPart("key", "Key", Shape.SLEEVE, on="shaft", checked="flush in its keyway"),
    ),
    when=COUPLED,
    carriers=(Carrier("shaft", "On the shaft", ("rear cover", "motor")),),
)

BEARINGS = (*LOCKED, COUPLED_BEARING)
