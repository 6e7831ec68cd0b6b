from django.apps import AppConfig


class Config(AppConfig):
    name = "finegap.audit"
    default_auto_field = "django.db.models.BigAutoField"

    def ready(self) -> None:
        """Every connection writes its changes down, but while tables are made anew."""
        from finegap.audit.connections import on_every_connection
        from finegap.audit.triggers import install, remove

        on_every_connection(self, install, remove)
