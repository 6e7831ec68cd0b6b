"""A revision that is added gives the shelf a line for each thickness its maker sells, empty until somebody counts."""

from __future__ import annotations

from typing import Any

from django.db.models.signals import post_save
from django.dispatch import receiver

from finegap.core.sheet import read_sheet
from finegap.inventory.models import ShelfLine
from finegap.sheets.models import SheetRevision


@receiver(post_save, sender=SheetRevision)
def stock_a_revision(instance: SheetRevision, created: bool, **kwargs: Any) -> None:
    """Only for a new one; what was counted stays."""
    if created:
        for thickness in read_sheet(instance.content).means.stocked():
            ShelfLine.objects.get_or_create(sheet=instance.sheet, thickness_um=thickness, defaults={"count": 0})
