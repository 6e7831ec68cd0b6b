"""A request that comes twice: the same contents are the same record, other contents under its identity are a conflict."""

from __future__ import annotations

import hashlib

from django.contrib.auth.models import User

from finegap.core.entry import Entry


def digest(contents: object, actor: User, entry: Entry) -> str:
    """What came with an identity, from whom and how typed, as 64 letters; ``contents`` says in its ``repr`` all that was sent."""
    return hashlib.sha256(repr((contents, actor.pk, entry.units, entry.mark)).encode()).hexdigest()
