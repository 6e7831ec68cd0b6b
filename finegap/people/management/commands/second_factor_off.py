"""Take a second factor off at the server, for a lead whose telephone and paper are lost and who has no other lead to ask."""

from __future__ import annotations

from typing import Any

from django.contrib.auth.models import User
from django.core.management.base import BaseCommand, CommandError, CommandParser

from finegap.people.second_factor import has_second, remove


class Command(BaseCommand):
    """``fine-gap manage second_factor_off NAME``."""

    help = "Take somebody's second factor off."

    def add_arguments(self, parser: CommandParser) -> None:
        """Whose."""
        parser.add_argument("username")

    def handle(self, *args: Any, username: str, **options: Any) -> None:
        """Take it off; the log of people says so."""
        person = User.objects.filter(username=username).first()
        if person is None or not has_second(person):
            raise CommandError(f"{username} has no second factor.")
        remove(person, person, "second factor taken off at the server")
        self.stdout.write(f"{username} signs in with the password alone now.")
