"""Gauges with their certificates, grease guns, gaskets and shims on the shelf."""

from __future__ import annotations

from typing import Any, ClassVar

from django.conf import settings
from django.db import models

from finegap.core.gauges import GaugeKind
from finegap.core.numerals import DecimalMark
from finegap.sheets.models import Sheet


class GaugeManager(models.Manager["Gauge"]):
    """Gauges with the certificate that holds now, which nothing can do without."""

    def get_queryset(self) -> models.QuerySet[Gauge]:
        """Joined with the certificate."""
        return super().get_queryset().select_related("current")

    def put(self, tag: str, kind: str, mark: str = "", **certificate: Any) -> Gauge:
        """A gauge with its first certificate."""
        gauge = self.create(tag=tag, kind=kind, mark=mark)
        gauge.current = Certificate.objects.create(gauge=gauge, **certificate)
        gauge.save(update_fields=["current"])
        return gauge


class Gauge(models.Model):
    """A gauge of the cabinet. What it is good for is in its certificates, the newest in ``current``.

    ``mark`` is the decimal mark its own display or cable sends, where that is stated; otherwise that of the works counts.
    One that is ``retired`` measures nothing more; what it measured stands.
    """

    tag = models.CharField(max_length=20, unique=True)
    kind = models.CharField(max_length=60, choices=[(k.value, k.value) for k in GaugeKind])
    mark = models.CharField(max_length=10, blank=True, choices=[(m.value, m.value) for m in DecimalMark])
    current = models.OneToOneField("Certificate", models.PROTECT, related_name="+", null=True)
    retired = models.DateField(null=True, blank=True)
    retired_by = models.ForeignKey(settings.AUTH_USER_MODEL, models.PROTECT, related_name="+", null=True, blank=True)

    class Meta:
        ordering = ["tag"]
        constraints = [models.CheckConstraint(condition=models.Q(kind__in=[k.value for k in GaugeKind]), name="kind_is_known")]

    objects: ClassVar[GaugeManager] = GaugeManager()

    def __str__(self) -> str:
        return f"{self.tag} {self.kind}"

    @property
    def now(self) -> Certificate:
        """Its newest certificate; no gauge is kept without one."""
        assert self.current is not None
        return self.current


class Certificate(models.Model):
    """What a gauge was found to be good for, in the internal unit of what it reads: mm, N.m or C. Never changed: a new one follows.

    ``expanded`` is U with coverage factor ``k``; ``leaves_um`` are the leaves of a feeler set. A reading keeps the certificate it
    was taken under.
    """

    gauge = models.ForeignKey(Gauge, models.CASCADE, related_name="certificates")
    low = models.FloatField()
    high = models.FloatField()
    resolution = models.FloatField()
    expanded = models.FloatField()
    k = models.FloatField()
    repeatability = models.FloatField(null=True, blank=True)
    number = models.CharField(max_length=60, blank=True)
    leaves_um = models.JSONField(default=list, blank=True)
    calibrated = models.DateField()
    due = models.DateField()
    by = models.ForeignKey(settings.AUTH_USER_MODEL, models.PROTECT, related_name="+", null=True)
    at = models.DateTimeField(null=True)

    class Meta:
        ordering = ["pk"]
        constraints = [
            models.CheckConstraint(condition=models.Q(resolution__gt=0), name="resolution_above_zero"),
            models.CheckConstraint(condition=models.Q(low__lt=models.F("high")), name="range_not_reversed"),
            models.CheckConstraint(condition=models.Q(expanded__gte=0, k__gt=0), name="certificate_makes_sense"),
        ]

    def __str__(self) -> str:
        return f"{self.gauge.tag} {self.number}"


class GreaseGun(models.Model):
    """A grease gun: what ten strokes of it weigh, when that was weighed, and what is in it."""

    tag = models.CharField(max_length=20, unique=True)
    grease = models.CharField(max_length=80)
    grams_per_ten_strokes = models.FloatField()
    weighed = models.DateField()

    class Meta:
        ordering = ["tag"]
        constraints = [models.CheckConstraint(condition=models.Q(grams_per_ten_strokes__gt=0), name="ten_strokes_weigh_something")]

    def __str__(self) -> str:
        return self.tag


class ShelfLine(models.Model):
    """Gaskets or shims on the shelf for the pumps of one sheet: how many of a thickness, of a gasket as compressed."""

    sheet = models.ForeignKey(Sheet, models.CASCADE, related_name="shelf")
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
