"""The screen a drawing is asked for."""

from __future__ import annotations

from drf_spectacular.utils import OpenApiParameter
from rest_framework.request import Request

from finegap.core.drawing.labels import Screen
from finegap.core.errors import FieldError

_SCREENS = [screen.name.lower() for screen in Screen]
SCREEN = OpenApiParameter("screen", enum=_SCREENS, description="The screen it is laid out for.")


def screen_of(request: Request) -> Screen:
    """Which screen a request names; the wide one where it names none.

    Raises
    ------
    FieldError
        There is no such screen.
    """
    said = request.query_params.get("screen", "wide")
    try:
        return Screen[said.upper()]
    except KeyError:
        raise FieldError("screen", f"there is no screen “{said[:20]}”.", f"Expected one of: {', '.join(_SCREENS)}.") from None
