"""A record becomes a document in bytes; what lists need of it becomes columns."""

import json
import lzma

from django.db import migrations, models


def to_documents(apps, schema_editor):
    """The very text that was stored is kept, compressed; the columns are read from it once."""
    table = "bench_signoff"
    with schema_editor.connection.cursor() as cursor:
        cursor.execute(f"SELECT id, record FROM {table}")
        rows = cursor.fetchall()
        for key, text in rows:
            record = json.loads(text)
            verdicts, gaps = columns_of(record)
            cursor.execute(
                f"UPDATE {table} SET document = %s, gap_mm = %s, gap_in = %s, verdicts = %s WHERE id = %s",
                [lzma.compress(text.encode(), format=lzma.FORMAT_ALONE, preset=9), *gaps, json.dumps(verdicts), key],
            )


def columns_of(record):
    """How many parts got which verdict, and what gap was left, in mm and in inches: nothing where there was none."""
    verdicts, gaps = {}, []
    for units in ("mm", "in"):
        setting = record.get(units, {}).get("setting")
        gaps.append(setting["tries"][-1]["gap"][:60] if setting and setting["tries"] else "")
    for feature in record.get("mm", {}).get("features", []):
        judged = feature.get("judged") or (feature.get("found") or {}).get("verdict")
        if judged:
            verdicts[judged["call"]] = verdicts.get(judged["call"], 0) + 1
    return verdicts, gaps


class Migration(migrations.Migration):
    dependencies = [("bench", "0011_moved")]

    operations = [
        migrations.AddField("signoff", "document", models.BinaryField(default=b"")),
        migrations.AddField("signoff", "gap_mm", models.CharField(max_length=60, blank=True, default="")),
        migrations.AddField("signoff", "gap_in", models.CharField(max_length=60, blank=True, default="")),
        migrations.AddField("signoff", "verdicts", models.JSONField(default=dict)),
        migrations.RunPython(to_documents, migrations.RunPython.noop),
        migrations.RemoveField("signoff", "record"),
        migrations.AlterField("signoff", "document", models.BinaryField()),
        migrations.AlterField("signoff", "gap_mm", models.CharField(max_length=60, blank=True)),
        migrations.AlterField("signoff", "gap_in", models.CharField(max_length=60, blank=True)),
        migrations.AlterField("signoff", "record_version", models.PositiveSmallIntegerField(default=8)),
    ]
