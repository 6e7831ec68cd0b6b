"""The API against its own published schema, and against anything at all."""

from __future__ import annotations

import json
import uuid
from typing import Any

import yaml
from django.conf import settings
from django.utils import timezone
from hypothesis import HealthCheck, given
from hypothesis import settings as hypothesis_settings
from hypothesis import strategies as st
from hypothesis.extra.django import TestCase as HypothesisTestCase
from jsonschema import Draft202012Validator

from finegap.bench import changes, services
from finegap.bench.models import Job, Reading
from finegap.core.job_record import Decided
from tests.apps.base import Works, feeler, furnish

SCHEMA = yaml.safe_load((settings.BASE_DIR / "docs/formats/openapi.yaml").read_text())


def plain_schema(node: Any, closed: bool = True) -> Any:
    """OpenAPI 3.0's ``nullable`` in the words of JSON Schema; ``closed``: no name in an object that the schema does not give."""
    if isinstance(node, list):
        return [plain_schema(one, closed) for one in node]
    if not isinstance(node, dict):
        return node
    made = {key: plain_schema(value, closed) for key, value in node.items() if key != "nullable"}
    if closed and made.get("type") == "object" and "properties" in made:
        made["additionalProperties"] = False
    return {"anyOf": [made, {"type": "null"}]} if node.get("nullable") else made


def problems_against(component: str, body: Any, closed: bool = False) -> list[str]:
    """What is wrong with a body by a component of the schema; names it does not give are no fault unless it is ``closed``."""
    whole = plain_schema({"components": SCHEMA["components"], "$ref": f"#/components/schemas/{component}"}, closed)
    return [f"{e.json_path}: {e.message[:120]}" for e in Draft202012Validator(whole).iter_errors(body)]


class AgainstTheSchema(Works):
    def valid(self, path: str, published: str, status: str = "200") -> None:
        body = self.client.get(path).json()
        operation = SCHEMA["paths"][published]["get"]
        schema = operation["responses"][status]["content"]["application/json"]["schema"]
        whole = plain_schema({"components": SCHEMA["components"], **schema})
        errors = [f"{e.json_path}: {e.message[:120]}" for e in Draft202012Validator(whole).iter_errors(body)]
        self.assertEqual(errors[:3], [], path)

    def test_every_answer_has_the_shape_that_is_published(self):
        self.client.force_login(self.tom)
        begun, done, gaskets = self.open("H-1"), None, self.open("G-1")
        services.record_try(
            self.seen(gaskets),
            changes.RecordTry(uuid.uuid4(), stacks_um=[[250]], trial=True, checks=[feeler("0.2", "0.22", "F-1")]),
        )
        self.valid(f"/api/jobs/{begun}", "/api/jobs/{number}")
        self.valid(f"/api/jobs/{gaskets}?unit=in", "/api/jobs/{number}")
        self.measure_all(begun)
        wrong = self.read(begun, "idler_bore", "front/12–6", "30.06", gauge="B-1")
        self.strike(begun, "reading", wrong, "slipped")
        services.decide(self.seen(begun), changes.Decide(uuid.uuid4(), "idler_bore", Decided.CHANGE, "while it is open"))
        for station in self.family(begun).by_key["idler_bore"].stations:
            self.read(begun, "idler_bore", station.key, "30.03", gauge="B-1", phase="left")
        self.look_all(begun)
        services.look_at(self.seen(begun), changes.LookAt(uuid.uuid4(), "idler_pin", ["burr"], "at the edge"))
        services.decide(self.seen(begun), changes.Decide(uuid.uuid4(), "idler_pin", Decided.KEEP))
        services.set_details(self.seen(begun), changes.SetDetails(hazards="hot", symptom="noise", place="site"))
        services.say_on_hand(self.seen(begun), changes.SayOnHand(uuid.uuid4(), ["gloves"], here=False))
        self.together(begun)
        self.valid(f"/api/jobs/{begun}", "/api/jobs/{number}")
        services.sign_off(self.seen(begun), changes.Sign(uuid.uuid4()))
        done = begun
        self.valid(f"/api/jobs/{done}", "/api/jobs/{number}")
        for path, published in (
            ("/api/jobs", "/api/jobs"),
            ("/api/pumps?unit=in", "/api/pumps"),
            ("/api/sheets", "/api/sheets"),
            ("/api/sheets/test-pump/latest", "/api/sheets/{slug}/{revision}"),
            ("/api/gauges", "/api/gauges"),
            ("/api/shelf", "/api/shelf"),
            ("/api/me", "/api/me"),
            ("/api/settings", "/api/settings"),
            ("/api/pumps/H-1?unit=in", "/api/pumps/{tag}"),
            (f"/api/jobs/{done}/log", "/api/jobs/{number}/log"),
        ):
            self.valid(path, published)
        self.valid(f"/api/jobs/{gaskets}/wear/idler_bore?unit=in", "/api/jobs/{number}/wear/{feature}")
        self.valid(f"/api/jobs/{done}/wear/idler_bore", "/api/jobs/{number}/wear/{feature}")
        self.valid("/api/procedures", "/api/procedures")
        self.valid("/api/procedures/internal_gear", "/api/procedures/{family}")
        self.valid("/api/jobs/77", "/api/jobs/{number}", "404")


ANYTHING = st.recursive(
    st.none() | st.booleans() | st.integers() | st.floats(allow_nan=False) | st.text(max_size=30),
    lambda inner: st.lists(inner, max_size=3) | st.dictionaries(st.text(max_size=8), inner, max_size=3),
    max_leaves=6,
)
TYPED = st.text(max_size=12) | st.sampled_from(["30.05", "0.1", "0.12 mm", "5 thou", "nan", "1/0", "-1", "1e99", "٣٠", "30,05 mm"])
CHECK = st.fixed_dictionaries({"goes": TYPED, "stops": TYPED, "read": TYPED, "gauge": st.sampled_from(["F-1", "", "x"])})
FIELDS = {
    "details": dict.fromkeys(
        ("viscosity", "temperature", "pressure", "speed", "hours_run", "old_meter_last", "new_meter_first", "symptom", "place"),
        TYPED,
    )
    | {"build": st.dictionaries(st.sampled_from(["seal", "means", "x"]), st.sampled_from(["packed", "mechanical", "ring", ""]))},
    "on-hand": {"item": TYPED, "here": st.booleans()},
    "looks": {
        "feature": st.sampled_from(["bearings", "idler_bore", "idler_clearance", "nope"]),
        "damages": st.lists(st.sampled_from(["rough", "scored", "x"]), max_size=3),
        "note": TYPED,
    },
    "readings/set": {
        "feature": st.sampled_from(["idler_bore", "head_face", "nope"]),
        "text": st.lists(TYPED, max_size=6).map("\n".join) | st.sampled_from(["30.05\t30.06\n30.04", "Bore (in)\n1.183"]),
        "gauge": st.sampled_from(["B-1", "x"]),
        "confirmed": st.booleans(),
    },
    "readings": {
        "stops": st.just("") | TYPED,
        "part": st.just("") | TYPED,
        "material": st.sampled_from(["", "steel", "cheese"]),
        "feature": st.sampled_from(["idler_bore", "idler_clearance", "nope"]) | TYPED,
        "station": st.sampled_from(["front/12–6", "gap", ""]),
        "typed": TYPED,
        "gauge": st.sampled_from(["B-1", "OLD", "", "x"]),
        "phase": st.sampled_from(["found", "left", "later"]),
        "confirmed": st.booleans(),
    },
    "strike": {"kind": st.sampled_from(["reading", "step", "?"]), "record": st.uuids().map(str) | TYPED, "reason": TYPED},
    "decisions": {
        "feature": st.sampled_from(["idler_bore", "nope"]),
        "decided": st.sampled_from(["keep", "change", "?"]),
        "reason": TYPED,
    },
    "zero": {"school": st.sampled_from(["back off from bind", "by feel"]), "lash": TYPED},
    "tries": {
        "moved": TYPED,
        "way": st.sampled_from(["open", "close", "up"]),
        "stacks_um": st.lists(st.lists(st.integers(-10, 400), max_size=4), max_size=2),
        "checks": st.lists(CHECK, max_size=2),
        "trial": st.booleans(),
        "opened": st.none() | st.booleans(),
    },
    "signature": {"reason": TYPED, "pin": TYPED},
    "abandon": {"reason": TYPED},
    "steps": {"step": st.sampled_from(["isolate", "match_marks", "nope"]), "skip": TYPED, "past": TYPED},
}


@st.composite
def some_change(draw: Any) -> tuple[str, Any]:
    """A change to a job: nearly right, or anything at all."""
    kind = draw(st.sampled_from(sorted(FIELDS)))
    if draw(st.integers(0, 4)) == 0:
        return kind, draw(ANYTHING)
    body = {name: draw(strategy) for name, strategy in FIELDS[kind].items()}
    dropped = draw(st.sets(st.sampled_from(sorted(body)), max_size=1))
    return kind, {k: v for k, v in body.items() if k not in dropped} | {"id": str(draw(st.uuids(version=4)))}


class AgainstAnything(HypothesisTestCase):
    """Whatever is sent, the answer is a success or an error in the one shape; never a crash, never half a record."""

    @classmethod
    def setUpTestData(cls) -> None:
        furnish()

    @given(st.lists(some_change(), min_size=1, max_size=6), st.sampled_from(["H-1", "G-1"]), st.sampled_from(["mm", "in"]))
    @hypothesis_settings(max_examples=30, suppress_health_check=list(HealthCheck))
    def test_no_body_breaks_the_bench(self, sent, pump, unit):
        from django.contrib.auth.models import User

        tom = User.objects.get(username="tom")
        self.client.force_login(tom)
        number = services.open_job(tom, changes.OpenJob(pump, "anything")).number
        for kind, body in sent:
            job = Job.objects.get(number=number)
            if isinstance(body, dict):
                how = {"unit": unit, "mark": "point", "person": "tom", "at": timezone.now().isoformat()}
                body = {"version": job.version} | how | body
            answer = self.client.post(f"/api/jobs/{number}/{kind}?unit={unit}", json.dumps(body), content_type="application/json")
            told = answer.json()
            after = Job.objects.get(number=number)
            if answer.status_code == 200:
                self.assertEqual(told["version"], after.version)
            else:
                self.assertIn(answer.status_code, (400, 409, 422), told)
                self.assertTrue(told["problem"])
                self.assertEqual(after.version, job.version)
            self.assertEqual(after.events.count(), after.version)
        self.assertEqual(self.client.get(f"/api/jobs/{number}").status_code, 200)
        self.assertEqual(self.client.get(f"/api/jobs/{number}/report.pdf").status_code, 200)
        self.assertTrue(all(r.value_mm >= 0 for r in Reading.objects.all()))
