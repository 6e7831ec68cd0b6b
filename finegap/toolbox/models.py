"""Gauges with their certificates, grease guns, and gaskets on the shelf."""

from django.db import models

from finegap.core.gauges import GaugeKind
from finegap.sheets.models import Sheet


class Gauge(models.Model):
    """A gauge with its range, in the internal unit of what it reads: mm, N.m or C.

    ``expanded`` is U of its certificate with coverage factor ``k``; ``leaves_um`` are the leaves of a feeler set.
    """

    tag = models.CharField(max_length=20, unique=True)
    kind = models.CharField(max_length=60, choices=[(k.value, k.value) for k in GaugeKind])
    low = models.FloatField()
    high = models.FloatField()
    resolution = models.FloatField()
    expanded = models.FloatField()
    k = models.FloatField()
    repeatability = models.FloatField(null=True, blank=True)
    certificate = models.CharField(max_length=60, blank=True)
    leaves_um = models.JSONField(default=list, blank=True)
    calibrated = models.DateField()
    due = models.DateField()

    class Meta:
        ordering = ["tag"]
        constraints = [
            models.CheckConstraint(condition=models.Q(resolution__gt=0), name="resolution_above_zero"),
            models.CheckConstraint(condition=models.Q(kind__in=[k.value for k in GaugeKind]), name="kind_is_known"),
            models.CheckConstraint(condition=models.Q(low__lt=models.F("high")), name="range_not_reversed"),
            models.CheckConstraint(condition=models.Q(expanded__gte=0, k__gt=0), name="certificate_makes_sense"),
        ]

    def __str__(self) -> str:
        return f"{self.tag} {self.kind}"


class GreaseGun(models.Model):
    """A grease gun: what ten strokes of it weigh, when that was weighed, and what is in it."""

    tag = models.CharField(max_length=20, unique=True)
    grease = models.CharField(max_length=80)
    ten_g = models.FloatField()
    weighed = models.DateField()

    class Meta:
        ordering = ["tag"]
        constraints = [models.CheckConstraint(condition=models.Q(ten_g__gt=0), name="ten_strokes_weigh_something")]

    def __str__(self) -> str:
        return self.tag


class GasketStock(models.Model):
    """Head gaskets on the shelf for the pumps of one sheet, by thickness as compressed."""

    sheet = models.ForeignKey(Sheet, models.CASCADE, related_name="gaskets")
    thickness_um = models.PositiveIntegerField()
    count = models.PositiveIntegerField()

    class Meta:
        ordering = ["sheet", "thickness_um"]
        constraints = [
            models.UniqueConstraint(fields=["sheet", "thickness_um"], name="one_line_a_thickness"),
            models.CheckConstraint(condition=models.Q(thickness_um__gt=0), name="thickness_above_zero"),
        ]

    def __str__(self) -> str:
        return f"{self.count} × {self.thickness_um} µm for {self.sheet}"
