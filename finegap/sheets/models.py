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
    """One revision, as it was read: never edited, a correction is a new revision."""

    sheet = models.ForeignKey(Sheet, models.PROTECT, related_name="revisions")
    revision = models.CharField(max_length=20)
    date = models.DateField()
    content = models.JSONField()
    added_by = models.ForeignKey(settings.AUTH_USER_MODEL, models.PROTECT)
    added_at = models.DateTimeField()

    class Meta:
        constraints = [models.UniqueConstraint(fields=["sheet", "revision"], name="one_of_each_revision")]
        ordering = ["sheet", "-date", "-id"]

    def __str__(self) -> str:
        return f"{self.sheet}, revision {self.revision}"
