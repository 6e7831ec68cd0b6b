"""Each mark keeps the words it was made under; those made before get the words of the procedure they were made to."""

import json
from pathlib import Path

from django.db import migrations, models

_THEN = Path(__file__).with_name("words_before_0015.json")


def say(apps, _editor):
    """The words of the families as they were before this migration, by step and by part."""
    then = json.loads(_THEN.read_text())
    marks = apps.get_model("bench", "StepMark")
    for family, texts in then["steps"].items():
        for step, text in texts.items():
            found = marks.objects.filter(step=step, words="", job__revision__content__family=family)
            found.update(words=text[:400])
    for stack, names in then["parts"].items():
        for part, name in names.items():
            apps.get_model("bench", "PartFitted").objects.filter(stack=stack, part=part, words="").update(words=name[:400])


class Migration(migrations.Migration):
    dependencies = [("bench", "0014_ended")]

    operations = [
        migrations.AddField("stepmark", "words", models.CharField(max_length=400, blank=True, default=""), preserve_default=False),
        migrations.AddField("partfitted", "words", models.CharField(max_length=400, blank=True, default=""), preserve_default=False),
        migrations.RunPython(say, migrations.RunPython.noop),
    ]
