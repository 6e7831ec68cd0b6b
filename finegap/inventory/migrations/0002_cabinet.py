from django.db import migrations, models

from finegap.core.gauges import GaugeKind

_KINDS = [k.value for k in GaugeKind]


class Migration(migrations.Migration):
    dependencies = [("toolbox", "0001_initial")]

    operations = [
        migrations.RemoveConstraint("gauge", "resolution_above_zero"),
        migrations.RemoveConstraint("gauge", "range_not_reversed"),
        migrations.RemoveConstraint("gauge", "certificate_makes_sense"),
        migrations.RemoveConstraint("gauge", "kind_is_known"),
        migrations.RenameField("gauge", "low_mm", "low"),
        migrations.RenameField("gauge", "high_mm", "high"),
        migrations.RenameField("gauge", "resolution_mm", "resolution"),
        migrations.RenameField("gauge", "expanded_mm", "expanded"),
        migrations.RenameField("gauge", "repeatability_mm", "repeatability"),
        migrations.AddField("gauge", "certificate", models.CharField(blank=True, max_length=60, default=""), preserve_default=False),
        migrations.AddField("gauge", "leaves_um", models.JSONField(blank=True, default=list)),
        migrations.AlterField("gauge", "kind", models.CharField(choices=[(k, k) for k in _KINDS], max_length=60)),
        migrations.AddConstraint(
            "gauge", models.CheckConstraint(condition=models.Q(resolution__gt=0), name="resolution_above_zero")
        ),
        migrations.AddConstraint("gauge", models.CheckConstraint(condition=models.Q(kind__in=_KINDS), name="kind_is_known")),
        migrations.AddConstraint(
            "gauge", models.CheckConstraint(condition=models.Q(low__lt=models.F("high")), name="range_not_reversed")
        ),
        migrations.AddConstraint(
            "gauge", models.CheckConstraint(condition=models.Q(expanded__gte=0, k__gt=0), name="certificate_makes_sense")
        ),
    ]
