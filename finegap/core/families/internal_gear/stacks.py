"""Bushing and head of an internal gear pump, with its seals and bearings. Common practice, no source; the sheet rules."""

from finegap.core.families.internal_gear.bearings import BEARINGS
from finegap.core.families.internal_gear.seals import SEALS
from finegap.core.families.stack import LinesUp, Points, Shape, Stack, StackPart

BUSHING = Stack(
    "bushing",
    "Bushing into its seat",
    "bushing",
    (
        StackPart(
            "bushing",
            "Bushing",
            Shape.SLEEVE,
            "lubrication groove at 12 o'clock",
            feature="bushing_bore",
            note="Square on the arbor, started straight, pressed flush. {one_stroke:bushing}",
        ),
    ),
)
_HEAD_PART = StackPart(
    "head",
    "Head with the idler on its pin",
    Shape.CAP,
    "tilted so that the idler meshes",
    Points.ROTOR,
    ("match mark",),
    (LinesUp("match mark", "match mark", "casing"),),
    note="Heavy: held until the first bolts carry it. Bolts by hand.",
)
_HEAD_NOTES = {
    "head_sealed": ("Head gasket", "{head_gasket}", ("housing", "ring", "coupling", "fixed")),
    "head_set": ("Head gaskets", "The stack to begin with; Set says which come out and go in. {head_gasket}", ("gaskets",)),
}
HEADS = tuple(
    Stack(
        key,
        "Head onto the casing",
        "head",
        (StackPart("head_gasket", name, Shape.GASKET, "flat, no hole covered", always_new=True, note=note), _HEAD_PART),
        fixed={"casing": ("match mark",)},
        when={"means": means},
        ends=("casing", "outside"),
    )
    for key, (name, note, means) in _HEAD_NOTES.items()
)

STACKS = (*SEALS, *BEARINGS, BUSHING, *HEADS)
