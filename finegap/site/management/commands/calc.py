"""Quick figures from the shell, for those who have ``manage.py`` at hand."""

from __future__ import annotations

import sys
from argparse import ArgumentParser
from typing import Any

from django.core.management.base import BaseCommand

from finegap import calc
from finegap.core.formatting import Units
from finegap.core.numerals import DecimalMark


class Command(BaseCommand):
    """``manage.py calc`` as Django lists and calls it; from the shell ``manage.py`` answers it before Django is started."""

    help = calc.HELP
    requires_system_checks: list[str] = []  # as Django declares it; a sum needs no database

    def add_arguments(self, parser: ArgumentParser) -> None:
        """A name, or the list."""
        calc.add_arguments(parser)

    def handle(self, *args: Any, **options: Any) -> None:
        """Print, or say on standard error what is wrong and leave with 2."""
        told, done = calc.answer(options["name"], options["list"], Units(options["units"]), DecimalMark(options["mark"]))
        (self.stdout if done else self.stderr).write(told)
        if not done:
            sys.exit(2)
