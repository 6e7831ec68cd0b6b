from django.apps import AppConfig


class Config(AppConfig):
    name = "finegap.site"
    label = "finegap_site"

    def ready(self) -> None:
        """Make the schema's extension known."""
        import finegap.api.schema  # noqa: F401
