"""Zero, and the tries of a gap with their checks."""

from django.db import models

from finegap.bench.models.job import Job
from finegap.bench.recorded import STANDING, Recorded, Strikeable
from finegap.inventory.models import Certificate, Gauge


class ZeroFound(Recorded, Strikeable):
    """How zero was found, and the play; found anew it replaces the one before, which is struck out."""

    job = models.ForeignKey(Job, models.CASCADE, related_name="zeros")
    school = models.CharField(max_length=30)
    lash_mm = models.FloatField(default=0)
    lash_typed = models.CharField(max_length=60, blank=True)

    class Meta(Strikeable.Meta):
        ordering = ["at"]
        constraints = [
            *Strikeable.Meta.constraints,
            models.UniqueConstraint(fields=["job"], condition=STANDING, name="one_zero_a_job"),
            models.CheckConstraint(condition=models.Q(lash_mm__gte=0), name="lash_not_negative"),
        ]


class Try(Recorded, Strikeable):
    """A try: what was done. ``sets`` is the gap of the clearance table, or the mesh of a timing gear; one stack a place.

    ``moved`` is by how much the means was moved, with the sign it gives that (an arc in mm).

    ``opened`` when the pump was opened for it: what that takes apart is to be done again. ``trial`` when it was tightened for the
    check alone, not to its torque.
    """

    job = models.ForeignKey(Job, models.CASCADE, related_name="tries")
    sets = models.CharField(max_length=10, default="gap")
    number = models.PositiveIntegerField()
    moved = models.FloatField(null=True, blank=True)
    moved_typed = models.CharField(max_length=40, blank=True)
    stacks_um = models.JSONField(default=list)
    opened = models.BooleanField(default=False)
    trial = models.BooleanField(default=False)

    class Meta(Strikeable.Meta):
        ordering = ["sets", "number"]
        constraints = [
            *Strikeable.Meta.constraints,
            models.UniqueConstraint(fields=["job", "sets", "number"], name="tries_in_order"),
        ]


class TryCheck(models.Model):
    """What one check of a try read: a pair of feeler leaves, ``half_mm`` either side, or a gauge; of ``gap``, in ``order``."""

    made = models.ForeignKey(Try, models.CASCADE, related_name="checks")
    order = models.PositiveIntegerField(default=0)
    gap = models.CharField(max_length=20, default="gap")
    goes_typed = models.CharField(max_length=60, blank=True)
    stops_typed = models.CharField(max_length=60, blank=True)
    read_typed = models.CharField(max_length=60, blank=True)
    value_mm = models.FloatField()
    u_mm = models.FloatField()
    dof = models.FloatField(null=True, blank=True)
    half_mm = models.FloatField(default=0)
    gauge = models.ForeignKey(Gauge, models.PROTECT, related_name="+", null=True, blank=True)
    certificate = models.ForeignKey(Certificate, models.PROTECT, related_name="+", null=True, blank=True)
    gauge_overdue = models.BooleanField(default=False)

    class Meta:
        ordering = ["made", "order"]
        constraints = [models.UniqueConstraint(fields=["made", "order"], name="checks_in_order")]
