"""Jobs signed before sizes were kept on record: their sizes are read out of what the signature froze."""

from django.db import migrations


def keep_sizes(apps, schema_editor):
    sizes = apps.get_model("bench", "SizeOnRecord")
    for signature in apps.get_model("bench", "SignOff").objects.all():
        features = signature.record["mm"]["features"]
        changed = {f["key"] for f in features if f["decision"] and f["decision"]["decided"] == "change"}
        changed |= {part for f in features if f["key"] in changed for part in f["parts"]}
        for feature in features:
            row = sizes(job_id=signature.job_id, feature=feature["key"])
            row.changed = feature["key"] in changed or bool(changed & set(feature["parts"]))
            for phase in ("found", "left"):
                if feature[phase]:
                    setattr(row, f"{phase}_mm", feature[phase]["value_mm"])
                    # U was frozen, u was not: k is near 2 for all but very few repeats
                    setattr(row, f"{phase}_u_mm", feature[phase]["expanded_mm"] / 2)
            row.save()


class Migration(migrations.Migration):
    dependencies = [("bench", "0002_inspection_whole")]

    operations = [migrations.RunPython(keep_sizes, migrations.RunPython.noop)]
