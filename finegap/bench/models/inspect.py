"""What was measured and seen of the parts, and what was decided."""

from django.db import models

from finegap.bench.models.job import Job
from finegap.bench.recorded import STANDING, Recorded, Strikeable
from finegap.inventory.models import Certificate, Gauge


class Reading(Recorded, Strikeable):
    """One reading, as typed and as converted. Never erased: struck out with a reason.

    ``half_mm`` is half the interval between the leaf that goes and the one that does not; ``part_c`` and ``expansion_um_m_k`` are
    kept of a part not measured at 20 C. ``taken`` says how it came: typed, typed from paper, pasted, or from the receiver.
    ``understood`` is how a number with two meanings was taken, ``reason`` why an odd one is meant. ``certificate`` is the one it
    was taken under.
    """

    job = models.ForeignKey(Job, models.CASCADE, related_name="readings")
    feature = models.CharField(max_length=40)
    phase = models.CharField(max_length=10)
    station = models.CharField(max_length=40)
    typed = models.CharField(max_length=90)
    unit = models.CharField(max_length=10)
    value_mm = models.FloatField()
    half_mm = models.FloatField(default=0)
    part_c = models.FloatField(null=True, blank=True)
    expansion_um_m_k = models.FloatField(null=True, blank=True)
    taken = models.CharField(max_length=10, default="typed")
    understood = models.CharField(max_length=60, blank=True)
    reason = models.CharField(max_length=200, blank=True)
    gauge = models.ForeignKey(Gauge, models.PROTECT, related_name="+")
    certificate = models.ForeignKey(Certificate, models.PROTECT, related_name="+")
    gauge_overdue = models.BooleanField()
    out_of_range = models.BooleanField(default=False)
    order = models.PositiveIntegerField()

    class Meta(Strikeable.Meta):
        ordering = ["order"]
        constraints = [
            *Strikeable.Meta.constraints,
            models.UniqueConstraint(fields=["job", "order"], name="readings_in_order"),
        ]


class Decision(Recorded, Strikeable):
    """What was decided for a feature; deciding again replaces it, and the log keeps both.

    ``parts`` are the features of a pair whose parts are new.
    """

    job = models.ForeignKey(Job, models.CASCADE, related_name="decisions")
    feature = models.CharField(max_length=40)
    decided = models.CharField(max_length=10)
    verdict = models.CharField(max_length=20)
    reason = models.CharField(max_length=300, blank=True)
    parts = models.JSONField(default=list)

    class Meta(Strikeable.Meta):
        constraints = [
            *Strikeable.Meta.constraints,
            models.UniqueConstraint(fields=["job", "feature"], condition=STANDING, name="one_decision_a_feature"),
        ]


class NewPart(Recorded, Strikeable):
    """A new part confirmed as in, where no size shows it: the washer, the bearing, a shaft without a size on the sheet."""

    job = models.ForeignKey(Job, models.CASCADE, related_name="new_parts")
    feature = models.CharField(max_length=40)

    class Meta(Strikeable.Meta):
        constraints = [
            *Strikeable.Meta.constraints,
            models.UniqueConstraint(fields=["job", "feature"], condition=STANDING, name="a_new_part_is_confirmed_once"),
        ]


class Look(Recorded):
    """What was seen on a part: keys of damage, none for sound. Looking again replaces it, and the log keeps both."""

    job = models.ForeignKey(Job, models.CASCADE, related_name="looks")
    feature = models.CharField(max_length=40)
    phase = models.CharField(max_length=10)
    damages = models.JSONField(default=list)
    note = models.CharField(max_length=300, blank=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["job", "feature", "phase"], name="one_look_a_feature")]
