"""Rotors and cover of pumps with two timed rotors before an oiled case. Common practice, no source; the sheet rules."""

from __future__ import annotations

from dataclasses import dataclass, field

from finegap.core.families.builds import UNSAID, When
from finegap.core.families.stack import Carrier, LinesUp, Points, Shape, Stack, StackPart
from finegap.core.families.timed_seals import SEAL

_SUITS = "a lubricant that suits ring and product"


def _key(key: str, name: str) -> StackPart:
    return StackPart(f"key_{key}", f"Key, {name.lower()}", Shape.SLEEVE, on=key, at=2, split=True, checked="flush in its keyway")


def _ring(key: str, name: str, on: str, note: str = "", checked: str = "") -> StackPart:
    """An O-ring that goes in lubricated."""
    return StackPart(
        key, name, Shape.O_RING, always_new=True, elastomer="elastomer", note=note, on=on, lubricant=_SUITS, checked=checked
    )


@dataclass(frozen=True)
class Rotors:
    """How the rotors of a family are put together: ``tip`` is what they carry, ``feature`` what they are judged by, ``turned`` how
    the second stands to the first, ``held`` by what each is held. ``suffix`` ends the names of these stacks on record.
    """

    tip: str
    feature: str
    turned: str
    held: str = "nut"
    suffix: str = ""
    when: When = field(default_factory=dict)


def _rotor(key: str, name: str, mark: str, of: Rotors, *, keyed_first: bool, pinned: bool) -> tuple[StackPart, ...]:
    """One rotor with what holds it, from its hub on."""
    second = key == "driven"
    meets = (
        LinesUp(mark, mark, f"{key} shaft"),
        *((LinesUp("2 pins", "2 notches", f"{key} sleeve"),) if pinned else ()),
        *((LinesUp(of.tip, "hollow", "drive rotor"),) if second else ()),
    )
    return (
        _ring(f"hub_ring_{key}", f"O-ring of the hub, {name.lower()}", key, "Left out, product runs into the splines."),
        *((_key(key, name),) if keyed_first else ()),
        StackPart(
            f"rotor_{key}",
            f"{name} rotor",
            Shape.COLLAR,
            of.turned if second else "",
            marks=tuple(up.mark for up in meets),
            lines_up=meets,
            on=key,
            at=3,
            note="Onto its shoulder by hand: a burr holds it off. {antiseize}",
            feature=of.feature,
        ),
        *(_nut(key, name) if of.held == "nut" else _plate(key, name)),
    )


def _nut(key: str, name: str) -> tuple[StackPart, ...]:
    return (
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


def _plate(key: str, name: str) -> tuple[StackPart, ...]:
    return (
        _ring(f"plate_ring_{key}", f"O-ring of the front plate, {name.lower()}", key, "Dry it wrinkles."),
        StackPart(
            f"plate_{key}",
            f"Front plate, {name.lower()}",
            Shape.CAP,
            "smooth side outward",
            Points.DRIVE,
            on=key,
            note="Its bolts by hand, evenly: torque comes later. It lies below the rotor's face.",
        ),
    )


_SHAFTS = (
    Carrier("drive", "On the drive shaft", ("gear case", "cover")),
    Carrier("driven", "On the driven shaft", ("gear case", "cover")),
)
_FITS: tuple[tuple[str, str, When, bool, bool], ...] = (
    ("splined", "spline", {"rotor": ("spline",)}, False, False),
    ("keyed", "key", {"rotor": ("key",), "key_when": (UNSAID, "before")}, True, False),
    ("keyed_after", "key", {"rotor": ("key",), "key_when": ("after",)}, False, True),
)
"""How rotors sit on their shafts: on record, by which mark, in which builds, keys before them, keys after them."""


def rotors(of: Rotors) -> tuple[Stack, ...]:
    """Both rotors, on splines or keys; with the double O-ring seal each has two pins that go into its sleeve."""
    found = []
    for suffix, mark, when, first, last in _FITS:
        for pinned, seals in ((False, tuple(s for s in SEAL.choices if s != "double_o")), (True, ("double_o",))):
            parts = (
                _rotor(key, name, mark, of, keyed_first=first, pinned=pinned)
                for key, name in (("drive", "Drive"), ("driven", "Driven"))
            )
            keys = (_key("drive", "Drive"), _key("driven", "Driven")) if last else ()
            sleeves = {f"{key} sleeve": ("2 notches",) for key in ("drive", "driven") if pinned}
            found.append(
                Stack(
                    f"rotors_{suffix}" + "_pinned" * pinned + of.suffix,
                    f"Rotors on their {mark}s",
                    "rotors",
                    (*(part for rotor in parts for part in rotor), *keys),
                    fixed={"drive shaft": (mark,), "driven shaft": (mark,), "drive rotor": ("hollow",), **sleeves},
                    when={**when, "seal": seals, **of.when},
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
