"""What is on the bench for Build."""

from __future__ import annotations

from dataclasses import dataclass

from finegap.core.tasks.picture import PictureView
from finegap.inventory.shapes import GunShape
from finegap.site.shapes import NamedShape


@dataclass(frozen=True)
class BuildingShape:
    """The lubricant and the grease gun in use, what there is to choose from, and the family's pictures of parts."""

    pictures: list[PictureView]
    lubricant: str
    lubricants: list[NamedShape]
    gun: str
    guns: list[GunShape]
