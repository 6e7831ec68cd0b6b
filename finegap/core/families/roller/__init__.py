"""Roller pump: rollers in the pockets of a rotor sweep an eccentric housing. Common practice, no source."""

from finegap.core.families.builds import Option, convention
from finegap.core.families.family import Family, GapWords, ReplacedWith, Side, Symptom
from finegap.core.families.roller.drawing import views
from finegap.core.families.roller.features import FEATURES
from finegap.core.families.roller.pictures import PICTURES
from finegap.core.families.roller.procedure import DETAILS, STEPS
from finegap.core.families.roller.stacks import STACKS
from finegap.core.families.rotation import ROTATION

FAMILY = Family(
    key="roller",
    name="Roller pump",
    features=FEATURES,
    steps=STEPS,
    options=(
        Option("means", "Side gaps set by", {"tap": "the shaft tapped across", "fixed": "nothing: checked only"}),
        ROTATION,
        Option("shaft", "Drive end of the shaft", {"key": "keyed", "plain": "plain, or splined"}),
        convention(
            "lip_side",
            "Open side of the shaft seals",
            {"inward": "to the liquid", "outward": "to the bearing"},
            {"inward": "open side to the liquid", "outward": "open side to the bearing"},
            "open side as the sheet says",
        ),
    ),
    symptoms=(
        Symptom(
            "low_flow",
            "Low flow or pressure",
            ("roller_diameter", "roller_clearance", "both_sides", "step", "housing_bore", "cover_track"),
            "Air drawn in at the suction side, a relief valve that passes.",
            Side.WIDER,
        ),
        Symptom("leak", "Leaks at the shaft, or at a weep hole", ("seal_zone", "shaft_at_seal", "weep_holes", "bearings")),
        Symptom("noise", "Noise or knocking", ("rollers", "pockets", "bearings", "step"), "Starved suction."),
        Symptom(
            "seized",
            "Seized, or turns hard",
            ("side_front", "side_back", "rollers", "bearings"),
            "Swollen rollers, dirt, a pump left standing wet.",
            Side.TIGHTER,
        ),
        Symptom("planned", "Planned overhaul", ()),
    ),
    replaced_with=(
        ReplacedWith("roller_length", ("roller_diameter", "rollers"), "Rollers are changed as a set."),
        ReplacedWith("seal_zone", ("shaft_at_seal",), "A new seal does not seal on a pitted shaft."),
    ),
    one_piece=(
        ("roller_length", "roller_diameter", "rollers"),
        ("housing_depth", "housing_bore", "step"),
        ("rotor_width", "pockets"),
        ("shaft_at_seal", "seal_zone"),
    ),
    details=DETAILS,
    stacks=STACKS,
    pictures=PICTURES,
    gap=GapWords("side gap", "", "rotor and housing"),
    views=views,
    torques=("housing bolts",),
)
