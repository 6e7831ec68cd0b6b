"""Faults that once went by unseen, put in by hand: each of these fails on one of them."""

import math
import unittest
from collections import Counter
from dataclasses import replace

from finegap.core.build.declared import DiscSpec, Torque
from finegap.core.build.disc_spring import DiscSpring
from finegap.core.build.tightening import Tightening
from finegap.core.build.torque import FRICTION, thread_of
from finegap.core.build.works import spring_lines
from finegap.core.facts import Decided, Decision, Duty, Look, Phase
from finegap.core.families.model import DEFAULT_WORDS
from finegap.core.gap import gaskets, heat, housing
from finegap.core.gap.housing import Housing
from finegap.core.gap.leaves import pair_piles, pair_uncertainty_mm
from finegap.core.gap.move import Window
from finegap.core.gap.shims import Faces, Wanted, choose_shims
from finegap.core.gap.shims import what_to_buy as shims_to_buy
from finegap.core.gap.sweep import Sweep
from finegap.core.gap.table import Range, Row, choose
from finegap.core.gap.viscosity import Liquid
from finegap.core.inspection import inspect
from finegap.core.job import assess
from finegap.core.materials import MATERIALS
from finegap.core.measuring.readings import Gauge, Reading, Statistic, summarize
from finegap.core.measuring.uncertainty import from_interval
from finegap.core.measuring.verdict import Call, Limit, judge
from finegap.core.showing import Units
from tests.apps.base import GOOD
from tests.core.facts import GAUGE, facts, readings, sheet


class Judging(unittest.TestCase):
    def test_what_is_in_doubt_outranks_what_is_only_to_be_watched(self):
        """A groove is watched; a bore too near its limit is measured again, and that is the call."""
        of = sheet()
        limit = of.spec("bushing_bore").limit
        near = readings(GOOD | {"bushing_bore": limit.upper_mm - 0.0005}, of)
        found = {s.feature.key: s for s in inspect(facts(sheet=of, readings=near))}["bushing_bore"].found_verdict
        self.assertIs(found.call, Call.MEASURE_AGAIN)
        looks = {**facts().looks, ("bushing_bore", Phase.FOUND): Look(("grooved",))}
        both = {s.feature.key: s for s in inspect(facts(sheet=of, readings=near, looks=looks))}["bushing_bore"].found_verdict
        self.assertIs(both.call, Call.MEASURE_AGAIN)
        self.assertEqual(len(both.reasons), len(found.reasons) + 1)

    def test_a_lead_may_sign_past_a_clearance_outside_its_limit_as_left(self):
        """A new bore on a worn pin: the bore is as new, the pair is not right, and only a lead may say go."""
        of = sheet()
        left = readings(GOOD | {"idler_bore": 30.3, "idler_pin": 29.7}, of) | readings({"idler_bore": 30.03}, of, Phase.LEFT)
        decided = {"idler_bore": Decision(Decided.CHANGE, "worn"), "idler_clearance": Decision(Decided.KEEP, "no other pin")}
        told = {b.sentence.render(Units.MM): b.lead_may for b in assess(facts(readings=left, decisions=decided)).blockers}
        found = [lead_may for words, lead_may in told.items() if "outside its limit as left" in words]
        self.assertEqual(found, [True], told)

    def test_a_new_part_of_a_pair_lies_anywhere_in_its_range_alike(self):
        """A rectangle's standard uncertainty is its width over the root of 12, so the guard of an option is 1.645 of the sum."""
        of = sheet()
        state = {s.feature.key: s for s in inspect(facts(sheet=of))}["idler_clearance"]
        results = {s.feature.key: s.found for s in inspect(facts(sheet=of))}
        for option in state.options:
            parts = [
                (of.spec(key).new_mm[1] - of.spec(key).new_mm[0]) / math.sqrt(12) if key in option.new else results[key].u_mm
                for key in ("idler_bore", "idler_pin")
            ]
            self.assertAlmostEqual(option.verdict.guard_mm, 1.6448536269514722 * math.hypot(*parts), places=12)

    def test_a_feeler_pair_is_judged_alike_at_inspect_and_at_set(self):
        """Go and no-go at the ends of a window prove it, at both stages, with the same chance; a pile counts each leaf."""
        leaves, leaf = (50, 100, 150, 200, 250, 300), Gauge("leaves", 0.01, 0.003, 2.0)
        for goes, stops in ((0.10, 0.15), (0.10, 0.20), (0.35, 0.40), (0.45, 0.50)):
            middle, half = (goes + stops) / 2, (stops - goes) / 2
            pile = pair_piles(goes, stops, leaves)
            inspected = summarize([Reading("gap", "", middle, leaf, half_mm=half, pile=pile)], Statistic.AS_MEASURED, "gap")
            u = math.hypot(from_interval(goes, stops), pair_uncertainty_mm(goes, stops, leaves, 0.0015))
            self.assertAlmostEqual(inspected.u_mm, u, places=12)
            for limit in (Limit(goes, stops), Limit(None, stops), Limit(goes - 0.003, stops - 0.003)):
                at_set = judge(middle, u, math.inf, limit, half_mm=half)
                at_inspect = judge(inspected.value_mm, inspected.u_mm, inspected.dof, limit, half_mm=inspected.half_mm)
                self.assertEqual((at_set.call, round(at_set.probability, 12)), (at_inspect.call, round(at_inspect.probability, 12)))
        self.assertEqual([pair_piles(a, a + 0.05, leaves) for a in (0.10, 0.35, 0.45)], [1, 2, 2])

    def test_the_job_judges_a_feeler_reading_so(self):
        of = sheet()
        of = replace(of, features=dict(of.features) | {"end_clearance": replace(of.spec("end_clearance"), limit=Limit(None, 0.20))})
        state = {}
        for half in (0.025, 0.0):
            read = tuple(
                Reading(s.key, s.plane, 0.175, replace(GAUGE, resolution_mm=0.05 if not half else 0.001), half_mm=half)
                for s in of.family.by_key["end_clearance"].stations
            )
            given = facts(sheet=of, readings=facts().readings | {("end_clearance", Phase.FOUND): read})
            state[half] = {s.feature.key: s for s in inspect(given)}["end_clearance"].found_verdict
        self.assertIs(state[0.025].call, Call.KEEP)  # up to its leaf that does not go
        self.assertGreater(state[0.025].probability, state[0.0].probability)


class Setting(unittest.TestCase):
    def test_play_is_found_closing_as_well_as_opening(self):
        thread = Housing(120, 1.5)
        promised = thread.clearance_mm(30.0)
        for before, after in ((0.10, 0.16), (0.16, 0.10)):
            self.assertAlmostEqual(housing.lash_from(30.0, after, before, thread), promised - 0.06, places=12)

    def test_of_two_stacks_as_near_the_wider_gap_is_taken(self):
        """Touching wrecks a pump, slip only costs flow."""
        self.assertEqual(gaskets.best_stack({100: 1, 200: 1}, 150, 60, 60).stack, (200,))
        self.assertEqual(gaskets.best_stack({100: 1, 200: 1}, 149, 60, 60).stack, (100,))

    def test_a_trial_stack_may_be_off_by_the_width_of_the_window(self):
        window = Window(0.20, 0.15, 0.25)
        _, choice = gaskets.first_move({100: 3, 380: 1}, 300, window, DEFAULT_WORDS)
        self.assertEqual(choice.stack, (380,))  # one piece, 0.08 off, before three that are on
        _, choice = gaskets.first_move({100: 3, 401: 1}, 300, window, DEFAULT_WORDS)
        self.assertEqual(choice.stack, (100, 100))

    def test_how_many_gaskets_and_shims_are_bought(self):
        """Three gaskets, two shims; the ones that then make the thinnest stack of pieces."""
        wanted = gaskets.StackWanted(300, 295, 305)
        self.assertEqual(gaskets.what_to_buy({}, (100,), wanted), (100, 100, 100))
        self.assertEqual(gaskets.what_to_buy({}, (75,), wanted), ())
        self.assertEqual(gaskets.what_to_buy({150: 1}, (50, 150), wanted), (150,))
        self.assertEqual(gaskets.what_to_buy({250: 1}, (52, 50), wanted), (50,))  # as many pieces, the nearer one
        rotors = (Faces(300, 100), Faces(300, 100))
        shims = Wanted((170, 200, 230), (170, 200, 230), 30)
        bought = shims_to_buy({}, (100,), rotors, shims)
        self.assertEqual(bought, (100, 100))
        self.assertIsNotNone(choose_shims(Counter(bought), rotors, shims).stacks)
        self.assertEqual(shims_to_buy({}, (50,), rotors, shims), ())

    def test_holes_that_touch_are_one(self):
        """Two printed temperatures cut a stretch no row covers: it is one hole, from its cold end to its hot end."""
        rows = tuple(
            Row(name, "iron", Range(0, math.inf), Range(*t), 0.1)
            for name, t in (("cold", (-20, 10)), ("warm", (50, 90)), ("other", (30, 30)))
        )
        said = choose(rows, "iron", 50, 60, "sheet", Sweep(50, 60, 0, 60)).hole.render(Units.MM)
        self.assertIn("from 10 °C", said)
        self.assertIn("to 50 °C", said)

    def test_a_viscosity_that_is_a_guess_is_said_beside_the_choice(self):
        liquid = Liquid(100, 40, 11, 100)
        rows = (Row("all", "iron", Range(0, math.inf), Range(-60, 200), 0.1),)
        for start, asked in ((10.0, False), (9.0, True)):
            choice = choose(rows, "iron", liquid.at(60), 60, "sheet", Sweep(liquid.at(60), 60, start, 60, liquid))
            self.assertEqual(choice.hole is not None, asked)
        self.assertIn("is a guess", choice.hole.render(Units.MM))

    def test_an_expansion_outside_its_temperatures_asks_a_lead(self):
        steel = MATERIALS["steel"].expansion
        body = heat.Body(heat.Part(200, steel), heat.Part(200, steel))
        hot = Duty("cast iron", 50, 60, 60, hot_c=310.0)
        for duty, asked in ((Duty("cast iron", 50, 60, 60), False), (hot, True), (replace(hot, hot_c=60.0, start_c=-25.0), True)):
            told = assess(facts(sheet=replace(sheet(), heat=body), duty=duty, tries=facts().tries)).blockers
            found = [b.lead_may for b in told if "is a guess" in b.sentence.render(Units.MM)]
            self.assertEqual(found, [True] if asked else [])


class Building(unittest.TestCase):
    def test_the_preload_of_a_nut_is_told_least_first(self):
        """The lower torque with the higher friction, then the other way round (VDI 2230: the tightening factor)."""
        thread = thread_of("M40x1.5")
        torque = Torque("lock nut", 80.0, 90.0, "oiled", "1", thread=thread, friction=FRICTION["oiled"])
        spec = DiscSpec(DiscSpring(60, 30.5, 3.5, 1.4), 0.05, "lock nut")
        line = next(x for x in spring_lines(spec, {"lock nut": Tightening(torque, ())}) if x.name.startswith("The nut"))
        told = [line.words.amounts[name].value for name in ("least", "most")]
        d2, lead = thread.pitch_diameter_mm, 1.5

        def preload(n_m: float, mu: float) -> float:
            wedge = math.tan(math.atan(lead / (math.pi * d2)) + math.atan(mu / math.cos(math.radians(30))))
            return 1000 * n_m / (d2 / 2 * wedge + mu * 1.27 * 40 / 2)

        for value, expected in zip(told, (preload(80, 0.16), preload(90, 0.10)), strict=True):
            self.assertAlmostEqual(value / expected, 1, places=9)
