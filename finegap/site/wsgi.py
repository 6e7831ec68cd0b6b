"""WSGI entry."""

import os
from importlib import import_module

from django.core.wsgi import get_wsgi_application

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "finegap.site.settings")
# Slow to import, and wanted by the first job that is looked at: read while the server starts, not while somebody waits.
import_module("scipy.optimize")
application = get_wsgi_application()
