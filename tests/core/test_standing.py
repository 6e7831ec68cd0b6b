"""Between overhauls: hours through replaced meters against a simulated pump, forecasts against a root finder, the rest by hand."""

import math
import unittest

from hypothesis import given
from hypothesis import strategies as st
from scipy.optimize import brentq
from scipy.stats import norm

from finegap.core.formatting import Units
from finegap.core.measuring.verdict import Limit, School, Verdict
from finegap.core.standing import since, stand
from finegap.core.wear.forecast import borrowed, fit, forecast
from finegap.core.wear.hours import HoursRead, hours_of
from finegap.core.wear.lives import Instead, Life, MeasuredSize, Point, Visit, carried, trace
from finegap.core.wear.lubrication import Metered, Plan, chained, due, total_at, totals
from tests.core.job_records import sheet

NEW = (29.98, 30.00)
"""A pin as new, in mm."""
LIMIT = Limit(lower_mm=29.90, new_mm=NEW)
U = 0.002
"""Standard uncertainty of a measured size, in mm."""


def visit(job, hours, found=None, left=None, changed=False, **more):
    """An overhaul a hundred days after the one before; 1500 bar r/min as the test works runs."""
    sizes = [None if mm is None else MeasuredSize(mm, U) for mm in (found, left)]
    return Visit(job, 100 * job, HoursRead(hours), more.pop("work", 1500.0), sizes[0], changed, sizes[1], **more)


class Meters(unittest.TestCase):
    """A pump that runs is simulated beside its meter: every reading's total is what it truly ran."""

    @given(
        st.lists(
            st.tuples(st.integers(1, 400), st.integers(0, 9000), st.sampled_from(["", "new", "used"])), min_size=1, max_size=12
        )
    )
    def test_whatever_is_replaced_the_hours_are_those_it_ran(self, visits):
        day, shows, ran, readings, truth = 0, 0.0, 0.0, [], []
        for days, hours, replaced in visits:
            day += days
            ended = began = None
            if replaced:
                ended = shows + hours / 2
                began = 0.0 if replaced == "new" else 777.0
                shows = began + hours / 2
            else:
                shows += hours
            ran += hours
            readings.append(Metered(day, shows, ended, began or 0.0))
            truth.append(ran)
        for (_, total), true in zip(chained(readings), truth, strict=True):
            self.assertAlmostEqual(total, true)
        for one, true in zip(readings, truth, strict=True):
            self.assertAlmostEqual(total_at(readings, one.day, one.hours), true)
            self.assertAlmostEqual(since(readings, one.day, true), ran - true)
        self.assertEqual(totals(readings), chained(readings))

    def test_by_hand_over_a_replaced_meter_and_one_gone_back(self):
        """4,000 h; the old one ended at 4,300, the new one began at 10 and reads 60: 4,000 + 300 + 50 = 4,350. Then it reads 20."""
        readings = [Metered(0, 4000), Metered(70, 60, 4300, 10)]
        self.assertEqual([total for _, total in chained(readings)], [4000, 4350])
        self.assertEqual(total_at(readings, 75, 80), 4370)
        back = [*readings, Metered(100, 20), Metered(114, 90)]
        self.assertEqual([total for _, total in totals(back)], [20, 90])
        self.assertIsNone(since(back, 70, 4350))
        self.assertEqual(since(back, 100, 20), 70)
        self.assertIsNone(since([], 0, 0))

    def test_oil_due_over_a_replaced_meter_by_hand(self):
        """Done at 4,000 h, every 750: 350 run since in 70 days, 35 h a week, 400 left, 80 days."""
        readings = [Metered(0, 4000), Metered(70, 60, 4300, 10)]
        (one,) = due((Plan("oil", 750),), readings, {"oil": Metered(0, 4000)}, False, None)
        self.assertEqual((one.left_h, one.day), (400, 70 + 80))

    def test_starts_and_volumes_are_hours_by_what_goes_to_one(self):
        self.assertEqual(hours_of(14_380, None), 14_380)
        self.assertEqual(hours_of(1200, 4.0), 300)
        self.assertEqual(hours_of(152_000, 4.2), 36_190)


class Lives(unittest.TestCase):
    """Parts that come, go, and are not known."""

    def test_a_scrapped_part_is_never_taken_for_the_one_in_the_pump(self):
        lives, _ = trace([visit(1, 0, 30.0), visit(2, 4000, 29.95, changed=True)], None, False, 1500)
        self.assertEqual([len(one.points) for one in lives], [2, 0])
        self.assertFalse(lives[-1].ended)
        self.assertIsNone(forecast(lives[-1], LIMIT, False, 4000))

    def test_what_took_its_place_is_new_only_where_that_is_said(self):
        gone = [visit(1, 1000, 29.97), visit(2, 2000, changed=True, instead=Instead.NEW)]
        lives, _ = trace(gone, NEW, False, 1500)
        self.assertEqual([round(p.size.value_mm, 3) for p in lives[-1].points], [29.99])
        for instead in (Instead.UNKNOWN, Instead.NOTHING):
            gone[1] = visit(2, 2000, changed=True, instead=instead)
            lives, _ = trace([*gone, visit(3, 3000, 29.93)], NEW, False, 1500)
            self.assertEqual([(p.hours, p.size.value_mm) for p in lives[-1].points], [(0.0, 29.93)])

    def test_a_part_takes_its_hours_and_sizes_with_it(self):
        """29.99 new, 29.95 at 4,000 h, out at 5,000: there it goes on from 5,000 h, and 2,000 h more are 7,000."""
        life = carried([visit(1, 4000, 29.95)], NEW, False, HoursRead(5000), 1500, 1500)
        self.assertEqual([(p.hours, round(p.size.value_mm, 3)) for p in life.points], [(0.0, 29.99), (4000.0, 29.95)])
        self.assertEqual(life.now, 5000)
        there, _ = trace(
            [visit(4, 900, 29.97), visit(5, 1000, changed=True, brought=life), visit(6, 3000, 29.93)], NEW, False, 1500
        )
        self.assertEqual([(p.hours, round(p.size.value_mm, 3)) for p in there[-1].points][1:], [(4000.0, 29.95), (7000.0, 29.93)])
        self.assertTrue(there[0].ended)

    def test_at_twice_the_pressure_its_hours_there_are_half(self):
        """Archard: 5,000 h at 1,500 bar r/min wear as 2,500 h at 3,000."""
        life = carried([visit(1, 4000, 29.95)], NEW, False, HoursRead(5000), 1500, 3000)
        self.assertEqual((life.points[1].hours, life.now), (2000, 2500))


class Borrowed(unittest.TestCase):
    """A part measured once is forecast at the rate of the one before it, and no surer than that."""

    BEFORE = Life((Point(0.0, MeasuredSize(29.99, U)), Point(4000.0, MeasuredSize(29.95, U), 1)), 4000.0, ended=True)

    @given(st.floats(0.0005, 0.004), st.floats(29.96, 30.0), st.floats(0, 3000))
    def test_bounds_are_where_size_and_rate_together_meet_the_limit(self, u, size, hours):
        life = Life((Point(hours, MeasuredSize(size, u), 2),), hours)
        found = borrowed(life, self.BEFORE, LIMIT, False, None)
        rate, u_rate = fit(self.BEFORE.points).rate_mm_h, fit(self.BEFORE.points).rate_u
        k = norm.ppf(0.95)

        def edge(t, side):
            return size + rate * t + side * k * math.hypot(u, u_rate * t) - 29.90

        self.assertAlmostEqual(found.hours_left, (size - 29.90) / -rate, delta=0.01)
        self.assertAlmostEqual(found.early, brentq(lambda t: edge(t, -1), 0, 1e5), delta=0.01)
        self.assertAlmostEqual(found.late, brentq(lambda t: edge(t, 1), 0, 1e6), delta=0.1)
        self.assertIn("Like the part before it", found.sentence.render(Units.MM))

    def test_nothing_is_borrowed_of_what_did_not_wear_or_is_not_known(self):
        life = Life((Point(0.0, MeasuredSize(29.99, U), 2),), 0.0)
        grew = Life((Point(0.0, MeasuredSize(29.95, U)), Point(4000.0, MeasuredSize(29.99, U), 1)), 4000.0, ended=True)
        self.assertIsNone(borrowed(life, grew, LIMIT, False, None))
        self.assertIsNone(borrowed(Life(life.points, None), self.BEFORE, LIMIT, False, None))
        self.assertIsNone(borrowed(life, Life(self.BEFORE.points[:1], 0.0, ended=True), LIMIT, False, None))
        unlimited = borrowed(life, self.BEFORE, None, False, None)
        self.assertEqual((unlimited.hours_left, unlimited.early), (None, None))


class Standing(unittest.TestCase):
    """The test sheet's idler pin: new 29.98 to 30.00, at least 29.90 mm."""

    READINGS = (Metered(0, 0), Metered(100, 4000), Metered(170, 4350))
    """35 h a week since the overhaul, some 180 on the whole."""

    def stand(self, visits=None, planned=None, readings=READINGS, overhauls=((100, 4000.0),), **changes):
        of = sheet(**changes)
        given = {"idler_pin": visits or (visit(1, 4000, 29.95),)}
        return stand(of, of.family_of({}), given, overhauls, readings, 1500, planned)

    def pin(self, standing):
        return next(one for one in standing.parts if one.feature.key == "idler_pin")

    def test_hours_left_are_those_of_the_forecast_less_those_run_since(self):
        """0.04 mm in 4,000 h, 0.05 mm to go: 5,000 h from the overhaul, 4,650 from now."""
        pin = self.pin(self.stand())
        self.assertAlmostEqual(pin.left_h, 4650)
        self.assertAlmostEqual(pin.coming.early - pin.early_h, 350)
        self.assertAlmostEqual(pin.worn_mm, 29.95 - 0.01 / 1000 * 350)
        self.assertAlmostEqual(pin.share, 0.04 / 0.09)
        self.assertEqual((pin.verdict, pin.measured, pin.day), (Verdict.KEEP, True, 100))

    def test_the_soonest_of_interval_and_wear_comes_next_with_its_reason(self):
        standing = self.stand(planned=1000)
        self.assertEqual((standing.next.key, standing.next.left_h, standing.next.at_h), ("", 650, 5000))
        # 4,350 h in 170 days: 650 h more are 25.4 days
        self.assertEqual(standing.next.day, 170 + round(650 / (4350 / 170)))
        self.assertIn("Planned overhaul: in 650", standing.next.sentence.render(Units.MM))
        standing = self.stand(planned=100_000)
        self.assertEqual(standing.next.key, "idler_pin")
        self.assertEqual(standing.next.left_h, self.pin(standing).early_h)
        self.assertIn("could be at its limit", standing.next.sentence.render(Units.MM))

    def test_the_plain_school_goes_by_the_line_the_guarded_by_its_edge(self):
        plain = self.stand(school="plain")
        self.assertEqual(plain.next.left_h, self.pin(plain).left_h)
        self.assertGreater(plain.next.left_h, self.stand().next.left_h)
        self.assertIn("predicted at its limit", plain.next.sentence.render(Units.MM))
        self.assertIs(plain.sheet.school, School.PLAIN)

    def test_what_is_past_is_said_and_watched_and_never_changed_unmeasured(self):
        late = self.stand(readings=(*self.READINGS, Metered(300, 12_000)), planned=1000)
        pin = self.pin(late)
        self.assertLess(pin.left_h, 0)
        self.assertEqual(pin.verdict, Verdict.WATCH)
        self.assertIn("could be at its limit now", pin.sentence.render(Units.MM))
        self.assertIn("7\u00a0000\u00a0h ago", late.next.sentence.render(Units.MM))
        self.assertEqual(late.next.day, 300)

    def test_a_part_past_its_limit_is_change_however_it_was_kept(self):
        self.assertEqual(self.pin(self.stand((visit(1, 4000, 29.88),))).verdict, Verdict.CHANGE)

    def test_nothing_is_claimed_of_what_nobody_measured(self):
        """A size off the sheet is none of the part; a new part is said to be one."""
        bore = next(one for one in self.stand().parts if one.feature.key == "idler_bore")
        self.assertEqual((bore.last, bore.verdict, bore.share), (None, None, None))
        self.assertIn("not measured", bore.sentence.render(Units.MM))
        unseen = self.pin(self.stand((visit(1, 4000),)))
        self.assertEqual((unseen.last, unseen.verdict), (None, None))
        fitted = self.pin(self.stand((visit(1, 4000, 29.95, changed=True),)))
        self.assertEqual((fitted.measured, fitted.verdict), (False, None))
        self.assertIn("A new part, taken as the sheet has it", fitted.sentence.render(Units.MM))
        self.assertIsNotNone(fitted.left_h)
        for brought in (Life((Point(0.0, MeasuredSize(29.99, U), 0, 0, measured=False),), 500.0), Life((), None)):
            came = self.pin(self.stand((visit(1, 4000, changed=True, brought=brought),)))
            self.assertEqual((came.last, came.measured, came.share), (None, False, None))

    def test_without_readings_interval_or_history_nothing_falls_due(self):
        self.assertIsNone(self.stand(readings=()).next)
        empty = stand(sheet(), sheet().family_of({}), {}, (), (), 1500, 4000)
        self.assertEqual((empty.next, empty.needs, empty.worst), (None, None, ()))
        first = stand(sheet(), sheet().family_of({}), {}, (), self.READINGS, 1500, 5000)
        self.assertEqual(first.next.left_h, 650)
        self.assertIn("counted from 0 h", first.next.working.given[1].text.render(Units.MM))

    def test_a_meter_gone_back_ends_what_can_be_told(self):
        standing = self.stand(readings=(*self.READINGS, Metered(200, 5)), planned=1000)
        self.assertEqual((standing.run_h, standing.next, self.pin(standing).left_h), (None, None, None))

    def test_what_the_next_inspection_needs_is_what_does_not_last_to_the_one_after(self):
        parts = {
            "currency": "EUR",
            "parts": [
                {"number": "1", "name": "pin", "price": 10, "lead_days": 14, "renews": ["idler_pin"]},
                {"number": "2", "name": "gasket", "price": 1, "lead_days": 3, "always": True},
            ],
        }
        numbers = [line.number for line in self.stand(planned=1000, catalogue=parts).needs.cover.lines]
        self.assertEqual(numbers, ["2"])
        needs = self.stand(planned=3000, catalogue=parts).needs
        self.assertEqual(([line.number for line in needs.cover.lines], needs.cover.lead_days), (["1", "2"], 14))

    def test_the_least_left_stands_first(self):
        worst = self.stand().worst
        self.assertEqual([one.feature.key for one in worst], ["idler_pin"])
