"""How a job ended stands in its own row, so that lists of open and signed jobs cost the same however many there are."""

from django.db import migrations, models


def to_ended(apps, schema_editor):
    """From signatures and abandonments."""
    job = apps.get_model("bench", "Job")
    job.objects.filter(sign_off__isnull=False).update(ended="signed")
    job.objects.filter(abandonment__isnull=False).update(ended="abandoned")


class Migration(migrations.Migration):
    dependencies = [("bench", "0013_sections")]

    operations = [
        migrations.AddField(
            model_name="job", name="ended", field=models.CharField(blank=True, default="", max_length=10), preserve_default=False
        ),
        migrations.RunPython(to_ended, migrations.RunPython.noop),
        migrations.AddIndex(model_name="job", index=models.Index(fields=["ended", "-number"], name="jobs_by_end")),
        migrations.AddIndex(model_name="job", index=models.Index(fields=["pump", "ended", "-number"], name="jobs_of_a_pump")),
    ]
