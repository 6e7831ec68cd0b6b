"""The pumps of the works."""

import secrets
from typing import Any

from django.conf import settings
from django.db import models

from finegap.core.formatting import Units
from finegap.core.numerals import DecimalMark
from finegap.core.wear.hours import Counts
from finegap.core.wear.lives import Instead
from finegap.sheets.models import Sheet


class DutyFields(models.Model):
    """What a pump does, and of what it is made, as the clearance table names it. A job keeps the duty it was opened with.

    ``build`` holds the choices in which this pump differs from its sheet, by option of the family; ``medium`` is the kind of liquid
    as the table of elastomers knows it; ``start_c`` and ``hot_c`` are its coldest start and hottest running. ``viscosity_units``
    and ``viscosity_mark`` are those its viscosity was typed with: it is read with them again whenever temperature or density
    change.
    """

    material = models.CharField(max_length=60)
    liquid = models.CharField(max_length=80)
    medium = models.CharField(max_length=40, blank=True)
    viscosity_typed = models.CharField(max_length=120)
    viscosity_mm2_s = models.FloatField()
    viscosity_units = models.CharField(max_length=2, default=Units.MM.value)
    viscosity_mark = models.CharField(max_length=10, default=DecimalMark.POINT.value)
    temperature_c = models.FloatField()
    casing_c = models.FloatField()
    start_c = models.FloatField(null=True, blank=True)
    hot_c = models.FloatField(null=True, blank=True)
    density_kg_m3 = models.FloatField(null=True, blank=True)
    pressure_bar = models.FloatField()
    speed_r_min = models.FloatField()
    hazards = models.CharField(max_length=200, blank=True)
    build = models.JSONField(default=dict, blank=True)

    class Meta:
        abstract = True

    def duty(self) -> dict[str, Any]:
        """The duty by field."""
        return {field.name: getattr(self, field.name) for field in DutyFields._meta.local_fields}


CODE_LETTERS = "23456789ABCDEFGHJKMNPQRSTVWXYZ"
"""Letters of a label's code: none that is taken for another when it is read aloud or typed off a worn label."""
CODE_LENGTH = 6


def new_code() -> str:
    """A code for a pump's label: 30^6 of them, so that nobody comes to another's page by a slip of one letter."""
    return "".join(secrets.choice(CODE_LETTERS) for _ in range(CODE_LENGTH))


class Pump(DutyFields):
    """A pump with its sheet and its duty. ``hours_per_week`` only where the meter does not tell it; ``wet``: a wet place.

    One that is ``retired`` comes to the bench no more; what was done on it stands. One that is ``lent`` is somewhere else and
    belongs here. ``code`` is what its label carries: tags are given anew, a label stays on its pump. ``counts`` is what its meter
    counts, ``per_hour`` how many of that are an hour of running.
    """

    tag = models.CharField(max_length=30, unique=True)
    code = models.CharField(max_length=CODE_LENGTH, unique=True, default=new_code)
    service = models.CharField(max_length=120)
    location = models.CharField(max_length=120)
    serial = models.CharField(max_length=60)
    sheet = models.ForeignKey(Sheet, models.PROTECT, related_name="pumps")
    overhaul_every_h = models.PositiveIntegerField(null=True, blank=True)
    hours_per_week = models.FloatField(null=True, blank=True)
    wet = models.BooleanField(default=False)
    counts = models.CharField(max_length=10, default=Counts.HOURS.value, choices=[(c.value, c.value) for c in Counts])
    per_hour = models.FloatField(null=True, blank=True)
    lent = models.BooleanField(default=False)
    version = models.PositiveIntegerField(default=1)
    retired = models.DateField(null=True, blank=True)
    retired_by = models.ForeignKey(settings.AUTH_USER_MODEL, models.PROTECT, related_name="+", null=True, blank=True)

    class Meta:
        ordering = ["tag"]
        constraints = [
            models.CheckConstraint(condition=models.Q(viscosity_mm2_s__gt=0), name="viscosity_above_zero"),
            models.CheckConstraint(condition=models.Q(speed_r_min__gt=0), name="speed_above_zero"),
            models.CheckConstraint(
                condition=models.Q(counts=Counts.HOURS.value, per_hour__isnull=True)
                | (~models.Q(counts=Counts.HOURS.value) & models.Q(per_hour__gt=0)),
                name="what_is_counted_makes_hours",
            ),
        ]
        indexes = [
            models.Index(fields=["location"], name="pump_by_place"),  # the fleet in the order of places
            # Words are looked for in the index: the rows of all pumps are not read for them. The same fields as PUMP_FIELDS.
            models.Index(fields=["tag", "service", "location", "serial"], name="pump_found"),
        ]

    def __str__(self) -> str:
        return self.tag


PUMP_FIELDS = ("tag", "service", "location", "serial")
"""Where the words are looked for by which a pump is found."""


class Logged(models.Model):
    """By whom and when, under an identity from the client; ``sent`` is a digest of what came with it. Struck out with a reason."""

    id = models.UUIDField(primary_key=True)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, models.PROTECT, related_name="+")
    at = models.DateTimeField()
    sent = models.CharField(max_length=64, blank=True)
    struck_by = models.ForeignKey(settings.AUTH_USER_MODEL, models.PROTECT, related_name="+", null=True, blank=True)
    struck_reason = models.CharField(max_length=200, blank=True)

    class Meta:
        abstract = True


class MeterReading(Logged):
    """The meter of a pump as somebody read it, in hours, between overhauls. A slip is struck out, never erased.

    ``old_last`` is the last reading of a meter that was replaced since the reading before, ``new_first`` what the new one began at.
    ``read`` is what stood on a meter that counts something else than hours.
    """

    pump = models.ForeignKey(Pump, models.CASCADE, related_name="meter")
    hours = models.PositiveIntegerField()
    old_last = models.PositiveIntegerField(null=True, blank=True)
    new_first = models.PositiveIntegerField(default=0)
    day = models.DateField()
    read = models.CharField(max_length=60, blank=True)

    class Meta:
        ordering = ["day", "at"]


class Lubricated(Logged):
    """Oil or grease done, by its name on the sheet, at so many hours of the meter."""

    pump = models.ForeignKey(Pump, models.CASCADE, related_name="lubricated")
    name = models.CharField(max_length=120)
    hours = models.PositiveIntegerField()

    class Meta:
        ordering = ["at"]


class EarlierOverhaul(Logged):
    """An overhaul from before this record was kept, from the works' own books: its day, its hours, and where that is written.

    ``pressure_bar`` and ``speed_r_min`` are what the pump ran at before it, as far as anybody knows.
    """

    pump = models.ForeignKey(Pump, models.CASCADE, related_name="earlier")
    day = models.DateField()
    hours = models.PositiveIntegerField()
    pressure_bar = models.FloatField()
    speed_r_min = models.FloatField()
    source = models.CharField(max_length=120)

    class Meta:
        ordering = ["day", "at"]


class EarlierSize(models.Model):
    """A size from an earlier overhaul, in mm, with what is known of its uncertainty from the digits it is written with."""

    overhaul = models.ForeignKey(EarlierOverhaul, models.CASCADE, related_name="sizes")
    feature = models.CharField(max_length=40)
    found_mm = models.FloatField(null=True, blank=True)
    found_u_mm = models.FloatField(null=True, blank=True)
    left_mm = models.FloatField(null=True, blank=True)
    left_u_mm = models.FloatField(null=True, blank=True)
    changed = models.BooleanField()

    class Meta:
        constraints = [models.UniqueConstraint(fields=["overhaul", "feature"], name="one_earlier_size_a_feature")]

    def __str__(self) -> str:
        return f"{self.feature} at {self.overhaul_id}"


class Moved(Logged):
    """A pump went from one place to another, on a day; or its place was put right. ``lent`` until it is ``back``, as agreed."""

    pump = models.ForeignKey(Pump, models.CASCADE, related_name="moves")
    was = models.CharField(max_length=120)
    to = models.CharField(max_length=120)
    day = models.DateField()
    note = models.CharField(max_length=200, blank=True)
    lent = models.BooleanField(default=False)
    back = models.DateField(null=True, blank=True)

    class Meta:
        ordering = ["day", "at"]


class PartMoved(Logged):
    """A part of a pump went into another, with the wear it has: the ``features`` that are measured of it, on a day.

    ``hours`` is what the meter of ``pump``, which gave it, showed then, ``hours_there`` that of ``taker``. ``instead`` is what
    took its place: a new part, or one nobody knows the life of, or nothing yet. ``work`` and ``work_there`` are pressure times
    speed of either pump until then [bar r/min].
    """

    pump = models.ForeignKey(Pump, models.CASCADE, related_name="given")
    taker = models.ForeignKey(Pump, models.CASCADE, related_name="taken")
    part = models.CharField(max_length=80)
    features = models.JSONField()
    day = models.DateField()
    hours = models.PositiveIntegerField()
    hours_there = models.PositiveIntegerField()
    work = models.FloatField()
    work_there = models.FloatField()
    instead = models.CharField(max_length=10, choices=[(i.value, i.value) for i in Instead])
    note = models.CharField(max_length=200, blank=True)

    class Meta:
        ordering = ["day", "at"]
        constraints = [models.CheckConstraint(condition=~models.Q(pump=models.F("taker")), name="a_part_goes_to_another_pump")]


class PumpNote(Logged):
    """What somebody wants the next one at this pump to know."""

    pump = models.ForeignKey(Pump, models.CASCADE, related_name="notes")
    text = models.CharField(max_length=1000)

    class Meta:
        ordering = ["at"]


class PumpDocument(Logged):
    """A paper of a pump: a certificate, a drawing, a page somebody photographed. ``kind`` is pdf or jpeg."""

    pump = models.ForeignKey(Pump, models.CASCADE, related_name="documents")
    name = models.CharField(max_length=120)
    kind = models.CharField(max_length=4)
    size = models.PositiveIntegerField()
    file = models.FileField(upload_to="pumps/")

    class Meta:
        ordering = ["at"]
