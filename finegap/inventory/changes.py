"""Every change to the toolbox, declared once: validation, service and schema read it here."""

from __future__ import annotations

import datetime as dt
from dataclasses import dataclass
from typing import Literal

from django.core.files.base import File

from finegap.api import fields as sent


@dataclass(frozen=True)
class KeepGauge:
    """A gauge as typed. ``leaves`` are the thicknesses of a feeler set, in one line.

    ``sends`` is the gauge's own decimal mark; empty where it has none.
    """

    tag: str = sent.text(20)
    kind: str = sent.text(60)
    low: str = sent.text(40)
    high: str = sent.text(40)
    resolution: str = sent.text(40)
    expanded: str = sent.text(40)
    k: str = sent.text(10)
    calibrated: dt.date = sent.required()
    due: dt.date = sent.required()
    certificate: str = sent.text(60, "")
    repeatability: str = sent.text(40, "")
    leaves: str = sent.text(600, "")
    sends: Literal["", "point", "comma"] = ""


@dataclass(frozen=True)
class RetireGauge:
    """Out of use, or back into it."""

    retired: bool = sent.required()


@dataclass(frozen=True)
class KeepRows:
    """Many rows from a table. A ``dry`` run tries every one and keeps none."""

    file: File  # type: ignore[type-arg]
    dry: bool = True


@dataclass(frozen=True)
class WeighGun:
    """A grease gun, weighed; ``ten`` is what ten strokes weigh together."""

    tag: str = sent.text(20)
    grease: str = sent.text(80)
    ten: str = sent.text(40)


@dataclass(frozen=True)
class CountPieces:
    """How many gaskets of a thickness, as compressed, or shims are on the shelf for a sheet."""

    slug: str = sent.text(80, filled=True)
    thickness: str = sent.text(40, filled=True)
    count: int = sent.required()


@dataclass(frozen=True)
class Calculate:
    """What a sum asks for, as typed, by its key."""

    given: dict[str, str] = sent.by_name(400, required=True)
