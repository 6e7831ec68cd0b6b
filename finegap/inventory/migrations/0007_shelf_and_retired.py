import django.db.models.deletion
from django.conf import settings
from django.db import migrations, models


class Migration(migrations.Migration):
    """Shims are counted beside gaskets, and a gauge goes out of use without what it measured."""

    dependencies = [migrations.swappable_dependency(settings.AUTH_USER_MODEL), ("sheets", "__first__"), ("toolbox", "0006_settings_moved")]

    operations = [
        migrations.RenameModel("GasketStock", "ShelfLine"),
        migrations.AlterField("shelfline", "sheet", models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="shelf", to="sheets.sheet")),
        migrations.AddField("gauge", "retired", models.DateField(blank=True, null=True)),
        migrations.AddField("gauge", "retired_by", models.ForeignKey(blank=True, null=True, on_delete=django.db.models.deletion.PROTECT, related_name="+", to=settings.AUTH_USER_MODEL)),
    ]
