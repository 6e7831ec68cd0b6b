"""Everything recorded at the bench. Verdicts and moves are computed from it, never stored, until a signature freezes them."""

import lzma
from typing import Any, Self

from django.db import models

from finegap.bench.record import RECORD_VERSION, shown
from finegap.bench.recorded import STANDING, USER, InItsZone, M, Recorded, Strikeable
from finegap.inventory.models import Certificate, Gauge, GreaseGun
from finegap.pumps.models import DutyFields, Pump
from finegap.sheets.models import SheetRevision, ShopProcedure


class JobSet(models.QuerySet["Job"]):
    """Jobs."""

    def whole(self) -> Self:
        """With all that is shown of a job beside its records."""
        return self.select_related("pump", "revision__sheet", "opened_by", "procedure", "gun")


class Job(DutyFields):
    """One overhaul. ``version`` counts every change, so that a second person is told and nothing is overwritten.

    ``old_meter_last`` is the last reading of an hours meter replaced since the overhaul before; ``lubricant`` and ``gun`` are what
    is on the bench at Build. ``renewed`` is the version at which it was last decided which parts are new. ``verdicts`` are those
    last shown, of ``verdicts_version``, under what is outside the job then (``outside``); ``meanwhile`` are the sentences on those
    that changed by something else than an act at the bench, until read.
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

    objects = JobSet.as_manager()

    class Meta:
        ordering = ["-number"]

    def __str__(self) -> str:
        return f"Job {self.number}"


class StepMark(Recorded, Strikeable):
    """A step done, a caution acknowledged, or a step skipped with a reason, by name and time.

    ``past`` is a lead's reason for doing it before what must come before it, or for skipping what only a lead skips; ``own`` when
    that lead had worked on the job.
    """

    job = models.ForeignKey(Job, models.CASCADE, related_name="steps")
    step = models.CharField(max_length=40)
    note = models.CharField(max_length=300, blank=True)
    skipped = models.CharField(max_length=300, blank=True)
    past = models.CharField(max_length=300, blank=True)
    own = models.BooleanField(default=False)

    class Meta(Strikeable.Meta):
        constraints = [
            *Strikeable.Meta.constraints,
            models.UniqueConstraint(fields=["job", "step"], condition=STANDING, name="a_step_is_done_once"),
        ]


class Reading(Recorded, Strikeable):
    """One reading, as typed and as converted. Never erased: struck out with a reason.

    ``half_mm`` is half the interval between the leaf that goes and the one that does not; ``part_c`` and ``expansion_um_m_k`` are
    kept of a part not measured at 20 C. ``taken`` says how it came: typed, pasted, or from the receiver. ``understood`` is how a
    number with two meanings was taken, ``reason`` why an odd one is meant. ``certificate`` is the one it was taken under.
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


class OnHand(Recorded):
    """Whether something the job needs is on hand, before anything is opened."""

    job = models.ForeignKey(Job, models.CASCADE, related_name="on_hand")
    item = models.CharField(max_length=120)
    here = models.BooleanField()

    class Meta:
        constraints = [models.UniqueConstraint(fields=["job", "item"], name="one_line_an_item")]


class PartFitted(Recorded, Strikeable):
    """A part of a stack in place, in its turn. ``directions`` are what was confirmed of it, in words."""

    job = models.ForeignKey(Job, models.CASCADE, related_name="fitted")
    stack = models.CharField(max_length=40)
    part = models.CharField(max_length=60)
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


class ZeroFound(Recorded, Strikeable):
    """How zero was found, and the play; found anew it replaces the one before, which is struck out."""

    job = models.ForeignKey(Job, models.CASCADE, related_name="zeros")
    school = models.CharField(max_length=30)
    lash_mm = models.FloatField(default=0)
    lash_typed = models.CharField(max_length=60, blank=True)

    class Meta(Strikeable.Meta):
        ordering = ["at"]
        constraints = [
            *Strikeable.Meta.constraints,
            models.UniqueConstraint(fields=["job"], condition=STANDING, name="one_zero_a_job"),
            models.CheckConstraint(condition=models.Q(lash_mm__gte=0), name="lash_not_negative"),
        ]


class Try(Recorded, Strikeable):
    """A try: what was done. ``sets`` is the gap of the clearance table, or the mesh of a timing gear; one stack a place.

    ``moved`` is by how much the means was moved, with the sign it gives that (an arc in mm).

    ``opened`` when the pump was opened for it: what that takes apart is to be done again. ``trial`` when it was tightened for the
    check alone, not to its torque.
    """

    job = models.ForeignKey(Job, models.CASCADE, related_name="tries")
    sets = models.CharField(max_length=10, default="gap")
    number = models.PositiveIntegerField()
    moved = models.FloatField(null=True, blank=True)
    moved_typed = models.CharField(max_length=40, blank=True)
    stacks_um = models.JSONField(default=list)
    opened = models.BooleanField(default=False)
    trial = models.BooleanField(default=False)

    class Meta(Strikeable.Meta):
        ordering = ["sets", "number"]
        constraints = [
            *Strikeable.Meta.constraints,
            models.UniqueConstraint(fields=["job", "sets", "number"], name="tries_in_order"),
        ]


class TryCheck(models.Model):
    """What one check of a try read: a pair of feeler leaves, ``half_mm`` either side, or a gauge; of ``gap``, in ``order``."""

    made = models.ForeignKey(Try, models.CASCADE, related_name="checks")
    order = models.PositiveIntegerField(default=0)
    gap = models.CharField(max_length=20, default="gap")
    goes_typed = models.CharField(max_length=60, blank=True)
    stops_typed = models.CharField(max_length=60, blank=True)
    read_typed = models.CharField(max_length=60, blank=True)
    value_mm = models.FloatField()
    u_mm = models.FloatField()
    dof = models.FloatField(null=True, blank=True)
    half_mm = models.FloatField(default=0)
    gauge = models.ForeignKey(Gauge, models.PROTECT, related_name="+", null=True, blank=True)
    certificate = models.ForeignKey(Certificate, models.PROTECT, related_name="+", null=True, blank=True)
    gauge_overdue = models.BooleanField(default=False)

    class Meta:
        ordering = ["made", "order"]
        constraints = [models.UniqueConstraint(fields=["made", "order"], name="checks_in_order")]


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
    """A version of a section of a job (a part, a step, a stack; ``*`` is all of it): that of the change that touched it.

    A change to a section is refused where somebody else has changed it since it was read; changes to others do not matter to it.
    """

    job = models.ForeignKey(Job, models.CASCADE, related_name="section_versions")
    section = models.CharField(max_length=160)
    by = models.ForeignKey(USER, models.PROTECT, related_name="+")
    version = models.PositiveIntegerField()

    class Meta:
        constraints = [models.UniqueConstraint(fields=["job", "section", "version"], name="versions_of_a_section")]
