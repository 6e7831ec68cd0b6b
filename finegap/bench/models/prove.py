"""What was seen at Prove, and the log of the run-in."""

from django.db import models

from finegap.bench.models.job import Job
from finegap.bench.recorded import STANDING, Recorded, Strikeable


class ProofMark(Recorded, Strikeable):
    """What was seen at Prove: how the shaft turned, or something of the first hour. Seen again it is replaced; the log keeps both.

    It is of one ``step`` and proves no other. ``value`` is in the internal unit of what was seen; ``places`` are clock positions
    where the shaft was tight.
    """

    job = models.ForeignKey(Job, models.CASCADE, related_name="proofs")
    step = models.CharField(max_length=40)
    seen = models.CharField(max_length=20)
    value = models.FloatField(null=True, blank=True)
    typed = models.CharField(max_length=120, blank=True)
    places = models.JSONField(default=list)

    class Meta(Strikeable.Meta):
        ordering = ["at"]
        constraints = [
            *Strikeable.Meta.constraints,
            models.UniqueConstraint(fields=["job", "step", "seen"], condition=STANDING, name="one_proof_of_each"),
        ]


class RunInNote(Recorded, Strikeable):
    """A line of the run-in's log: minutes since the start, drops a minute, the box in C, and eighths the gland was turned."""

    job = models.ForeignKey(Job, models.CASCADE, related_name="run_in")
    number = models.PositiveIntegerField()
    minute = models.FloatField()
    drops = models.FloatField(null=True, blank=True)
    drops_expanded = models.FloatField(null=True, blank=True)
    box_c = models.FloatField(null=True, blank=True)
    eighths = models.FloatField(default=0)

    class Meta(Strikeable.Meta):
        ordering = ["number"]
        constraints = [
            *Strikeable.Meta.constraints,
            models.UniqueConstraint(fields=["job", "number"], name="run_in_in_order"),
        ]
