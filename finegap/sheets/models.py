"""What is kept of spec sheets: one line of sheets for a pump size, each revision whole and unchanged."""

from django.conf import settings
from django.db import models


class Sheet(models.Model):
    """A spec sheet through its revisions."""

    slug = models.SlugField(unique=True, max_length=80)
    title = models.CharField(max_length=120)

    def __str__(self) -> str:
        return self.title


class ShopProcedure(models.Model):
    """A family's procedure as this shop follows it, one row a version; never edited, so that a job keeps the one it went by.

    ``conventions`` are its choices where practitioners differ, by key.
    """

    family = models.CharField(max_length=40)
    version = models.PositiveIntegerField()
    steps = models.JSONField()
    conventions = models.JSONField(default=dict)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, models.PROTECT, related_name="+")
    at = models.DateTimeField()

    class Meta:
        ordering = ["family", "-version"]
        constraints = [models.UniqueConstraint(fields=["family", "version"], name="one_of_each_procedure_version")]

    def __str__(self) -> str:
        return f"{self.family}, version {self.version}"


class SheetRevision(models.Model):
    """One revision. Once it is read against the manual it is never edited: a correction is a new revision.

    ``typed`` says who typed each line and when: ``{path: {"by": [user], "at": ISO time}}``; under the path ``""`` for all others.
    It is ``read_at`` when the last of its lines was read; ``read_alone`` where that was by the one who typed it. Those added
    ``before_reading`` was asked for count as they did. ``edition`` counts how often it was put right before it was read.
    """

    sheet = models.ForeignKey(Sheet, models.PROTECT, related_name="revisions")
    revision = models.CharField(max_length=20)
    date = models.DateField()
    content = models.JSONField()
    added_by = models.ForeignKey(settings.AUTH_USER_MODEL, models.PROTECT)
    added_at = models.DateTimeField()
    typed = models.JSONField(default=dict)
    edition = models.PositiveIntegerField(default=0)
    corrects = models.ForeignKey("self", models.PROTECT, related_name="corrected", null=True, blank=True)
    read_at = models.DateTimeField(null=True, blank=True)
    read_names = models.CharField(max_length=400, blank=True)
    read_alone = models.BooleanField(default=False)
    before_reading = models.BooleanField(default=False)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["sheet", "revision"], name="one_of_each_revision")]
        ordering = ["sheet", "-date", "-id"]

    def __str__(self) -> str:
        return f"{self.sheet}, revision {self.revision}"

    @property
    def may_be_signed_on(self) -> bool:
        """It was read against the manual, or is older than that was asked for."""
        return self.read_at is not None or self.before_reading


class LineRead(models.Model):
    """A line of a revision that somebody read against the manual: what it said then, and whether the manual says the same.

    It counts while the line still says that.
    """

    revision = models.ForeignKey(SheetRevision, models.CASCADE, related_name="lines_read")
    path = models.CharField(max_length=160)
    said = models.CharField(max_length=64)
    agrees = models.BooleanField()
    note = models.CharField(max_length=200, blank=True)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, models.PROTECT, related_name="+")
    at = models.DateTimeField()

    class Meta:
        ordering = ["pk"]
        constraints = [models.UniqueConstraint(fields=["revision", "path"], name="one_reading_a_line")]

    def __str__(self) -> str:
        return f"{self.path} of {self.revision}"


class SheetDraft(models.Model):
    """A sheet that is being typed. ``content`` holds the texts (``core/typed_sheet/draft``), ``typed`` who typed each and when.

    It becomes a new sheet, or a revision of ``sheet``; it was begun from ``base``. ``purpose`` says what for.
    """

    sheet = models.ForeignKey(Sheet, models.PROTECT, related_name="drafts", null=True, blank=True)
    base = models.ForeignKey(SheetRevision, models.PROTECT, related_name="drafts", null=True, blank=True)
    purpose = models.CharField(max_length=12)
    title = models.CharField(max_length=120, blank=True)
    content = models.JSONField()
    typed = models.JSONField(default=dict)
    version = models.PositiveIntegerField(default=1)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, models.PROTECT, related_name="+")
    begun_at = models.DateTimeField()
    saved_at = models.DateTimeField()

    class Meta:
        ordering = ["-saved_at", "-pk"]

    def __str__(self) -> str:
        return self.title or f"draft {self.pk}"


class ManualPage(models.Model):
    """A page of the manual, as a picture or a PDF: beside the typing, and then with the revision."""

    id = models.UUIDField(primary_key=True)
    draft = models.ForeignKey(SheetDraft, models.CASCADE, related_name="pages", null=True, blank=True)
    revision = models.ForeignKey(SheetRevision, models.CASCADE, related_name="pages", null=True, blank=True)
    name = models.CharField(max_length=120)
    kind = models.CharField(max_length=20)
    file = models.FileField(upload_to="manual")
    by = models.ForeignKey(settings.AUTH_USER_MODEL, models.PROTECT, related_name="+")
    at = models.DateTimeField()

    class Meta:
        ordering = ["at"]

    def __str__(self) -> str:
        return self.name
