"""A request that comes twice: the same contents are the same record, other contents under its identity are a conflict."""

from __future__ import annotations

import hashlib
import json
from dataclasses import fields, is_dataclass
from enum import Enum
from typing import Any

from django.contrib.auth.models import User

from finegap.core.entry import Entry


def digest(contents: Any, actor: User, entry: Entry) -> str:
    """What came with an identity, from whom and how typed, as 64 letters; without what is kept out of a ``repr``, as a PIN is."""
    said = json.dumps([contents, actor.pk, entry.units, entry.mark], default=_plain, sort_keys=True)
    return hashlib.sha256(said.encode()).hexdigest()


def _plain(value: Any) -> Any:
    if isinstance(value, Enum):
        return value.value
    if is_dataclass(value):
        return {one.name: getattr(value, one.name) for one in fields(value) if one.repr}
    return str(value)
