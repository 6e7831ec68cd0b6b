"""The first visit of an empty works: who can read what the server printed makes the first lead."""

from __future__ import annotations

import os
import secrets
from typing import Any

from django import forms
from django.conf import settings
from django.contrib.auth import login
from django.http import HttpRequest, HttpResponse, HttpResponseRedirect
from django.shortcuts import render
from django.views import View

from finegap.api.errors import Refused
from finegap.core.errors import FieldError
from finegap.core.numerals import DecimalMark
from finegap.inventory.models import WorksSettings
from finegap.people.changes import AddPerson
from finegap.people.services import first_lead, is_empty

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


class FirstVisitForm(forms.Form):
    """The code, the first lead, and how this works writes its numbers."""

    code = forms.CharField(label="The code that make serve printed", max_length=40)
    first_name = forms.CharField(label="Your first name", max_length=60)
    last_name = forms.CharField(label="Your last name", max_length=60, required=False)
    username = forms.CharField(label="Name to sign in with", max_length=150)
    password = forms.CharField(label="Password", max_length=200, strip=False, widget=forms.PasswordInput(render_value=True))
    again = forms.CharField(label="The same again", max_length=200, strip=False, widget=forms.PasswordInput(render_value=True))
    decimal_mark = forms.ChoiceField(
        label="Decimal mark of this works",
        choices=[(DecimalMark.POINT.value, "a point: 0.15"), (DecimalMark.COMMA.value, "a comma: 0,15")],
    )

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
            lead = first_lead(AddPerson(given["username"], given["first_name"], given["last_name"], "lead", given["password"]))
        except FieldError as wrong:
            field = {"password": "password", "first name": "first_name"}.get(wrong.field, "username")
            form.add_error(field, f"{wrong.problem[:1].upper()}{wrong.problem[1:]} {wrong.hint}")
            return self._page(request, form)
        except Refused:
            return HttpResponseRedirect("/")
        WorksSettings.objects.update_or_create(pk=1, defaults={"decimal_mark": given["decimal_mark"], "by": lead})
        CODE.unlink(missing_ok=True)
        login(request, lead)
        return HttpResponseRedirect("/")

    @staticmethod
    def _page(request: HttpRequest, form: FirstVisitForm) -> HttpResponse:
        return render(request, "site/first_visit.html", {"form": form}, status=200 if not form.errors else 422)
