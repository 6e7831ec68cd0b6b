"""What goes onto a sliding vane pump in which order. Common practice, no source; the sheet rules."""

from finegap.core.families.stack import LinesUp, Points, Shape, Stack, StackPart

_OVERHAUL = {"scope": ("overhaul",)}

COVER = Stack(
    "cover",
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
    when=_OVERHAUL,
    ends=("cylinder", "outside"),
)
DRIVE = Stack(
    "drive",
    "Drive end",
    "drive",
    (
        StackPart(
            "bearing",
            "Bearing",
            Shape.BEARING,
            "closed side outward",
            Points.DRIVE,
            note="Square, and fully home.",
            feature="bearings",
        ),
        StackPart(
            "retaining", "Retaining ring", Shape.CLIP, "sharp edge outward", Points.DRIVE, note="Sprung fully into its groove."
        ),
        StackPart("wave", "Wave ring", Shape.WASHER, always_new=True, note="It takes up the play: a flat one is no wave ring."),
        StackPart(
            "flange",
            "Flange",
            Shape.COLLAR,
            "shoulder towards the bearing",
            Points.ROTOR,
            ("keyway",),
            (LinesUp("keyway", "keyway", "shaft"),),
        ),
        StackPart("key", "Key", Shape.SLEEVE, "flat side down in its keyway"),
    ),
    fixed={"shaft": ("keyway",)},
    when=_OVERHAUL | {"service": ("lubricated",)},
    ends=("cover", "drive"),
)

STACKS = (COVER, DRIVE)
