"""Signed records get their version, readings the certificate their gauge has now.

Records before this were told apart by their keys. That is done here for the last time.
"""

import django.db.models.deletion
from django.db import migrations, models


def version_of(record):
    """The version of a record stored before versions were kept; ``docs/decisions/0004`` lists them."""
    if "drawing" not in record:
        return 1
    if "building" not in record:
        return 2
    if "proving" not in record:
        return 3
    settings = [one for one in (record["setting"], record["mesh"]) if one]
    if "play" not in record["proving"] or any("proofs" in one for one in settings):
        return 4
    return 5


def stamp(apps, schema_editor):
    signatures = apps.get_model("bench", "SignOff")
    for pk in signatures.objects.values_list("pk", flat=True):
        record = signatures.objects.values_list("record", flat=True).get(pk=pk)
        signatures.objects.filter(pk=pk).update(record_version=version_of(record["mm"]))


def take_certificates(apps, schema_editor):
    """Which certificate held when an older reading was taken nobody kept: the one there is has to stand for it."""
    current = dict(apps.get_model("toolbox", "Gauge").objects.values_list("pk", "current"))
    for model, gauge in (("Reading", "gauge_id"), ("TryCheck", "gauge_id"), ("TorqueMark", "wrench_id")):
        rows = apps.get_model("bench", model).objects
        for key, certificate in current.items():
            rows.filter(**{gauge: key}).update(certificate_id=certificate)


CERTIFICATE = models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name="+", to="toolbox.certificate")


class Migration(migrations.Migration):
    dependencies = [("bench", "0007_truth")]

    operations = [
        *(migrations.RunPython(step, migrations.RunPython.noop) for step in (stamp, take_certificates)),
        migrations.AlterField("reading", "certificate", CERTIFICATE),
        migrations.AlterField("torquemark", "certificate", CERTIFICATE),
    ]
