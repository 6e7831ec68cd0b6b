"""Sums of a handbook, against the reference file, an integration of the geometry, and the wedge drawn step by step."""

import math
import unittest

import GTC
import numpy as np
from chemicals.viscosity import viscosity_index as chemical_index
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy import integrate, optimize, stats
from statsmodels.regression.linear_model import OLS

from finegap.core.assembly.play import BallBearing, lip_mm
from finegap.core.assembly.thread_load import preload_of, proof_load_n, shares_of, stress_area_mm2
from finegap.core.assembly.torque import thread_of
from finegap.core.calculators import calculator
from finegap.core.calculators.doubts import SHAPES
from finegap.core.entry import Entry
from finegap.core.errors import FieldError
from finegap.core.formatting import Units
from finegap.core.gap.bend import Overhung
from finegap.core.gap.helix import Flank, Read
from finegap.core.gap.housing import Housing
from finegap.core.gap.viscosity_index import viscosity_index
from finegap.core.result_lines import Status
from tests.references import VALUES

PROOF_N = {
    ("M8", "8.8"): 21_200, ("M10", "8.8"): 33_700, ("M12", "8.8"): 48_900, ("M16", "8.8"): 91_000, ("M20", "8.8"): 147_000,
    ("M8", "10.9"): 30_400, ("M10", "10.9"): 48_100, ("M12", "12.9"): 81_800, ("M10", "4.6"): 13_000, ("M24", "10.9"): 293_000,
}  # fmt: skip
"""Proof loads as ISO 898-1 prints them, coarse threads, from memory."""


def lines(key, **typed):
    return {line.name: line for line in calculator(key).run(typed, Entry(Units.MM))}


class Threads(unittest.TestCase):
    def test_torque_for_a_preload_is_the_wedge_of_the_reference(self):
        """bolt-04, -06, -07: wedge equilibrium worked out elsewhere; the nut factor with it."""
        for name, thread in (("bolt-04", "M10"), ("bolt-06", "M16"), ("bolt-07", "M8")):
            of, want = VALUES[name]["inputs"], VALUES[name]["expected"]
            shares = shares_of(of["F_N"], thread_of(thread), of["mu_th"], of["mu_b"], of["DKm"])
            self.assertAlmostEqual(shares.torque_n_m / want["T_Nm"], 1, delta=0.002)
            self.assertAlmostEqual(1000 * shares.torque_n_m / of["F_N"] / of["d"] / want["K"], 1, delta=0.002)

    @given(st.sampled_from(("M8", "M12", "M20x1.5", "1/2-13")), st.floats(0.05, 0.3), st.floats(0.05, 0.3), st.floats(1e3, 1e5))
    def test_its_three_parts_are_each_their_own(self, name, in_thread, under_head, force):
        """What stretches the bolt is work, force times pitch over a turn. Without friction under the head its part is gone."""
        thread = thread_of(name)
        face = 1.4 * thread.diameter_mm
        shares = shares_of(force, thread, in_thread, under_head, face)
        self.assertAlmostEqual(shares.stretch_n_m, force * thread.pitch_mm / 2000 / math.pi, 6)
        self.assertAlmostEqual(shares.head_n_m, under_head * force * face / 2000, 6)
        other = shares_of(force, thread, in_thread, 1e-9, face)
        self.assertAlmostEqual(shares.torque_n_m - other.torque_n_m, shares.head_n_m, 4)
        self.assertAlmostEqual(preload_of(shares.torque_n_m, thread, in_thread, under_head, face) / force, 1, 9)

    def test_proof_loads_and_stress_areas(self):
        for (thread, strength), newton in PROOF_N.items():
            self.assertAlmostEqual(proof_load_n(thread_of(thread), strength) / newton, 1, delta=0.006, msg=(thread, strength))
        for size, of in VALUES["bolt-01"]["expected"].items():
            self.assertAlmostEqual(stress_area_mm2(thread_of(size)) / of["As"], 1, delta=0.005)
        for thread, strength in (("M42x3", "8.8"), ("M20", "9.8"), ("M12", "7.7")):
            with self.assertRaises(FieldError):
                proof_load_n(thread_of(thread), strength)
        self.assertIs(lines("proof-load", thread="M12", preload="60 kN")["The preload is"].status, Status.STOP)

    def test_one_of_both_is_asked_for(self):
        for typed in ({}, {"torque": "40", "preload": "20 kN"}):
            with self.assertRaises(FieldError) as caught:
                lines("nut-factor", thread="M10", face="12.8", **typed)
            self.assertEqual(caught.exception.field, "torque")


class Play(unittest.TestCase):
    def test_along_from_across_as_the_reference_has_it(self):
        of, want = VALUES["bearing-clearance-03"]["inputs"], VALUES["bearing-clearance-03"]["expected"]
        bearing = BallBearing(of["ball_mm"], of["f_i"], of["f_o"], of["Gr_mm"])
        self.assertAlmostEqual(bearing.axial_mm, want["axial_clearance_mm"], 6)
        self.assertAlmostEqual(bearing.angle_deg, want["free_angle_deg"], 6)

    @given(st.floats(5, 40), st.floats(0.51, 0.56), st.floats(0.51, 0.56), st.floats(0.001, 0.5))
    def test_the_ball_touches_both_grooves_there(self, ball, inner, outer, share):
        """One ring moved along until ball and both grooves touch, found by a root finder: the distance of the groove centres."""
        centres = (inner + outer - 1) * ball
        radial = share * centres
        bearing = BallBearing(ball, inner, outer, radial)
        half = optimize.brentq(lambda along: math.hypot(centres - radial / 2, along) - centres, 0, 2 * centres)
        self.assertAlmostEqual(bearing.axial_mm, 2 * half, 6)

    def test_what_no_bearing_has(self):
        for sizes in ((12.7, 0.5, 0.53, 0.03), (12.7, 0.52, 0.7, 0.03), (0, 0.52, 0.53, 0.03), (12.7, 0.52, 0.53, 0.7)):
            with self.subTest(sizes=sizes), self.assertRaises(FieldError):
                BallBearing(*sizes)

    def test_a_lip_that_is_not_stretched_does_not_seal(self):
        """lip-seal-03: a shaft 50 h11 in a lip of 48.6 +- 0.2."""
        want = VALUES["lip-seal-03"]["expected"]
        least, most = lip_mm((49.84, 50.0), (48.4, 48.8))
        self.assertAlmostEqual(least, want["min_mm"], 9)
        self.assertAlmostEqual(most, want["max_mm"], 9)
        loose = lines("lip", shaft_low="49.84", shaft_high="50", lip_low="49", lip_high="49.9")
        self.assertIs(loose["The lip is stretched by"].status, Status.STOP)
        with self.assertRaises(FieldError):
            lip_mm((50.0, 49.9), (48.4, 48.8))


class Chord(unittest.TestCase):
    def test_a_caliper_reads_less_than_a_tape(self):
        """lead-arc-01 and -03: the chord of the same turn; past half a turn there is none to be read."""
        for name in ("lead-arc-01", "lead-arc-03"):
            of, want = VALUES[name]["inputs"], VALUES[name]["expected"]
            housing = Housing(of["OD"], of["lead"])
            self.assertAlmostEqual(housing.chord_mm(of["clearance"]), want["chord"], 9)
            self.assertLess(housing.chord_mm(of["clearance"]), housing.arc_mm(of["clearance"]))
        self.assertNotIn("Straight across, by caliper", lines("arc", diameter="20", lead="0.5", clearance="0.3"))


class Bend(unittest.TestCase):
    SHAFTS = st.builds(
        lambda span, long, share, d: Overhung(span, long, share * long, d, 90),
        st.floats(40, 300), st.floats(30, 200), st.floats(0.2, 1), st.floats(15, 60),
    )  # fmt: skip

    @given(SHAFTS, st.floats(0.5, 25))
    @settings(deadline=None)
    def test_a_beam_cut_in_small_pieces_bends_as_much(self, shaft, bar):
        """Curvature summed twice over 4,000 pieces, from bearing to bearing and on to the free end; no formula of ours."""
        s, long, b = shaft.span_mm, shaft.overhang_mm, shaft.rotor_mm
        x, w = np.linspace(-s, long, 8001), shaft.force_n(bar) / b
        loaded = np.clip(long - np.maximum(x, long - b), 0, b)
        beyond = w * loaded * (np.maximum(x, long - b) + loaded / 2 - x)  # moment of what lies further out
        at_bearing = shaft.force_n(bar) * (long - b / 2)
        moment = np.where(x < 0, at_bearing * (x + s) / s, beyond)
        slope = integrate.cumulative_trapezoid(moment / shaft.stiffness_n_mm2, x, initial=0)
        bent = integrate.cumulative_trapezoid(slope, x, initial=0)
        at_zero = np.interp(0, x, bent)
        bent = bent - (x + s) / s * at_zero  # both bearings hold it
        self.assertAlmostEqual(bent[-1] / shaft.bend_mm(bar), 1, delta=2e-3)

    def test_a_cantilever_of_a_handbook(self):
        """A long even load on a shaft held fast: w L^4 / 8 E I (Roark, Formulas for Stress and Strain; from memory)."""
        fast = Overhung(1e-6, 100, 100, 20, 50)
        self.assertAlmostEqual(fast.bend_mm(10) / (fast.force_n(10) / 100 * 100**4 / 8 / fast.stiffness_n_mm2), 1, 6)

    def test_it_grows_with_pressure_and_what_is_left_is_told(self):
        shaft = Overhung(120, 80, 60, 35, 84)
        self.assertAlmostEqual(shaft.bend_mm(20) / shaft.bend_mm(10), 2, 9)
        typed = {"span": "120", "overhang": "80", "rotor": "60", "shaft": "35", "across": "84", "pressure": "10"}
        self.assertIs(lines("bend", gap="0.001", **typed)["Left of the gap there"].status, Status.STOP)
        with self.assertRaises(FieldError):
            Overhung(120, 50, 60, 35, 84)


class Helix(unittest.TestCase):
    FLANKS = st.builds(Flank, st.floats(10, 120), st.floats(40, 150), st.floats(0, 35))

    @given(FLANKS, st.floats(0.01, 0.4))
    @settings(deadline=None, max_examples=40)
    def test_a_gap_square_to_the_flank_is_the_least_way_to_a_shifted_screw(self, flank, along):
        """A screw as points of z = tan(lean) (r - R) + lead theta/2 pi, another shifted along: the nearest of them, searched."""
        radius, lean = flank.pitch_mm / 2, math.tan(math.radians(flank.lean_deg))

        def far(p):
            r, theta = p
            z = lean * (r - radius) + flank.lead_mm * theta / (2 * math.pi) + along
            return math.hypot(r * math.cos(theta) - radius, r * math.sin(theta), z)

        least = optimize.minimize(far, (radius, 0.0), method="Nelder-Mead", options={"xatol": 1e-9, "fatol": 1e-12}).fun
        self.assertAlmostEqual(flank.along_mm(least, Read.NORMAL) / along, 1, delta=0.01)
        self.assertAlmostEqual(flank.along_mm(along / flank.rise, Read.ROUND) / along, 1, 9)

    @given(FLANKS, st.floats(0, 0.6), st.floats(0, 0.6), st.sampled_from(list(Read)))
    def test_the_move_makes_both_alike_and_turning_is_the_same_move(self, flank, left, right, read):
        shift = flank.shift_mm(left, right, read)
        one, other = flank.after_mm(left, right, read, shift)
        self.assertAlmostEqual(one, other, 9)
        self.assertAlmostEqual(one + other, left + right, 9)
        self.assertAlmostEqual(flank.turn_deg(shift) * flank.lead_mm / 360, shift, 12)

    def test_what_is_no_flank(self):
        for sizes in ((0, 80, 0), (60, 0, 0), (60, 80, 85), (60, 80, -1)):
            with self.subTest(sizes=sizes), self.assertRaises(FieldError):
                Flank(*sizes)


class Oils(unittest.TestCase):
    def test_the_index_of_the_standards_examples_and_of_an_independent_library(self):
        """viscosity-index-01, -03: worked examples of ASTM D2270; -04, -06: chemicals, which interpolates the standard's table."""
        for number in ("01", "03", "04", "06"):
            of = VALUES[f"viscosity-index-{number}"]
            found, _ = viscosity_index(of["inputs"]["KV40"], of["inputs"]["KV100"])
            self.assertAlmostEqual(found, of["expected"], delta=of["tolerance"]["abs"], msg=number)

    @given(st.floats(2, 80), st.floats(1.5, 20))
    def test_it_is_the_librarys_for_any_oil(self, at_100, ratio):
        """Within 0.4 of what its table gives, where an oil can be: from 0 to 250."""
        want = chemical_index(ratio * at_100 * 1e-6, at_100 * 1e-6)
        if 0 <= want <= 250:
            self.assertAlmostEqual(viscosity_index(ratio * at_100, at_100)[0], want, delta=0.4)

    def test_what_no_oil_does(self):
        for typed, said in (
            ({"at_40": "5", "at_100": "6"}, "no thicker"),
            ({"at_40": "5", "at_100": "1.9"}, "thinner than the method"),
        ):
            with self.subTest(said), self.assertRaisesRegex(FieldError, said):
                lines("viscosity-index", **typed)

    def test_drops_that_were_weighed_leak_what_they_weigh(self):
        """100 drops of 2.7 g at 870 kg/m3 are 3.103 mL: 32.2 a mL. Sixty of them in an hour are 1.9 mL."""
        found = lines("drop-size", count="100", grams="2.7", density="870")
        self.assertEqual([found[name].text.render(Units.MM) for name in ("Drops a mL", "A drop")], ["32.2", "0.0310 mL"])
        leak = lines("drops", count="61", seconds="3600", per_ml="32.2")["Which leaks"]
        self.assertEqual(leak.text, f"{60 * 2.7 / 100 / 0.870:.1f} mL/h")


class Doubts(unittest.TestCase):
    def test_shapes_have_the_spread_an_independent_library_gives_them(self):
        for shape, of in (
            ("rectangle", stats.uniform(-1, 2)),
            ("triangle", stats.triang(0.5, -1, 2)),
            ("arcsine", stats.arcsine(-1, 2)),
        ):
            self.assertAlmostEqual(1 / SHAPES[shape], of.std(), 12, shape)
        self.assertEqual(SHAPES["normal, k = 2"], 2)

    @given(st.integers(1, 50), st.integers(1, 50), st.integers(-99, 99), st.sampled_from(("difference", "sum")))
    @settings(deadline=None)
    def test_correlated_sizes_as_gtc_propagates_them(self, one, other, correlation, of):
        one, other = one / 1000, other / 1000
        x = [GTC.ureal(10, one / 2, independent=False), GTC.ureal(9, other / math.sqrt(3), independent=False)]
        correlation /= 100
        GTC.set_correlation(correlation, *x)
        theirs = GTC.uncertainty(x[0] - x[1] if of == "difference" else x[0] + x[1])
        typed = {"half_1": repr(one), "half_2": repr(other), "correlation": repr(correlation), "of": of}
        line = next(iter(lines("two-doubts", **typed).values()))
        self.assertAlmostEqual(line.text.value / theirs, 1, 9)

    @given(st.lists(st.integers(-40, 40), min_size=2, max_size=20).filter(lambda read: len(set(read)) > 1))
    @settings(deadline=None)
    def test_a_mean_and_the_next_reading_as_a_line_without_slope_gives_them(self, read):
        """statsmodels: a constant alone is fitted; its mean_ci is of the mean, its obs_ci of a new reading."""
        sizes = [30 + um / 1000 for um in read]
        frame = OLS(np.array(sizes), np.ones(len(sizes))).fit().get_prediction([1]).summary_frame(alpha=0.05)
        found = lines("readings", readings="; ".join(f"{mm:.3f}" for mm in sizes))
        for name, column in (("The mean lies, at 95 %, within", "mean_ci"), ("The next reading lies, at 95 %, within", "obs_ci")):
            half = (frame[f"{column}_upper"] - frame[f"{column}_lower"]).iloc[0] / 2
            self.assertAlmostEqual(found[name].text.amounts["half"].value, half, 9)

    def test_too_few_and_too_many_are_refused(self):
        for readings in ("30.01", "30.01; " * 61, "30.01; wide"):
            with self.assertRaises(FieldError):
                lines("readings", readings=readings)
