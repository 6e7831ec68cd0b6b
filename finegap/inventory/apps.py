from django.apps import AppConfig


class Config(AppConfig):
    name = "finegap.inventory"
    label = "toolbox"  # its tables, and their migrations, were made under this name
    default_auto_field = "django.db.models.BigAutoField"

    def ready(self) -> None:
        """Listen for revisions."""
        import finegap.inventory.signals  # noqa: F401
