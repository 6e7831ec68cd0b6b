"""A large answer in sections: a page that says what it holds is sent the others alone.

A section is known by its tag, a digest of its name and its bytes. Nothing is remembered of a page: whatever it holds, and from
which worker or which day, what it puts together is what a page that holds nothing would have got.
"""

from __future__ import annotations

import base64
import hashlib
import threading
from collections import OrderedDict
from collections.abc import Mapping
from dataclasses import dataclass, fields, is_dataclass
from functools import cache
from types import UnionType
from typing import Any, Union, get_args, get_origin, get_type_hints

import orjson
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import OpenApiParameter
from rest_framework import serializers
from rest_framework.request import Request
from rest_framework.response import Response

from finegap.api.plain import TEXTS, is_working, placed
from finegap.core.formatting import Units

HELD = OpenApiParameter(
    "Held",
    OpenApiTypes.STR,
    OpenApiParameter.HEADER,
    description="Tags of the sections the page holds, with commas between. With it the answer is the sections that are not held.",
)

_TAG_BYTES = 6
"""Bytes of a tag: with some hundreds of sections, two that differ are taken for one in less than one answer in 10^11."""

_MOST_WRITTEN = 24
"""So many answers are kept as they were written; each is about 200 kB."""


class Section(serializers.Serializer[Any]):
    """One section of an answer."""

    tag = serializers.CharField()
    value = serializers.JSONField()


class Sections(serializers.Serializer[Any]):
    """The sections of an answer that the page did not say it holds, by name.

    ``self`` has the fields that are one value each. Entries of some lists are sections of their own, as ``features/idler_bore``;
    ``lists/features`` has their keys in order, and ``features/idler_bore/readings`` is a field of that entry. Any other section is
    the field of its name.
    """

    sections = serializers.DictField(child=Section())


def held_by(request: Request) -> frozenset[str] | None:
    """What the page says it holds; ``None`` for one that asks for the whole."""
    said = request.headers.get("Held")
    return None if said is None else frozenset(said.split(","))


@dataclass(frozen=True)
class Entries:
    """A list whose entries are sections of their own: the field each is known by, and fields of it that are sections again."""

    key: str
    apart: tuple[str, ...] = ()


@dataclass(frozen=True)
class _Written:
    """A section as it was written, and what it was written from."""

    value: Any
    tag: str
    body: orjson.Fragment


_written: OrderedDict[tuple[str, Units], dict[str, _Written]] = OrderedDict()
_lock = threading.Lock()


def answer_in_sections(
    address: str, shape: Any, kind: type, lists: Mapping[str, Entries], units: Units, held: frozenset[str], status: int = 200
) -> Response:
    """A shape, or a frozen record of its fields, but for the sections that are held.

    Parameters
    ----------
    address : str
        Of what is shown. Its workings are below it; and of the same, sections that are equal are written once.
    shape : Any
        The answer.
    kind : type
        Its class, also where it is a frozen record.
    lists : Mapping[str, Entries]
        Fields that are lists whose entries are sections of their own.
    units : Units
        The unit system of its texts.
    held : frozenset[str]
        Tags of what the page holds.
    status : int
        The HTTP status.

    Returns
    -------
    Response
        As ``Sections``.
    """
    key = (address, units)
    with _lock:
        before = _written.get(key, {})
    now = {name: _write(address, name, value, units, before.get(name)) for name, value in _split(shape, kind, lists).items()}
    with _lock:
        _written[key] = now
        _written.move_to_end(key)
        while len(_written) > _MOST_WRITTEN:
            _written.popitem(last=False)
    return Response({"sections": {name: {"tag": s.tag, "value": s.body} for name, s in now.items() if s.tag not in held}}, status)


@cache
def _large(kind: type) -> frozenset[str]:
    """Fields that are sections of their own, by their declaration: one that is empty now replaces one that was not."""

    def is_large(hint: Any) -> bool:
        if isinstance(hint, type) and is_dataclass(hint):
            return hint not in TEXTS
        return get_origin(hint) in (list, tuple, dict) or (get_origin(hint) in _UNIONS and any(map(is_large, get_args(hint))))

    return frozenset(name for name, hint in get_type_hints(kind).items() if is_large(hint))


_UNIONS = (Union, UnionType)


def _split(shape: Any, kind: type, lists: Mapping[str, Entries]) -> dict[str, Any]:
    """A shape, or a frozen record of one, by its sections."""
    large = _large(kind)
    parts: dict[str, Any] = {"self": {}}
    for name, value in _fields(shape).items():
        if name in lists:
            keys = parts[f"lists/{name}"] = []
            for one in value:
                entry = _fields(one)
                keys.append(str(entry[lists[name].key]))
                apart = {f"{name}/{keys[-1]}/{field}": entry.pop(field) for field in lists[name].apart}
                parts |= {f"{name}/{keys[-1]}": entry, **apart}
        elif name in large:
            parts[name] = value
        else:
            parts["self"][name] = value
    return parts


def _fields(shape: Any) -> dict[str, Any]:
    return dict(shape) if isinstance(shape, dict) else {f.name: getattr(shape, f.name) for f in fields(shape)}


def _write(address: str, name: str, value: Any, units: Units, before: _Written | None) -> _Written:
    if before is not None and before.value == value:
        return before
    body = orjson.dumps(placed(value, units, f"{address}/workings/{name}"))
    digest = hashlib.blake2b(name.encode() + b"\n" + body, digest_size=_TAG_BYTES).digest()
    return _Written(value, base64.urlsafe_b64encode(digest).decode(), orjson.Fragment(body))


def working_at(shape: Any, place: str, lists: Mapping[str, Entries]) -> Any:
    """The working at a place of an answer, as ``features/idler_bore/found/working``; ``None`` where none stands."""
    name, *rest = place.split("/")
    found = _entry(shape, name)
    if name in lists and rest and isinstance(found, list):
        key, *rest = rest
        found = next((one for one in found if str(_fields(one)[lists[name].key]) == key), None)
    for step in rest:
        found = _entry(found, step)
    return found if is_working(found) else None


def _entry(value: Any, step: str) -> Any:
    if isinstance(value, list | tuple):
        return value[int(step)] if step.isdecimal() and len(step) < 6 and int(step) < len(value) else None
    if isinstance(value, dict):
        return value.get(step)
    known = is_dataclass(value) and step in {f.name for f in fields(value)}
    return getattr(value, step) if known else None
