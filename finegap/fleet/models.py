"""The pumps of the works."""

from django.db import models

from finegap.sheets.models import Sheet


class Pump(models.Model):
    """A pump with its sheet, its material of construction as the clearance table names it, and its duty."""

    tag = models.CharField(max_length=30, unique=True)
    service = models.CharField(max_length=120)
    location = models.CharField(max_length=120)
    serial = models.CharField(max_length=60)
    sheet = models.ForeignKey(Sheet, models.PROTECT, related_name="pumps")
    material = models.CharField(max_length=60)
    liquid = models.CharField(max_length=80)
    viscosity_typed = models.CharField(max_length=40)
    viscosity_mm2_s = models.FloatField()
    temperature_c = models.FloatField()
    casing_c = models.FloatField()
    pressure_bar = models.FloatField()
    speed_r_min = models.FloatField()

    class Meta:
        ordering = ["tag"]
        constraints = [
            models.CheckConstraint(condition=models.Q(viscosity_mm2_s__gt=0), name="viscosity_above_zero"),
            models.CheckConstraint(condition=models.Q(speed_r_min__gt=0), name="speed_above_zero"),
        ]

    def __str__(self) -> str:
        return self.tag
