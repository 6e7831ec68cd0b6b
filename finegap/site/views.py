"""The page itself, signing in, and who is signed in."""

from __future__ import annotations

import tempfile
import time
from typing import Any

from django.conf import settings
from django.contrib.auth import login
from django.contrib.auth.decorators import login_required, user_passes_test
from django.contrib.auth.forms import AuthenticationForm
from django.contrib.auth.models import User
from django.contrib.auth.views import LoginView
from django.core.exceptions import PermissionDenied, ValidationError
from django.http import FileResponse, Http404, HttpRequest, HttpResponse, HttpResponseRedirect
from django.http.response import HttpResponseBase
from django.shortcuts import get_object_or_404, render
from django.utils import timezone
from django.views.decorators.csrf import ensure_csrf_cookie
from django.views.decorators.http import require_POST, require_safe
from django.views.generic import View
from drf_spectacular.utils import extend_schema
from rest_framework import serializers
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from finegap.api.errors import Locked
from finegap.api.requests import actor_of
from finegap.api.roles import LEAD, ROLES, role_of
from finegap.bench.models import SignOff
from finegap.core import VERSION
from finegap.core.errors import FieldError
from finegap.inventory.models import Gauge
from finegap.people.second_factor import has_second, is_code
from finegap.people.services import is_empty, log_person
from finegap.people.sign_in import BACKEND, one_at_a_time, paced, try_at
from finegap.pumps.models import Pump
from finegap.sheets.models import Sheet
from finegap.site.archive.out import take_out
from finegap.site.backup_api import warnings_now
from finegap.site.demo import PEOPLE
from finegap.site.tls import AUTHORITY


@require_safe
@login_required
@user_passes_test(lambda user: role_of(user) in ROLES, login_url="no-role")
@ensure_csrf_cookie
def page(request: HttpRequest) -> HttpResponse:
    """The application's one page, for anyone with a role."""
    return render(request, "index.html")


def no_role(request: HttpRequest) -> HttpResponse:
    """For an account without a role: says what to do."""
    return render(request, "site/no_role.html", status=403)


_HALF, _HALF_S = "half signed in", 300


class SignInForm(AuthenticationForm):
    """Name and password, one at a time in the whole server."""

    def clean(self) -> dict[str, Any]:
        """Who it is, if both go together."""
        assert self.request is not None
        try:
            paced(self.request)
            with one_at_a_time():
                return super().clean()
        except Locked as locked:
            self.locked = locked
            raise ValidationError(str(locked), code="locked") from None


class SignIn(LoginView):
    """Name and password, and a code where a second factor is set up; in the demo one click."""

    template_name = "site/sign_in.html"
    form_class = SignInForm
    redirect_authenticated_user = False

    def dispatch(self, request: HttpRequest, *args: Any, **kwargs: Any) -> HttpResponseBase:
        """Where nobody works yet, the first visit."""
        return HttpResponseRedirect("/first-visit") if is_empty() else super().dispatch(request, *args, **kwargs)

    def form_valid(self, form: AuthenticationForm) -> HttpResponse:
        """Signed in, or half of it: who has a second factor goes on to the code."""
        person = form.get_user()
        if not has_second(person):
            return super().form_valid(form)
        said = (person.pk, person.get_session_auth_hash(), time.time(), self.get_redirect_url())
        self.request.session[_HALF] = said
        return HttpResponseRedirect("/sign-in/code")

    def form_invalid(self, form: AuthenticationForm) -> HttpResponse:
        """The page again; 429 where it was not even tried."""
        locked = getattr(form, "locked", None)
        return self.render_to_response(self.get_context_data(form=form, locked=locked), status=429 if locked else 200)

    def get_context_data(self, **kwargs: Any) -> dict[str, Any]:
        """The demo's people, if this is the demo."""
        people = User.objects.filter(username__in=PEOPLE).order_by("username") if settings.DEMO else []
        return super().get_context_data(demo_people=[(one, PEOPLE[one.username]) for one in people], **kwargs)


class SignInCode(View):
    """The second factor of who has said name and password within five minutes."""

    def dispatch(self, request: HttpRequest, *args: Any, **kwargs: Any) -> HttpResponseBase:
        """Only after the first."""
        self.person, self.after = _half_signed_in(request)
        return super().dispatch(request, *args, **kwargs) if self.person else HttpResponseRedirect("/sign-in")

    def get(self, request: HttpRequest) -> HttpResponse:
        """The page that asks for it."""
        return render(request, "site/code.html")

    def post(self, request: HttpRequest) -> HttpResponse:
        """Signed in, where it is the one of now."""
        person, code = self.person, request.POST.get("code", "")[:20]
        assert person is not None
        try:
            try_at(request, person, lambda: is_code(person, code), "code")
        except (FieldError, Locked) as wrong:
            return render(request, "site/code.html", {"wrong": wrong}, status=429 if isinstance(wrong, Locked) else 200)
        login(request, person, BACKEND)
        request.session.pop(_HALF, None)
        return HttpResponseRedirect(self.after or "/")


def _half_signed_in(request: HttpRequest) -> tuple[User | None, str]:
    pk, hashed, at, after = request.session.get(_HALF) or (None, "", 0.0, "")
    in_time = time.time() - at < _HALF_S
    person = User.objects.filter(pk=pk, is_active=True).first() if pk is not None and in_time else None
    if person is None or person.get_session_auth_hash() != hashed:
        return None, ""
    return person, after


@require_POST
def demo_sign_in(request: HttpRequest) -> HttpResponse:
    """Sign in as a demo person without a password; there is no such address outside the demo."""
    if not settings.DEMO or request.POST.get("username") not in PEOPLE:
        raise Http404
    login(request, get_object_or_404(User, username=request.POST["username"]), BACKEND)
    return HttpResponseRedirect("/")


@require_safe
def authority(_: HttpRequest) -> HttpResponse:
    """The certificate of the works' own authority, for a tablet to trust; it is no secret."""
    path = settings.VAR / "tls" / AUTHORITY
    if not path.exists():
        raise Http404
    return HttpResponse(path.read_bytes(), content_type="application/x-x509-ca-cert")


MOST_REPORTS = 500
"""Signed jobs whose reports are printed while somebody waits at a page."""


@require_POST
@login_required
def everything(request: HttpRequest) -> HttpResponseBase:
    """The whole works as one archive, for a lead; the log of people says so."""
    if role_of(request.user) != LEAD:
        raise PermissionDenied
    if SignOff.objects.count() > MOST_REPORTS:
        return render(request, "site/too_many.html", {"most": MOST_REPORTS}, status=409)
    lead = request.user
    assert isinstance(lead, User)
    log_person(lead, lead, "took the whole works out")
    file = tempfile.TemporaryFile(dir=settings.VAR)  # noqa: SIM115 - closed when it has been sent
    take_out(file)
    file.seek(0)
    return FileResponse(file, as_attachment=True, filename=f"works-{timezone.localdate():%Y-%m-%d}.zip")


class MeAnswer(serializers.Serializer[Any]):
    """Who is signed in."""

    username = serializers.CharField()
    name = serializers.CharField()
    role = serializers.ChoiceField(list(ROLES))
    version = serializers.CharField()
    warnings = serializers.ListField(child=serializers.CharField(), help_text="What a lead is to be told, whatever page is open.")


class StartAnswer(serializers.Serializer[Any]):
    """What a works has of what a first job needs: somebody beside the first lead, a sheet, a pump, a gauge."""

    people = serializers.BooleanField()
    sheet = serializers.BooleanField()
    pump = serializers.BooleanField()
    gauge = serializers.BooleanField()


class Start(APIView):
    """What is there to begin with."""

    @extend_schema(responses=StartAnswer)
    def get(self, request: Request) -> Response:
        """Each by itself, yes or no."""
        return Response(
            {
                "people": User.objects.exclude(pk=actor_of(request).pk).exists(),
                "sheet": Sheet.objects.exists(),
                "pump": Pump.objects.exists(),
                "gauge": Gauge.objects.exists(),
            }
        )


class Me(APIView):
    """Who is signed in."""

    @extend_schema(responses=MeAnswer)
    def get(self, request: Request) -> Response:
        """Name, role, the version of the core, and what a lead is to be told."""
        user, role = actor_of(request), role_of(actor_of(request))
        said = warnings_now() if role == LEAD and not settings.DEMO else []
        name = user.get_full_name() or user.username
        return Response({"username": user.username, "name": name, "role": role, "version": VERSION, "warnings": said})
