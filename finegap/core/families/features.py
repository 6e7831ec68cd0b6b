"""Features of a pump: what is measured or looked at, where on the part, and what damage there may be."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field
from enum import Enum

from finegap.core.errors import FieldError
from finegap.core.families.builds import When
from finegap.core.measuring.readings import Statistic
from finegap.core.measuring.verdict import Verdict


class FeatureKind(Enum):
    """What a feature is, which settles how it wears and how it is drawn."""

    EXTERNAL = "external size"
    INTERNAL = "internal size"
    DEPTH = "depth of a recess"
    PAIR = "running clearance of a pair"
    GAP = "gap measured directly"
    RUNOUT = "total indicator reading"
    FLATNESS = "gap under a straightedge"
    CHECK = "looked at, not measured"

    @property
    def statistic(self) -> Statistic:
        """Which station is held against the limit."""
        return _STATISTICS.get(self, Statistic.AS_MEASURED)

    @property
    def is_size(self) -> bool:
        """A size of one part."""
        return self in (FeatureKind.EXTERNAL, FeatureKind.INTERNAL, FeatureKind.DEPTH)

    @property
    def is_inside(self) -> bool:
        """A part lies in it, and it grows with wear."""
        return self in (FeatureKind.INTERNAL, FeatureKind.DEPTH)

    @property
    def is_gap(self) -> bool:
        """Small by nature, and possibly nothing at all."""
        return self in (FeatureKind.GAP, FeatureKind.RUNOUT, FeatureKind.FLATNESS)

    @property
    def taken(self) -> bool:
        """Readings are taken of it."""
        return self not in (FeatureKind.PAIR, FeatureKind.CHECK)


_STATISTICS = {
    FeatureKind.EXTERNAL: Statistic.SMALLEST,
    FeatureKind.INTERNAL: Statistic.LARGEST,
    FeatureKind.DEPTH: Statistic.LARGEST,
    FeatureKind.RUNOUT: Statistic.LARGEST,
    FeatureKind.FLATNESS: Statistic.LARGEST,
}


@dataclass(frozen=True)
class Station:
    """A place on the part. ``plane`` is along it, ``direction`` across it; both may be empty."""

    key: str
    plane: str
    direction: str

    @property
    def label(self) -> str:
        """How it is said: “front, 12–6”, “3 o'clock”."""
        direction = f"{self.direction} o'clock" if self.direction.isdigit() else self.direction
        return ", ".join(part for part in (self.plane, direction) if part) or "reading"


def stations(planes: Iterable[str], directions: Iterable[str]) -> tuple[Station, ...]:
    """Every direction in every plane, in the order they are taken."""
    across = tuple(directions)
    return tuple(Station(f"{p}/{d}".strip("/"), p, d) for p in planes for d in across)


@dataclass(frozen=True)
class SheetCount:
    """How many there are of something: vanes, rollers, lobes; by a detail of the sheet, or an option whose choices are counts.

    ``name`` is what each is called, with its number as ``{n}``; ``usual`` how many there are where the sheet does not say.
    """

    detail: str
    name: str
    usual: int

    def names(self, details: Mapping[str, str]) -> tuple[str, ...]:
        """Each of them, by the details of a sheet.

        Raises
        ------
        FieldError
            What the sheet gives is no count.
        """
        typed = details.get(self.detail) or str(self.usual)
        if not typed.isdigit() or not 1 <= int(typed) <= MOST_COUNTED:
            raise FieldError(f"details.{self.detail}", f"“{typed}” is no count.", f"Expected 1 to {MOST_COUNTED}.")
        return tuple(self.name.format(n=n) for n in range(1, int(typed) + 1))


MOST_COUNTED = 60
"""More of a part than this no pump has (no source)."""


@dataclass(frozen=True)
class Damage:
    """A kind of damage to choose, and what it means by the family's rules whatever the size."""

    key: str
    name: str
    verdict: Verdict
    meaning: str


@dataclass(frozen=True)
class Feature:
    """One numbered gap or size.

    ``bore`` and ``shaft`` name the two features of a pair. ``set_as`` is what Set asks for it as, where it is a gap that is set
    again; ``press`` names the press fit it is measured for: such a size is taken at Build, of a part about to be pressed.
    A ``flat`` part has a thickness or a height where others have a diameter. Where the part is there several times, ``counted``
    says by what, and ``stations`` are those of one. ``printed_as`` is the size of the means (“depth”) that is its limit on a sheet
    which prints it there. ``label`` stands beside its number on the drawing where the name is too long for that.
    A gap is ``between`` two faces; one that is measured as a total falls on several ``sides``. Where its places wear unlike one
    another, the ``widest`` counts. It ``closes_at`` the places to which pressure bends the shaft.
    What is measured of several parts at once is ``of_parts``, by features of theirs: with one of them new it is measured again.
    """

    key: str
    number: int
    name: str
    part: str
    kind: FeatureKind
    stations: tuple[Station, ...] = ()
    bore: str = ""
    shaft: str = ""
    damages: tuple[Damage, ...] = ()
    set_as: str = ""
    press: str = ""
    flat: bool = False
    when: When = field(default_factory=dict)
    counted: SheetCount | None = None
    printed_as: str = ""
    label: str = ""
    between: tuple[str, str] | None = None
    sides: int = 1
    widest: bool = False
    closes_at: tuple[str, ...] = ()
    of_parts: tuple[str, ...] = ()

    def stations_by(self, details: Mapping[str, str]) -> tuple[Station, ...]:
        """Its stations on a pump whose sheet gives these details."""
        if self.counted is None:
            return self.stations
        return stations(self.counted.names(details), (station.direction for station in self.stations))

    @property
    def statistic(self) -> Statistic:
        """Which station is held against the limit."""
        return Statistic.LARGEST if self.widest else self.kind.statistic

    @property
    def is_set(self) -> bool:
        """It is set again at Set."""
        return bool(self.set_as)

    @property
    def is_round(self) -> bool:
        """Diameters are measured across it; tooth ends round the clock, or a runout, say nothing of roundness."""
        across = self.kind in (FeatureKind.EXTERNAL, FeatureKind.INTERNAL)
        return across and not self.flat and not any(s.direction.isdigit() for s in self.stations)
