"""What people at a job say to one another, beside its record: nothing of it is signed."""

from django.db import models

from finegap.bench.models.job import Job
from finegap.bench.recorded import USER
from finegap.pumps.models import Logged


class JobNote(Logged):
    """A note on a job, signed or not. One that is a ``handover`` is for whoever goes on, or for ``to``, and is taken over once."""

    job = models.ForeignKey(Job, models.CASCADE, related_name="notes")
    text = models.CharField(max_length=1000)
    handover = models.BooleanField(default=False)
    to = models.ForeignKey(USER, models.PROTECT, related_name="+", null=True, blank=True)
    taken_by = models.ForeignKey(USER, models.PROTECT, related_name="+", null=True, blank=True)
    taken_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ["at"]
        indexes = [models.Index(fields=["job", "-at"], name="notes_of_a_job")]


class JobLook(models.Model):
    """How far somebody has read a job: the version of it that was on the page, and when."""

    job = models.ForeignKey(Job, models.CASCADE, related_name="looked_at")
    person = models.ForeignKey(USER, models.CASCADE, related_name="+")
    version = models.PositiveIntegerField()
    at = models.DateTimeField()

    class Meta:
        constraints = [models.UniqueConstraint(fields=["job", "person"], name="one_look_a_person")]
