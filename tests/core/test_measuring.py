"""Results, uncertainties and verdicts, against the GUM, JCGM 106, ISO 14253-1, GTC and scipy."""

import math
import unittest
from functools import partial
from itertools import pairwise

import GTC
import numpy as np
from hypothesis import given
from hypothesis import strategies as st
from scipy import integrate, stats

from finegap.core.errors import FieldError
from finegap.core.formatting import Units
from finegap.core.gauges import CabinetGauge, GaugeKind
from finegap.core.materials import MATERIALS, Expansion, part_expansion, warm_part
from finegap.core.measuring.plausible import check_plausible
from finegap.core.measuring.readings import CertifiedGauge, StationReading, Statistic, running_clearance, summarize
from finegap.core.measuring.uncertainty import Component, combine, coverage_factor, from_interval, pooled_repeatability
from finegap.core.measuring.verdict import Limit, School, Verdict, conformance_probability, guard_of, judge
from finegap.core.quantities import parse
from finegap.core.units import Dimension
from tests.references import VALUES

MICROMETER = CertifiedGauge("M", 0.001, 0.0012, 2)


def at(station: str, *values: float, gauge: CertifiedGauge = MICROMETER, plane: str = "front") -> list[StationReading]:
    return [StationReading(station, plane, value, gauge) for value in values]


class Gum(unittest.TestCase):
    """JCGM 100:2008, published values from memory (check-values.json) and recomputed with GTC 1.5.1."""

    def test_h1_end_gauge(self):
        values = VALUES["gum-01"]["inputs"]
        alpha, theta, length_nm = values["alpha_s"], values["theta_mean"], values["ls_nm"][0]
        components = [
            Component("standard", values["ls_nm"][1], values["ls_nm"][2]),
            Component("repeats", values["dbar_nm"][1], values["dbar_nm"][2]),
            Component("random", values["d1_nm"][1], values["d1_nm"][2]),
            Component("systematic", values["d2_nm"][1], values["d2_nm"][2]),
            Component("expansions differ", length_nm * abs(theta[0]) * values["dalpha"][1], values["dalpha"][2]),
            Component("temperatures differ", length_nm * alpha[0] * values["dtheta"][1], values["dtheta"][2]),
        ]
        combined = combine(components)
        expected = VALUES["gum-01"]["expected"]
        self.assertAlmostEqual(combined.u, expected["uc_nm"], delta=0.51)
        self.assertAlmostEqual(combined.dof, expected["nu_eff"], delta=0.2)
        self.assertEqual(math.floor(combined.dof), expected["nu_eff_used"])
        self.assertAlmostEqual(coverage_factor(16, 0.99), expected["t99"], delta=0.005)
        self.assertAlmostEqual(coverage_factor(16, 0.99) * combined.u, expected["U99_nm"], delta=1.0)

    def test_table_1_temperatures(self):
        entry = VALUES["gum-04"]
        spread, dof = pooled_repeatability([entry["inputs"]["x"]])
        self.assertEqual(dof, 19)
        self.assertAlmostEqual(spread, entry["expected"]["s"], delta=0.0006)
        self.assertAlmostEqual(spread / math.sqrt(20), entry["expected"]["s_mean"], delta=0.0006)

    def test_table_g2(self):
        entry = VALUES["gum-07"]
        for dof in entry["inputs"]["nu"]:
            for p, expected in zip(entry["inputs"]["p"], entry["expected"][str(dof)], strict=True):
                self.assertTrue(math.isclose(coverage_factor(dof, p), expected, rel_tol=1e-6))

    def test_five_readings_of_a_shaft_against_gtc(self):
        readings = VALUES["gum-09"]["inputs"]["readings_mm"]
        result = summarize(at("12", *readings), Statistic.SMALLEST, "shaft")
        parts = GTC.type_a.estimate(readings) + GTC.ureal(0, GTC.type_b.uniform(0.0005)) + GTC.ureal(0, 0.0012 / 2)
        self.assertAlmostEqual(result.value_mm, parts.x, 12)
        self.assertAlmostEqual(result.u_mm, parts.u, 12)
        self.assertAlmostEqual(result.dof, GTC.dof(parts), 6)
        self.assertAlmostEqual(result.expanded_mm, stats.t.ppf(0.975, GTC.dof(parts)) * parts.u, 9)

    @given(st.lists(st.tuples(st.floats(1e-4, 1), st.integers(1, 200)), min_size=1, max_size=6))
    def test_welch_satterthwaite_against_gtc(self, parts):
        ours = combine([Component("", u, dof) for u, dof in parts])
        theirs = sum((GTC.ureal(0, u, dof) for u, dof in parts), GTC.ureal(0, 0))
        self.assertTrue(math.isclose(ours.u, theirs.u, rel_tol=1e-9))
        self.assertTrue(math.isclose(ours.dof, GTC.dof(theirs), rel_tol=1e-6))

    def test_a_feeler_interval_is_a_rectangle(self):
        # scipy's uniform distribution on the interval
        self.assertAlmostEqual(from_interval(0.20, 0.22), stats.uniform(0.20, 0.02).std(), 12)


class Results(unittest.TestCase):
    @given(st.dictionaries(st.sampled_from("abcdefgh"), st.lists(st.floats(10, 50), min_size=1, max_size=5), min_size=1))
    def test_statistics_against_numpy(self, stations):
        readings = [r for name, values in stations.items() for r in at(name, *values)]
        means = [float(np.mean(v)) for v in stations.values()]
        smallest = summarize(readings, Statistic.SMALLEST, "x")
        largest = summarize(readings, Statistic.LARGEST, "x")
        self.assertAlmostEqual(smallest.value_mm, min(means), 9)
        self.assertAlmostEqual(largest.value_mm, max(means), 9)
        self.assertAlmostEqual(largest.mean_mm, float(np.mean(means)), 9)
        self.assertAlmostEqual(largest.spread_mm, float(np.ptp(means)), 9)
        if len(means) > 1:
            self.assertAlmostEqual(largest.out_of_round_mm, float(np.ptp(means)), 9)
        else:
            self.assertIsNone(largest.out_of_round_mm)

    def test_out_of_round_is_within_a_plane_and_taper_between_planes(self):
        readings = at("f/12", 42.13) + at("f/3", 42.10) + at("b/12", 42.20, plane="back") + at("b/3", 42.19, plane="back")
        result = summarize(readings, Statistic.LARGEST, "bore")
        self.assertAlmostEqual(result.out_of_round_mm, 0.03)
        self.assertAlmostEqual(result.taper_mm, (42.20 + 42.19) / 2 - (42.13 + 42.10) / 2)

    def test_without_repeats_it_says_what_is_missing(self):
        bare = summarize(at("12", 42.1) + at("3", 42.2), Statistic.LARGEST, "bore")
        self.assertIn("twice more", bare.notes[0].render(Units.MM))
        known = CertifiedGauge("B-1", 0.001, 0.0012, 2, repeatability_mm=0.01)
        kept = summarize(at("12", 42.1, gauge=known), Statistic.LARGEST, "bore")
        self.assertGreater(kept.u_mm, 0.01)
        with self.assertRaises(FieldError):
            summarize([], Statistic.LARGEST, "bore")

    def test_running_clearance_is_largest_bore_less_smallest_shaft(self):
        bore = summarize(at("12", 42.13, 42.14) + at("3", 42.10), Statistic.LARGEST, "bore")
        shaft = summarize(at("12", 41.98, 41.97) + at("3", 41.99), Statistic.SMALLEST, "shaft")
        pair = running_clearance(bore, shaft, "pair")
        self.assertAlmostEqual(pair.value_mm, 42.135 - 41.975)
        self.assertAlmostEqual(pair.u_mm, math.hypot(bore.u_mm, shaft.u_mm))

    def test_repeats_that_agree_to_the_last_digit_still_show_their_working(self):
        near = [41.985, 41.985 + 7e-15] * 40
        result = summarize(at("12", *near), Statistic.SMALLEST, "shaft")
        self.assertGreater(result.dof, 1e9)
        shown = {g.symbol: g.text.text(Units.IN) for g in result.working.given}
        self.assertEqual(shown["ν"], "infinite")

    def test_a_certificate_that_cannot_be(self):
        for bad in (
            lambda: CertifiedGauge("x", 0, 0.1, 2),
            lambda: CertifiedGauge("x", 0.01, -1, 2),
            lambda: CertifiedGauge("x", 0.01, 0.1, 0),
        ):
            with self.assertRaises(FieldError):
                bad()


class Verdicts(unittest.TestCase):
    def test_jcgm_106_examples(self):
        """JCGM 106:2012, examples of clause 7 (clause numbers from memory), and scipy."""
        for key in ("conformity-01", "conformity-03"):
            entry = VALUES[key]
            given_ = entry["inputs"]
            p = conformance_probability(given_["y"], given_["u"], math.inf, Limit(given_["lower"], given_["upper"]))
            self.assertAlmostEqual(p, entry["expected"], delta=0.006)
        entry = VALUES["conformity-04"]
        for (y, u, low, high), expected in zip(entry["inputs"]["y_u_lower_upper"], entry["expected"], strict=True):
            self.assertAlmostEqual(conformance_probability(y, u, math.inf, Limit(low, high)), expected, 9)
        few = VALUES["conformity-06"]
        p = conformance_probability(few["inputs"]["y"], few["inputs"]["u"], few["inputs"]["nu_eff"], Limit(None, 0.125))
        self.assertAlmostEqual(p, few["expected"]["p_conform"], 9)

    @given(st.floats(0.002, 0.1), st.just(0.0) | st.floats(1e-5, 0.02), st.floats(-0.15, 0.15))
    def test_a_gap_between_two_leaves_is_not_taken_for_a_normal_one(self, half, leaf_u, limit):
        """JCGM 101:2008, 6.4.2: a rectangle and a normal together, integrated numerically."""
        u = math.hypot(half / math.sqrt(3), leaf_u)
        ours = conformance_probability(0.0, u, math.inf, Limit(None, limit), half)
        if leaf_u:
            bounds = sorted({-half, half, *(min(max(limit + k * leaf_u, -half), half) for k in (-4, 0, 4))})
            below = partial(stats.norm.cdf, scale=leaf_u)
            theirs = sum(integrate.quad(lambda gap: below(limit - gap) / (2 * half), a, b)[0] for a, b in pairwise(bounds))
        else:
            theirs = stats.uniform.cdf(limit, -half, 2 * half)
        self.assertAlmostEqual(ours, theirs, 5)
        guard = guard_of(u, math.inf, half)
        self.assertAlmostEqual(conformance_probability(-guard, u, math.inf, Limit(None, 0), half), 0.95, 6)

    def test_leaves_at_the_ends_of_a_window_prove_it(self):
        """Go and no-go at the limits is how a gap is passed (common practice, no source)."""
        window = Limit(0.13, 0.18)

        def call(goes, stops, leaf_u):
            half = (stops - goes) / 2
            return judge((goes + stops) / 2, math.hypot(half / math.sqrt(3), leaf_u), math.inf, window, half_mm=half).verdict

        self.assertIs(call(0.13, 0.18, 0.0), Verdict.KEEP)
        self.assertIs(call(0.13, 0.18, 0.001), Verdict.KEEP)
        self.assertIs(call(0.13, 0.18, 0.006), Verdict.MEASURE_AGAIN)  # a set as good as this proves nothing here
        self.assertIs(call(0.12, 0.18, 0.001), Verdict.MEASURE_AGAIN)
        self.assertIs(call(0.18, 0.20, 0.0005), Verdict.CHANGE)

    def test_iso_14253_zones(self):
        entry = VALUES["conformity-09"]
        calls = {"conform": Verdict.KEEP, "undecided": Verdict.MEASURE_AGAIN, "nonconform": Verdict.CHANGE}
        for y, zone in zip(entry["inputs"]["y"], entry["expected"], strict=True):
            judgement = judge(y, entry["inputs"]["u"], math.inf, Limit(None, entry["inputs"]["upper"]))
            self.assertIs(judgement.verdict, calls[zone])
            self.assertAlmostEqual(judgement.guard_mm / entry["inputs"]["u"], 1.65, delta=0.006)  # conformity-07

    def test_trade_facts(self):
        """A rotor and a roller with a minimum of 1.4995 in found at 1.4800 and 1.472 in: scrap (common practice, no source)."""
        minimum = Limit(lower_mm=parse("1.4995 in", Dimension.LENGTH, "min").value)
        for found in ("1.4800 in", "1.472 in"):
            mm = parse(found, Dimension.LENGTH, "found").value
            for school in School:
                self.assertIs(judge(mm, 0.005, 10, minimum, school).verdict, Verdict.CHANGE)

    @given(
        value=st.floats(-1, 2),
        u=st.floats(0, 0.2),
        dof=st.sampled_from([1, 3, 10, math.inf]),
        bounds=st.sampled_from([(None, 1.0), (0.0, None), (0.0, 1.0)]),
    )
    def test_rules_that_always_hold(self, value, u, dof, bounds):
        limit = Limit(*bounds)
        guarded = judge(value, u, dof, limit)
        plain = judge(value, u, dof, limit, School.PLAIN)
        inside = limit.margin(value) >= 0
        self.assertEqual(plain.verdict, Verdict.KEEP if inside else Verdict.CHANGE)
        self.assertTrue(0 <= guarded.probability <= 1)
        if guarded.verdict is Verdict.KEEP:
            self.assertTrue(inside and guarded.probability >= 0.95)
        if guarded.verdict is Verdict.CHANGE:
            self.assertLessEqual(guarded.probability, 0.05 + 1e-12)
        if u == 0:
            self.assertEqual(guarded.verdict, plain.verdict)
        one_sided = None in bounds
        if one_sided and abs(limit.margin(value)) > guarded.guard_mm * (1 + 1e-9):
            self.assertIsNot(guarded.verdict, Verdict.MEASURE_AGAIN)

    def test_watch_when_little_allowance_is_left(self):
        limit = Limit(None, 38.20, (38.05, 38.08))
        self.assertAlmostEqual(limit.left_share(38.08), 1.0)
        self.assertAlmostEqual(limit.left_share(38.20), 0.0, 6)
        self.assertIs(judge(38.19, 0.001, math.inf, limit, near_share=0.2).verdict, Verdict.WATCH)
        self.assertIs(judge(38.10, 0.001, math.inf, limit, near_share=0.2).verdict, Verdict.KEEP)

    def test_limits_that_cannot_be(self):
        for bounds in ((None, None), (1.0, 1.0), (2.0, 1.0)):
            with self.assertRaises(FieldError):
                Limit(*bounds)

    def test_every_verdict_says_why_and_shows_its_working(self):
        limit = Limit(None, 1.0, (0.0, 0.1))
        for value in (0.2, 0.85, 0.999, 1.5):
            for school in School:
                judgement = judge(value, 0.01, 12, limit, school, 0.2)
                self.assertRegex(judgement.sentence.render(Units.MM), r"\d")
                self.assertIn("JCGM 106", judgement.working.source)
                self.assertIn("in", judgement.sentence.render(Units.IN))


class Redone(unittest.TestCase):
    def test_a_working_can_be_done_again_from_the_numbers_it_shows(self):
        """By hand, so to say: scipy's Student t on the printed figures, in either unit system."""
        result = summarize(at("12", 34.141, 34.143) + at("3", 34.122), Statistic.LARGEST, "bore", fine=True)
        judgement = judge(result.value_mm, result.u_mm, result.dof, Limit(None, 34.145), fine=True)
        for units in Units:
            size = {g.symbol: float(g.text.bare(units)) for g in result.working.given if g.symbol not in ("ν",)}
            u = math.sqrt(size["u₁"] ** 2 + size["u₂"] ** 2 + size["u₃"] ** 2)
            self.assertAlmostEqual(u / size["u"], 1, delta=0.05)
            shown = {g.symbol: float(g.text.bare(units)) for g in judgement.working.given}
            p = stats.t.cdf((shown["M"] - shown["x"]) / shown["u"], shown["ν"])
            self.assertAlmostEqual(p, judgement.probability, delta=0.02)
            self.assertAlmostEqual(stats.t.ppf(0.95, shown["ν"]) * shown["u"] / shown["g"], 1, delta=0.05)


class Plausible(unittest.TestCase):
    def check(self, typed, unit, expected, is_gap=False):
        check_plausible(parse(typed, Dimension.LENGTH, "bore", unit), "bore", expected, is_gap)

    def test_a_unit_slip_is_asked_about(self):
        with self.assertRaises(FieldError) as caught:
            self.check("1.4", "mm", 35.0)
        self.assertEqual([s.typed for s in caught.exception.suggestions], ["1.4 in"])
        self.assertIn("inches", caught.exception.hint)
        with self.assertRaises(FieldError) as caught:
            self.check("35.1 mm", "in", 1378.0)
        self.assertIn("35.1", caught.exception.problem)

    def test_worn_parts_and_wide_gaps_pass(self):
        self.check("34.1", "mm", 35.0)
        self.check("0.6", "mm", 0.25, is_gap=True)
        with self.assertRaises(FieldError):
            self.check("0.24", "in", 0.25, is_gap=True)


class WarmParts(unittest.TestCase):
    """A part that is not at 20 C; common practice, no source, where no other is named."""

    def test_of_a_named_material_or_of_the_sheet_and_of_nothing_else(self):
        sheet = MATERIALS["steel"].expansion
        self.assertIs(part_expansion("", sheet), sheet)
        self.assertIs(part_expansion("tin bronze", sheet), MATERIALS["tin bronze"].expansion)
        for material, of_sheet, says in (("butter", sheet, "butter is not known"), ("", None, "does not say")):
            with self.assertRaisesRegex(FieldError, says):
                part_expansion(material, of_sheet)

    def test_a_temperature_no_part_is_measured_at_is_refused(self):
        one = Expansion.of(12.0, upto_c=100.0)
        self.assertEqual((warm_part(60.0, one).part_c, warm_part(60.0, one).expansion_um_m_k), (60.0, 12.0))
        for part_c, says in ((-41, "nobody measures"), (201, "nobody measures"), (150, "not known at 150")):
            with self.assertRaisesRegex(FieldError, says):
                warm_part(part_c, one)
        # 40 K over 20 C at 12 um/(m K) make 48 um on 100 mm (ISO 1: sizes are stated at 20 C)
        self.assertAlmostEqual(100.0 - warm_part(60.0, one).corrected(100.0), 0.048, 9)

    def test_of_a_feeler_pair_the_leaf_that_goes_has_to_be_in_the_set(self):
        leaves = CabinetGauge(CertifiedGauge("F", 0.01, 0.004, 2), GaugeKind.FEELER, 0.03, 1.0, overdue=False)
        caliper = CabinetGauge(CertifiedGauge("C", 0.01, 0.004, 2), GaugeKind.CALIPER, 10.0, 150.0, overdue=False)
        self.assertEqual([leaves.reaches(1.02, half) for half in (0.0, 0.02, 0.01)], [False, True, False])
        self.assertEqual([caliper.reaches(size) for size in (9.99, 10.0, 150.0, 150.01)], [False, True, True, False])
