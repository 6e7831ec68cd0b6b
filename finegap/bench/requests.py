"""What the bench is asked over HTTP, as it comes: a request is a field by field check, nothing more."""

from __future__ import annotations

from typing import Any

from rest_framework import serializers

from finegap.bench.services.striking import STRUCK_KINDS
from finegap.core.job_record import Decided, Phase
from finegap.site.api import Entered


class OpenJob(Entered):
    """A pump comes to the bench."""

    pump = serializers.CharField(max_length=30, allow_blank=True)
    reason = serializers.CharField(max_length=200, allow_blank=True)
    hours_run = serializers.CharField(max_length=20, allow_blank=True, default="")
    symptom = serializers.CharField(max_length=40, allow_blank=True, default="")


class Change(Entered):
    """What every change carries: how it was typed, the version it was made from, and the moment of the act with its zone.

    One that makes a record carries the record's identity, too.
    """

    version = serializers.IntegerField(min_value=1)
    at = serializers.CharField(max_length=40, help_text="ISO 8601 with the offset of the device's zone")


class MarkStep(Change):
    """A step done."""

    id = serializers.UUIDField()
    step = serializers.CharField(max_length=40)
    note = serializers.CharField(max_length=300, allow_blank=True, default="")
    skip = serializers.CharField(max_length=300, allow_blank=True, default="")
    past = serializers.CharField(max_length=300, allow_blank=True, default="", help_text="a lead's reason for doing it early")
    pin = serializers.CharField(max_length=20, allow_blank=True, default="", help_text="of a lead who overrides")


class SetDetails(Change):
    """What is put right of what has to be known; what is left out stays as it is."""

    serial = serializers.CharField(max_length=60, allow_blank=True, required=False)
    liquid = serializers.CharField(max_length=80, allow_blank=True, required=False)
    medium = serializers.CharField(max_length=40, allow_blank=True, required=False)
    hazards = serializers.CharField(max_length=200, allow_blank=True, required=False)
    viscosity = serializers.CharField(max_length=120, allow_blank=True, required=False)
    density = serializers.CharField(max_length=40, allow_blank=True, required=False)
    start = serializers.CharField(max_length=40, allow_blank=True, required=False)
    hot = serializers.CharField(max_length=40, allow_blank=True, required=False)
    temperature = serializers.CharField(max_length=40, allow_blank=True, required=False)
    casing = serializers.CharField(max_length=40, allow_blank=True, required=False)
    pressure = serializers.CharField(max_length=40, allow_blank=True, required=False)
    speed = serializers.CharField(max_length=20, allow_blank=True, required=False)
    hours_run = serializers.CharField(max_length=20, allow_blank=True, required=False)
    old_meter_last = serializers.CharField(max_length=20, allow_blank=True, required=False)
    new_meter_first = serializers.CharField(max_length=20, allow_blank=True, required=False)
    reason = serializers.CharField(max_length=200, allow_blank=True, required=False)
    symptom = serializers.CharField(max_length=40, allow_blank=True, required=False)
    place = serializers.CharField(max_length=10, allow_blank=True, required=False)
    room = serializers.CharField(max_length=200, allow_blank=True, required=False)
    build = serializers.DictField(child=serializers.CharField(max_length=40), required=False)


class SayOnHand(Change):
    """Whether things the job needs are on hand."""

    id = serializers.UUIDField()
    items = serializers.ListField(child=serializers.CharField(max_length=120, allow_blank=True), max_length=300)
    here = serializers.BooleanField()


class LookAt(Change):
    """What was seen on a part."""

    id = serializers.UUIDField()
    feature = serializers.CharField(max_length=40)
    phase = serializers.ChoiceField([p.value for p in Phase], default="found")
    damages = serializers.ListField(child=serializers.CharField(max_length=40), max_length=30)
    note = serializers.CharField(max_length=300, allow_blank=True, default="")


class RecordSet(Change):
    """A set of readings pasted from a spreadsheet."""

    id = serializers.UUIDField()
    feature = serializers.CharField(max_length=40)
    phase = serializers.ChoiceField([p.value for p in Phase], default="found")
    text = serializers.CharField(max_length=20_000, allow_blank=True, trim_whitespace=False)
    gauge = serializers.CharField(max_length=20, allow_blank=True)
    reason = serializers.CharField(max_length=200, allow_blank=True, default="")


class AttachPhoto(Change):
    """A photograph of a part or of a step."""

    id = serializers.UUIDField()
    feature = serializers.CharField(max_length=40, allow_blank=True, default="")
    step = serializers.CharField(max_length=40, allow_blank=True, default="")
    note = serializers.CharField(max_length=200, allow_blank=True, default="")
    file = serializers.FileField()


class RemovePhoto(Change):
    """A photograph taken off."""

    photo = serializers.UUIDField()


class PullReading(serializers.Serializer[Any]):
    """Which gauge is asked, where on which part it stands."""

    feature = serializers.CharField(max_length=40)
    station = serializers.CharField(max_length=40)
    gauge = serializers.CharField(max_length=20)


class Pulled(serializers.Serializer[Any]):
    """What the receiver sent, to be saved as if typed."""

    typed = serializers.CharField()
    note = serializers.CharField(allow_blank=True)


class RecordReading(Change):
    """A reading as typed."""

    id = serializers.UUIDField()
    feature = serializers.CharField(max_length=40)
    station = serializers.CharField(max_length=40)
    phase = serializers.ChoiceField([p.value for p in Phase], default="found")
    typed = serializers.CharField(max_length=40, allow_blank=True)
    gauge = serializers.CharField(max_length=20, allow_blank=True)
    stops = serializers.CharField(max_length=40, allow_blank=True, default="")
    part = serializers.CharField(max_length=20, allow_blank=True, default="")
    material = serializers.CharField(max_length=40, allow_blank=True, default="")
    taken = serializers.ChoiceField(["typed", "receiver"], default="typed")
    reason = serializers.CharField(max_length=200, allow_blank=True, default="")


class Decide(Change):
    """A decision."""

    id = serializers.UUIDField()
    feature = serializers.CharField(max_length=40)
    decided = serializers.ChoiceField([d.value for d in Decided])
    reason = serializers.CharField(max_length=300, allow_blank=True, default="")
    parts = serializers.ListField(child=serializers.CharField(max_length=40), max_length=2, default=list)


class ConfirmNew(Change):
    """A new part is in."""

    id = serializers.UUIDField()
    feature = serializers.CharField(max_length=40)


class ReadMeanwhile(Change):
    """What changed by itself was read."""


class FitPart(Change):
    """A part of a stack ticked."""

    id = serializers.UUIDField()
    stack = serializers.CharField(max_length=40)
    part = serializers.CharField(max_length=60)
    confirmed = serializers.BooleanField(default=False)
    reused = serializers.BooleanField(default=False)
    reason = serializers.CharField(max_length=300, allow_blank=True, default="")


class LogTorque(Change):
    """A torque as typed."""

    id = serializers.UUIDField()
    fastener = serializers.CharField(max_length=120)
    pass_number = serializers.IntegerField(min_value=1, max_value=9)
    bolts = serializers.ListField(child=serializers.IntegerField(min_value=1, max_value=99), max_length=99)
    typed = serializers.CharField(max_length=40, allow_blank=True)
    wrench = serializers.CharField(max_length=20, allow_blank=True)
    wrench_length = serializers.CharField(max_length=40, allow_blank=True, default="")
    adapter = serializers.CharField(max_length=40, allow_blank=True, default="")
    angle = serializers.CharField(max_length=40, allow_blank=True, default="")


class UseAtBench(Change):
    """What is on the bench at Build; what is left out stays as it is."""

    lubricant = serializers.CharField(max_length=40, allow_blank=True, required=False)
    gun = serializers.CharField(max_length=20, allow_blank=True, required=False)


class SetZero(Change):
    """Zero found."""

    id = serializers.UUIDField()
    school = serializers.CharField(max_length=40)
    lash = serializers.CharField(max_length=40, allow_blank=True, default="")
    lash_arc = serializers.CharField(max_length=40, allow_blank=True, default="")


class TryCheck(serializers.Serializer[Any]):
    """A check of one gap: a feeler pair, or a reading with a gauge."""

    goes = serializers.CharField(max_length=40, allow_blank=True, default="")
    stops = serializers.CharField(max_length=40, allow_blank=True, default="")
    read = serializers.CharField(max_length=40, allow_blank=True, default="")
    gauge = serializers.CharField(max_length=20, allow_blank=True, default="")


class RecordTry(Change):
    """A try at a gap: one check for each gap it asks for, in their order; one stack for each place."""

    id = serializers.UUIDField()
    moved = serializers.CharField(max_length=40, allow_blank=True, default="", help_text="by how much its means was moved")
    sets = serializers.ChoiceField(["gap", "mesh"], default="gap")
    way = serializers.CharField(max_length=20, allow_blank=True, default="", help_text="one of the two ways its means goes")
    stacks_um = serializers.ListField(
        child=serializers.ListField(child=serializers.IntegerField(max_value=100_000), max_length=60), max_length=2, default=list
    )
    checks = TryCheck(many=True)
    trial = serializers.BooleanField(default=False, help_text="what was opened is tightened for the check")
    opened = serializers.BooleanField(allow_null=True, default=None, help_text="whether the first try opened the pump")


class SeeProof(Change):
    """Something seen at a step."""

    id = serializers.UUIDField()
    step = serializers.CharField(max_length=40)
    seen = serializers.CharField(max_length=20)
    typed = serializers.CharField(max_length=60, allow_blank=True, default="")
    seconds = serializers.CharField(max_length=20, allow_blank=True, default="")
    places = serializers.ListField(child=serializers.CharField(max_length=2), max_length=12, default=list)


class NoteRunIn(Change):
    """A line of the run-in's log."""

    id = serializers.UUIDField()
    drops = serializers.CharField(max_length=20, allow_blank=True, default="")
    taps_s = serializers.ListField(child=serializers.FloatField(min_value=0, max_value=36_000), max_length=2000, default=list)
    box = serializers.CharField(max_length=40, allow_blank=True, default="")
    minute = serializers.CharField(max_length=20, allow_blank=True, default="")
    eighths = serializers.FloatField(min_value=-8, max_value=8, default=0)


class Sign(Change):
    """A signature."""

    id = serializers.UUIDField()
    reason = serializers.CharField(max_length=300, allow_blank=True, default="")
    pin = serializers.CharField(max_length=20, allow_blank=True)


class StrikeOut(Change):
    """A record struck out."""

    kind = serializers.ChoiceField(STRUCK_KINDS)
    record = serializers.UUIDField()
    reason = serializers.CharField(max_length=300, allow_blank=True)


class Abandon(Change):
    """A job given up."""

    id = serializers.UUIDField()
    reason = serializers.CharField(max_length=300, allow_blank=True)


class Amend(Change):
    """A signed job put right by a lead."""

    id = serializers.UUIDField()
    what = serializers.CharField(max_length=2000, allow_blank=True)
    reason = serializers.CharField(max_length=300, allow_blank=True)
    void = serializers.BooleanField(default=False)
    belongs_to = serializers.CharField(max_length=30, allow_blank=True, default="")
    pin = serializers.CharField(max_length=20, allow_blank=True)


class JobVersion(serializers.Serializer[Any]):
    """How far a job has come: its version, and how many amendments it has."""

    version = serializers.IntegerField()
