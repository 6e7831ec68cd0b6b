import django.db.models.deletion
from django.conf import settings
from django.db import migrations, models

COPIED = ("low", "high", "resolution", "expanded", "k", "repeatability", "leaves_um", "calibrated", "due")


def one_certificate_a_gauge(apps, schema_editor):
    """What a gauge was good for stood on the gauge itself: that becomes its first certificate."""
    Gauge, Certificate = apps.get_model("toolbox", "Gauge"), apps.get_model("toolbox", "Certificate")
    for gauge in Gauge.objects.all():
        values = {name: getattr(gauge, name) for name in COPIED}
        gauge.current = Certificate.objects.create(gauge=gauge, number=gauge.certificate, **values)
        gauge.save(update_fields=["current"])


class Migration(migrations.Migration):
    dependencies = [migrations.swappable_dependency(settings.AUTH_USER_MODEL), ("toolbox", "0003_building")]

    operations = [
        migrations.CreateModel(
            name="Certificate",
            fields=[
                ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                ("low", models.FloatField()),
                ("high", models.FloatField()),
                ("resolution", models.FloatField()),
                ("expanded", models.FloatField()),
                ("k", models.FloatField()),
                ("repeatability", models.FloatField(blank=True, null=True)),
                ("number", models.CharField(blank=True, max_length=60)),
                ("leaves_um", models.JSONField(blank=True, default=list)),
                ("calibrated", models.DateField()),
                ("due", models.DateField()),
                ("at", models.DateTimeField(null=True)),
                ("by", models.ForeignKey(null=True, on_delete=django.db.models.deletion.PROTECT, related_name="+", to=settings.AUTH_USER_MODEL)),
                ("gauge", models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="certificates", to="toolbox.gauge")),
            ],
            options={"ordering": ["pk"]},
        ),
        migrations.AddField("gauge", "mark", models.CharField(blank=True, choices=[("point", "point"), ("comma", "comma")], max_length=10)),
        migrations.AddField("gauge", "current", models.OneToOneField(null=True, on_delete=django.db.models.deletion.PROTECT, related_name="+", to="toolbox.certificate")),
        migrations.RunPython(one_certificate_a_gauge, migrations.RunPython.noop),
        migrations.RemoveConstraint("gauge", "resolution_above_zero"),
        migrations.RemoveConstraint("gauge", "range_not_reversed"),
        migrations.RemoveConstraint("gauge", "certificate_makes_sense"),
        *(migrations.RemoveField("gauge", name) for name in (*COPIED, "certificate")),
        migrations.AddConstraint("certificate", models.CheckConstraint(condition=models.Q(("resolution__gt", 0)), name="resolution_above_zero")),
        migrations.AddConstraint("certificate", models.CheckConstraint(condition=models.Q(("low__lt", models.F("high"))), name="range_not_reversed")),
        migrations.AddConstraint("certificate", models.CheckConstraint(condition=models.Q(("expanded__gte", 0), ("k__gt", 0)), name="certificate_makes_sense")),
        migrations.CreateModel(
            name="WorksSettings",
            fields=[
                ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                ("decimal_mark", models.CharField(choices=[("point", "point"), ("comma", "comma")], default="point", max_length=10)),
                ("new_share", models.FloatField(default=0.1)),
                ("at", models.DateTimeField(null=True)),
                ("by", models.ForeignKey(null=True, on_delete=django.db.models.deletion.PROTECT, related_name="+", to=settings.AUTH_USER_MODEL)),
            ],
            options={
                "constraints": [
                    models.CheckConstraint(condition=models.Q(("pk", 1)), name="one_row"),
                    models.CheckConstraint(condition=models.Q(("new_share__gt", 0), ("new_share__lte", 1)), name="a_share"),
                ],
            },
        ),
    ]
