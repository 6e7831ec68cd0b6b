"""How a job ends: its signature with what it freezes, what is put right later, and giving it up."""

import lzma
from typing import Any, Self

from django.db import models

from finegap.bench.models.job import Job
from finegap.bench.record import RECORD_VERSION, shown
from finegap.bench.recorded import M, Recorded


class SignOff(Recorded):
    """The signature, with the record of the job as it was signed.

    ``document`` are the bytes of the record, compressed (LZMA), of the version ``record_version``; they are never written again.
    ``gap_mm`` and ``gap_in`` say what gap was left, as it was shown, and ``verdicts`` how many parts got which verdict: lists are
    made from these, and read no document. ``own`` when a lead signed past what was open on a job that lead had worked on.
    """

    job = models.OneToOneField(Job, models.CASCADE, related_name="sign_off")
    reason = models.CharField(max_length=300, blank=True)
    document = models.BinaryField()
    record_version = models.PositiveSmallIntegerField(default=RECORD_VERSION)
    core_version = models.CharField(max_length=20)
    gap_mm = models.CharField(max_length=60, blank=True)
    gap_in = models.CharField(max_length=60, blank=True)
    verdicts = models.JSONField(default=dict)
    own = models.BooleanField(default=False)

    @property
    def signed_bytes(self) -> bytes:
        """The record as it was signed."""
        return lzma.decompress(self.document)

    def shown(self) -> dict[str, Any]:
        """The job as it was signed, in the shape of now."""
        return shown(self.signed_bytes, self.record_version)


class SizesSet(models.QuerySet[M]):
    """Sizes on record."""

    def counting(self) -> Self:
        """Those of records that were not declared void."""
        return self.exclude(job__amendments__void=True)


class SizeOnRecord(models.Model):
    """A size as a signature froze it: wear is calculated from it at the next overhaul. Lengths and standard uncertainties in mm."""

    job = models.ForeignKey(Job, models.CASCADE, related_name="sizes")
    feature = models.CharField(max_length=40)
    found_mm = models.FloatField(null=True, blank=True)
    found_u_mm = models.FloatField(null=True, blank=True)
    left_mm = models.FloatField(null=True, blank=True)
    left_u_mm = models.FloatField(null=True, blank=True)
    changed = models.BooleanField()

    objects = SizesSet.as_manager()

    class Meta:
        constraints = [models.UniqueConstraint(fields=["job", "feature"], name="one_size_a_feature")]


class Abandonment(Recorded):
    """A job opened by mistake, or not gone on with: it is kept, marked so, and can only be read."""

    job = models.OneToOneField(Job, models.CASCADE, related_name="abandonment")
    reason = models.CharField(max_length=300)


class Amendment(Recorded):
    """What a lead puts right after the signature. The signed page stays as it is; this adds one.

    ``void`` when the whole record does not count for this pump, ``belongs_to`` the tag it belongs to where that is known; its
    sizes are then no part of this pump's wear. ``own`` when the lead had signed the job, or worked on it.
    """

    job = models.ForeignKey(Job, models.CASCADE, related_name="amendments")
    number = models.PositiveIntegerField()
    what = models.TextField(max_length=2000)
    reason = models.CharField(max_length=300)
    void = models.BooleanField(default=False)
    belongs_to = models.CharField(max_length=30, blank=True)
    own = models.BooleanField(default=False)

    class Meta:
        ordering = ["number"]
        constraints = [models.UniqueConstraint(fields=["job", "number"], name="amendments_in_order")]
