"""What was put in and tightened."""

from django.db import models

from finegap.bench.models.job import Job
from finegap.bench.recorded import STANDING, Recorded, Strikeable
from finegap.inventory.models import Certificate, Gauge


class PartFitted(Recorded, Strikeable):
    """A part of a stack in place, in its turn. ``directions`` are what was confirmed of it, ``words`` its name of that moment."""

    job = models.ForeignKey(Job, models.CASCADE, related_name="fitted")
    stack = models.CharField(max_length=40)
    part = models.CharField(max_length=60)
    words = models.CharField(max_length=400, blank=True)
    reused = models.BooleanField(default=False)
    reason = models.CharField(max_length=300, blank=True)
    directions = models.CharField(max_length=400, blank=True)

    class Meta(Strikeable.Meta):
        ordering = ["at"]
        constraints = [
            *Strikeable.Meta.constraints,
            models.UniqueConstraint(fields=["job", "stack", "part"], condition=STANDING, name="a_part_is_fitted_once"),
        ]


class TorqueMark(Recorded, Strikeable):
    """A torque as logged, for one fastener or several of a pass. Never erased: struck out with a reason.

    ``typed`` is what the wrench was set to; ``adapter`` its lengths and angle as typed, where there was one.
    """

    job = models.ForeignKey(Job, models.CASCADE, related_name="torques")
    fastener = models.CharField(max_length=120)
    pass_number = models.PositiveIntegerField()
    bolts = models.JSONField()
    typed = models.CharField(max_length=60)
    set_n_m = models.FloatField()
    at_nut_n_m = models.FloatField()
    adapter = models.CharField(max_length=160, blank=True)
    wrench = models.ForeignKey(Gauge, models.PROTECT, related_name="+")
    certificate = models.ForeignKey(Certificate, models.PROTECT, related_name="+")
    wrench_overdue = models.BooleanField()

    class Meta(Strikeable.Meta):
        ordering = ["at"]
        constraints = [
            *Strikeable.Meta.constraints,
            models.CheckConstraint(condition=models.Q(at_nut_n_m__gt=0, set_n_m__gt=0), name="torque_above_zero"),
        ]
