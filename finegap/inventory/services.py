"""Changing the toolbox."""

from __future__ import annotations

import re

from django.contrib.auth.models import User
from django.db import models, transaction
from django.utils import timezone

from finegap.api.tags import read_tag
from finegap.core.assembly.grease import Greased
from finegap.core.entry import Entry
from finegap.core.errors import FieldError
from finegap.core.gauges import GaugeKind
from finegap.core.means.registry import KINDS
from finegap.core.measuring.feeler import read_leaves
from finegap.core.numerals import DecimalMark
from finegap.core.quantities import AllowedSign
from finegap.core.units import Dimension
from finegap.inventory.changes import CountPieces, KeepGauge, WeighGun
from finegap.inventory.models import Certificate, Gauge, GreaseGun, ShelfLine
from finegap.sheets.models import Sheet

_MOST = 999
_USUAL = {
    (Dimension.LENGTH, "range"): (0.0, 3000.0),
    (Dimension.LENGTH, "resolution"): (0.0001, 1.0),
    (Dimension.LENGTH, "U of the certificate"): (0.0, 1.0),
    (Dimension.LENGTH, "repeatability"): (0.0, 1.0),
    (Dimension.TORQUE, "range"): (0.0, 3000.0),
    (Dimension.TORQUE, "resolution"): (0.001, 20.0),
    (Dimension.TORQUE, "U of the certificate"): (0.0, 100.0),
    (Dimension.TEMPERATURE, "range"): (-100.0, 1000.0),
}
"""What is usual of a gauge, in the internal unit (common practice, no source)."""


def keep_gauge(actor: User, new: KeepGauge, entry: Entry, replacing: str = "") -> Gauge:
    """Put a gauge into the cabinet, or put a new certificate to one that is there (``replacing`` is its tag).

    Its earlier certificates stay; what was measured keeps the one it was measured under.

    Raises
    ------
    FieldError
        A tag taken or that cannot be, another kind for a gauge that has measured something, a quantity that cannot be, U without k,
        a range reversed, due before calibrated, a leaf twice.
    """
    tag = replacing or read_tag(new.tag, "tag", "M-03")
    if new.sends and new.sends not in [m.value for m in DecimalMark]:
        known = ", ".join(m.value for m in DecimalMark)
        raise FieldError("decimal mark", f"“{new.sends}” is none.", f"Expected: {known}, or nothing.")
    if new.kind not in [k.value for k in GaugeKind]:
        raise FieldError("kind", f"“{new.kind}” is not a kind known here.", f"Expected: {', '.join(k.value for k in GaugeKind)}.")
    kind = GaugeKind(new.kind)
    values = _values(new, kind, entry)
    low, high = values["low"], values["high"]
    if low is None or high is None or low >= high:
        raise FieldError("range", "it is reversed, or empty.", "Expected the smaller end first.")
    if new.due < new.calibrated:
        raise FieldError("due", "it is before the day it was calibrated.", "Expected a later day.")
    leaves = read_leaves(new.leaves, entry.unit(Dimension.LENGTH), entry.mark) if kind is GaugeKind.FEELER else ()
    with transaction.atomic():
        there = Gauge.objects.filter(tag=tag).first()
        if there is not None and not replacing:
            raise FieldError(
                "tag", f"{new.tag} is in the cabinet already{', retired' if there.retired else ''}.", "Expected a name of its own."
            )
        if there is None and replacing:
            raise FieldError("tag", f"there is no gauge {replacing}.", "Expected one from the cabinet.")
        if there is not None and there.retired:
            raise FieldError("tag", f"{there.tag} is retired.", "Expected one in use; take it back first.")
        if there is not None and there.kind != kind.value and _has_measured(there):
            problem = f"{there.tag} has measured as a {there.kind}."
            raise FieldError("kind", problem, "Expected the same kind; another gauge gets another name.")
        gauge = there or Gauge(tag=tag)
        gauge.kind, gauge.mark = kind.value, new.sends
        gauge.save()
        gauge.current = Certificate.objects.create(
            gauge=gauge, number=new.certificate.strip(), calibrated=new.calibrated, due=new.due, leaves_um=list(leaves),
            by=actor, at=timezone.now(), **values,
        )  # fmt: skip
        gauge.save(update_fields=["current"])
        return gauge


def retire_gauge(actor: User, tag: str, retired: bool) -> Gauge:
    """Take a gauge out of use, or back into it. What it measured stands, under the certificate of that moment.

    Raises
    ------
    FieldError
        No such gauge.
    """
    with transaction.atomic():
        gauge = Gauge.objects.filter(tag=tag).first()
        if gauge is None:
            raise FieldError("tag", f"there is no gauge {tag}.", "Expected one from the cabinet.")
        if bool(gauge.retired) != retired:
            gauge.retired, gauge.retired_by = (timezone.localdate(), actor) if retired else (None, None)
            gauge.save(update_fields=["retired", "retired_by"])
    return gauge


def _has_measured(gauge: Gauge) -> bool:
    """Whether anything was measured under one of its certificates. Django's protection against deletion tells."""
    keepers = [
        (field.related_model, field.field.name)
        for field in Certificate._meta.get_fields(include_hidden=True)
        if isinstance(field, models.ManyToOneRel) and field.on_delete is models.PROTECT and field.related_model is not Gauge
    ]
    return any(model._default_manager.filter(**{f"{name}__gauge": gauge}).exists() for model, name in keepers)


def _values(new: KeepGauge, kind: GaugeKind, entry: Entry) -> dict[str, float | None]:
    dimension = kind.dimension

    def read(text: str, name: str, sign: AllowedSign) -> float:
        if dimension is Dimension.TEMPERATURE and name != "range":
            return _kelvins(text, name, entry)
        quantity = entry.quantity(text, dimension, name, sign)
        entry.check_usual(quantity, name, _USUAL.get((dimension, name)))
        return quantity.value

    any_sign = AllowedSign.ANY if dimension is Dimension.TEMPERATURE else AllowedSign.NOT_NEGATIVE
    return {
        "low": read(new.low, "range", any_sign),
        "high": read(new.high, "range", any_sign),
        "resolution": read(new.resolution, "resolution", AllowedSign.POSITIVE),
        "expanded": read(new.expanded, "U of the certificate", AllowedSign.NOT_NEGATIVE),
        "k": _k(new.k, entry),
        "repeatability": read(new.repeatability, "repeatability", AllowedSign.NOT_NEGATIVE) if new.repeatability.strip() else None,
    }


def _kelvins(text: str, name: str, entry: Entry) -> float:
    """A difference of temperature in kelvins, from kelvins, degrees Celsius or degrees Fahrenheit (9 of these make 5)."""
    match = re.fullmatch(r"(?P<number>.*?)\s*(?P<unit>K|°?C|°?F)?\s*", text.strip(), re.IGNORECASE)
    assert match is not None
    unit = (match["unit"] or entry.unit(Dimension.TEMPERATURE)).strip("°").upper()
    number = entry.number(match["number"], name, 0, _MOST_K)
    if name == "resolution" and number == 0:
        raise FieldError(name, f"“{text}” is no step of temperature.", "Expected such as 0.5 K.")
    return number * 5 / 9 if unit == "F" else number


_MOST_K = 500.0


def _k(text: str, entry: Entry) -> float:
    if not text.strip():
        raise FieldError("k", "U says nothing without its coverage factor.", "Expected k as on the certificate, mostly 2.")
    k = entry.number(text, "k", 0, 10)
    if k == 0:
        raise FieldError("k", f"{text} cannot be.", "Expected k as on the certificate, mostly 2.")
    return k


def count_pieces(actor: User, new: CountPieces, entry: Entry) -> ShelfLine:
    """Say how many gaskets (by thickness as compressed) or shims of a thickness are on the shelf for a sheet.

    Raises
    ------
    FieldError
        No such sheet, one whose gap is set without either, not a thickness, or a count that cannot be.
    """
    sheet = Sheet.objects.filter(slug=new.slug).first()
    if sheet is None:
        raise FieldError("sheet", f"there is no sheet {new.slug}.", "Expected one from Sheets.")
    piece = piece_of(sheet)
    if not piece:
        raise FieldError("sheet", f"the gap of {sheet.title} is set without gaskets or shims.", "Expected another sheet.")
    mm = entry.read("thickness", new.thickness).value
    if round(mm * 1000) < 1 or mm > 10:
        raise FieldError("thickness", f"a {piece} of {mm:g} mm cannot be.", "Expected 0.001 to 10 mm.")
    if not 0 <= new.count <= _MOST:
        raise FieldError("count", f"{new.count} cannot be.", f"Expected 0 to {_MOST}.")
    with transaction.atomic():
        return ShelfLine.objects.update_or_create(sheet=sheet, thickness_um=round(mm * 1000), defaults={"count": new.count})[0]


def piece_of(sheet: Sheet) -> str:
    """What its latest revision takes from the shelf: “gasket”, “shim”, or nothing."""
    latest = sheet.revisions.first()
    return KINDS[latest.content["adjustment"]["means"]].piece if latest else ""


def weigh_gun(actor: User, new: WeighGun, entry: Entry) -> GreaseGun:
    """Keep what ten strokes of a grease gun weigh; a gun that is there is weighed anew.

    Raises
    ------
    FieldError
        No name, no grease, or a mass no ten strokes have.
    """
    tag = read_tag(new.tag, "gun", "GG-1")
    if not new.grease.strip():
        raise FieldError("grease", "nothing was entered.", "Expected what is in it.")
    grams_per_ten_strokes = entry.read("ten", new.ten).value
    Greased(1, 1, grams_per_ten_strokes)
    kept = {"grease": new.grease.strip(), "grams_per_ten_strokes": grams_per_ten_strokes, "weighed": timezone.localdate()}
    return GreaseGun.objects.update_or_create(tag=tag, defaults=kept)[0]
