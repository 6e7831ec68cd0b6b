"""A job, its log, and the versions of its sections."""

from typing import Self

from django.db import models

from finegap.bench.recorded import USER, InItsZone
from finegap.inventory.models import GreaseGun
from finegap.pumps.models import DutyFields, MeterReading, PartMoved, Pump
from finegap.sheets.models import SheetRevision, ShopProcedure

SIGNED, ABANDONED = "signed", "abandoned"
"""How a job ended; an open one has neither."""


class JobSet(models.QuerySet["Job"]):
    """Jobs."""

    def whole(self) -> Self:
        """With all that is shown of a job beside its records; ``moved`` where its pump's past is not its overhauls alone."""
        pump = models.OuterRef("pump")
        parts = PartMoved.objects.filter(models.Q(pump=pump) | models.Q(taker=pump), struck_reason="")
        meters = MeterReading.objects.filter(pump=pump, old_last__isnull=False, struck_reason="")
        whole = self.select_related("pump", "revision__sheet", "opened_by", "procedure", "gun")
        return whole.annotate(moved=models.Exists(parts) | models.Exists(meters))


class Job(DutyFields):
    """One overhaul. ``version`` counts every change, so that a second person is told and nothing is overwritten.

    ``old_meter_last`` is the last reading of an hours meter replaced since the overhaul before; ``lubricant`` and ``gun`` are what
    is on the bench at Build. ``renewed`` is the version at which it was last decided which parts are new. ``verdicts`` are those
    last shown, of ``verdicts_version``, under what is outside the job then (``outside``); ``meanwhile`` are the sentences on those
    that changed by something else than an act at the bench, until read. ``ended`` says how it ended, so that lists need not look.
    """

    number = models.PositiveIntegerField(unique=True)
    pump = models.ForeignKey(Pump, models.PROTECT, related_name="jobs")
    revision = models.ForeignKey(SheetRevision, models.PROTECT, related_name="jobs")
    opened_by = models.ForeignKey(USER, models.PROTECT, related_name="+")
    opened_at = models.DateTimeField()
    reason = models.CharField(max_length=200)
    symptom = models.CharField(max_length=40, blank=True)
    serial = models.CharField(max_length=60, blank=True)
    place = models.CharField(max_length=10, blank=True)
    room = models.CharField(max_length=200, blank=True)
    hours_run = models.PositiveIntegerField(null=True, blank=True)
    old_meter_last = models.PositiveIntegerField(null=True, blank=True)
    new_meter_first = models.PositiveIntegerField(default=0)
    procedure = models.ForeignKey(ShopProcedure, models.PROTECT, related_name="+", null=True, blank=True)
    lubricant = models.CharField(max_length=40, blank=True)
    gun = models.ForeignKey(GreaseGun, models.PROTECT, related_name="+", null=True, blank=True)
    version = models.PositiveIntegerField(default=1)
    verdicts = models.JSONField(default=dict)
    verdicts_version = models.PositiveIntegerField(default=0)
    outside = models.JSONField(default=dict)
    meanwhile = models.JSONField(default=list)
    renewed = models.PositiveIntegerField(default=0)
    ended = models.CharField(max_length=10, blank=True)

    objects = JobSet.as_manager()

    class Meta:
        ordering = ["-number"]
        indexes = [
            models.Index(fields=["ended", "-number"], name="jobs_by_end"),
            models.Index(fields=["pump", "ended", "-number"], name="jobs_of_a_pump"),
        ]

    def __str__(self) -> str:
        return f"Job {self.number}"

    def end(self, how: str) -> None:
        """It is open no more: ``SIGNED`` or ``ABANDONED``."""
        self.ended = how
        self.save(update_fields=["ended"])

    @property
    def is_signed(self) -> bool:
        """Whether it is closed by a signature."""
        return self.ended == SIGNED

    @property
    def is_abandoned(self) -> bool:
        """Whether it was given up."""
        return self.ended == ABANDONED


class Event(InItsZone):
    """The log of a job: one line for each version."""

    job = models.ForeignKey(Job, models.CASCADE, related_name="events")
    version = models.PositiveIntegerField()
    by = models.ForeignKey(USER, models.PROTECT, related_name="+")
    what = models.CharField(max_length=400)

    class Meta:
        ordering = ["version"]
        constraints = [models.UniqueConstraint(fields=["job", "version"], name="one_event_a_version")]


class SectionVersion(models.Model):
    """A version of a section of a job (a part, a step, a stack; ``*`` is all of it): that of the event that touched it.

    A change to a section is refused where somebody else has changed it since it was read; changes to others do not matter to it.
    """

    job = models.ForeignKey(Job, models.CASCADE, related_name="section_versions")
    section = models.CharField(max_length=160)
    version = models.PositiveIntegerField()

    class Meta:
        constraints = [models.UniqueConstraint(fields=["job", "section", "version"], name="versions_of_a_section")]
