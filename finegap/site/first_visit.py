"""The first visit of an empty works: who can read what the server printed makes the first lead."""

from __future__ import annotations

import os
import secrets
from typing import Any

from django import forms
from django.conf import settings
from django.contrib.auth import login
from django.db import transaction
from django.http import HttpRequest, HttpResponse, HttpResponseRedirect
from django.shortcuts import render
from django.utils import timezone
from django.views import View

from finegap.api.errors import Refused
from finegap.core.entry import Entry
from finegap.core.errors import FieldError
from finegap.core.numerals import DecimalMark
from finegap.formats.days import DateForm, time_zones, written
from finegap.people.changes import AddPerson
from finegap.people.services import first_lead, is_empty
from finegap.people.sign_in import BACKEND
from finegap.works.changes import KeepSettings
from finegap.works.services import keep_settings

CODE = settings.VAR / "first_visit"
_LETTERS = "abcdefghjkmnpqrstuvwxyz23456789"
"""None that is taken for another."""
_LENGTH = 8


def code() -> str:
    """The code of the first visit: made once, readable by whoever runs the server alone."""
    if not CODE.exists():
        descriptor = os.open(CODE, os.O_WRONLY | os.O_CREAT | os.O_EXCL, 0o600)
        with os.fdopen(descriptor, "w") as file:
            file.write("".join(secrets.choice(_LETTERS) for _ in range(_LENGTH)))
    return CODE.read_text()


_OF_PERSON = 6
"""How many questions are of the first lead."""


def _days() -> list[tuple[str, str]]:
    return [(form.value, written(timezone.localdate(), form)) for form in DateForm]


def _zones() -> list[tuple[str, str]]:
    return [(name, name.replace("_", " ")) for name in time_zones()]


class FirstVisitForm(forms.Form):
    """The code, the first lead, and what the works decides for itself to begin with."""

    code = forms.CharField(label="The code the server printed", max_length=40)
    first_name = forms.CharField(label="Your first name", max_length=60)
    last_name = forms.CharField(label="Your last name", max_length=60, required=False)
    username = forms.CharField(label="Name to sign in with", max_length=150)
    password = forms.CharField(label="Password", max_length=200, strip=False, widget=forms.PasswordInput(render_value=True))
    again = forms.CharField(label="The same again", max_length=200, strip=False, widget=forms.PasswordInput(render_value=True))
    name = forms.CharField(label="What this works is called", max_length=80)
    lengths = forms.ChoiceField(
        label="Lengths are shown in",
        choices=[("mm", "millimetres"), ("in", "inches"), ("thou", "thousandths of an inch")],
        help_text="Millimetres are one key away from either of the others.",
    )
    decimal_mark = forms.ChoiceField(
        label="Decimal mark", choices=[(DecimalMark.POINT.value, "a point: 0.15"), (DecimalMark.COMMA.value, "a comma: 0,15")]
    )
    date_form = forms.ChoiceField(label="Days are written", choices=_days)
    time_zone = forms.ChoiceField(label="Time zone", choices=_zones, initial="UTC")
    paper = forms.ChoiceField(label="Paper", choices=[("A4", "A4"), ("Letter", "Letter")])
    currency = forms.CharField(label="Currency of prices, such as EUR", max_length=12, required=False)
    school = forms.ChoiceField(
        label="Near a limit, the doubt of a gauge",
        choices=[("guarded", "counts against the part"), ("plain", "does not count")],
        help_text="A spec sheet may say otherwise. The first is by ISO 14253-1.",
    )

    @property
    def person(self) -> list[forms.BoundField]:
        """What is asked of the first lead."""
        return list(self)[:_OF_PERSON]

    @property
    def works(self) -> list[forms.BoundField]:
        """What is asked of the works."""
        return list(self)[_OF_PERSON:]

    def clean_code(self) -> str:
        """As it was printed."""
        given: str = self.cleaned_data["code"].strip().lower()
        if not secrets.compare_digest(given.encode(), code().encode()):
            raise forms.ValidationError("It is not the one that was printed. Look where the server was started.")
        return given

    def clean(self) -> dict[str, Any]:
        """The password twice."""
        given = super().clean() or {}
        if given.get("password") != given.get("again"):
            self.add_error("again", "The two are not the same.")
        return given


class FirstVisit(View):
    """Makes the first lead, once."""

    def get(self, request: HttpRequest) -> HttpResponse:
        """The page; where there are people it is the way to sign in."""
        return self._page(request, FirstVisitForm()) if is_empty() else HttpResponseRedirect("/")

    def post(self, request: HttpRequest) -> HttpResponse:
        """The first lead, signed in."""
        if not is_empty():
            return HttpResponseRedirect("/")  # pressed twice: to the bench, or to sign in for anybody else
        form = FirstVisitForm(request.POST)
        if not form.is_valid():
            return self._page(request, form)
        given = form.cleaned_data
        try:
            with transaction.atomic():
                lead = first_lead(AddPerson(given["username"], given["first_name"], given["last_name"], "lead", given["password"]))
                keep_settings(lead, _settings(given), Entry())
        except FieldError as wrong:
            field = {"password": "password", "first name": "first_name", "currency": "currency"}.get(wrong.field, "username")
            form.add_error(field, f"{wrong.problem[:1].upper()}{wrong.problem[1:]} {wrong.hint}")
            return self._page(request, form)
        except Refused:
            return HttpResponseRedirect("/")
        CODE.unlink(missing_ok=True)
        login(request, lead, BACKEND)
        return HttpResponseRedirect("/")

    @staticmethod
    def _page(request: HttpRequest, form: FirstVisitForm) -> HttpResponse:
        return render(request, "site/first_visit.html", {"form": form}, status=200 if not form.errors else 422)


def _settings(given: dict[str, Any]) -> KeepSettings:
    names = ("name", "lengths", "date_form", "time_zone", "paper", "currency", "school")
    return KeepSettings(decimal_mark=DecimalMark(given["decimal_mark"]), **{name: given[name] for name in names})
