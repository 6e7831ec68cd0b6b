"""Changing the toolbox."""

from __future__ import annotations

import datetime as dt
import re
from dataclasses import dataclass

from django.contrib.auth.models import User
from django.db import transaction
from django.utils import timezone

from finegap.core.build.grease import Greased
from finegap.core.errors import FieldError
from finegap.core.gauges import GaugeKind
from finegap.core.measuring.feeler import read_leaves
from finegap.core.quantities import Dimension, Sign, parse
from finegap.core.showing import Units
from finegap.sheets.models import Sheet
from finegap.toolbox.models import GasketStock, Gauge, GreaseGun

_MOST = 999
_INTERNAL = {Dimension.LENGTH: "mm", Dimension.TORQUE: "N.m", Dimension.TEMPERATURE: "C"}


@dataclass(frozen=True)
class NewGauge:
    """A gauge as typed. ``leaves`` are thicknesses of a feeler set, in one line."""

    tag: str
    kind: str
    low: str
    high: str
    resolution: str
    expanded: str
    k: str
    calibrated: dt.date
    due: dt.date
    certificate: str = ""
    repeatability: str = ""
    leaves: str = ""


def keep_gauge(actor: User, new: NewGauge, units: Units, replacing: str = "") -> Gauge:
    """Put a gauge into the cabinet, or put a new certificate to one that is there (``replacing`` is its tag).

    Raises
    ------
    FieldError
        A tag taken, a quantity that cannot be, U without k, a range reversed, due before calibrated, a leaf twice.
    """
    if not new.tag.strip():
        raise FieldError("tag", "it has no name.", "Expected what is written on it, such as M-03.")
    if new.kind not in [k.value for k in GaugeKind]:
        raise FieldError("kind", f"“{new.kind}” is not a kind known here.", f"Expected: {', '.join(k.value for k in GaugeKind)}.")
    kind = GaugeKind(new.kind)
    values = _values(new, kind, units)
    low, high = values["low"], values["high"]
    if low is None or high is None or low >= high:
        raise FieldError("range", "it is reversed, or empty.", "Expected the smaller end first.")
    if new.due < new.calibrated:
        raise FieldError("due", "it is before the day it was calibrated.", "Expected a later day.")
    leaves = read_leaves(new.leaves, units.value) if kind is GaugeKind.FEELER else ()
    with transaction.atomic():
        there = Gauge.objects.filter(tag=replacing or new.tag.strip()).first()
        if there is not None and not replacing:
            raise FieldError("tag", f"{new.tag} is in the cabinet already.", "Expected a name of its own.")
        if there is None and replacing:
            raise FieldError("tag", f"there is no gauge {replacing}.", "Expected one from the cabinet.")
        gauge = there or Gauge(tag=new.tag.strip())
        for name, value in values.items():
            setattr(gauge, name, value)
        gauge.kind, gauge.certificate = kind.value, new.certificate.strip()
        gauge.calibrated, gauge.due, gauge.leaves_um = new.calibrated, new.due, list(leaves)
        gauge.save()
        return gauge


def _values(new: NewGauge, kind: GaugeKind, units: Units) -> dict[str, float | None]:
    dimension = kind.dimension
    unit = units.value if dimension is Dimension.LENGTH else _INTERNAL[dimension]

    def read(text: str, name: str, sign: Sign) -> float:
        if dimension is Dimension.TEMPERATURE and name != "range":
            return _kelvins(text, name)
        return parse(text, dimension, name, unit, sign).value

    any_sign = Sign.ANY if dimension is Dimension.TEMPERATURE else Sign.NOT_NEGATIVE
    return {
        "low": read(new.low, "range", any_sign),
        "high": read(new.high, "range", any_sign),
        "resolution": read(new.resolution, "resolution", Sign.POSITIVE),
        "expanded": read(new.expanded, "U of the certificate", Sign.NOT_NEGATIVE),
        "k": _k(new.k),
        "repeatability": read(new.repeatability, "repeatability", Sign.NOT_NEGATIVE) if new.repeatability.strip() else None,
    }


def _kelvins(text: str, name: str) -> float:
    """A difference of temperature: kelvins, which a bare number or degrees Celsius are."""
    match = re.fullmatch(r"\s*(\d+(?:[.,]\d+)?)\s*(?:K|°?C)?\s*", text)
    if not match or (name == "resolution" and float(match[1].replace(",", ".")) == 0):
        raise FieldError(name, f"“{text}” is no step of temperature.", "Expected kelvins, such as 0.5.")
    return float(match[1].replace(",", "."))


def _k(text: str) -> float:
    if not text.strip():
        raise FieldError("k", "U says nothing without its coverage factor.", "Expected k as on the certificate, mostly 2.")
    try:
        k = float(text.replace(",", "."))
    except ValueError:
        raise FieldError("k", f"“{text}” is not a number.", "Expected k as on the certificate, mostly 2.") from None
    if not 0 < k <= 10:
        raise FieldError("k", f"{text} cannot be.", "Expected k as on the certificate, mostly 2.")
    return k


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


@dataclass(frozen=True)
class NewGun:
    """A grease gun as typed; ``ten`` is what ten strokes weigh together."""

    tag: str
    grease: str
    ten: str


def weigh_gun(actor: User, new: NewGun, units: Units) -> GreaseGun:
    """Keep what ten strokes of a grease gun weigh; a gun that is there is weighed anew.

    Raises
    ------
    FieldError
        No name, no grease, or a mass no ten strokes have.
    """
    for name, text, expected in (("gun", new.tag, "what is written on it"), ("grease", new.grease, "what is in it")):
        if not text.strip():
            raise FieldError(name, "nothing was entered.", f"Expected {expected}.")
    ten_g = parse(new.ten, Dimension.MASS, "ten strokes", "g" if units is Units.MM else "oz", Sign.POSITIVE).value
    Greased(1, 1, ten_g)
    kept = {"grease": new.grease.strip(), "ten_g": ten_g, "weighed": timezone.localdate()}
    return GreaseGun.objects.update_or_create(tag=new.tag.strip(), defaults=kept)[0]
