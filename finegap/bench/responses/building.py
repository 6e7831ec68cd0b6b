"""What is on the bench for Build."""

from __future__ import annotations

from dataclasses import dataclass

from finegap.api.shown import NamedResponse
from finegap.core.tasks.picture import PictureView
from finegap.inventory.responses import GunResponse


@dataclass(frozen=True)
class BuildingResponse:
    """The lubricant and the grease gun in use, what there is to choose from, and the family's pictures of parts."""

    pictures: list[PictureView]
    lubricant: str
    lubricants: list[NamedResponse]
    gun: str
    guns: list[GunResponse]
