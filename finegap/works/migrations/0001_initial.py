import django.db.models.deletion
from django.conf import settings
from django.db import migrations, models


class Migration(migrations.Migration):
    """The row of settings comes here from the toolbox, as it is."""

    initial = True
    dependencies = [migrations.swappable_dependency(settings.AUTH_USER_MODEL), ("toolbox", "0006_settings_moved")]

    operations = [
        migrations.SeparateDatabaseAndState(
            state_operations=[
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
            ],
        ),
    ]
