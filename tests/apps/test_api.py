"""Every route for every role, errors in one shape, and the schema."""

import gzip
import json
import re
import uuid

from django.contrib.auth.models import User
from django.test import Client, override_settings
from django.urls import get_resolver, resolve
from django.utils import timezone

from finegap.core.entry import Entry
from finegap.sheets import drafting
from finegap.sheets.changes import BeginDraft
from tests.apps.base import PIN, Works, person, sheet_data

PASS = {200, 201}
JOB = "/api/jobs/1"
VERSIONED = {"version": 1}


def new() -> str:
    return str(uuid.uuid4())


GAUGE = {
    "tag": "B-9", "kind": "bore gauge", "low": "18", "high": "50", "resolution": "0.001", "expanded": "0.003", "k": "2",
    "calibrated": "2026-01-01", "due": "2027-01-01",
}  # fmt: skip

PUMP = {
    "tag": "N-1",
    "service": "s",
    "location": "l",
    "serial": "1",
    "sheet": "test-pump",
    "material": "cast iron",
    "liquid": "oil",
    "viscosity": "300 SSU",
    "temperature": "100 F",
    "pressure": "50 psi",
    "speed": "300",
}

# method, path, body, and what each of (stranger, no role, technician, lead) gets
ROUTES = [
    ("get", "/api/me", None, 401, 403, 200, 200),
    ("get", "/api/jobs", None, 401, 403, 200, 200),
    ("post", "/api/jobs", {"pump": "G-1", "reason": "x"}, 401, 403, 201, 201),
    ("get", JOB, None, 401, 403, 200, 200),
    ("post", f"{JOB}/steps", {**VERSIONED, "id": new(), "step": "isolate"}, 401, 403, 200, 200),
    ("post", f"{JOB}/readings", {**VERSIONED, "id": new(), "feature": "idler_bore", "station": "front/12–6", "typed": "30.05", "gauge": "B-1"}, 401, 403, 200, 200),
    ("post", f"{JOB}/decisions", {**VERSIONED, "id": new(), "feature": "idler_bore", "decided": "keep", "reason": "x"}, 401, 403, 200, 200),
    ("post", f"{JOB}/details", {**VERSIONED, "hazards": "hot"}, 401, 403, 200, 200),
    ("post", f"{JOB}/on-hand", {**VERSIONED, "id": new(), "items": ["gloves"], "here": True}, 401, 403, 200, 200),
    ("post", f"{JOB}/looks", {**VERSIONED, "id": new(), "feature": "bearings", "damages": ["rough"]}, 401, 403, 200, 200),
    ("post", f"{JOB}/readings/set", {**VERSIONED, "id": new(), "feature": "idler_bore", "text": "30.05", "gauge": "B-1"}, 401, 403, 200, 200),
    ("post", f"{JOB}/pull", {"feature": "idler_bore", "station": "front/12–6", "gauge": "B-1"}, 401, 403, 409, 409),
    ("post", f"{JOB}/photos", {**VERSIONED, "id": new()}, 401, 403, 415, 415),
    ("post", f"{JOB}/photos/remove", {**VERSIONED, "photo": new()}, 401, 403, 422, 422),
    ("get", f"{JOB}/photos/{uuid.uuid4()}", None, 401, 403, 404, 404),
    ("get", f"{JOB}/drawing?screen=narrow", None, 401, 403, 200, 200),
    ("get", f"{JOB}/wear/idler_bore", None, 401, 403, 200, 200),
    ("get", f"{JOB}/fits/idler_bore/B-1", None, 401, 403, 200, 200),
    ("get", f"{JOB}/workings/choice/working", None, 401, 403, 200, 200),
    ("get", f"{JOB}/order.csv", None, 401, 403, 404, 404),
    ("post", f"{JOB}/parts", {**VERSIONED, "id": new(), "stack": "seal", "part": "retainer", "confirmed": True}, 401, 403, 200, 200),
    ("post", f"{JOB}/torques", {**VERSIONED, "id": new(), "fastener": "lock nut", "pass_number": 1, "bolts": [1], "typed": "85", "wrench": "W-1"}, 401, 403, 200, 200),
    ("post", f"{JOB}/on-the-bench", {**VERSIONED, "lubricant": "soap"}, 401, 403, 200, 200),
    ("get", f"{JOB}/tape.pdf", None, 401, 403, 200, 200),
    ("post", f"{JOB}/zero", {**VERSIONED, "id": new(), "school": "back off from bind"}, 401, 403, 200, 200),
    ("post", f"{JOB}/tries", {**VERSIONED, "id": new(), "moved": "1", "checks": [{"goes": "0.1", "stops": "0.12"}]}, 401, 403, 409, 409),
    ("post", f"{JOB}/proofs", {**VERSIONED, "id": new(), "step": "first_hour", "seen": "pressure", "typed": "5 bar"}, 401, 403, 200, 200),
    ("post", f"{JOB}/run-in", {**VERSIONED, "id": new(), "drops": "5"}, 401, 403, 200, 200),
    ("post", f"{JOB}/new-parts", {**VERSIONED, "id": new(), "feature": "lock_washer"}, 401, 403, 200, 200),
    ("post", f"{JOB}/meanwhile", VERSIONED, 401, 403, 200, 200),
    ("get", f"{JOB}/log", None, 401, 403, 200, 200),
    ("post", f"{JOB}/strike", {**VERSIONED, "kind": "try", "record": new(), "reason": "x"}, 401, 403, 422, 422),
    ("get", f"{JOB}/version", None, 401, 403, 200, 200),
    ("post", f"{JOB}/signature", {**VERSIONED, "id": new(), "pin": PIN}, 401, 403, 409, 409),
    ("post", f"{JOB}/abandon", {**VERSIONED, "id": new(), "reason": "x"}, 401, 403, 200, 200),
    ("post", f"{JOB}/amendments", {**VERSIONED, "id": new(), "what": "x", "reason": "x", "pin": PIN}, 401, 403, 409, 409),
    ("get", "/api/people", None, 401, 403, 200, 200),
    ("get", "/first-visit", None, 302, 302, 302, 302),
    ("post", "/first-visit", {"code": "x"}, 302, 302, 302, 302),
    ("post", "/api/gauges/M-1/retire", {"retired": False}, 401, 403, 403, 200),
    ("get", "/api/shelf/file", None, 401, 403, 200, 200),
    ("post", "/api/shelf/file", {}, 401, 403, 403, 415),
    ("get", "/api/gauges/file", None, 401, 403, 200, 200),
    ("get", "/api/start", None, 401, 403, 200, 200),
    ("post", "/api/people", {"username": "bo", "first_name": "Bo", "last_name": "", "role": "technician", "password": "vice-and-bench"}, 401, 403, 403, 200),
    ("post", "/api/people/tom/change", {"role": "lead"}, 401, 403, 403, 200),
    ("get", "/api/people/switch", None, 401, 403, 200, 200),
    ("post", "/api/people/switch", {"username": "tom", "secret": "x"}, 401, 403, 422, 422),
    ("post", "/api/people/password", {"old": "x", "new": "vice-and-bench"}, 401, 403, 422, 422),
    ("post", "/api/people/pin", {"password": "x", "pin": "2708"}, 401, 403, 422, 422),
    ("post", "/api/people/tom/pin/clear", {}, 401, 403, 403, 200),
    ("post", "/api/people/tom/unlock", {}, 401, 403, 403, 200),
    ("post", "/api/people/tom/second/clear", {}, 401, 403, 403, 422),
    ("post", "/api/people/second", {"password": "x"}, 401, 403, 403, 422),
    ("post", "/api/people/second/code", {"code": "x"}, 401, 403, 403, 409),
    ("post", "/api/people/second/off", {"password": "x", "code": "1"}, 401, 403, 422, 422),
    ("get", "/api/changes", None, 401, 403, 403, 200),
    ("get", "/api/changes.csv", None, 401, 403, 403, 200),
    ("get", "/api/backups", None, 401, 403, 403, 200),
    ("post", "/api/backups", {}, 401, 403, 403, 200),
    ("get", "/api/backups/works-20200101T000000Z.zip", None, 401, 403, 403, 404),
    ("get", "/sign-in/code", None, 302, 302, 302, 302),
    ("post", "/sign-in/code", {"code": "1"}, 302, 302, 302, 302),
    ("get", f"{JOB}/report.pdf", None, 401, 403, 200, 200),
    ("get", f"{JOB}/report.json", None, 401, 403, 200, 200),
    ("get", "/api/pumps", None, 401, 403, 200, 200),
    ("post", "/api/pumps", PUMP, 401, 403, 403, 201),
    ("get", "/api/pumps/H-1", None, 401, 403, 200, 200),
    ("post", "/api/pumps/G-1/retire", {"retired": False}, 401, 403, 403, 200),
    ("get", "/api/pumps-from-file", None, 401, 403, 200, 200),
    ("post", "/api/pumps-from-file", {}, 401, 403, 403, 415),
    ("get", "/api/sheet-choices/test-pump", None, 401, 403, 200, 200),
    ("post", "/api/pumps/H-1/meter", {"id": new(), "hours": "14400"}, 401, 403, 200, 200),
    ("post", "/api/pumps/H-1/lubricated", {"id": new(), "name": "Oil", "hours": "14400"}, 401, 403, 422, 422),
    ("put", "/api/pumps/H-1", {"version": 1, **PUMP, "tag": "H-2"}, 401, 403, 403, 200),
    ("post", "/api/pumps/H-1/strike", {"record": new(), "reason": "x"}, 401, 403, 422, 422),
    ("get", "/api/settings", None, 401, 403, 200, 200),
    ("get", "/api/settings/zones", None, 401, 403, 200, 200),
    ("get", "/api/settings/logo", None, 401, 403, 404, 404),
    ("post", "/api/settings/logo", {}, 401, 403, 403, 415),
    ("delete", "/api/settings/logo", None, 401, 403, 403, 200),
    ("put", "/api/settings", {"decimal_mark": "comma", "new_share": "10"}, 401, 403, 403, 200),
    ("get", "/api/pumps/H-1/symptoms", None, 401, 403, 200, 200),
    ("get", "/api/pumps/H-1/due.ics", None, 401, 403, 200, 200),
    ("post", "/api/pumps/H-1/parts", {"id": new(), "part": "Idler pin", "taker": "G-1", "hours": "14400", "hours_there": "1", "instead": "new"}, 401, 403, 403, 200),
    ("post", "/api/pumps/H-1/notes", {"id": new(), "text": "drips"}, 401, 403, 200, 200),
    ("post", "/api/pumps/H-1/documents", {}, 401, 403, 403, 415),
    ("get", f"/api/pump-documents/{uuid.uuid4()}", None, 401, 403, 404, 404),
    ("get", "/api/pumps/H-1/drawing", None, 401, 403, 200, 200),
    ("get", "/api/pumps/H-1/wear/idler_pin", None, 401, 403, 200, 200),
    ("get", "/api/pumps/H-1/life", None, 401, 403, 200, 200),
    ("get", "/api/pumps/H-1/life.csv", None, 401, 403, 200, 200),
    ("get", "/api/pumps/H-1/life.json", None, 401, 403, 200, 200),
    ("get", "/api/pumps/H-1/overhauls", None, 401, 403, 200, 200),
    ("get", "/api/pumps/H-1/photos", None, 401, 403, 200, 200),
    ("get", "/api/pumps/H-1/bench-sheet.pdf", None, 401, 403, 200, 200),
    ("get", "/api/labels.pdf?tag=H-1", None, 401, 403, 200, 200),
    ("get", "/api/labels/ZZZZZZ", None, 401, 403, 404, 404),
    ("get", "/api/due", None, 401, 403, 200, 200),
    ("get", "/api/due/ahead", None, 401, 403, 200, 200),
    ("get", "/api/due.csv", None, 401, 403, 200, 200),
    ("get", "/api/due.pdf", None, 401, 403, 200, 200),
    ("get", f"{JOB}/talk", None, 401, 403, 200, 200),
    ("post", f"{JOB}/notes", {"id": new(), "text": "burr"}, 401, 403, 200, 200),
    ("post", f"{JOB}/notes/{uuid.uuid4()}/take", {}, 401, 403, 422, 422),
    ("post", f"{JOB}/notes/{uuid.uuid4()}/strike", {"reason": "x"}, 401, 403, 422, 422),
    ("post", f"{JOB}/looked", {"version": 1}, 401, 403, 204, 204),
    ("post", f"{JOB}/links", {"id": new(), "whom": "x", "until": "2000-01-01"}, 401, 403, 403, 409),
    ("get", "/api/links", None, 401, 403, 200, 200),
    ("post", "/api/links", {"id": new(), "whom": "tablet"}, 401, 403, 201, 201),
    ("get", f"/api/links/{uuid.uuid4()}", None, 401, 403, 404, 404),
    ("post", f"/api/links/{uuid.uuid4()}/revoke", {}, 401, 403, 422, 422),
    ("get", "/shared/nothing", None, 404, 404, 404, 404),
    ("get", "/shared/nothing/report.pdf", None, 404, 404, 404, 404),
    ("get", "/calendar/nothing.ics", None, 404, 404, 404, 404),
    ("post", "/api/pumps/H-1/move", {"id": new(), "to": "elsewhere"}, 401, 403, 403, 200),
    ("post", "/api/pumps/H-1/earlier", {"id": new(), "day": "2001-01-01", "hours": "1", "pressure": "5", "speed": "300", "source": "x"}, 401, 403, 403, 422),
    ("get", "/api/families", None, 401, 403, 200, 200),
    ("get", "/api/sheet-drafts", None, 401, 403, 200, 200),
    ("post", "/api/sheet-drafts", {"family": "internal_gear"}, 401, 403, 403, 201),
    ("get", "/api/sheet-drafts/1", None, 401, 403, 200, 200),
    ("put", "/api/sheet-drafts/1", {"version": 1, "fields": {"maker": "x"}}, 401, 403, 403, 200),
    ("post", "/api/sheet-drafts/1/paste", {"table": "torques", "text": "a\t1"}, 401, 403, 403, 200),
    ("post", "/api/sheet-drafts/1/file", {}, 401, 403, 403, 415),
    ("get", "/api/sheet-drafts/1/drawing", None, 401, 403, 200, 200),
    ("post", "/api/sheet-drafts/1/pages", {}, 401, 403, 403, 415),
    ("post", "/api/sheet-drafts/1/sizes", {"version": 1}, 401, 403, 403, 422),
    ("post", "/api/sheet-drafts/1/keep", {"version": 1}, 401, 403, 403, 409),
    ("delete", "/api/sheet-drafts/1", None, 401, 403, 403, 204),
    ("get", f"/api/manual-pages/{uuid.uuid4()}", None, 401, 403, 404, 404),
    ("delete", f"/api/manual-pages/{uuid.uuid4()}", None, 401, 403, 403, 422),
    ("get", "/api/sheets/test-pump/1/reading", None, 401, 403, 200, 200),
    ("post", "/api/sheets/test-pump/1/reading", {"path": "maker", "said": "x", "agrees": True}, 401, 403, 409, 409),
    ("get", "/api/sheets/test-pump/1/against/1", None, 401, 403, 200, 200),
    ("get", "/api/sheets", None, 401, 403, 200, 200),
    ("post", "/api/sheets", {"text": json.dumps(sheet_data(revision="9"))}, 401, 403, 403, 201),
    ("get", "/api/sheets/test-pump/latest", None, 401, 403, 200, 200),
    ("get", "/api/sheets/test-pump/1/file", None, 401, 403, 200, 200),
    ("get", "/api/gauges", None, 401, 403, 200, 200),
    ("post", "/api/gauges", GAUGE, 401, 403, 403, 201),
    ("put", "/api/gauges/B-1", {**GAUGE, "tag": "B-1"}, 401, 403, 403, 200),
    ("get", "/api/procedures", None, 401, 403, 200, 200),
    ("get", "/api/procedures/internal_gear", None, 401, 403, 200, 200),
    ("put", "/api/procedures/internal_gear", {"version": 0, "steps": []}, 401, 403, 403, 422),
    ("get", "/api/guns", None, 401, 403, 200, 200),
    ("post", "/api/guns", {"tag": "G", "grease": "lithium", "ten": "5"}, 401, 403, 200, 200),
    ("get", "/api/sums", None, 401, 403, 200, 200),
    ("post", "/api/sums/grease", {"given": {"outside": "90", "width": "23"}}, 401, 403, 200, 200),
    ("get", "/api/shelf", None, 401, 403, 200, 200),
    ("post", "/api/shelf", {"slug": "gasket-pump", "thickness": "0.05 mm", "count": 3}, 401, 403, 200, 200),
    ("get", "/", None, 302, 302, 200, 200),
    ("get", "/bench/1/inspect", None, 302, 302, 200, 200),
    ("get", "/sign-in", None, 200, 200, 200, 200),
    ("post", "/sign-in/demo", {"username": "tom"}, 404, 404, 404, 404),
    ("get", "/authority.crt", None, 404, 404, 404, 404),
    ("post", "/works.zip", None, 302, 403, 403, 200),
    ("post", "/sign-out", None, 302, 302, 302, 302),
    ("get", "/no-role", None, 403, 403, 403, 403),
]  # fmt: skip


class OnRoutes(Works):
    """What the table above asks for, asked."""

    def setUp(self):
        self.open()
        person("nora", None)
        draft = drafting.begin(self.lena, BeginDraft("internal_gear"), Entry())
        draft.delete()
        draft.pk = 1
        draft.save(force_insert=True)

    @staticmethod
    def entered(body, name):
        return body and {"unit": "mm", "mark": "point", "person": name or "nobody", "at": timezone.now().isoformat()} | body

    def ask(self, client, method, path, body):
        return getattr(client, method)(path, json.dumps(body) if body else None, content_type="application/json")


class Routes(OnRoutes):
    def test_every_route_for_every_role(self):
        from django.db import transaction

        for method, path, body, *expected in ROUTES:
            for name, status in zip((None, "nora", "tom", "lena"), expected, strict=True):
                client = Client()
                if name:
                    client.force_login(User.objects.get(username=name))
                with self.subTest(method=method, path=path, who=name), transaction.atomic():
                    answer = self.ask(client, method, path, self.entered(body, name))
                    self.assertEqual(answer.status_code, status, b"" if answer.streaming else answer.content[:300])
                    transaction.set_rollback(True)

    def test_the_table_above_leaves_no_route_and_no_method_out(self):
        """Made from the URL conf: a new route, or a new method of one, fails without a line above."""
        listed = [(method, re.sub(r"\?.*", "", path).lstrip("/")) for method, path, *_ in ROUTES]
        for pattern in get_resolver().url_patterns:
            methods = {method for method, path in listed if pattern.resolve(path)}
            self.assertTrue(methods, f"{pattern.pattern} has no line in ROUTES")
            view = getattr(pattern.callback, "view_class", None)
            ours = view and {name for name in ("get", "post", "put", "patch", "delete") if name in vars(view)}
            if ours:
                self.assertEqual(methods & {"get", "post", "put", "patch", "delete"} - {"get"}, ours - {"get"}, pattern.pattern)
                self.assertGreaterEqual(methods, ours & {"get"}, pattern.pattern)

    def test_a_method_that_is_not_there_is_refused_to_every_role(self):
        there = {(method, re.sub(r"\?.*", "", path)) for method, path, *_ in ROUTES}
        paths = sorted({path for _, path in there if path.startswith("/api/")})
        views = {path: resolve(path).func.view_class for path in paths}
        for name in (None, "nora", "tom", "lena"):
            client = Client()
            if name:
                client.force_login(User.objects.get(username=name))
            for path in paths:
                for method in ("get", "post", "put", "patch", "delete"):
                    if not hasattr(views[path], method):
                        status = getattr(client, method)(path, content_type="application/json").status_code
                        self.assertIn(status, {"lena": (405,), "tom": (403, 405)}.get(name, (401, 403, 405)), (name, method, path))

    def test_name_and_password(self):
        self.tom.set_password("not-a-real-secret-1")
        self.tom.save()
        for password, status in (("wrong", 200), ("not-a-real-secret-1", 302)):
            answer = self.client.post("/sign-in", {"username": "tom", "password": password})
            self.assertEqual(answer.status_code, status)
        self.assertEqual(self.client.get("/api/me").json()["name"], "Tom")

    def test_other_methods_are_not_there(self):
        client = Client()
        client.force_login(self.lena)
        for method, path in (("delete", JOB), ("put", f"{JOB}/readings"), ("get", f"{JOB}/signature"), ("patch", "/api/pumps")):
            self.assertEqual(getattr(client, method)(path).status_code, 405)

    def test_writing_needs_the_csrf_token(self):
        client = Client(enforce_csrf_checks=True)
        client.force_login(self.tom)
        self.assertEqual(self.ask(client, "post", "/api/jobs", {"pump": "G-1", "reason": "x"}).status_code, 403)

    @override_settings(DEMO=True)
    def test_one_click_sign_in_is_for_the_demos_people_only(self):
        person("ines", "technician")
        client = Client()
        self.assertEqual(client.post("/sign-in/demo", {"username": "lena"}).status_code, 404)
        self.assertEqual(client.post("/sign-in/demo", {"username": "ines"}).status_code, 302)
        self.assertEqual(client.get("/api/me").json()["role"], "technician")


class Shapes(Works):
    def setUp(self):
        self.open()
        self.client.force_login(self.tom)

    def post(self, path, body):
        typed = {"unit": "mm", "mark": "point", "person": "tom", "at": timezone.now().isoformat()}
        return self.client.post(path, json.dumps(typed | body), content_type="application/json")

    def test_every_error_has_one_shape(self):
        reading = {"version": 1, "id": new(), "feature": "idler_bore", "station": "front/12–6", "gauge": "B-1"}
        for path, body, status, code, field in (
            (f"{JOB}/readings", reading | {"typed": "1.18"}, 422, "unlikely", "Idler, bore"),
            (f"{JOB}/readings", reading | {"typed": "30.0", "version": 0}, 422, "field", "version"),
            (f"{JOB}/readings", reading | {"typed": "30.0", "id": "x"}, 422, "field", "id"),
            (f"{JOB}/readings", reading | {"typed": "30.0", "version": 7}, 409, "conflict", ""),
            (f"{JOB}/signature", {"version": 1, "id": new(), "pin": "2708"}, 409, "refused", ""),
            ("/api/jobs/99/steps", {"version": 1, "id": new(), "step": "isolate"}, 422, "field", "job"),
            (f"{JOB}/readings?unit=feet", reading | {"typed": "30.0"}, 422, "field", "unit"),
            (f"{JOB}/readings", reading | {"typed": "30.0", "unit": "feet"}, 422, "field", "unit"),
            (f"{JOB}/readings", reading | {"typed": "30.0", "at": "now"}, 422, "field", "time"),
            (f"{JOB}/readings", reading | {"typed": "30.0", "at": "2999-01-01T00:00:00+01:00"}, 422, "unlikely", "time"),
            (f"{JOB}/readings", reading | {"typed": "30.0", "at": "1970-01-01T00:00:00+00:00"}, 422, "field", "time"),
            (f"{JOB}/readings", reading | {"typed": "30.0", "person": "lena"}, 409, "person", ""),
            (f"{JOB}/details", {"version": 1, "viscosity": "5,000 cSt"}, 422, "ambiguous", "viscosity"),
            ("/api/sheets", {"text": "{}"}, 403, "not-allowed", ""),
        ):
            answer = self.post(path, body)
            with self.subTest(path=path, code=code):
                self.assertEqual(answer.status_code, status, answer.content)
                told = answer.json()
                self.assertEqual((told["code"], told["field"]), (code, field))
                self.assertEqual(set(told), {"code", "problem", "field", "hint", "suggestions", "reasons", "reason_wanted"})
        self.assertEqual(self.client.get(JOB).json()["version"], 1, "what was refused saved nothing")
        asked = self.post(f"{JOB}/readings", reading | {"typed": "1.18"}).json()
        self.assertEqual(asked["suggestions"], [{"typed": "1.18 in", "meaning": "inches: 29.972 mm"}])
        self.assertEqual(self.client.get("/api/jobs/99").json()["code"], "not-found")
        broken = self.client.post("/api/jobs", "{", content_type="application/json")
        self.assertEqual((broken.status_code, broken.json()["code"]), (400, "bad-request"))

    def test_a_bare_number_is_in_the_unit_on_screen(self):
        body = {"version": 1, "id": new(), "feature": "idler_bore", "station": "front/12–6", "gauge": "B-1", "typed": "1.1835"}
        answer = self.post(f"{JOB}/readings?unit=in", body | {"unit": "in"})
        self.assertEqual(answer.json()["features"][1]["readings"][0]["text"], "1.1835")
        self.assertEqual(self.client.get(f"{JOB}?unit=mm").json()["features"][1]["readings"][0]["text"], "30.061")

    def test_every_number_shown_opens_its_working(self):
        self.measure_all(1)
        self.together(1)
        job = self.client.get(JOB).json()
        workings = [job["choice"]["working"], job["setting"]["working"], job["setting"]["hot"]["working"]]
        workings += [f["found"]["working"] for f in job["features"] if f["found"]]
        workings += [f["judged"]["working"] for f in job["features"] if f["judged"]]
        workings += [f["forecast"]["working"] for f in job["features"] if f["forecast"]]
        workings += [fit["working"] for f in job["features"] for fit in f["fits"] if fit["working"]]
        workings += [t["working"] for t in job["setting"]["tries"]]
        for working in workings:
            for part in ("title", "formula", "given", "result", "source"):
                self.assertTrue(working[part], (working["title"], part))

    def test_an_answer_is_compressed_for_who_reads_that_and_a_page_is_not(self):
        plain = self.client.get(JOB)
        packed = self.client.get(JOB, headers={"accept-encoding": "gzip, br"})
        self.assertNotIn("Content-Encoding", plain)
        self.assertEqual(packed["Content-Encoding"], "gzip")
        self.assertEqual(gzip.decompress(packed.content), plain.content)
        self.assertLess(len(packed.content), len(plain.content) / 5)
        self.assertNotIn("Content-Encoding", self.client.get("/", headers={"accept-encoding": "gzip"}))

    def test_nothing_is_loaded_from_another_host(self):
        answer = self.client.get("/")
        self.assertIn("default-src 'self'", answer["Content-Security-Policy"])
        self.assertNotRegex(answer.content.decode(), r"(src|href)=.?(https?:)?//")

    def test_a_body_beyond_all_measure_is_refused_before_it_is_read(self):
        answer = self.client.post("/api/sheets", "x" * (3 * 1024 * 1024), content_type="application/json")
        self.assertEqual(answer.status_code, 413)
