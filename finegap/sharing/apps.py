from django.apps import AppConfig


class Config(AppConfig):
    name = "finegap.sharing"
    default_auto_field = "django.db.models.BigAutoField"
