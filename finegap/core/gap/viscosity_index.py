"""How much an oil thins as it warms: its viscosity index, from its viscosity at 40 and at 100 °C (ASTM D2270, ISO 2909).

L and H are the viscosities at 40 °C of two oils of index 0 and 100 that are as thick as this one at 100 °C. They are given by
the quadratics with which the standard lets its table be computed (from memory), each for a range of that viscosity.
"""

from __future__ import annotations

import math

from finegap.core.errors import FieldError
from finegap.core.formatting import Amount, Kind, Sentence
from finegap.core.working import Given, Working

_FROM = 2.0
"""Thinner than this at 100 °C, the method gives nothing."""
_FITS = (
    (3.8, 1.14673, 1.7576, -0.109, 0.84155, 1.5521, -0.077),
    (4.4, 3.38095, -15.4952, 33.196, 0.78571, 1.7929, -0.183),
    (5.0, 2.5, -7.2143, 13.812, 0.82143, 1.5679, 0.119),
    (6.4, 0.101, 16.635, -45.469, 0.04985, 9.1613, -18.557),
    (7.0, 3.35714, -23.5643, 78.466, 0.22619, 7.7369, -16.656),
    (7.7, 0.01191, 21.475, -72.870, 0.79762, -0.7321, 14.610),
    (9.0, 0.41858, 16.1558, -56.040, 0.05794, 10.5156, -28.240),
    (12.0, 0.88779, 7.5527, -16.600, 0.26665, 6.7015, -10.810),
    (15.0, 0.7672, 10.7972, -38.180, 0.20073, 8.4658, -22.490),
    (18.0, 0.97305, 5.3135, -2.200, 0.28889, 5.9741, -4.930),
    (22.0, 0.97256, 5.25, -0.980, 0.24504, 7.416, -16.730),
    (28.0, 0.91413, 7.4759, -21.820, 0.20323, 9.1267, -34.230),
    (40.0, 0.87031, 9.7157, -50.770, 0.18411, 10.1015, -46.750),
    (55.0, 0.84703, 12.6752, -133.310, 0.17029, 11.4866, -80.620),
    (70.0, 0.85921, 11.1009, -83.190, 0.1713, 11.368, -76.940),
    (math.inf, 0.83531, 14.6731, -216.246, 0.16841, 11.8493, -96.947),
)
"""Up to which viscosity at 100 °C; then the quadratic of L, and that of H."""


def l_and_h(at_100_mm2_s: float) -> tuple[float, float]:
    """Viscosities at 40 °C, in mm2/s, of the oils of index 0 and 100 that are as thick at 100 °C.

    Raises
    ------
    FieldError
        Thinner than the method goes.
    """
    if at_100_mm2_s < _FROM:
        raise FieldError(
            "at 100 °C", f"{at_100_mm2_s:g} mm²/s is thinner than the method goes.", f"Expected {_FROM:g} mm²/s or more."
        )
    _, a, b, c, d, e, f = next(fit for fit in _FITS if at_100_mm2_s <= fit[0])
    y = at_100_mm2_s
    return a * y * y + b * y + c, d * y * y + e * y + f


def viscosity_index(at_40_mm2_s: float, at_100_mm2_s: float) -> tuple[float, Working]:
    """The index, and how it is reached: by procedure A up to 100, by procedure B above.

    Raises
    ------
    FieldError
        An oil that does not thin as it warms, or one thinner than the method goes.
    """
    if at_40_mm2_s <= at_100_mm2_s:
        raise FieldError("at 40 °C", "it is no thicker than at 100 °C.", "Expected more.")
    low, high = l_and_h(at_100_mm2_s)
    index, formula = 100 * (low - at_40_mm2_s) / (low - high), "VI = 100·(L − U)/(L − H)"
    if at_40_mm2_s < high:
        power = math.log10(high / at_40_mm2_s) / math.log10(at_100_mm2_s)
        index, formula = 100 + (10**power - 1) / 0.00715, "VI = 100 + (10^N − 1)/0.00715,   N = lg(H/U)/lg Y"
    numbers = (
        Given("U", "at 40 °C", Amount(at_40_mm2_s, Kind.VISCOSITY)),
        Given("Y", "at 100 °C", Amount(at_100_mm2_s, Kind.VISCOSITY)),
        Given("L", "of index 0, as thick at 100 °C", Amount(low, Kind.VISCOSITY)),
        Given("H", "of index 100, as thick at 100 °C", Amount(high, Kind.VISCOSITY)),
    )
    result = Sentence("{index}", {"index": f"{index:.0f}"})
    return index, Working("Viscosity index", formula, numbers, result, "ASTM D2270, its table as quadratics (from memory)")
