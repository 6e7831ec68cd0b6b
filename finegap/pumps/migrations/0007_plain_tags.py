"""Tags that no address could reach get one that can be; what was signed keeps the old."""

from django.db import migrations


def plain_tags(apps, schema_editor):
    for app, model in (("fleet", "Pump"), ("toolbox", "Gauge"), ("toolbox", "GreaseGun")):
        rows = apps.get_model(app, model).objects
        for row in rows.all():
            kept = "".join(c if c.isprintable() and c not in "/\\?#%" else "-" for c in row.tag).strip() or "-"
            kept = kept.replace(".", "-") if not kept.strip(".") else kept
            if kept != row.tag:
                number = 1
                while rows.filter(tag=kept).exists():
                    number += 1
                    kept = f"{kept[:16]}-{number}"
                rows.filter(pk=row.pk).update(tag=kept)


class Migration(migrations.Migration):
    dependencies = [("fleet", "0006_truth"), ("toolbox", "0004_certificates_and_settings")]

    operations = [migrations.RunPython(plain_tags, migrations.RunPython.noop)]
