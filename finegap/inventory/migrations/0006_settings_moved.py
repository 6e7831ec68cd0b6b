from django.db import migrations


class Migration(migrations.Migration):
    """The row of settings goes to the works, as it is."""

    dependencies = [("toolbox", "0005_grams")]

    operations = [
        migrations.SeparateDatabaseAndState(
            database_operations=[migrations.AlterModelTable("WorksSettings", "works_workssettings")],
            state_operations=[migrations.DeleteModel("WorksSettings")],
        ),
    ]
