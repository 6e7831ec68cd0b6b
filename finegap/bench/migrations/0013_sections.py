"""Each section of a job has its own version; it was read out of the words of every event before."""

from itertools import islice

import django.db.models.deletion
from django.db import migrations, models


def to_sections(apps, schema_editor):
    """A version of each section that an event names."""
    event, section_version = apps.get_model("bench", "Event"), apps.get_model("bench", "SectionVersion")
    rows = (
        section_version(job_id=job, section=section, version=version)
        for job, version, about in event.objects.values_list("job", "version", "about").iterator()
        for section in set(about.split())
    )
    while chunk := list(islice(rows, 500)):
        section_version.objects.bulk_create(chunk)


class Migration(migrations.Migration):
    dependencies = [("bench", "0012_documents")]

    operations = [
        migrations.CreateModel(
            name="SectionVersion",
            fields=[
                ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                ("section", models.CharField(max_length=160)),
                ("version", models.PositiveIntegerField()),
                (
                    "job",
                    models.ForeignKey(
                        on_delete=django.db.models.deletion.CASCADE, related_name="section_versions", to="bench.job"
                    ),
                ),
            ],
            options={
                "constraints": [
                    models.UniqueConstraint(fields=("job", "section", "version"), name="versions_of_a_section")
                ]
            },
        ),
        migrations.RunPython(to_sections, migrations.RunPython.noop),
        migrations.RemoveField(model_name="event", name="about"),
    ]
