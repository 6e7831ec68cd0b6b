"""Everything recorded at the bench. Verdicts and moves are computed from it, never stored, until a signature freezes them."""

from django.conf import settings
from django.db import models

from finegap.fleet.models import Duty, Pump
from finegap.sheets.models import SheetRevision
from finegap.toolbox.models import Gauge

USER = settings.AUTH_USER_MODEL


class Job(Duty):
    """One overhaul. ``version`` counts every change, so that a second person is told and nothing is overwritten."""

    number = models.PositiveIntegerField(unique=True)
    pump = models.ForeignKey(Pump, models.PROTECT, related_name="jobs")
    revision = models.ForeignKey(SheetRevision, models.PROTECT, related_name="jobs")
    opened_by = models.ForeignKey(USER, models.PROTECT, related_name="+")
    opened_at = models.DateTimeField()
    reason = models.CharField(max_length=200)
    hours_run = models.PositiveIntegerField(null=True, blank=True)
    zero_school = models.CharField(max_length=30, blank=True)
    lash_mm = models.FloatField(default=0)
    version = models.PositiveIntegerField(default=1)

    class Meta:
        ordering = ["-number"]
        constraints = [models.CheckConstraint(condition=models.Q(lash_mm__gte=0), name="lash_not_negative")]

    def __str__(self) -> str:
        return f"Job {self.number}"


class Recorded(models.Model):
    """By whom, when, and under which identity the client gave it: a retry is the same record, not a second one."""

    id = models.UUIDField(primary_key=True)
    by = models.ForeignKey(USER, models.PROTECT, related_name="+")
    at = models.DateTimeField()

    class Meta:
        abstract = True


class StepMark(Recorded):
    """A step done, or a caution acknowledged, by name and time."""

    job = models.ForeignKey(Job, models.CASCADE, related_name="steps")
    step = models.CharField(max_length=40)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["job", "step"], name="a_step_is_done_once")]


class Reading(Recorded):
    """One reading, as typed and as converted. Never erased: struck out with a reason."""

    job = models.ForeignKey(Job, models.CASCADE, related_name="readings")
    feature = models.CharField(max_length=40)
    phase = models.CharField(max_length=10)
    station = models.CharField(max_length=40)
    typed = models.CharField(max_length=40)
    unit = models.CharField(max_length=10)
    value_mm = models.FloatField()
    gauge = models.ForeignKey(Gauge, models.PROTECT, related_name="+")
    gauge_overdue = models.BooleanField()
    order = models.PositiveIntegerField()
    struck_by = models.ForeignKey(USER, models.PROTECT, related_name="+", null=True, blank=True)
    struck_at = models.DateTimeField(null=True, blank=True)
    struck_reason = models.CharField(max_length=200, blank=True)

    class Meta:
        ordering = ["order"]
        constraints = [
            models.UniqueConstraint(fields=["job", "order"], name="readings_in_order"),
            models.CheckConstraint(
                condition=models.Q(struck_at__isnull=True, struck_reason="")
                | (models.Q(struck_at__isnull=False) & ~models.Q(struck_reason="")),
                name="struck_with_a_reason",
            ),
        ]


class Decision(Recorded):
    """What was decided for a feature; deciding again replaces it, and the log keeps both."""

    job = models.ForeignKey(Job, models.CASCADE, related_name="decisions")
    feature = models.CharField(max_length=40)
    decided = models.CharField(max_length=10)
    verdict = models.CharField(max_length=20)
    reason = models.CharField(max_length=300, blank=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["job", "feature"], name="one_decision_a_feature")]


class Try(Recorded):
    """A try at the gap: what was done, and the check reading."""

    job = models.ForeignKey(Job, models.CASCADE, related_name="tries")
    number = models.PositiveIntegerField()
    arc_mm = models.FloatField(null=True, blank=True)
    arc_typed = models.CharField(max_length=40, blank=True)
    stack_um = models.JSONField(default=list)
    goes_typed = models.CharField(max_length=40, blank=True)
    stops_typed = models.CharField(max_length=40, blank=True)
    read_typed = models.CharField(max_length=40, blank=True)
    value_mm = models.FloatField()
    u_mm = models.FloatField()
    dof = models.FloatField(null=True, blank=True)
    gauge = models.ForeignKey(Gauge, models.PROTECT, related_name="+", null=True, blank=True)
    gauge_overdue = models.BooleanField(default=False)

    class Meta:
        ordering = ["number"]
        constraints = [models.UniqueConstraint(fields=["job", "number"], name="tries_in_order")]


class SignOff(Recorded):
    """The signature, with everything that was shown when it was given."""

    job = models.OneToOneField(Job, models.CASCADE, related_name="sign_off")
    reason = models.CharField(max_length=300, blank=True)
    record = models.JSONField()
    core_version = models.CharField(max_length=20)


class Event(models.Model):
    """The log of a job: one line for each version."""

    job = models.ForeignKey(Job, models.CASCADE, related_name="events")
    version = models.PositiveIntegerField()
    by = models.ForeignKey(USER, models.PROTECT, related_name="+")
    at = models.DateTimeField()
    what = models.CharField(max_length=400)

    class Meta:
        ordering = ["version"]
        constraints = [models.UniqueConstraint(fields=["job", "version"], name="one_event_a_version")]
