"""Lines of the trail. The triggers of ``triggers.py`` write them, and ``whole_works`` one of its own; nothing changes them."""

from __future__ import annotations

import json
from typing import Any

from django.db import models
from django.utils import timezone

from finegap.audit.who import who

ACTS = ("added", "changed", "removed")
WORKS = "works"
"""The kind, and what it is about, of a change of everything at once."""


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


def whole_works(how: str, by: str) -> None:
    """A line for a change of everything at once, which no trigger sees: it was restored, put back, brought up to date.

    Parameters
    ----------
    how : str
        What was done, such as “restored from”.
    by : str
        The file or the version it was done with.
    """
    Change.objects.create(at=timezone.now(), who=who(), about=WORKS, kind=WORKS, act="changed", now=json.dumps({how: by}))
