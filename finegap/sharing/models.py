"""Links for people without an account, and what was fetched by them."""

import datetime as dt
import hashlib
from enum import StrEnum

from django.conf import settings
from django.db import models
from django.utils import timezone

from finegap.bench.models import Job
from finegap.pumps.models import Pump


def digest_of(secret: str) -> str:
    """What is kept of a secret. It is random and long: a plain hash cannot be turned round."""
    return hashlib.sha256(secret.encode()).hexdigest()


class LinkTo(StrEnum):
    """What a link leads to."""

    REPORT = "report"
    CALENDAR = "calendar"


class Link(models.Model):
    """A link somebody made. Of its secret only a digest is kept: it is shown once, and cannot be read out of the database.

    One to a report is of a ``job`` and ends after the day ``until``; a calendar's is of one ``pump``, of all at a ``place``, or of
    the whole fleet, and runs until it is taken back.
    """

    id = models.UUIDField(primary_key=True)
    to = models.CharField(max_length=10, choices=[(one.value, one.value) for one in LinkTo])
    digest = models.CharField(max_length=64, unique=True)
    job = models.ForeignKey(Job, models.CASCADE, related_name="links", null=True, blank=True)
    pump = models.ForeignKey(Pump, models.CASCADE, related_name="links", null=True, blank=True)
    place = models.CharField(max_length=120, blank=True)
    whom = models.CharField(max_length=120)
    until = models.DateField(null=True, blank=True)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, models.PROTECT, related_name="+")
    at = models.DateTimeField()
    revoked_by = models.ForeignKey(settings.AUTH_USER_MODEL, models.PROTECT, related_name="+", null=True, blank=True)
    revoked_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ["-at"]
        indexes = [models.Index(fields=["to", "-at"], name="links_by_kind")]
        constraints = [
            models.CheckConstraint(
                condition=models.Q(to="report", job__isnull=False, until__isnull=False) | models.Q(to="calendar", job__isnull=True),
                name="a_link_leads_somewhere",
            )
        ]

    def __str__(self) -> str:
        return f"{self.to} for {self.whom}"

    def is_open(self, today: dt.date | None = None) -> bool:
        """Whether it still leads anywhere."""
        ended = self.until is not None and self.until < (today or timezone.localdate())
        return self.revoked_at is None and not ended


class LinkUse(models.Model):
    """Somebody fetched something by a link: when, from where, and what."""

    link = models.ForeignKey(Link, models.CASCADE, related_name="uses")
    at = models.DateTimeField()
    address = models.CharField(max_length=64, blank=True)
    what = models.CharField(max_length=40)

    class Meta:
        ordering = ["-at"]
        indexes = [models.Index(fields=["link", "-at"], name="uses_of_a_link")]
