"""Lines of the trail. Nothing writes them but the triggers of ``triggers.py``, and nothing changes them."""

from __future__ import annotations

import json
from typing import Any

from django.db import models

ACTS = ("added", "changed", "removed")


class Change(models.Model):
    """One row that was added, changed or removed.

    ``who`` is the user name of who was signed in, or “server”. ``about`` is what it belongs to, as somebody would name it:
    “job 12”, “pump P-3”. ``kind`` is the model, ``row`` its key. ``was`` and ``now`` hold the fields that differ, as they were and
    are, as JSON as SQLite writes it: of a row that was added there is only ``now``, of one removed only ``was``.
    """

    at = models.DateTimeField(db_index=True)
    who = models.CharField(max_length=150, db_index=True)
    about = models.CharField(max_length=200, db_index=True)
    kind = models.CharField(max_length=80, db_index=True)
    row = models.CharField(max_length=40)
    act = models.CharField(max_length=10, choices=[(act, act) for act in ACTS])
    was = models.TextField(default="{}")
    now = models.TextField(default="{}")

    class Meta:
        ordering = ["-pk"]

    @property
    def old(self) -> dict[str, Any]:
        """The fields that differ, as they were."""
        return dict(json.loads(self.was))

    @property
    def new(self) -> dict[str, Any]:
        """As they are."""
        return dict(json.loads(self.now))
