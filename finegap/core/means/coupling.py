"""A sleeve coupling between pump and motor that holds the shaft where leaves put it."""

from __future__ import annotations

from dataclasses import dataclass
from typing import ClassVar

from finegap.core.gap.tries import Setting
from finegap.core.means.base import MeansView, SetNow
from finegap.core.means.ring import RingMeans


@dataclass(frozen=True)
class CouplingView(MeansView):
    """The two faces, with leaves between them."""


@dataclass(frozen=True)
class CouplingMeans(RingMeans):
    """As an adjusting ring, but that the coupling's pump side is what is loosened."""

    kind: ClassVar[str] = "coupling"
    name: ClassVar[str] = "sleeve coupling"
    view_type: ClassVar[type[MeansView]] = CouplingView

    def show(self, setting: Setting, now: SetNow) -> CouplingView:  # type: ignore[override]  # each kind has a view of its own
        """Nothing of its own."""
        return CouplingView(self.kind)


MEANS = CouplingMeans
