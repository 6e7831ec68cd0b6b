"""What is pressed into a roller pump in which order, from which side, and on what it stands. Common practice, no source."""

from finegap.core.families.roller.features import ROLLERS
from finegap.core.families.stack import Carrier, LinesUp, Shape, Stack, StackPart

_HALVES = (("cover", "Cover"), ("housing", "Housing"))


def _seal(key: str, name: str) -> StackPart:
    return StackPart(
        f"seal_{key}",
        f"Shaft seal, {name.lower()}",
        Shape.LIP_SEAL,
        "{lip_side}",
        always_new=True,
        elastomer="elastomer",
        on=key,
        lubricant="a lubricant that suits its elastomer",
        note="Pressed square by the seal's side of the tool, on its metal case, never on the lip.",
        checked="it bottoms, and its spring lies in place",
        turned_by="lip_side",
    )


def _bearing(key: str, name: str) -> StackPart:
    return StackPart(
        f"bearing_{key}",
        f"Bearing, {name.lower()}",
        Shape.BEARING,
        on=key,
        feature="bearings",
        note="The tool turned round: its other side presses the outer ring.",
        checked="it bottoms, and turns without a rough spot",
    )


SEATS = Stack(
    "seats",
    "Seals and bearings in both halves",
    "seats",
    (*(_seal(*half) for half in _HALVES), *(_bearing(*half) for half in _HALVES)),
    carriers=tuple(Carrier(key, f"In the {key}, from outside", ("liquid", "outside")) for key, _ in _HALVES),
)
"""Both seals before both bearings: the bearing lies outside its seal."""


def _rotor(keyed: bool) -> Stack:
    return Stack(
        "rotor_keyed" if keyed else "rotor_plain",
        "Rotor, rollers and housing",
        "rotor",
        (
            StackPart(
                "rotor_support", "Cover stood on its bearing's inner ring", Shape.TOOL, note="Unsupported, the balls are dented."
            ),
            StackPart(
                "rotor",
                "Rotor and shaft, pressed through seal and bearing",
                Shape.ROTOR,
                "keyed end up" if keyed else "drive end up",
                feature="pockets",
                lubricant="shaft clean, its keyway taped, the seal's lubricant on it"
                if keyed
                else "shaft clean, the seal's lubricant on it",
                checked="it turns by hand in the cover",
            ),
            StackPart("rotor_support_out", "That support away", Shape.OUT, takes_out="rotor_support"),
            StackPart(
                "ring",
                "O-ring of the housing",
                Shape.O_RING,
                always_new=True,
                elastomer="elastomer",
                note="Laid in at one side, then stretched round into its groove; not twisted.",
                checked="it lies in its groove all the way round",
            ),
            StackPart(
                "roller",
                "Roller, clean",
                Shape.SLEEVE,
                feature="roller_length",
                counted=ROLLERS,
                note="A thread of rag locks the pump.",
                checked="no thread and no chip, and it rolls in its pocket",
            ),
            StackPart("top_support", "Top bearing supported by its inner ring", Shape.TOOL),
            StackPart(
                "housing",
                "Housing, pressed on",
                Shape.CAP,
                marks=("weep hole",),
                lines_up=(LinesUp("weep hole", "weep hole", "cover"),),
                note="Straight down. No bolt goes in yet.",
            ),
            StackPart("top_support_out", "That support away", Shape.OUT, takes_out="top_support"),
        ),
        fixed={"cover": ("weep hole",)},
        when={"shaft": ("key",) if keyed else ("plain",)},
        carriers=(Carrier("cover_on", "On the cover", ("cover", "housing")),),
    )


STACKS = (SEATS, _rotor(True), _rotor(False))
