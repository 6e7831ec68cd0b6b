"""What is worked out of each pump and gauge, for lists. Never the truth: that is in the records."""

from enum import StrEnum

from django.db import models

from finegap.inventory.models import Gauge
from finegap.pumps.models import Pump


class DueKind(StrEnum):
    """What falls due."""

    INSPECTION = "inspection"
    SERVICE = "service"
    KIT = "kit"
    CALIBRATION = "calibration"


class Standing(models.Model):
    """How a pump stands. ``hours`` is what its meter showed on the day it was ``read``, ``rate`` hours a week.

    ``day`` is the soonest on which anything of it falls due, ``said`` what that is, ``over`` that its hours are up. ``left_h`` are
    hours to the next inspection. ``worst`` are its sizes with the least left, as a list draws them. ``words`` is what it is found
    by, in small letters; ``core`` the version of the rules it was worked out by.
    """

    pump = models.OneToOneField(Pump, models.CASCADE, primary_key=True, related_name="standing")
    hours = models.FloatField(null=True, blank=True)
    read = models.DateField(null=True, blank=True)
    rate = models.FloatField(null=True, blank=True)
    day = models.DateField(null=True, blank=True)
    said = models.CharField(max_length=300, blank=True)
    over = models.BooleanField(default=False)
    left_h = models.FloatField(null=True, blank=True)
    overhauls = models.PositiveIntegerField(default=0)
    overhauled = models.DateField(null=True, blank=True)
    worst = models.JSONField(default=list)
    words = models.TextField(blank=True)
    core = models.CharField(max_length=20)

    class Meta:
        indexes = [
            models.Index(fields=["day"], name="standing_by_day"),
            models.Index(fields=["left_h"], name="standing_by_hours_left"),
            # A word is looked for in the index: the rows of all pumps are not read for it.
            models.Index(fields=["pump", "words"], name="standing_by_words"),
        ]


class DueLine(models.Model):
    """Something that falls due: at a pump, or a calibration of a gauge. Without a day where the meter does not tell the rate.

    ``key`` tells it from others of its kind at that pump; ``left_h`` are hours from the last reading of the meter.
    """

    pump = models.ForeignKey(Pump, models.CASCADE, related_name="due", null=True, blank=True)
    gauge = models.ForeignKey(Gauge, models.CASCADE, related_name="due", null=True, blank=True)
    kind = models.CharField(max_length=12, choices=[(one.value, one.value) for one in DueKind])
    key = models.CharField(max_length=120, blank=True)
    name = models.CharField(max_length=160)
    said = models.CharField(max_length=300)
    left_h = models.FloatField(null=True, blank=True)
    day = models.DateField(null=True, blank=True)

    class Meta:
        ordering = ["day", "pk"]
        indexes = [
            models.Index(fields=["day"], name="due_by_day"),
            models.Index(fields=["kind", "day"], name="due_by_kind"),
            models.Index(fields=["day", "kind", "left_h"], name="due_counted"),
        ]
        constraints = [
            models.CheckConstraint(
                condition=models.Q(pump__isnull=True, gauge__isnull=False) | models.Q(pump__isnull=False, gauge__isnull=True),
                name="due_at_a_pump_or_a_gauge",
            )
        ]


class Stale(models.Model):
    """A pump or a gauge something was changed of: what is worked out of it does not count before it is worked out anew.

    It was ``passed`` on where the change was of another pump, from which it has a part.
    """

    pump = models.OneToOneField(Pump, models.CASCADE, null=True, blank=True, related_name="+")
    gauge = models.OneToOneField(Gauge, models.CASCADE, null=True, blank=True, related_name="+")
    passed = models.BooleanField(default=False, db_default=False)
