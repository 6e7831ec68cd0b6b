from django.apps import AppConfig


class Config(AppConfig):
    name = "finegap.pumps"
    label = "fleet"
    default_auto_field = "django.db.models.BigAutoField"
