#!/usr/bin/env python3
"""Django's command line for Fine Gap."""

import os
import sys

if __name__ == "__main__":
    if sys.argv[1:2] == ["calc"]:
        # A sum needs no Django, whose start takes most of the time.
        from finegap.calc import main

        sys.exit(main(sys.argv[2:]))
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "finegap.site.settings")
    from django.core.management import execute_from_command_line

    execute_from_command_line(sys.argv)
