from django.db import migrations


class Migration(migrations.Migration):
    """An arc is what two means are moved by; others have another quantity, or none."""

    dependencies = [("bench", "0010_renewed")]

    operations = [
        migrations.RenameField("try", "arc_mm", "moved"),
        migrations.RenameField("try", "arc_typed", "moved_typed"),
    ]
