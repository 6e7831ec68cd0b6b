"""WSGI entry."""

import gc
import os
from importlib import import_module

from django.core.wsgi import get_wsgi_application

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "finegap.site.settings")
application = get_wsgi_application()
# Slow to import, and wanted by the first answer: read while the server starts, once for all its workers.
for wanted in ("scipy.optimize", "scipy.special", "finegap.site.urls"):
    import_module(wanted)
# What is there now stays: it is not looked through for garbage again, and its memory is shared by the workers.
gc.freeze()
