"""What a duty costs and does: viscosity as people have it, its range over the table, heat, slip and flow."""

import math
import unittest
from fractions import Fraction

import numpy as np
from chemicals.viscosity import viscosity_converter
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy import integrate

from finegap.core.calculators import calculator
from finegap.core.entry import Entry
from finegap.core.errors import FieldError
from finegap.core.formatting import Units, render
from finegap.core.gap import heat, table
from finegap.core.gap.duty_range import DutyRange
from finegap.core.gap.losses import Losses, Path, TestPoint
from finegap.core.gap.map import map_of
from finegap.core.gap.performance import HEAT_J_KG_K, perform
from finegap.core.gap.slip import Fluid
from finegap.core.gap.table import Range, Row
from finegap.core.gap.viscosity import Liquid, read_viscosity
from finegap.core.materials import Expansion
from finegap.core.result_lines import Status


class AsPeopleHaveIt(unittest.TestCase):
    def test_one_value_or_two_points_or_a_grade_or_centipoise(self):
        at_60 = Liquid(46, 40, 6.8, 100).at(60)
        for typed, at, density, expected in (
            ("46 mm2/s", 60, None, 46), ("46 cSt", 40, None, 46), ("46", 40, None, 46), ("46 mm2/s at 40 C", 40, None, 46),
            ("46 mm2/s at 40 C; 6.8 mm2/s at 100 C", 60, None, at_60), ("VG 46 and 6.8 cSt at 212 F", 60, None, at_60),
            ("6.8 mm2/s at 100 C; ISO VG 46", 60, None, at_60), ("90 cP", 60, 900, 100), ("0.09 Pa.s", 60, 900, 100),
            ("41.4 mPa.s at 40 C; 6.12 cP at 100 C", 60, 900, at_60), ("VG 46", 40, None, 46),
            ("214.193 SSU at 100 F", 100 / 1.8 - 160 / 9, None, 46),
        ):  # fmt: skip
            with self.subTest(typed=typed):
                self.assertAlmostEqual(read_viscosity(typed, at, density).pumping_mm2_s, expected, places=2)

    def test_saybolt_points_against_an_independent_package(self):
        """chemicals.viscosity, and the leaning of the scale on temperature (ASTM D2161: 0.000061 a degree F from 100 F)."""
        at_100_f = viscosity_converter(300.0, "saybolt universal", "kinematic viscosity") * 1e6
        two = read_viscosity("300 SSU at 100 F; 52 SSU at 210 F", 100 / 1.8 - 160 / 9)
        self.assertAlmostEqual(two.pumping_mm2_s, at_100_f, delta=0.01)
        at_210_f = viscosity_converter(52 / (1 + 0.000061 * 110), "saybolt universal", "kinematic viscosity") * 1e6
        self.assertAlmostEqual(two.liquid.at((210 - 32) / 1.8), at_210_f, delta=0.01)

    def test_what_cannot_be_read_says_what_was_expected(self):
        for typed, density, problem in (
            ("", None, "nothing was entered"),
            ("1; 2; 3", None, "one value, or two points"), ("90 cP", None, "density is not known"),
           
            ("46 mm2/s at 40 C", None, "known at 40 C alone"),
            ("VG 46", None, "known at 40 C alone"), ("VG 46 at 50 C", None, "at 40 C"),
           
            ("VG 45", None, "no ISO VG 45"),
            ("0 mm2/s", None, "more than zero"), ("46 bar", None, "pressure"),
            ("46 at 40 C; 60 at 100 C", None, "thinner when it warms"), ("46 at 40; 6 at 100", None, "unit is missing"),
            ("46 at -300 C; 6 at 100 C", None, "colder"),
        ):  # fmt: skip
            with self.subTest(typed=typed), self.assertRaisesRegex(FieldError, problem):
                read_viscosity(typed, 60, density)


ROWS = tuple(
    Row(name, "cast iron", Range(*v), Range(*t), c)
    for name, v, t, c in (
        ("thin", (0, 90), (-20, 75), 0.10), ("warm", (0, 90), (60, 110), 0.14), ("standard", (80, 800), (-20, 110), 0.17),
        ("thick", (900, math.inf), (-20, 110), 0.26),
    )
)  # fmt: skip
OIL = Liquid(100, 40, 11, 100)


class RangeOfADuty(unittest.TestCase):
    def choose(self, pumping_c, start_c, hot_c, liquid=OIL):
        duty_range = DutyRange(liquid.at(pumping_c), pumping_c, start_c, hot_c, liquid)
        return table.choose(ROWS, "cast iron", duty_range.viscosity_mm2_s, pumping_c, "sheet", duty_range)

    @given(st.floats(-15, 105), st.floats(0, 60), st.floats(0, 60), st.floats(30, 3000))
    @settings(max_examples=60)
    def test_against_walking_the_range_in_small_steps(self, pumping, colder, hotter, at_40):
        """The rule applied at each of 250 temperatures: the largest of what it gives, and where it gives nothing."""
        liquid = Liquid(at_40, 40, max(at_40 / 9, 2), 100)
        start, hot = max(pumping - colder, -20), min(pumping + hotter, 110)
        choice = self.choose(pumping, start, hot, liquid)
        steps = np.linspace(start, hot, 250)
        at = [[r for r in ROWS if liquid.at(t) in r.viscosity_mm2_s and t in r.temperature_c] for t in steps]
        if not [r for r in ROWS if liquid.at(pumping) in r.viscosity_mm2_s and pumping in r.temperature_c]:
            self.assertIsNone(choice.chosen)
            return
        largest = max(r.clearance_mm for rows in at for r in rows)
        # a sliver thinner than a step may hide a row from the walk, never from the choice
        self.assertGreaterEqual(choice.chosen.clearance_mm, largest)
        if choice.chosen.clearance_mm > largest:
            self.assertTrue(any(c.passed for c in choice.candidates if c.row is choice.chosen))
        if any(not rows for rows in at):
            self.assertIsNotNone(choice.hole)

    def test_two_settings_are_said_and_the_larger_decides(self):
        both = self.choose(70, 30, 95)
        self.assertEqual(both.chosen.setting, "standard")
        said = both.over.render(Units.MM)
        for words in ("start at 30 °C", "“thin”", "“warm”", "“standard”", "the larger counts, 0.17 mm", "it would be 0.14 mm"):
            self.assertIn(words, said)
        self.assertIsNone(both.hole)
        one = self.choose(70, 68, 72)
        self.assertIn("passes through “thin”, “warm”", one.over.render(Units.MM))
        self.assertEqual(one.chosen.setting, "warm")

    def test_a_hole_on_the_way_is_said_a_hole_at_the_duty_is_no_choice(self):
        cold = self.choose(60, -10, 60)
        self.assertIn("No row of the table covers it from", cold.hole.render(Units.MM))
        self.assertEqual(cold.chosen.setting, "thick")
        self.assertIsNone(table.choose(ROWS, "cast iron", 850, 20, "sheet").chosen)

    def test_the_map_draws_the_way_from_cold_to_hot(self):
        choice = self.choose(70, 30, 95)
        drawn = map_of(choice, OIL.at(70), 70, DutyRange(OIL.at(70), 70, 30, 95, OIL))
        self.assertAlmostEqual(drawn.way[0][0], OIL.at(30))
        self.assertEqual((drawn.way[0][1], drawn.way[-1][1]), (30, 95))
        for viscosity, at in drawn.way:
            self.assertTrue(drawn.viscosity_mm2_s[0] < viscosity < drawn.viscosity_mm2_s[1])
            self.assertTrue(drawn.temperature_c[0] < at < drawn.temperature_c[1])
        for wrong in ((60, 70, 80), (60, 20, 50)):
            with self.assertRaises(FieldError):
                DutyRange(50, *wrong)


BODY = heat.Body(*(heat.HeatedPart(mm, Expansion.of(a)) for mm, a in ((212, 11.7), (205, 11.5), (9, 11.7))))


class Warm(unittest.TestCase):
    def test_head_rotor_and_casing_against_exact_fractions(self):
        """Handbook growth L·a·dT of each part, in exact fractions."""
        growth = [
            Fraction(of) * Fraction(str(a)) * (t - 20) / 10**6 for of, a, t in ((212, 11.7, 140), (205, 11.5, 160), (9, 11.7, 160))
        ]
        expected = Fraction(15, 100) + growth[0] - growth[1] - growth[2]
        self.assertAlmostEqual(heat.hot_gap(0.15, BODY, 140, 160).gap_mm, float(expected), 12)

    @given(st.floats(1, 60), st.floats(1, 60), st.floats(-20, 60), st.floats(60, 200))
    @settings(max_examples=20)
    def test_the_worst_moment_against_solving_the_warm_up(self, rotor_min, casing_min, start, hot):
        """dT/dt = (T_end - T)/tau of both parts, solved by scipy, the gap looked at in 4,000 moments."""
        body = heat.Body(BODY.casing, BODY.rotor, BODY.head, heat.Warming(rotor_min, casing_min))
        casing_end = hot - 10
        told = heat.warming_up(0.15, body, start, casing_end, hot)
        end = 12 * max(rotor_min, casing_min)
        moments = np.unique(np.concatenate([np.linspace(0, end, 2000), np.geomspace(end / 1e5, end, 2000)]))
        solved = integrate.solve_ivp(
            lambda _, y: [(casing_end - y[0]) / casing_min, (hot - y[1]) / rotor_min], (0, end), [start, start], t_eval=moments,
            rtol=1e-8, atol=1e-8,
        )  # fmt: skip
        gaps = [heat.hot_gap(0.15, body, c, r).gap_mm for c, r in solved.y.T]
        self.assertAlmostEqual(told.gap_mm, min(gaps), delta=2e-5)
        self.assertLessEqual(told.gap_mm, heat.hot_gap(0.15, body, casing_end, hot).gap_mm + 1e-9)

    def test_without_time_constants_it_is_the_worst_that_could_be_and_only_warns(self):
        told = heat.warming_up(0.15, BODY, 20, 140, 160)
        self.assertAlmostEqual(told.gap_mm, heat.hot_gap(0.15, BODY, 20, 160).gap_mm)
        self.assertTrue(told.touches and not told.is_known)
        self.assertIn("warm it up slowly", told.says.render(Units.MM))

    @given(st.floats(0, 0.2), st.floats(0, 0.05))
    def test_the_cold_gap_that_would_do_does(self, cold, least):
        body = heat.Body(BODY.casing, BODY.rotor, BODY.head, None, least)
        hot = heat.hot_gap(cold, body, 60, 150)
        mended = heat.hot_gap(hot.cold_needed_mm, body, 60, 150)
        self.assertGreaterEqual(mended.gap_mm, least - 1e-9)
        self.assertLess(mended.gap_mm, least + 0.0101)
        self.assertIn("Set ", hot.says.render(Units.MM))

    def test_below_freezing_and_own_values(self):
        lines = calculator("hot-gap").run(
            {"cold": "0.15", "span": "200", "casing_at": "-30", "rotor_at": "-30", "rotor_expansion": "4.8", "start_at": "20"},
            Entry(Units.MM),
        )
        # cast iron from 20 C down: known as 10.0 to 10.8, and what shrinks most leaves least
        expected = 0.15 + (10.8 - 4.8) * 200 * -50 / 1e6
        self.assertEqual(render(lines[0].text, Units.MM), f"{expected:.3f} mm")
        with self.assertRaisesRegex(FieldError, "minutes"):
            calculator("hot-gap").run(
                {"cold": "0.15", "span": "200", "casing_at": "60", "rotor_at": "80", "rotor_minutes": "5"}, Entry(Units.MM)
            )


END = Path("end", "End clearance", 210, 19, 1.0, 104, True)
TIPS = Path("tips", "Tips", 59, 14, 0.5)
NEW = {"end": 0.15, "tips": 0.16}


class Cost(unittest.TestCase):
    FLUID = Fluid(60, 880)

    def duty(self, losses, gaps, **more):
        given_ = {"pressure_bar": 6.0, "speed_r_min": 320.0, "fluid": self.FLUID} | more
        return perform(losses, gaps, NEW, given_["pressure_bar"], given_["speed_r_min"], given_["fluid"])

    @given(st.floats(0.05, 0.3), st.floats(0.05, 0.3))
    def test_flow_and_power_against_integrated_profiles(self, end, tips):
        """Lands without ends (so long, under so much pressure, that their losses vanish): each path's profile u(y) integrated."""
        long = 1e5
        lands = (Path("end", "End", 210, 19 * long, 1.0, 104, True), Path("tips", "Tips", 59, 14 * long, 0.5))
        done = self.duty(Losses(0.74, lands), {"end": end, "tips": tips}, pressure_bar=6.0 * long)
        mu, wall = 60e-6 * 880, -math.pi * 0.104 * 320 / 60
        flows = []
        for h, width, land, u in ((end / 1000, 0.210, 0.019, wall), (tips / 2000, 0.059, 0.014, 0.0)):
            gradient = 6e5 / land
            flow, _ = integrate.quad(lambda y, h=h, g=gradient, u=u: g / (2 * mu) * y * (h - y) + u * y / h, 0, h)
            flows.append(flow * width * 60_000)
        self.assertAlmostEqual((done.slip_l_min - sum(flows)) / (0.74 * 320), 0, places=6)
        self.assertAlmostEqual(done.flow_l_min / (0.74 * 320 - sum(flows)), 1, places=6)
        self.assertAlmostEqual(done.efficiency, 1 - sum(flows) / (0.74 * 320), places=6)

    @given(
        st.floats(0.02, 3), st.floats(0.02, 3), st.floats(0, 40), st.floats(0.4, 5000), st.floats(1, 3000),
        st.booleans(), st.booleans(), st.booleans(),
    )  # fmt: skip
    def test_whatever_the_duty_nothing_is_told_that_cannot_be(self, end, tips, bar, mm2_s, speed, against, bare, tested):
        """Efficiency 0 to 100 %, power that slips back less than is displaced, or no number; the sum of its paths either way."""
        paths = (Path("end", "End clearance", 210, 19, 1.0, 104, against), TIPS)
        test = TestPoint(225, 7, 46, 310, {"end": 0.16, "tips": 0.17}) if tested or bare else None
        losses = Losses(0.74, (Path("end", "End clearance"),) if bare else paths, test)
        fluid = Fluid(mm2_s, 900)
        done = self.duty(losses, {"end": end, "tips": tips}, pressure_bar=bar, speed_r_min=speed, fluid=fluid)
        displaced = 0.74 * speed
        if done.untold is None:
            self.assertTrue(0 <= done.flow_l_min <= displaced)
            self.assertTrue(0 < done.efficiency <= 1)
            self.assertTrue(0 <= done.lost_w <= displaced / 60_000 * bar * 1e5 + 1e-9)
        else:
            last = done.lines()[-1]
            self.assertEqual((last.name, last.status), ("Flow at the duty", Status.ASK))
            paths_out = any(p.untold for p in done.passing)
            self.assertTrue(paths_out or done.slip_l_min < 0 or done.slip_l_min >= displaced)
        for line in done.lines():
            for units in Units:
                self.assertNotRegex(render(line.text, units), r"[{}]|nan|all of it|-\d")
        if not bare:
            slots = [p.slot({"end": end, "tips": tips}[p.feature], bar, speed, fluid) for p in paths]
            expected = sum(losses.factor * s.pressure_m3_s + s.drag_m3_s for s in slots) * 60_000
            self.assertAlmostEqual(done.slip_l_min, expected, delta=1e-9 * max(abs(expected), 1))

    def test_shear_and_warming(self):
        """mu·(du/dy)² of the running wall; all of what slips back and is sheared goes with what comes out."""
        done = self.duty(Losses(0.74, (END, TIPS)), NEW)
        wall = math.pi * 0.104 * 320 / 60
        self.assertAlmostEqual(done.shear_w, 60e-6 * 880 * wall**2 * 0.210 * 0.019 / 0.00015, places=6)
        heat_w = (0.74 * 320 - done.flow_l_min) / 60_000 * 6e5 + done.shear_w
        self.assertAlmostEqual(done.warmer_k, heat_w / (done.flow_l_min / 60_000 * 880 * HEAT_J_KG_K), places=9)
        self.assertEqual(HEAT_J_KG_K, 1900)  # mineral oil near 40 C, handbooks, from memory
        # plane Couette flow is laminar to 1,300 at least: past 1,000 the law of layers is not used
        fast = self.duty(Losses(0.74, (END, TIPS)), {"end": 0.4, "tips": 0.1}, fluid=Fluid(0.69, 900))
        self.assertIsNone(fast.shear_w)
        self.assertIn("no longer shears", " ".join(render(x.text, Units.MM) for x in fast.lines()))
        self.assertIsNotNone(self.duty(Losses(0.74, (END, TIPS)), {"end": 0.4, "tips": 0.1}, fluid=Fluid(0.7, 900)).shear_w)

    def test_the_test_point_comes_back_and_calibrates_lands(self):
        at = TestPoint(225, 7, 46, 310, {"end": 0.16, "tips": 0.17})
        losses = Losses(0.74, (END, TIPS), at)
        again = perform(losses, dict(at.gaps_mm), NEW, 7, 310, Fluid(46, 900))
        self.assertAlmostEqual(again.flow_l_min, 225, places=9)
        bare = Losses(0.74, (Path("end", "End clearance"),), TestPoint(225, 7, 46, 310, {"end": 0.16}))
        # the cube law alone: twice the gap, half the viscosity, at the same pressure
        wide = perform(bare, {"end": 0.32}, {}, 7, 310, Fluid(23, 900))
        self.assertAlmostEqual(wide.slip_l_min / (0.74 * 310 - 225), 16, places=9)

    def test_a_test_scales_what_the_pressure_drives_and_not_what_the_wall_drags(self):
        at = TestPoint(225, 7, 46, 310, {"end": 0.16, "tips": 0.17})
        losses = Losses(0.74, (END, TIPS), at)
        slots = [p.slot(at.gaps_mm[p.feature], 7, 310, Fluid(46, 900)) for p in (END, TIPS)]
        driven, dragged = (sum(getattr(s, name) for s in slots) * 60_000 for name in ("pressure_m3_s", "drag_m3_s"))
        self.assertAlmostEqual(losses.factor * driven + dragged, 0.74 * 310 - 225, places=9)
        half = perform(losses, dict(at.gaps_mm), NEW, 7, 310, Fluid(46, 900)).at_pressure(3.5)
        again = sum(p.slot(at.gaps_mm[p.feature], 3.5, 310, Fluid(46, 900)).pressure_m3_s for p in (END, TIPS)) * 60_000
        self.assertAlmostEqual(half.slip_l_min, losses.factor * again + dragged, places=9)

    def test_the_most_costly_gap_comes_first_with_what_it_gives_back(self):
        done = self.duty(Losses(0.74, (TIPS, END)), {"end": 0.30, "tips": 0.40})
        first, _ = done.path_lines()
        self.assertEqual(first.name, "End clearance")
        worst = max(done.passing, key=lambda p: p.slip_l_min)
        renewed = self.duty(Losses(0.74, (TIPS, END)), {"end": 0.15, "tips": 0.40})
        self.assertAlmostEqual(worst.gives_back_l_min, renewed.flow_l_min - done.flow_l_min, places=9)
        self.assertIn("gives", render(first.text, Units.MM))
        unmeasured = self.duty(Losses(0.74, (END, TIPS)), {"end": 0.30})
        self.assertIn("taken as new: not measured", " ".join(render(x.text, Units.MM) for x in unmeasured.path_lines()))
        self.assertIsNone(self.duty(Losses(0.74, (END, TIPS)), {}))

    def test_a_gap_so_wide_that_it_cannot_make_the_pressure_is_asked_about(self):
        done = self.duty(Losses(0.74, (END,)), {"end": 3.0})
        self.assertEqual([x.status for x in done.lines()], [Status.GOOD, Status.ASK])
        self.assertIn("cannot make the pressure", done.untold.render(Units.MM))
        forward = self.duty(Losses(0.74, (END,)), {"end": 0.2}, pressure_bar=0.0)
        self.assertIn("more forward than slips back", forward.untold.render(Units.MM))

    @given(st.floats(0.21, 0.9), st.floats(1, 15))
    def test_the_gap_that_would_pass_it(self, wide, bar):
        done = self.duty(Losses(0.74, (END, TIPS)), {"end": 0.2, "tips": 0.15}, pressure_bar=bar)
        flow = self.duty(Losses(0.74, (END, TIPS)), {"end": wide, "tips": 0.15}, pressure_bar=bar).flow_l_min
        self.assertAlmostEqual(done.gap_for("end", flow), wide, places=6)
        self.assertIsNone(done.gap_for("end", done.flow_l_min + 1))
        self.assertIsNone(done.gap_for("lobes", flow))

    def test_a_sheet_that_cannot_be(self):
        for make, said in (
            (lambda: Losses(0.74, ()), "there is none"),
            (lambda: Losses(0.74, (Path("end", "End"), TIPS), TestPoint(200, 7, 46, 310, NEW)), "no land"),
            (lambda: Losses(0.74, (Path("end", "End"),)), "no land"),
            (lambda: Losses(0.74, (Path("end", "End", wall_mm=90),), TestPoint(225, 7, 46, 310, NEW)), "wall that runs"),
            (lambda: Losses(0.74, (END, TIPS), TestPoint(200, 0, 46, 310, NEW)), "cannot be told"),
            (lambda: Losses(0.74, (Path("end", "End", 900, 19, 1.0, 200, False), TIPS), TestPoint(229, 7, 46, 310, NEW)), "walls"),
            (lambda: Losses(0.74, (END, TIPS), TestPoint(200, 7, 46, 310, {"end": 0.1})), "tips is missing"),
            (lambda: Losses(0.74, (END,), TestPoint(300, 7, 46, 310, NEW)), "more than the pump displaces"),
        ):  # fmt: skip
            with self.assertRaisesRegex(FieldError, said):
                make()
