"""Wear: lines against certified data and statsmodels, lives against facts of the trade, parts against a general solver."""

import math
import unittest
import warnings

import numpy as np
from hypothesis import assume, given
from hypothesis import strategies as st
from scipy.optimize import brentq
from scipy.stats import t as student

from finegap.core.errors import FieldError
from finegap.core.formatting import Units
from finegap.core.measuring.verdict import Limit
from finegap.core.wear.forecast import crossings, fit, forecast
from finegap.core.wear.hours import HoursRead, hours_per_week, since_before
from finegap.core.wear.lives import Life, MeasuredSize, Point, Visit, trace
from finegap.core.wear.parts import Catalogue, CataloguePart, Kit, cover
from tests.references import VALUES


def points(hours, sizes, u=0.0):
    return [Point(float(h), MeasuredSize(float(y), u)) for h, y in zip(hours, sizes, strict=True)]


class Certified(unittest.TestCase):
    """NIST StRD linear regression, certified values (regression-01, Norris), and wear-life values of statsmodels and GTC."""

    def test_norris(self):
        entry = VALUES["regression-01"]
        line = fit(points(entry["inputs"]["x"], entry["inputs"]["y"]))
        expected = entry["expected"]
        for ours, name in ((line.at_mm, "B0"), (line.rate_mm_h, "B1"), (line.rate_u, "sB1"), (line.scatter, "s")):
            self.assertAlmostEqual(ours / expected[name], 1, delta=1e-9)

    def test_norris_prediction_interval_by_statsmodels(self):
        norris = VALUES["regression-01"]["inputs"]
        line = fit(points(norris["x"], norris["y"]))
        for name in ("regression-03", "regression-04"):
            entry = VALUES[name]
            x0, expected = entry["inputs"]["x0"], entry["expected"]
            half = line.half_width(x0, one_sided=0.975)
            self.assertAlmostEqual(line.size(x0), expected["mean"], delta=1e-6 * x0)
            self.assertAlmostEqual(line.size(x0) - half, expected["pi_lo"], delta=1e-6 * x0)
            self.assertAlmostEqual(line.size(x0) + half, expected["pi_hi"], delta=1e-6 * x0)

    def test_hours_to_the_limit_come_from_the_band(self):
        for name in ("wear-life-01", "wear-life-03"):
            given_, expected = VALUES[name]["inputs"], VALUES[name]["expected"]
            line = fit(points(given_["hours"], given_["clearance_mm"]))
            early, middle, late = crossings(line, given_["limit_mm"], wears_up=True, now=0.0)
            with self.subTest(name=name):
                self.assertAlmostEqual(early / expected["t_pi_early_95one"], 1, delta=1e-5)
                self.assertAlmostEqual(middle / expected["t_limit"], 1, delta=1e-9)
                self.assertGreater(late, middle)
                low, high = line.rate_bounds()
                self.assertAlmostEqual(low / expected["rate_lo95"], 1, delta=1e-5)
                self.assertAlmostEqual(high / expected["rate_hi95"], 1, delta=1e-5)

    @given(st.lists(st.tuples(st.floats(0, 20_000), st.floats(-0.01, 0.01)), min_size=3, max_size=10), st.floats(2e-6, 2e-5))
    def test_against_statsmodels_and_a_root_finder(self, drawn, rate):
        import statsmodels.api as sm

        hours = np.array([h for h, _ in drawn])
        assume(np.ptp(hours) > 500)
        sizes = 30 + rate * hours + np.array([e for _, e in drawn])
        line = fit(points(hours, sizes))
        with warnings.catch_warnings():
            warnings.simplefilter("ignore")
            model = sm.OLS(sizes, sm.add_constant(hours)).fit()
        assume(model.mse_resid > 1e-10)
        far = float(hours.max()) * 1.5
        told = model.get_prediction([[1.0, far]]).summary_frame(alpha=0.1)
        self.assertAlmostEqual(line.size(far), told["mean"][0], places=6)
        self.assertAlmostEqual(line.size(far) + line.half_width(far), told["obs_ci_upper"][0], places=6)
        low, _ = line.rate_bounds(confidence=0.9)
        assume(low > rate / 100)
        limit = line.size(far) + 4 * line.half_width(far)
        early, _, late = crossings(line, limit, wears_up=True, now=0.0)
        upper = lambda x: model.get_prediction([[1.0, x]]).summary_frame(alpha=0.1)["obs_ci_upper"][0] - limit  # noqa: E731
        self.assertAlmostEqual(early, brentq(upper, -1e5, late), delta=max(early * 1e-5, 0.05))

    @given(
        st.floats(0.001, 0.01), st.floats(0.001, 0.01), st.floats(500, 9000), st.floats(0.02, 0.2), st.booleans(),
    )  # fmt: skip
    def test_two_sizes_carry_their_uncertainty_along_the_line(self, u0, u1, run, worn, up):
        """Against numerical error propagation: each size moved by its u in turn."""
        sign = 1 if up else -1
        first, second = 30.0, 30.0 + sign * worn
        line = fit([Point(0.0, MeasuredSize(first, u0)), Point(run, MeasuredSize(second, u1))])

        def at(t, a, b):
            return a + (b - a) * t / run

        for t in (0.0, run / 2, run, 3 * run):
            moved = [at(t, first + u0, second) - at(t, first, second), at(t, first, second + u1) - at(t, first, second)]
            self.assertAlmostEqual(line.half_width(t, 0.95), 1.6448536 * math.hypot(*moved), places=7)

    def test_scatter_is_never_less_than_the_measuring_is_good(self):
        hours, sizes = [0, 1000, 2000, 3000], [1.0, 1.01, 1.02, 1.03]
        line = fit(points(hours, sizes, u=0.004))
        self.assertEqual(line.dof, math.inf)
        # the variance of a further size at the middle: u² (1 + 1/n)
        self.assertAlmostEqual(line.half_width(1500), 1.6448536 * 0.004 * math.sqrt(1.25), places=8)
        rough = fit(points(hours, [1.0, 1.03, 1.0, 1.04], u=0.0001))
        self.assertEqual(rough.dof, 2)

    def test_three_thousand_lives_hour_by_hour(self):
        """Earliest, predicted, latest, "could be before the overhaul": by looking at every hour; bands by numpy and scipy."""
        rng = np.random.default_rng(20261128)
        hours, already, past_roots = np.arange(60_001.0), 0, 0
        for _ in range(3000):
            n, up, u = int(rng.integers(2, 7)), bool(rng.integers(2)), float(rng.uniform(0.001, 0.01))
            t = np.sort(rng.choice(20_000, n, replace=False).astype(float))
            now, planned = float(t[-1] + rng.integers(0, 2000)), float(rng.integers(500, 12_000))
            sign = 1 if up else -1
            y = 30 + sign * float(rng.uniform(-1e-6, 1.5e-5)) * t + rng.normal(0, rng.choice([0.0005, 0.004, 0.02]), n)
            limit = 30 + sign * float(rng.uniform(-0.02, 0.3))
            centre, half = band_by_numpy(t, y, u, now + hours)
            beyond = [sign * (edge - limit) >= 0 for edge in (centre + sign * half, centre, centre - sign * half)]
            expected = [int(np.argmax(hit)) if hit.any() else None for hit in beyond]
            bound = Limit(None, limit) if up else Limit(limit, None)
            coming = forecast(Life(tuple(points(t, y, u)), now), bound, up, planned)
            found = [coming.early, coming.hours_left, coming.late]
            self.assertEqual([None if h is None or h > 60_000 else math.ceil(h - 1e-6) for h in found], expected, (t, y, u, limit))
            self.assertEqual(coming.may_cross, bool(beyond[0][: int(planned) + 1].any()))
            self.assertEqual(coming.crosses, bool(beyond[1][: int(planned) + 1].any()))
            already += expected[0] == 0 and expected[1] != 0
            past_roots += expected[0] is None
        self.assertGreater(min(already, past_roots), 50)  # both defects of old would have been met

    def test_what_may_not_wear_at_all_has_no_latest_hour(self):
        line = fit(points([0, 1000, 2000], [1.0, 1.02, 1.005]))
        early, middle, late = crossings(line, 1.2, wears_up=True, now=0.0)
        self.assertIsNone(late)
        self.assertTrue(early is not None and middle is not None and early < middle)
        # growing the other way: it never gets there
        self.assertEqual(crossings(fit(points([0, 1000, 2000], [1.02, 1.01, 1.0])), 1.2, True, 0.0), (None, None, None))


def band_by_numpy(t, y, u, at):
    """Line and 95 % one-sided band of one further size: `numpy.polyfit`, `scipy.stats`, the sizes' u as the least scatter."""
    if len(t) == 2:
        share = (at - t[0]) / (t[1] - t[0])
        return y[0] + (y[1] - y[0]) * share, 1.6448536269514722 * u * np.hypot(1 - share, share)
    slope, start = np.polyfit(t - t.mean(), y, 1)
    scatter = math.sqrt(np.sum((y - start - slope * (t - t.mean())) ** 2) / (len(t) - 2))
    k, s = (student.ppf(0.95, len(t) - 2), scatter) if scatter >= u else (1.6448536269514722, u)
    return start + slope * (at - t.mean()), k * s * np.sqrt(1 + 1 / len(t) + (at - t.mean()) ** 2 / np.sum((t - t.mean()) ** 2))


NEW = (30.00, 30.02)


def visit(job, hours, found=None, **more):
    size = None if found is None else MeasuredSize(found, 0.002)
    old = more.pop("old_last", None)
    left = more.pop("left", None)
    return Visit(
        job, job * 400, HoursRead(hours, old, more.pop("new_first", 0.0)), more.pop("work", 1800.0), size,
        left=MeasuredSize(left, 0.002) if left else None, **more,
    )  # fmt: skip


class Lives(unittest.TestCase):
    def trace(self, *visits, up=True, work=1800.0):
        lives, notes = trace(visits, NEW, up, work)
        return lives, [n.render(Units.MM) for n in notes]

    def test_one_reading_and_the_new_size_give_a_rate(self):
        lives, notes = self.trace(visit(1, 5000, 30.06))
        (life,) = lives
        self.assertEqual([(p.hours, p.job) for p in life.points], [(0.0, 0), (5000.0, 1)])
        self.assertEqual(notes, [])
        coming = forecast(life, Limit(None, 30.11, NEW), True, planned_h=4000)
        # from 30.01 as new to 30.06 in 5,000 h: another 5,000 h to 30.11
        self.assertAlmostEqual(coming.hours_left, 5000)
        self.assertFalse(coming.crosses)
        self.assertTrue(coming.early < 5000 < coming.late)
        self.assertAlmostEqual(coming.line.rate_mm_h * 1000, 0.01)

    def test_a_changed_part_begins_a_life_with_what_was_left(self):
        lives, _ = self.trace(visit(1, 5000, 30.06, changed=True, left=30.015), visit(2, 8000, 30.03))
        self.assertEqual([[p.hours for p in life.points] for life in lives], [[0, 5000], [0, 3000]])
        self.assertEqual(lives[1].points[0].size.value_mm, 30.015)
        unmeasured, _ = self.trace(visit(1, 5000, 30.06, changed=True), visit(2, 8000, 30.03))
        self.assertAlmostEqual(unmeasured[1].points[0].size.value_mm, 30.01)
        self.assertAlmostEqual(unmeasured[1].points[0].size.u_mm, 0.02 / math.sqrt(12))

    def test_ten_readings_are_one_line(self):
        visits = [visit(i, 1000.0 * i, 30.01 + 0.005 * i) for i in range(1, 11)]
        lives, notes = self.trace(*visits)
        self.assertEqual((len(lives), len(lives[0].points), notes), (1, 11, []))
        self.assertAlmostEqual(fit(lives[0].points).rate_mm_h * 1000, 0.005)

    def test_a_replaced_meter_counts_on(self):
        lives, notes = self.trace(visit(1, 9000, 30.05), visit(2, 700, 30.06, old_last=9400, new_first=100))
        self.assertEqual([p.hours for p in lives[0].points], [0, 9000, 10_000])
        self.assertEqual(notes, [])

    def test_a_meter_gone_backwards_is_said_and_counted_anew(self):
        lives, notes = self.trace(visit(1, 9000, 30.05), visit(2, 700, 30.06), visit(3, 1700, 30.07))
        self.assertIn("goes backwards at job 2", notes[0])
        self.assertEqual([[p.hours for p in life.points] for life in lives], [[0, 9000], [0, 1000]])

    def test_readings_that_go_the_wrong_way(self):
        lives, notes = self.trace(visit(1, 4000, 30.08), visit(2, 8000, 30.06))
        self.assertIn("parts do not grow back", notes[0])
        self.assertEqual(len(lives), 1)
        _, quiet = self.trace(visit(1, 4000, 30.060), visit(2, 8000, 30.059))
        self.assertEqual(quiet, [])  # less than the measuring is good for

    def test_a_part_changed_without_a_record(self):
        lives, notes = self.trace(visit(1, 4000, 30.08), visit(2, 8000, 30.012), visit(3, 9000, 30.02))
        self.assertIn("changed without a record", notes[0])
        self.assertEqual([[p.hours for p in life.points] for life in lives], [[0, 4000], [0, 1000]])

    def test_without_hours_a_size_is_left_out_and_said(self):
        lives, notes = self.trace(visit(1, None, 30.05), visit(2, 8000, 30.06))
        self.assertIn("Sizes of job 1 are left out", notes[0])
        self.assertEqual([p.job for p in lives[0].points], [0, 2])

    def test_pins_wear_down(self):
        lives, notes = self.trace(*(visit(i, 2000 * i, 30.01 - 0.015 * i) for i in range(1, 5)), up=False)
        self.assertEqual((len(lives), notes), (1, []))
        coming = forecast(lives[0], Limit(29.90, None, NEW), False, None)
        self.assertLess(coming.line.rate_mm_h, 0)
        self.assertTrue(0 < coming.early < coming.hours_left < coming.late)

    def test_wear_follows_load_and_distance(self):
        """Archard: twice the pressure at the same speed is twice the wear, so an hour then counts two now."""
        same, _ = self.trace(visit(1, 4000, 30.05))
        harder, _ = self.trace(visit(1, 4000, 30.05, work=3600.0))
        self.assertEqual((same[0].now, harder[0].now), (4000, 8000))

    def test_a_duty_that_is_not_known_is_asked_about(self):
        for work, now in ((0.0, 1800.0), (1800.0, 0.0), (0.0, 0.0)):
            lives, notes = self.trace(visit(1, 4000, 30.05, work=work), work=now)
            self.assertIn("At which pressure and speed did it run before job 1?", notes[0])
            self.assertEqual([p.job for p in lives[-1].points], [1])
            self.assertIsNone(forecast(lives[-1], Limit(None, 30.11, NEW), True, 4000))

    @given(st.lists(st.one_of(st.none(), st.integers(0, 30_000)), max_size=8), st.lists(st.booleans(), min_size=8, max_size=8))
    def test_whatever_the_meter_says_hours_in_a_life_never_run_backwards(self, hours, changes):
        visits = [visit(i, h, 30.01 + i / 100, changed=c) for i, (h, c) in enumerate(zip(hours, changes, strict=False), 1)]
        for life in trace(visits, NEW, True, 1800.0)[0]:
            along = [p.hours for p in life.points]
            self.assertEqual(along, sorted(along))
            fit(life.points)

    def test_hours_a_week(self):
        self.assertIsNone(hours_per_week([(10, None)]))
        self.assertAlmostEqual(hours_per_week([(0, 0.0), (70, 400.0), (140, None), (210, 600.0)]), 1000 / 140 * 7)
        self.assertEqual(since_before(900, HoursRead(50, old_last=1000, new_first=10)), 140)


def catalogue(draw):
    numbers = [f"P{i}" for i in range(draw(st.integers(1, 6)))]
    price = st.integers(0, 500)
    parts = tuple(CataloguePart(n, n, draw(st.one_of(price, price, st.none())), 0) for n in numbers)
    kits = tuple(
        Kit(f"K{i}", f"K{i}", draw(price), 0, draw(st.dictionaries(st.sampled_from(numbers), st.integers(1, 3), min_size=1)))
        for i in range(draw(st.integers(0, 4)))
    )
    needs = draw(st.dictionaries(st.sampled_from(numbers), st.integers(1, 4), min_size=1))
    return Catalogue("EUR", parts, kits), needs


def by_ortools(of, needs):
    """The same by CP-SAT, a general-purpose exact solver."""
    from ortools.sat.python import cp_model

    model = cp_model.CpModel()
    kits = [model.new_int_var(0, 30, k.number) for k in of.kits]
    singles = {p.number: model.new_int_var(0, 30 if p.price_cents is not None else 0, p.number) for p in of.parts}
    for number, count in needs.items():
        inside = sum(k.contents.get(number, 0) * v for k, v in zip(of.kits, kits, strict=True))
        model.add(singles[number] + inside >= count)
    cost = sum(k.price_cents * v for k, v in zip(of.kits, kits, strict=True))
    model.minimize(cost + sum((p.price_cents or 0) * singles[p.number] for p in of.parts))
    solver = cp_model.CpSolver()
    solver.parameters.num_workers = 1
    return round(solver.objective_value) if solver.solve(model) == cp_model.OPTIMAL else None


class Parts(unittest.TestCase):
    @given(st.data())
    def test_the_cheapest_cover_is_the_solvers(self, data):
        of, needs = catalogue(data.draw)
        bought = cover(needs, of)
        sold = {p.number for p in of.parts if p.price_cents is not None} | {n for k in of.kits for n in k.contents}
        self.assertEqual(set(bought.missing), set(needs) - sold)
        possible = {n: c for n, c in needs.items() if n in sold}
        self.assertEqual(bought.total_cents, by_ortools(of, possible))
        had = dict.fromkeys(possible, 0)
        for line in bought.lines:
            kit = next((k for k in of.kits if k.number == line.number), None)
            for number, count in (kit.contents if kit else {line.number: 1}).items():
                if number in had:
                    had[number] += count * line.count
        self.assertTrue(all(had[n] >= c for n, c in possible.items()))

    def test_greedy_would_be_dearer(self):
        """The kit with the most parts for its price is not in the cheapest cover."""
        parts = tuple(CataloguePart(n, n, 60, 0) for n in "ABCD")
        kits = (
            Kit("K1", "K1", 90, 0, {"A": 1, "B": 1, "C": 1}),
            Kit("K2", "K2", 65, 0, {"A": 1, "B": 1}),
            Kit("K3", "K3", 65, 0, {"C": 1, "D": 1}),
        )
        bought = cover(dict.fromkeys("ABCD", 1), Catalogue("EUR", parts, kits))
        self.assertEqual(sorted(line.number for line in bought.lines), ["K2", "K3"])
        self.assertEqual((bought.total_cents, bought.spare), (130, {}))
        three = cover(dict.fromkeys("ABC", 1), Catalogue("EUR", parts, kits))
        self.assertEqual([line.number for line in three.lines], ["K1"])
        two = cover({"A": 1, "C": 1}, Catalogue("EUR", parts, kits))
        self.assertEqual(([line.number for line in two.lines], two.spare), (["K1"], {"B": 1}))

    def test_a_catalogue_that_contradicts_itself(self):
        part = CataloguePart("A", "a", 1, 0)
        for parts, kits, says in (
            ((part, part), (), "given twice"),
            ((part,), (Kit("A", "k", 1, 0, {"A": 1}),), "given twice"),
            ((part,), (Kit("K", "k", 1, 0, {"B": 1}),), "not in the list"),
        ):
            with self.assertRaisesRegex(FieldError, says):
                Catalogue("EUR", parts, kits).check("catalogue")


class Forecasting(unittest.TestCase):
    def test_nothing_to_go_by(self):
        self.assertIsNone(forecast(Life((Point(0, MeasuredSize(1, 0.1)),), 0.0), None, True, None))
        self.assertIsNone(forecast(Life(tuple(points([5, 5], [1, 2])), 5.0), None, True, None))
        self.assertIsNone(forecast(Life(tuple(points([0, 5], [1, 2])), None), None, True, None))

    @given(st.floats(0.005, 0.2), st.floats(100, 20_000), st.floats(0.0005, 0.01))
    def test_predicted_past_the_limit_means_the_line_is_past_it_there(self, worn, planned, u):
        life = Life((Point(0, MeasuredSize(30, u)), Point(5000, MeasuredSize(30 + worn, u))), 5000.0)
        coming = forecast(life, Limit(None, 30.25, (29.99, 30.0)), True, planned)
        self.assertEqual(coming.crosses, coming.line.size(5000 + planned) > 30.25)
        self.assertLessEqual(coming.early, coming.hours_left)
        for units in Units:
            self.assertNotRegex(coming.sentence.render(units), r"[{}]|nan|None")

    def test_the_band_has_student_t_in_it(self):
        line = fit(points([0, 1, 2, 3, 4], [0, 1.1, 1.9, 3.2, 3.8]))
        s = math.sqrt(sum((y - line.size(x)) ** 2 for x, y in enumerate([0, 1.1, 1.9, 3.2, 3.8])) / 3)
        self.assertAlmostEqual(line.half_width(2), student.ppf(0.95, 3) * s * math.sqrt(1.2), places=9)
