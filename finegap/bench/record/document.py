"""The signed record: a document of its own (``docs/formats/job-record.schema.json``).

It holds what was recorded and what followed, once. A number stands with its unit and as it was shown in mm and in inches; a
sentence as the key of its template and the values put in; the templates are beside it, in their words of that day. How a page is
laid out is not in it: that is the presenters' of the day it is read.

The bytes are canonical JSON (RFC 8785), so that a digest of them needs no second form.
"""

from __future__ import annotations

import json
import math
import re
from dataclasses import dataclass, field
from typing import Any

import rfc8785

from finegap.api.plain import walked
from finegap.core.formatting import Amount, Bare, Joined, Kind, Sentence, Shown, Text, Units, render
from finegap.core.quantities import internal_unit

FORMAT = "fine-gap/job-record"

Job = dict[str, Any]
"""A job as the bench shows it, a text with numbers in it as a ``Text``."""

_OF_KIND = {Kind.TEMPERATURE_STEP: "K", Kind.EXPANSION: "um/(m.K)", Kind.PERCENT: "%", Kind.SHARE: "%"}
"""The unit of a kind without a dimension; a number alone has 1."""

LAYOUT = {
    "": ("drawing", "slug", "gauges", "materials", "amendments", "corrected", "cautions", "abandoned", "meanwhile"),
    "steps": ("why", "look", "tells", "tools", "consumables", "measures", "waits", "early"),
    "features": ("made", "fits", "damages", "gauge", "stations"),
    "details": ("media", "symptoms", "build"),
    "building": ("pictures", "lubricants", "guns"),
    "tasks": ("carriers", "together"),
    "parts": ("note", "on", "lubricant"),
    "choice": ("map",),
    "setting": ("feelers", "opens", "asks_opened"),
    "mesh": ("feelers", "opens", "asks_opened"),
    "gaps": ("proofs",),
}
"""What is layout, instruction, advice or a list to choose from, and no part of the record: of the job, and by where it stands."""

_DRAWN = ("picture",)
"""Tasks that are nothing but a drawing."""

_MOMENTS = ("at", "opened_at", "struck_at")

_DIGITS = 9
"""Digits of a number: more than any gauge reads, or any sum is good for."""


def write(job: object, version: int, core: str) -> bytes:
    """A job as it is signed.

    Parameters
    ----------
    job : JobResponse
        What the bench shows of it.
    version : int
        The version of the format.
    core : str
        The version of the core that worked it out.

    Returns
    -------
    bytes
        Canonical JSON.
    """
    templates = _Templates()
    facts = walked(_facts(walked(job, lambda text: text)), templates.written)
    return rfc8785.dumps({"format": FORMAT, "version": version, "core": core, "templates": templates.table, "job": facts})


def read(document: bytes) -> Job:
    """The job of a record of the present version, its texts as they were shown; what was left out because it was empty is there."""
    loaded = json.loads(document)
    job: Job = _Reader(loaded["templates"]).read(loaded["job"])
    return job


def _facts(job: Job) -> Job:
    """Without what is layout, and without what is empty."""
    kept = {key: value for key, value in job.items() if key not in LAYOUT[""]}
    kept["tasks"] = [task for task in job["tasks"] if task["kind"] not in _DRAWN]
    return {key: _kept(value, key) for key, value in kept.items() if not (value is None or value in ("", []))}


def _kept(value: Any, name: str) -> Any:
    if isinstance(value, float):
        return _rounded(value)
    if isinstance(value, str):
        return _moment(value) if name in _MOMENTS else value
    if isinstance(value, list):
        return [_kept(one, name) for one in value]
    if not isinstance(value, dict):
        return value
    # What was signed is struck out no more; a photograph is still found by its identity.
    left = (*LAYOUT.get(name, ()), *(() if name == "photos" else ("id",)))
    kept = ((key, one) for key, one in value.items() if key not in left and not (one is None or one in ("", [])))
    return {key: _kept(one, key) for key, one in kept}


@dataclass
class _Templates:
    """The templates a record uses, each once, by a short key."""

    keys: dict[str, str] = field(default_factory=dict)

    @property
    def table(self) -> dict[str, str]:
        """By key."""
        return {key: template for template, key in self.keys.items()}

    def key_of(self, template: str) -> str:
        """A new one is numbered."""
        return self.keys.setdefault(template, f"t{len(self.keys) + 1}")

    def written(self, text: Text) -> Any:
        """A text as the record keeps it."""
        match text:
            case Sentence():
                amounts = {name: self.written(part) for name, part in text.amounts.items() if f"{{{name}}}" in text.template}
                said = {"template": self.key_of(text.template)}
                return said | {"values": amounts} if amounts else said
            case Amount():
                return _amount(text, text)
            case Bare():
                return _amount(text.amount, text)
            case Joined():
                parts = [self.written(part) for part in text.parts if part]
                return {"texts": parts, "apart": text.apart}
            case Shown():
                return {"mm": text.mm, "in": text.inches}
        return text


def _rounded(value: float) -> float:
    return float(f"{value:.{_DIGITS}g}")


def _moment(text: str) -> str:
    """A moment to the second."""
    return re.sub(r"(?<=T\d\d:\d\d:\d\d)\.\d+", "", text)


def _amount(amount: Amount, text: Amount | Bare) -> dict[str, Any]:
    dimension = amount.kind.value[0]
    unit = internal_unit(dimension) if dimension else _OF_KIND.get(amount.kind, "1")
    shown = {"mm": render(text, Units.MM), "in": render(text, Units.IN)}
    # Degrees of freedom may be without end, which JSON has no number for.
    return {"value": _rounded(amount.value) if math.isfinite(amount.value) else None, "unit": unit, **shown}


@dataclass(frozen=True)
class _Reader:
    templates: dict[str, str]

    def read(self, value: Any) -> Any:
        """A value with its texts."""
        if isinstance(value, list):
            return [self.read(one) for one in value]
        if not isinstance(value, dict):
            return value
        match value:
            case {"template": key, **rest}:
                values = {name: self.read(part) for name, part in rest.get("values", {}).items()}
                return Sentence(self.templates[key], values)
            case {"texts": parts, "apart": apart}:
                return Joined(tuple(self.read(part) for part in parts), apart)
            case {"mm": mm, "in": inches}:
                return Shown(mm, inches)
        return {key: self.read(one) for key, one in value.items()}
