"""A thousand requests made up from the published schema, for either role: never a fault of the server, always the one shape."""

from django.contrib.auth.models import User
from django.db import transaction
from django.test import Client
from django.utils import timezone

from finegap.bench.models import Job
from tests.apps.base import Works
from tests.generated import operations, requests, wrong

EACH = 2
"""Requests of each operation, each mode and each role; ``make soak`` sends 25,000 a role."""


class MadeUp(Works):
    """Sends them, each to the works as it was."""

    def send(self, name, each, number):
        """How many were sent, how many saved something, and what was wrong."""
        faults, sent, saved = [], 0, 0
        job = Job.objects.order_by("-number").values_list("number", flat=True).first() or self.open()
        client = Client(raise_request_exception=False)
        client.force_login(User.objects.get(username=name))
        known = {
            "number": job, "tag": "H-1", "slug": "test-pump", "revision": "1", "other": "1", "family": "internal_gear",
            "pk": 1, "username": "tom", "feature": "idler_bore", "gauge": "B-1", "person": name, "unit": "mm", "mark": "point",
            "version": 1, "station": "front/12–6", "phase": "found", "at": timezone.now().isoformat(),
        }  # fmt: skip
        for operation in operations():
            for one in requests(operation, each, number, known):
                with transaction.atomic():
                    answer = client.generic(
                        one.method, one.path, one.body or b"", one.kind, query_params=one.query, headers=one.headers
                    )
                    content = b"".join(answer.streaming_content) if answer.streaming else answer.content
                    transaction.set_rollback(True)
                sent += 1
                saved += one.method != "GET" and answer.status_code < 300
                if found := wrong(one, answer.status_code, content):
                    faults.append(found)
        return sent, saved, faults


class Generated(MadeUp):
    def test_no_request_is_a_fault_of_the_server(self):
        for name in ("tom", "lena"):
            sent, saved, faults = self.send(name, EACH, 1)
            self.assertEqual(faults, [])
            self.assertGreater(sent, 400)
            self.assertGreater(saved, 3)
