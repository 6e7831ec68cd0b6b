from django.apps import AppConfig
from django.contrib.auth.signals import user_logged_in


class Config(AppConfig):
    name = "finegap.site"
    label = "finegap_site"

    def ready(self) -> None:
        """Make the schema's extension known; whoever signs in lets go what is not kept for ever."""
        import finegap.api.schema  # noqa: F401
        from finegap.bench.services.retention import let_go

        user_logged_in.connect(lambda **_: let_go(), dispatch_uid="let_go", weak=False)
