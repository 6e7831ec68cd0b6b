"""Rotors and cover of a circumferential piston pump, with its seals. Common practice, no source; the sheet rules."""

from finegap.core.families.builds import UNSAID, When
from finegap.core.families.circumferential_piston.seals import SEAL_CHOICES, SEALS
from finegap.core.families.stack import Carrier, LinesUp, Points, Shape, Stack, StackPart

_SUITS = "a lubricant that suits ring and product"


def _key(key: str, name: str) -> StackPart:
    return StackPart(f"key_{key}", f"Key, {name.lower()}", Shape.SLEEVE, on=key, at=2, split=True, checked="flush in its keyway")


def _ring(key: str, name: str, on: str, note: str = "", checked: str = "") -> StackPart:
    """An O-ring that goes in lubricated."""
    return StackPart(
        key, name, Shape.O_RING, always_new=True, elastomer="elastomer", note=note, on=on, lubricant=_SUITS, checked=checked
    )


def _rotor(key: str, name: str, mark: str, *, keyed_first: bool, pinned: bool) -> tuple[StackPart, ...]:
    """One rotor with what holds it, from its hub to its nut."""
    second = key == "driven"
    meets = (
        LinesUp(mark, mark, f"{key} shaft"),
        *((LinesUp("2 pins", "2 notches", f"{key} sleeve"),) if pinned else ()),
        *((LinesUp("wing", "hollow", "drive rotor"),) if second else ()),
    )
    return (
        _ring(f"hub_ring_{key}", f"O-ring of the hub, {name.lower()}", key, "Left out, product runs into the splines."),
        *((_key(key, name),) if keyed_first else ()),
        StackPart(
            f"rotor_{key}",
            f"{name} rotor",
            Shape.COLLAR,
            "wings at right angles to the first" if second else "",
            marks=tuple(up.mark for up in meets),
            lines_up=meets,
            on=key,
            at=3,
            note="Onto its shoulder by hand: a burr holds it off. {antiseize}",
            feature="wings",
        ),
        StackPart(
            f"spring_{key}",
            f"Disc spring, {name.lower()}",
            Shape.DISC_SPRING,
            "cone towards the nut",
            Points.DRIVE,
            on=key,
            note="It is no washer.",
        ),
        _ring(f"keeper_{key}", f"Ring that keeps the spring, {name.lower()}", key, checked="the spring is loose: it rattles"),
        _ring(f"nut_ring_{key}", f"O-ring of the nut, {name.lower()}", key, "Dry it wrinkles."),
        StackPart(
            f"nut_{key}",
            f"Rotor nut, {name.lower()}",
            Shape.NUT,
            "sealing face towards the rotor",
            Points.ROTOR,
            on=key,
            note="By hand, the way its thread turns: torque comes later.",
        ),
    )


_SHAFTS = (
    Carrier("drive", "On the drive shaft", ("gear case", "cover")),
    Carrier("driven", "On the driven shaft", ("gear case", "cover")),
)


def _rotors(suffix: str, mark: str, when: When, *, first: bool = False, last: bool = False) -> tuple[Stack, ...]:
    """Both rotors; with the double O-ring seal each has two pins that go into its sleeve."""
    keys = (_key("drive", "Drive"), _key("driven", "Driven")) if last else ()
    found = []
    for pinned, seals in ((False, tuple(s for s in SEAL_CHOICES if s != "double_o")), (True, ("double_o",))):
        rotors = (
            _rotor(key, name, mark, keyed_first=first, pinned=pinned) for key, name in (("drive", "Drive"), ("driven", "Driven"))
        )
        sleeves = {f"{key} sleeve": ("2 notches",) for key in ("drive", "driven") if pinned}
        found.append(
            Stack(
                f"rotors_{suffix}" + "_pinned" * pinned,
                f"Rotors on their {mark}s",
                "rotors",
                (*(part for parts in rotors for part in parts), *keys),
                fixed={"drive shaft": (mark,), "driven shaft": (mark,), "drive rotor": ("hollow",), **sleeves},
                when={**when, "seal": seals},
                carriers=_SHAFTS,
            )
        )
    return tuple(found)


COVER = Stack(
    "cover_plate",
    "Cover",
    "cover",
    (
        StackPart(
            "cover_ring",
            "Cover O-ring",
            Shape.O_RING,
            always_new=True,
            elastomer="elastomer",
            lubricant=_SUITS,
            checked="it stays in its groove all the way round",
            note="One that does not drop in freely is stretched a little; a jacketed one never, and it comes out by air.",
        ),
        StackPart(
            "cover",
            "Cover",
            Shape.CAP,
            "product side inward",
            Points.ROTOR,
            ("large hole", "small hole"),
            (LinesUp("large hole", "large dowel", "body"), LinesUp("small hole", "small dowel", "body")),
            note="Two sizes, so that it goes on one way only: compared, not tried by force.",
        ),
        StackPart(
            "cover_nuts", "Cover nuts", Shape.NUT, lubricant="food-grade anti-seize on the studs", note="By hand, criss-cross."
        ),
    ),
    fixed={"body": ("large dowel", "small dowel")},
    ends=("body", "outside"),
)

STACKS = (
    *SEALS,
    *_rotors("splined", "spline", {"rotor": ("spline",)}),
    *_rotors("keyed", "key", {"rotor": ("key",), "key_when": (UNSAID, "before")}, first=True),
    *_rotors("keyed_after", "key", {"rotor": ("key",), "key_when": ("after",)}, last=True),
    COVER,
)
