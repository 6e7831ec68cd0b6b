"""What two people, or one with two devices, see of each other at one job."""

import uuid
from dataclasses import replace

from django.utils import timezone

from finegap.api.errors import Conflict
from finegap.bench import changes, services
from finegap.bench.models import Event, Job, ProofMark, Reading
from finegap.core.job_record import Decided
from tests.apps.base import Works, feeler


class TwoPeople(Works):
    def test_the_second_is_told_who_did_what(self):
        number = self.open()
        seen = self.seen(number, self.lena)
        self.read(number, "idler_bore", "front/12–6", "30.05")
        for attempt in (
            lambda: services.record_reading(seen, changes.RecordReading(uuid.uuid4(), "idler_bore", "front/12–6", "30.06", "B-1")),
            lambda: services.decide(seen, changes.Decide(uuid.uuid4(), "idler_bore", Decided.KEEP, "x")),
            lambda: services.decide(seen, changes.Decide(uuid.uuid4(), "idler_clearance", Decided.KEEP, "x")),
            lambda: services.sign_off(seen, changes.Sign(uuid.uuid4(), "x")),
        ):
            with self.assertRaises(Conflict) as caught:
                attempt()
            self.assertEqual(caught.exception.changes, ["Tom: Idler, bore, front, 12–6: 30.05 mm"])
        self.assertEqual(Reading.objects.count(), 1)

    def test_of_much_that_was_done_since_the_newest_is_told(self):
        number = self.open()
        seen = self.seen(number, self.lena)
        for i in range(23):
            self.read(number, "idler_bore", "front/12–6", f"30.{50 + i}")
        with self.assertRaises(Conflict) as caught:
            services.look_at(seen, changes.LookAt(uuid.uuid4(), "idler_bore", []))
        told = caught.exception.changes
        self.assertEqual((len(told), told[0]), (21, "And 3 before these."))
        self.assertTrue(told[1].endswith("30.53 mm") and told[-1].endswith("30.72 mm"), told)

    def test_what_was_seen_before_the_gap_was_moved_proves_nothing_of_it(self):
        """An outage, or a second device: it was seen at a pump that stood otherwise, and comes after what moved it."""
        number = self.finished()
        turning = next(s.key for s in self.family(number).steps if s.has("turning"))
        proof = lambda: changes.SeeProof(uuid.uuid4(), turning, "turning")  # noqa: E731
        earlier = timezone.now()
        theirs = self.seen(number, self.lena)
        own = replace(self.seen(number), at=earlier)
        services.record_try(self.seen(number), changes.RecordTry(uuid.uuid4(), [feeler("0.14", "0.16")], moved="3 mm", way="open"))
        for ref in (theirs, own):
            with self.subTest(by=ref.actor), self.assertRaises(Conflict) as caught:
                services.see(ref, proof())
            self.assertIn("Tom: Try", caught.exception.changes[0])
            with self.subTest(by=ref.actor), self.assertRaises(Conflict):
                services.mark_step(ref, changes.MarkStep(uuid.uuid4(), turning))
        self.assertFalse(ProofMark.objects.standing().filter(job__number=number).exists())
        services.see(replace(own, at=timezone.now()), proof())  # one's own, in its order
        services.see(self.seen(number, self.lena), proof())

    def test_every_change_has_its_line_in_the_log(self):
        number = self.finished()
        events = list(Event.objects.filter(job__number=number).values_list("version", flat=True))
        self.assertEqual(events, list(range(1, Job.objects.get(number=number).version + 1)))
