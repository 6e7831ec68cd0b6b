from django.db import migrations, models

_NAME = "ten_strokes_weigh_something"


class Migration(migrations.Migration):
    """The unit is in the name."""

    dependencies = [("toolbox", "0004_certificates_and_settings")]

    operations = [
        migrations.RemoveConstraint("greasegun", _NAME),
        migrations.RenameField("greasegun", "ten_g", "grams_per_ten_strokes"),
        migrations.AddConstraint(
            "greasegun", models.CheckConstraint(condition=models.Q(grams_per_ten_strokes__gt=0), name=_NAME)
        ),
    ]
