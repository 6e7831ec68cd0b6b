"""The log of PINs is the log of people."""

from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("people", "0001_initial")]

    operations = [
        migrations.RenameModel("PinEvent", "PersonEvent"),
        migrations.AlterField("personevent", "what", models.CharField(max_length=60)),
    ]
