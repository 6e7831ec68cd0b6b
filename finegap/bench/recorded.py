"""What every row made at the bench has: by whom, when, under which identity; and how one is put right without being erased."""

import datetime as dt
from typing import Self, TypeVar

from django.conf import settings
from django.contrib.auth.models import User
from django.db import models

USER = settings.AUTH_USER_MODEL

M = TypeVar("M", bound=models.Model, covariant=True)

_LONGEST_REASON = 300
STANDING = models.Q(struck_reason="")
"""Of a row that counts."""


class InItsZone(models.Model):
    """A moment with the zone of the clock it was read from."""

    at = models.DateTimeField()
    zone_min = models.SmallIntegerField(default=0)

    class Meta:
        abstract = True

    @property
    def when(self) -> dt.datetime:
        """The moment as that clock showed it."""
        return self.at.astimezone(dt.timezone(dt.timedelta(minutes=self.zone_min)))


class Recorded(InItsZone):
    """By whom, when, and under which identity the client gave it: a retry is the same record, not a second one.

    ``at`` is the moment of the act and ``zone_min`` the minutes its clock was ahead of UTC. ``sent`` is a digest of what came with
    the identity: the same identity with other contents is a conflict. ``made`` is the version of the job it made: what was done
    before what, whatever the clocks said. Older rows have neither.
    """

    id = models.UUIDField(primary_key=True)
    by = models.ForeignKey(USER, models.PROTECT, related_name="+")
    sent = models.CharField(max_length=64, blank=True)
    made = models.PositiveIntegerField(default=0)

    class Meta:
        abstract = True


class StrikeableSet(models.QuerySet[M]):
    """Rows some of which were struck out."""

    def standing(self) -> Self:
        """Those that count."""
        return self.filter(struck_reason="")

    def strike(self, by: User, at: dt.datetime, reason: str) -> int:
        """Strike out those that still stand; how many they were."""
        return self.standing().update(struck_by=by, struck_at=at, struck_reason=reason[:_LONGEST_REASON])


class Strikeable(models.Model):
    """Put right by striking it out, with a reason and by name; never erased.

    ``struck_at`` is not known of what was struck before it was kept.
    """

    struck_by = models.ForeignKey(USER, models.PROTECT, related_name="+", null=True, blank=True)
    struck_at = models.DateTimeField(null=True, blank=True)
    struck_reason = models.CharField(max_length=_LONGEST_REASON, blank=True)

    objects = StrikeableSet.as_manager()

    class Meta:
        abstract = True
        constraints = [
            models.CheckConstraint(
                condition=models.Q(struck_by__isnull=True, struck_at__isnull=True, struck_reason="")
                | (models.Q(struck_by__isnull=False) & ~models.Q(struck_reason="")),
                name="%(class)s_struck_with_a_reason",
            )
        ]
