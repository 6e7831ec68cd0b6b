"""PINs, hashed like passwords, and the log of people."""

from django.conf import settings
from django.db import models


class Pin(models.Model):
    """A person's PIN. ``wrong`` counts the wrong tries since the last right one; ``locked_until`` ends a pause after too many."""

    person = models.OneToOneField(settings.AUTH_USER_MODEL, models.CASCADE, related_name="pin")
    hashed = models.CharField(max_length=200, blank=True)
    wrong = models.PositiveIntegerField(default=0)
    locked_until = models.DateTimeField(null=True, blank=True)


class PersonEvent(models.Model):
    """A line of the log of people: added, made lead, PIN set, cleared, locked; never a secret itself."""

    person = models.ForeignKey(settings.AUTH_USER_MODEL, models.PROTECT, related_name="+")
    by = models.ForeignKey(settings.AUTH_USER_MODEL, models.PROTECT, related_name="+")
    at = models.DateTimeField()
    what = models.CharField(max_length=60)

    class Meta:
        ordering = ["-at"]
