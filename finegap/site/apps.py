from django.apps import AppConfig


class Config(AppConfig):
    name = "finegap.site"
    label = "finegap_site"
