from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("bench", "0016_record_nine")]

    operations = [migrations.AlterField("signoff", "record_version", models.PositiveSmallIntegerField(default=10))]
