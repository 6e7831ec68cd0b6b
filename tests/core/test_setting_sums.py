"""Viscosity, slip and leaves against ASTM D341 solved anew, integrated velocity profiles, brute force and a solver."""

import itertools
import math
import unittest

import numpy as np
from chemicals.viscosity import viscosity_converter
from hypothesis import assume, given
from hypothesis import strategies as st
from ortools.sat.python import cp_model
from scipy import integrate

from finegap.core.calculators import calculator
from finegap.core.entry import Entry
from finegap.core.errors import FieldError
from finegap.core.formatting import Units, render
from finegap.core.gap import slip
from finegap.core.gap.leaves import go_and_no_go, pair_uncertainty_mm, pile_for, proving, uncertainty_mm
from finegap.core.gap.move import Window
from finegap.core.gap.slip import ENTRY_EXIT, Annulus, Fluid, Slot, is_laminar, untold
from finegap.core.gap.tries import GapTarget, feeler_check, hold
from finegap.core.gap.viscosity import Liquid, grade_mm2_s, kinematic_mm2_s
from finegap.core.measuring.verdict import Limit, School, Verdict
from finegap.core.result_lines import Status
from tests.references import VALUES

SET_UM = [30, 40, 50, 60, 70, 80, 90, 100, 150, 200, 250, 300, 350, 400, 450, 500, 600, 700, 800, 1000]


class Viscosity(unittest.TestCase):
    def test_reference_values_of_astm_d341(self):
        for key in ("viscosity-temp-01", "viscosity-temp-03", "viscosity-temp-04", "viscosity-temp-06"):
            of = VALUES[key]["inputs"]
            liquid = Liquid(of["nu1"], of["T1_C"], of["nu2"], of["T2_C"])
            self.assertAlmostEqual(liquid.at(of["T3_C"]) / VALUES[key]["expected"], 1, delta=VALUES[key]["tolerance"]["rel"])

    @given(st.floats(2.5, 2000), st.floats(1.5, 20), st.floats(-20, 150))
    def test_its_points_come_back_and_it_only_gets_thinner(self, first, ratio, at):
        liquid = Liquid(first, 40, first / ratio if first / ratio > 0.3 else 0.3, 100)
        self.assertAlmostEqual(liquid.at(40) / first, 1, places=9)
        self.assertAlmostEqual(liquid.at(100) / liquid.second_mm2_s, 1, places=9)
        try:
            here, warmer = liquid.at(at), liquid.at(at + 5)
        except FieldError as error:
            self.assertIn("D341", error.problem)
        else:
            self.assertLess(warmer, here)
        # the other way about it is the same liquid
        self.assertAlmostEqual(Liquid(liquid.second_mm2_s, 100, first, 40).at(70) / liquid.at(70), 1, places=9)

    def test_grades_of_iso_3448(self):
        for grade, of in VALUES["iso-vg-01"]["expected"].items():
            self.assertAlmostEqual(grade_mm2_s(int(grade)), of["mid"])
        with self.assertRaisesRegex(FieldError, "no ISO VG 45"):
            grade_mm2_s(45)

    def test_seconds_beside_it_agree_with_an_independent_package(self):
        typed = {"first": "46", "second": "6.8", "at": "100 F"}
        lines = {line.name: render(line.text, Units.MM) for line in calculator("viscosity").run(typed, Entry(Units.MM))}
        at_100_f = Liquid(46, 40, 6.8, 100).at((100 - 32) / 1.8)
        expected = viscosity_converter(at_100_f * 1e-6, "kinematic viscosity", "saybolt universal")
        self.assertEqual(lines["In Saybolt seconds"], f"{expected:.1f} SSU")

    def test_what_is_no_liquid(self):
        for wrong, said in (((0, 40, 5, 100), "first viscosity"), ((46, 40, 6.8, 40), "one temperature"),
                            ((46, 40, 60, 100), "thinner"), ((46, 40, 1e9, 100), "second viscosity")):  # fmt: skip
            with self.assertRaisesRegex(FieldError, said):
                Liquid(*wrong)
        with self.assertRaisesRegex(FieldError, "absolute zero"):
            Liquid(46, 40, 6.8, 100).at(-300)
        far = calculator("viscosity").run({"first": "46", "second": "6.8", "at": "-30"}, Entry(Units.MM))[0]
        self.assertIs(far.status, Status.ASK)
        # half of what lies between the two points is the stated share: 40 to 100 C is followed from 10 to 130 C
        liquid = Liquid(46, 40, 6.8, 100)
        self.assertEqual([liquid.far(t) is None for t in (9.9, 10, 130, 130.1)], [False, True, True, False])
        for first, second in ((-273.15, 40), (40, -273.15)):
            with self.assertRaisesRegex(FieldError, "absolute zero"):
                Liquid(46, first, 6.8, second)
        self.assertAlmostEqual(kinematic_mm2_s(90, 900), 100)


class Slip(unittest.TestCase):
    LONG = 1e5
    """Lands so many times longer than they are, with as much more pressure: the losses at their ends count for nothing."""

    def test_reference_values(self):
        for key in ("slot-flow-01", "slot-flow-03", "slot-flow-04", "slot-flow-06", "slot-flow-07"):
            of = VALUES[key]["inputs"]
            fluid = Fluid(of["mu_Pas"] / 900 * 1e6, 900)
            long, bar = self.LONG * of["L_m"] * 1000, self.LONG * of["dp_Pa"] / 1e5
            slot = Slot(of["h_m"] * 1000, of["w_m"] * 1000, long, bar, fluid, of["U_m_s"])
            self.assertAlmostEqual(slot.flow_m3_s / VALUES[key]["expected"], 1, places=6)
        for key in ("annulus-leakage-01", "annulus-leakage-03", "annulus-leakage-04"):
            of = VALUES[key]["inputs"]
            fluid = Fluid(of["mu_Pas"] / 900 * 1e6, 900)
            c = of["radial_clearance_m"] * 1000
            # the references take the diameter as the mean one
            long, bar = self.LONG * of["L_m"] * 1000, self.LONG * 10
            annulus = Annulus(of["D_m"] * 1000 - c, 2 * c, long, bar, fluid, of["eccentricity_ratio"])
            self.assertAlmostEqual(annulus.flow_m3_s / VALUES[key]["expected"], 1, places=6)
        of = VALUES["annulus-leakage-06"]  # the exact solution between two circles (Piercy)
        exact = Annulus(50, 0.1, 40, 10, Fluid(0.1 / 900 * 1e6, 900), 0.5)
        self.assertAlmostEqual(exact.flow_m3_s / of["expected"], 1, delta=of["tolerance"]["rel"])

    @given(
        st.floats(0.02, 1.5), st.floats(1, 100), st.floats(0.05, 40), st.floats(0.3, 5000), st.floats(600, 1300), st.floats(-5, 5)
    )  # fmt: skip
    def test_against_solving_the_balance_and_both_bounds(self, gap, long, bar, mm2_s, density, wall):
        """Losses at the ends and friction along the land, by bisection in the speed; and the two laws that let most through."""
        slot = Slot(gap, 50, long, bar, Fluid(mm2_s, density), wall)
        h, mu = gap / 1000, mm2_s * 1e-6 * density

        def lost(v):
            re = 2 * h * v / (mm2_s * 1e-6)
            return density * v * v / 2 * (1.5 + max(96 / re, 0.3164 / re**0.25) * long / (2 * gap))

        low, high = 1e-12, 1e4
        for _ in range(200):
            middle = math.sqrt(low * high)
            low, high = (middle, high) if lost(middle) < bar * 1e5 else (low, middle)
        area = 50e-3 * h
        self.assertAlmostEqual(slot.pressure_m3_s / (low * area), 1, places=9)
        self.assertAlmostEqual((slot.flow_m3_s - slot.pressure_m3_s) / area, wall / 2, places=9)
        self.assertLessEqual(slot.pressure_m3_s, area * h * h * bar * 1e5 / (12 * mu * long / 1000))
        self.assertLess(slot.pressure_m3_s, area * math.sqrt(2 * bar * 1e5 / density))
        self.assertAlmostEqual(slot.reynolds / (2 * h * low / (mm2_s * 1e-6)), 1, places=9)  # of the pressure's flow alone
        self.assertEqual(untold(slot) is None, slot.reynolds <= 1e5)
        self.assertEqual(ENTRY_EXIT, 1.5)

    @given(st.floats(0.05, 0.5), st.floats(2, 60), st.floats(1, 20), st.floats(1, 3))
    def test_no_step_where_the_laws_meet(self, gap, long, bar, thinner):
        """Thinner by a hair, more by a hair: on both sides of the Reynolds number at which 96/Re is Blasius, 2,040."""
        for mm2_s in np.geomspace(0.2, 200, 60):
            one, other = (Slot(gap, 50, long, bar, Fluid(v, 900)) for v in (mm2_s, mm2_s / (1 + thinner * 1e-5)))
            self.assertTrue(1 <= other.pressure_m3_s / one.pressure_m3_s < 1 + 4e-5)
            self.assertEqual(is_laminar(one), one.reynolds < (96 / 0.3164) ** (4 / 3))

    def test_smooth_pipe_friction_by_colebrook(self):
        """Blasius against Colebrook's smooth law, solved by scipy, over the range it is used in: within 4 %."""
        from scipy.optimize import brentq

        for re in (4000, 10_000, 30_000, 100_000):
            smooth = brentq(lambda f, re=re: 1 / math.sqrt(f) + 2 * math.log10(2.51 / (re * math.sqrt(f))), 1e-3, 1)
            self.assertAlmostEqual(slip._friction(re) / smooth, 1, delta=0.04)

    @given(st.floats(10, 200), st.floats(0.02, 0.5), st.floats(0, 1), st.floats(1, 100))
    def test_an_eccentric_annulus_against_integrating_round_it(self, shaft, clearance, eccentricity, mm2_s):
        """Narrow slots side by side: each place's flow by the slot, integrated round the shaft by scipy."""
        annulus = Annulus(shaft, clearance, 40, 10, Fluid(mm2_s, 900), eccentricity)
        c, radius = clearance / 2, (shaft + clearance / 2) / 2

        def at(angle):
            gap = max(c * (1 + eccentricity * math.cos(angle)), 1e-9)
            return Slot(gap, 1, 40, 10, Fluid(mm2_s, 900)).flow_m3_s * radius

        round_, _ = integrate.quad(at, 0, math.pi, limit=200)
        self.assertAlmostEqual(annulus.flow_m3_s / (2 * round_), 1, delta=2e-3 if not is_laminar(annulus) else 1e-6)
        self.assertLessEqual(annulus.reynolds, Slot(c * (1 + eccentricity), 1, 40, 10, Fluid(mm2_s, 900)).reynolds * (1 + 1e-9))

    def test_by_which_law_it_flows_is_said(self):
        for slot, said in (
            (Slot(1, 50, 5, 10, Fluid(1, 1000)), "Turbulent friction"),
            (Slot(0.1, 50, 20, 10, Fluid(100, 900)), "Laminar"),
        ):
            self.assertIn(said, slot.working.notes[0].render(Units.MM))
        far = {"gap": "3 mm", "width": "50", "length": "3", "pressure": "20 bar", "viscosity": "1", "density": "1000", "wall": "0"}
        line = calculator("slot").run(far, Entry(Units.MM))[0]
        self.assertIs(line.status, Status.ASK)
        self.assertIn("No number is told", line.text.render(Units.MM))

    def test_what_cannot_slip(self):
        fluid = Fluid(100, 900)
        for wrong, said in ((lambda: Fluid(0, 900), "viscosity"), (lambda: Fluid(10, 9), "density"),
                            (lambda: Slot(0, 1, 1, 1, fluid), "gap"),
                            (lambda: Annulus(50, 0.1, 40, 1, fluid, 1.1), "eccentricity"),
                            (lambda: Annulus(50, 6, 40, 1, fluid), "no fine gap")):  # fmt: skip
            with self.assertRaisesRegex(FieldError, said):
                wrong()


class Leaves(unittest.TestCase):
    def test_reference_values(self):
        for key in ("leaf-stack-01", "leaf-stack-03", "leaf-stack-04", "leaf-stack-07"):
            of, expected = VALUES[key]["inputs"], VALUES[key]["expected"]
            pile = pile_for(of["leaves_um"], of["target_um"], of["max_leaves"] or len(of["leaves_um"]))
            self.assertEqual((abs(pile.off_um), len(pile.leaves_um)), (expected["abs_deviation_um"], expected["count"]), key)

    @given(st.sets(st.sampled_from(SET_UM), min_size=2, max_size=9), st.integers(20, 2500))
    def test_against_a_general_purpose_solver(self, leaves, target):
        """CP-SAT: least deviation first, then the fewest of at most three leaves."""
        model, leaves = cp_model.CpModel(), sorted(leaves)
        used = [model.new_bool_var("") for _ in leaves]
        model.add(sum(used) <= 3)
        model.add(sum(used) >= 1)
        off = model.new_int_var(0, 10_000, "")
        total = sum(leaf * use for leaf, use in zip(leaves, used, strict=True))
        model.add(off >= total - target)
        model.add(off >= target - total)
        model.minimize(off * 10 + sum(used))
        solver = cp_model.CpSolver()
        solver.solve(model)
        pile = pile_for(leaves, target)
        self.assertEqual(abs(pile.off_um) * 10 + len(pile.leaves_um), round(solver.objective_value))

    @given(st.sets(st.sampled_from(SET_UM), min_size=1), st.integers(30, 900), st.integers(5, 200), st.integers(1, 1100))
    def test_what_goes_and_stops_proves_the_window(self, leaves, low, width, gap):
        high = low + width
        go, stop = go_and_no_go(sorted(leaves), low, high)
        made = {sum(p) for n in (1, 2, 3) for p in itertools.combinations(leaves, n)}
        self.assertEqual(go is None, not any(low <= s <= (low + high) / 2 for s in made))
        self.assertEqual(stop is None, not any((low + high) / 2 < s <= high for s in made))
        assume(go and stop)
        if go.sum_um <= gap < stop.sum_um:  # it went, and it did not
            self.assertTrue(low <= gap <= high)

    @given(st.integers(30, 600), st.integers(10, 120), st.floats(0, 0.006), st.sampled_from(School))
    def test_the_leaves_told_leave_no_doubt_when_they_do_as_they_must(self, low, width, expanded, school):
        limit = Limit(low / 1000, (low + width) / 1000)
        go, stop = proving(tuple(SET_UM), limit, expanded, 2, school)
        if not (go and stop):
            self.assertLess(width, 25 + 2000 * expanded)  # a set like this fails in narrow windows only
            return
        goes, stops = go.sum_um / 1000, stop.sum_um / 1000
        u = pair_uncertainty_mm(goes, stops, SET_UM, expanded / 2)
        check, _ = feeler_check(goes, stops, u)
        held = hold(GapTarget("gap", "gap", Window((low + width / 2) / 1000, limit.lower_mm, limit.upper_mm)), check, school)
        if width > 12_000 * expanded:
            self.assertIs(held.judgement.verdict, Verdict.KEEP)

    def test_a_pile_counts_its_leaves_where_the_set_is_known(self):
        self.assertEqual(pair_uncertainty_mm(0.13, 0.20, SET_UM, 0.001), 0.002)  # 0.03 + 0.10, or 0.04 + 0.09; 0.20 is one
        self.assertEqual(pair_uncertainty_mm(0.13, 0.20, [], 0.001), 0.001)
        self.assertEqual(pair_uncertainty_mm(0, 0.03, SET_UM, 0.001), 0.001)

    def test_words_and_uncertainty_of_a_pile(self):
        pile = pile_for(SET_UM, 370)
        self.assertEqual(pile.words.render(Units.MM), "0.070 mm + 0.300 mm = 0.370 mm")
        self.assertAlmostEqual(uncertainty_mm(pile, 0.004, 2), 0.004)  # two leaves of one certificate are off together
        for wrong in (lambda: pile_for([], 100), lambda: pile_for([50, 50], 100), lambda: pile_for([50], 0),
                      lambda: go_and_no_go([50], 100, 100), lambda: uncertainty_mm(pile, 0.004, 0)):  # fmt: skip
            self.assertRaises(FieldError, wrong)
