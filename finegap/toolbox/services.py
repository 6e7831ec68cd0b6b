"""Changing the toolbox."""

from __future__ import annotations

from django.contrib.auth.models import User
from django.db import transaction

from finegap.core.errors import FieldError
from finegap.core.quantities import Dimension, Sign, parse
from finegap.core.showing import Units
from finegap.sheets.models import Sheet
from finegap.toolbox.models import GasketStock

_MOST = 999


def count_gaskets(actor: User, slug: str, thickness: str, count: int, units: Units) -> None:
    """Say how many gaskets of a thickness (as compressed) are on the shelf for a sheet.

    Raises
    ------
    FieldError
        No such sheet, not a thickness, or a count that cannot be.
    """
    sheet = Sheet.objects.filter(slug=slug).first()
    if sheet is None:
        raise FieldError("sheet", f"there is no sheet {slug}.", "Expected one from Sheets.")
    mm = parse(thickness, Dimension.LENGTH, "thickness", units.value, Sign.POSITIVE).value
    if round(mm * 1000) < 1 or mm > 10:
        raise FieldError("thickness", f"a head gasket of {mm:g} mm cannot be.", "Expected 0.001 to 10 mm.")
    if not 0 <= count <= _MOST:
        raise FieldError("count", f"{count} cannot be.", f"Expected 0 to {_MOST}.")
    with transaction.atomic():
        GasketStock.objects.update_or_create(sheet=sheet, thickness_um=round(mm * 1000), defaults={"count": count})
