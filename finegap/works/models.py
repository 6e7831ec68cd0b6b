"""What the works decided for itself."""

from __future__ import annotations

from django.conf import settings
from django.db import models

from finegap.core.formatting import Units
from finegap.core.job_record import NEW_SHARE
from finegap.core.measuring.verdict import School
from finegap.core.numerals import DecimalMark
from finegap.formats.days import DateForm
from finegap.formats.letterhead import Paper


def logo_file(digest: str) -> str:
    """Where a picture of a heading is kept, named by its contents: a signed record finds the one it was signed with."""
    return f"works/{digest}.png"


class PhotoSide(models.IntegerChoices):
    """The longer side of a photograph as it is kept, in pixels."""

    SMALL = 1200
    USUAL = 1600
    LARGE = 2400


class WorksSettings(models.Model):
    """The one row of what the works decided for itself.

    ``name``, ``address`` and ``logo`` (the digest its file is named by) head its reports. ``decimal_mark`` is what its people
    write; ``lengths`` what a browser begins with; ``time_zone`` an IANA name, that of the server where it is empty. ``currency``
    and ``school`` are of sheets that state none. ``new_share`` is how far a new part may be from its one new size, as a share of
    its wear allowance, before it is asked about. Photographs of abandoned jobs are kept ``abandoned_days``, without end where it is
    empty; a browser nobody uses stays signed in ``idle_days``; a backup
    is made every ``backup_hours``.
    """

    name = models.CharField(max_length=80, blank=True)
    address = models.CharField(max_length=240, blank=True)
    logo = models.CharField(max_length=64, blank=True)
    lengths = models.CharField(max_length=4, choices=[(u.value, u.value) for u in Units], default=Units.MM.value)
    decimal_mark = models.CharField(
        max_length=10, choices=[(m.value, m.value) for m in DecimalMark], default=DecimalMark.POINT.value
    )
    date_form = models.CharField(max_length=10, choices=[(f.value, f.value) for f in DateForm], default=DateForm.DAY_MONTH.value)
    paper = models.CharField(max_length=10, choices=[(p.value, p.value) for p in Paper], default=Paper.A4.value)
    time_zone = models.CharField(max_length=60, blank=True)
    currency = models.CharField(max_length=12, blank=True)
    school = models.CharField(max_length=10, choices=[(s.value, s.value) for s in School], default=School.GUARDED.value)
    new_share = models.FloatField(default=NEW_SHARE)
    photo_side = models.PositiveIntegerField(choices=PhotoSide.choices, default=PhotoSide.USUAL)
    abandoned_days = models.PositiveIntegerField(null=True, blank=True)
    idle_days = models.PositiveIntegerField(default=14)
    backup_hours = models.PositiveIntegerField(default=24)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, models.PROTECT, related_name="+", null=True)
    at = models.DateTimeField(null=True)

    class Meta:
        constraints = [
            models.CheckConstraint(condition=models.Q(pk=1), name="one_row"),
            models.CheckConstraint(condition=models.Q(new_share__gt=0, new_share__lte=1), name="a_share"),
        ]

    def __str__(self) -> str:
        return self.name or "This works"
