from django.apps import AppConfig


class Config(AppConfig):
    name = "finegap.due"
    default_auto_field = "django.db.models.BigAutoField"

    def ready(self) -> None:
        """Every connection notes what it changes, but while tables are made anew; after that all is looked at that is not known."""
        from finegap.audit.connections import on_every_connection
        from finegap.due.stale import install, mark_unknown, remove

        on_every_connection(self, install, remove, after=mark_unknown)
