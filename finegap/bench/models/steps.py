"""What is marked at any stage: steps, what is on hand, photographs."""

from django.db import models

from finegap.bench.models.job import Job
from finegap.bench.recorded import STANDING, Recorded, Strikeable


class StepMark(Recorded, Strikeable):
    """A step done, a caution acknowledged, or a step skipped with a reason, by name and time.

    ``words`` are the step's of that moment: they stay when the procedure changes.
    ``past`` is a lead's reason for doing it before what must come before it, or for skipping what only a lead skips; ``own`` when
    that lead had worked on the job.
    """

    job = models.ForeignKey(Job, models.CASCADE, related_name="steps")
    step = models.CharField(max_length=40)
    words = models.CharField(max_length=400, blank=True)
    note = models.CharField(max_length=300, blank=True)
    skipped = models.CharField(max_length=300, blank=True)
    past = models.CharField(max_length=300, blank=True)
    own = models.BooleanField(default=False)

    class Meta(Strikeable.Meta):
        constraints = [
            *Strikeable.Meta.constraints,
            models.UniqueConstraint(fields=["job", "step"], condition=STANDING, name="a_step_is_done_once"),
        ]


class OnHand(Recorded):
    """Whether something the job needs is on hand, before anything is opened."""

    job = models.ForeignKey(Job, models.CASCADE, related_name="on_hand")
    item = models.CharField(max_length=120)
    here = models.BooleanField()

    class Meta:
        constraints = [models.UniqueConstraint(fields=["job", "item"], name="one_line_an_item")]


class Photo(Recorded):
    """A photograph of a part or of a step, made small and kept in the media folder."""

    job = models.ForeignKey(Job, models.CASCADE, related_name="photos")
    feature = models.CharField(max_length=40, blank=True)
    step = models.CharField(max_length=40, blank=True)
    note = models.CharField(max_length=200, blank=True)
    file = models.FileField(upload_to="photos")
    width = models.PositiveIntegerField()
    height = models.PositiveIntegerField()

    class Meta:
        ordering = ["at"]
        constraints = [
            models.CheckConstraint(
                condition=models.Q(feature="", step__gt="") | models.Q(feature__gt="", step=""), name="of_a_part_or_a_step"
            )
        ]
