"""What goes onto a sliding vane pump in which order. Common practice, no source; the sheet rules."""

from finegap.core.families.stack import Carrier, LinesUp, Points, Shape, Stack, StackPart

_OVERHAUL = {"scope": ("overhaul",)}

COVER = Stack(
    "end_cover",
    "End cover",
    "cover",
    (
        StackPart("gasket", "Cover gasket", Shape.GASKET, always_new=True, note="Dry and whole: its thickness is the side gap."),
        StackPart(
            "cover",
            "Cover",
            Shape.CAP,
            "machined face inward",
            Points.ROTOR,
            ("hole",),
            (LinesUp("hole", "pin", "cylinder"),),
            note="On its pins before any bolt.",
        ),
        StackPart("bolts", "Cover bolts", Shape.SCREW, note="By hand, criss-cross: torque comes next."),
    ),
    fixed={"cylinder": ("pin",)},
    when=_OVERHAUL | {"service": ("dry",)},
    ends=("cylinder", "outside"),
)
PLATE = Stack(
    "end_plate",
    "End plate with its bearing",
    "cover",
    (
        StackPart(
            "gasket", "Plate gasket", Shape.GASKET, always_new=True, on="cylinder", note="Whole: its thickness is the side gap."
        ),
        StackPart(
            "plate",
            "End plate, its bearing out and its seat clean",
            Shape.CAP,
            "machined face inward",
            Points.ROTOR,
            on="cylinder",
        ),
        StackPart("holding", "One or two bolts to hold it", Shape.TOOL, on="cylinder"),
        StackPart(
            "bearing",
            "Bearing, started square, far enough to carry the shaft",
            Shape.BEARING,
            "closed side outward",
            Points.DRIVE,
            on="cylinder",
            lubricant="greased",
            feature="bearings",
        ),
        StackPart(
            "holding_out",
            "Those bolts out again",
            Shape.OUT,
            on="cylinder",
            takes_out="holding",
            note="The plate has to be lifted.",
        ),
        StackPart("pins", "Plate lifted to its holes, temporary alignment pins in", Shape.TOOL, on="cylinder"),
        StackPart("bolts", "Main bolts", Shape.SCREW, on="cylinder", note="Tight, criss-cross."),
        StackPart("pins_out", "Alignment pins out", Shape.OUT, on="cylinder", takes_out="pins"),
        StackPart("bearing_home", "Bearing driven fully home", Shape.BEARING, on="cylinder", checked="the rotor spins"),
    ),
    when=_OVERHAUL | {"service": ("lubricated",)},
    carriers=(Carrier("cylinder", "On the cylinder", ("cylinder", "outside")),),
)
DRIVE = Stack(
    "drive_flange",
    "Drive end",
    "drive",
    (
        StackPart(
            "retaining",
            "Snap ring",
            Shape.CLIP,
            "sharp edge outward",
            Points.DRIVE,
            checked="seated in its groove all the way round",
        ),
        StackPart("wave", "Wave ring", Shape.WASHER, always_new=True, note="It takes up the play: a flat one is no wave ring."),
        StackPart(
            "flange",
            "Flange, bolted to the plate",
            Shape.COLLAR,
            "grease fitting at the top",
            Points.ROTOR,
            ("holes",),
            (LinesUp("holes", "threads", "plate"),),
        ),
        StackPart("key", "Shaft key", Shape.SLEEVE, checked="flat side down in its keyway"),
    ),
    fixed={"plate": ("threads",)},
    when=_OVERHAUL | {"service": ("lubricated",)},
    ends=("plate", "drive"),
)

STACKS = (COVER, PLATE, DRIVE)
