"""Faults that once went by unseen, put in by hand or by a tool: each of these fails on one of them."""

import itertools
import json
import math
import re
import unittest
from collections import Counter
from dataclasses import replace
from pathlib import Path

import pint

from finegap.core.assembly.declared import DiscSpec, Torque
from finegap.core.assembly.disc_spring import DiscSpring
from finegap.core.assembly.oring import ORing
from finegap.core.assembly.torque import FRICTION, Adapter, criss_cross, thread_of
from finegap.core.calculators import calculator
from finegap.core.entry import Entry
from finegap.core.errors import FieldError, Unlikely
from finegap.core.families.family import DEFAULT_WORDS
from finegap.core.families.features import stations
from finegap.core.formatting import Sentence, Units, grouped, render
from finegap.core.gap import gaskets, heat, housing, stack_choice
from finegap.core.gap.declared import RunIn, read_run_in
from finegap.core.gap.duty_range import DutyRange
from finegap.core.gap.housing import Housing, Zero
from finegap.core.gap.leaves import go_and_no_go, pair_piles, pair_uncertainty_mm, pile_for
from finegap.core.gap.losses import Losses
from finegap.core.gap.losses import Path as Path_
from finegap.core.gap.move import Window
from finegap.core.gap.performance import perform
from finegap.core.gap.shims import Faces, Wanted, choose_shims, wanted_of
from finegap.core.gap.shims import what_to_buy as shims_to_buy
from finegap.core.gap.slip import Fluid
from finegap.core.gap.table import Range, Row, choose
from finegap.core.gap.tape import Tape
from finegap.core.gap.tries import Check, TryMade
from finegap.core.gap.viscosity import Liquid
from finegap.core.inspection import PairOption, inspect, option_words
from finegap.core.job import assess
from finegap.core.job_record import Decided, Duty, FeatureDecision, Phase, SeenDamage
from finegap.core.materials import MATERIALS
from finegap.core.measuring.feeler import read_leaves
from finegap.core.measuring.plausible import check_plausible, plausible
from finegap.core.measuring.readings import CertifiedGauge, StationReading, Statistic, running_clearance, summarize
from finegap.core.measuring.temperature import Warm
from finegap.core.measuring.uncertainty import from_interval, probability_below
from finegap.core.measuring.verdict import Limit, School, Verdict, judge
from finegap.core.paste import read_set
from finegap.core.proof.first_hour import FirstHourItem, Running, by_bucket, first_hour
from finegap.core.quantities import parse
from finegap.core.ready import not_ready
from finegap.core.renewing import wears_up
from finegap.core.result_lines import Status
from finegap.core.sequence import GAP_RIGHT, must_be_done, out_of_turn
from finegap.core.sheet import read_sheet
from finegap.core.tasks.spring import spring_lines
from finegap.core.units import Dimension
from finegap.core.wear.forecast import forecast
from finegap.core.wear.lives import Life, MeasuredSize, Point
from tests.apps.base import GOOD
from tests.core.job_records import GAUGE, job_record, readings, sheet
from tests.core.setting import (
    CouplingMeans,
    GasketMeans,
    HousingMeans,
    RingMeans,
    ShimMeans,
    TimingMeans,
    set_by_gaskets,
    set_by_housing,
    set_by_shims,
)  # fmt: skip
from tests.core.test_building import TYPED
from tests.references import VALUES


class Judging(unittest.TestCase):
    def test_what_is_in_doubt_outranks_what_is_only_to_be_watched(self):
        """A groove is watched; a bore too near its limit is measured again, and that is the call."""
        of = sheet()
        limit = of.spec("bushing_bore").limit
        near = readings(GOOD | {"bushing_bore": limit.upper_mm - 0.0005}, of)
        found = {s.feature.key: s for s in inspect(job_record(sheet=of, readings=near))}["bushing_bore"].found_judgement
        self.assertIs(found.verdict, Verdict.MEASURE_AGAIN)
        looks = {**job_record().looks, ("bushing_bore", Phase.FOUND): SeenDamage(("grooved",))}
        both = {s.feature.key: s for s in inspect(job_record(sheet=of, readings=near, looks=looks))}["bushing_bore"].found_judgement
        self.assertIs(both.verdict, Verdict.MEASURE_AGAIN)
        self.assertEqual(len(both.reasons), len(found.reasons) + 1)

    def test_a_lead_may_sign_past_a_clearance_outside_its_limit_as_left(self):
        """A new bore on a worn pin: the bore is as new, the pair is not right, and only a lead may say go."""
        of = sheet()
        left = readings(GOOD | {"idler_bore": 30.3, "idler_pin": 29.7}, of) | readings({"idler_bore": 30.03}, of, Phase.LEFT)
        decided = {
            "idler_bore": FeatureDecision(Decided.CHANGE, "worn"),
            "idler_clearance": FeatureDecision(Decided.KEEP, "no other pin"),
        }
        told = {b.sentence.render(Units.MM): b.lead_may for b in assess(job_record(readings=left, decisions=decided)).blockers}
        found = [lead_may for words, lead_may in told.items() if "outside its limit as left" in words]
        self.assertEqual(found, [True], told)

    def test_a_new_part_of_a_pair_lies_anywhere_in_its_range_alike(self):
        """A rectangle's standard uncertainty is its width over the root of 12, so the guard of an option is 1.645 of the sum."""
        of = sheet()
        state = {s.feature.key: s for s in inspect(job_record(sheet=of))}["idler_clearance"]
        results = {s.feature.key: s.found for s in inspect(job_record(sheet=of))}
        for option in state.options:
            parts = [
                (of.spec(key).new_mm[1] - of.spec(key).new_mm[0]) / math.sqrt(12) if key in option.new else results[key].u_mm
                for key in ("idler_bore", "idler_pin")
            ]
            self.assertAlmostEqual(option.judgement.guard_mm, 1.6448536269514722 * math.hypot(*parts), places=12)

    def test_a_feeler_pair_is_judged_alike_at_inspect_and_at_set(self):
        """Go and no-go at the ends of a window prove it, at both stages, with the same chance; a pile counts each leaf."""
        leaves, leaf = (50, 100, 150, 200, 250, 300), CertifiedGauge("leaves", 0.01, 0.003, 2.0)
        for goes, stops in ((0.10, 0.15), (0.10, 0.20), (0.35, 0.40), (0.45, 0.50)):
            middle, half = (goes + stops) / 2, (stops - goes) / 2
            pile = pair_piles(goes, stops, leaves)
            inspected = summarize([StationReading("gap", "", middle, leaf, half_mm=half, pile=pile)], Statistic.AS_MEASURED, "gap")
            u = math.hypot(from_interval(goes, stops), pair_uncertainty_mm(goes, stops, leaves, 0.0015))
            self.assertAlmostEqual(inspected.u_mm, u, places=12)
            for limit in (Limit(goes, stops), Limit(None, stops), Limit(goes - 0.003, stops - 0.003)):
                at_set = judge(middle, u, math.inf, limit, half_mm=half)
                at_inspect = judge(inspected.value_mm, inspected.u_mm, inspected.dof, limit, half_mm=inspected.half_mm)
                self.assertEqual(
                    (at_set.verdict, round(at_set.probability, 12)), (at_inspect.verdict, round(at_inspect.probability, 12))
                )
        self.assertEqual([pair_piles(a, a + 0.05, leaves) for a in (0.10, 0.35, 0.45)], [1, 2, 2])

    def test_the_job_judges_a_feeler_reading_so(self):
        of = sheet()
        of = replace(of, features=dict(of.features) | {"end_clearance": replace(of.spec("end_clearance"), limit=Limit(None, 0.20))})
        state = {}
        for half in (0.025, 0.0):
            read = tuple(
                StationReading(s.key, s.plane, 0.175, replace(GAUGE, resolution_mm=0.05 if not half else 0.001), half_mm=half)
                for s in of.family.by_key["end_clearance"].stations
            )
            given = job_record(sheet=of, readings=job_record().readings | {("end_clearance", Phase.FOUND): read})
            state[half] = {s.feature.key: s for s in inspect(given)}["end_clearance"].found_judgement
        self.assertIs(state[0.025].verdict, Verdict.KEEP)  # up to its leaf that does not go
        # a normal distribution of the same standard deviation would put a twentieth of it past that leaf
        self.assertGreater(state[0.025].probability, 0.97)


class Setting(unittest.TestCase):
    def test_play_is_found_closing_as_well_as_opening(self):
        thread = Housing(120, 1.5)
        promised = thread.clearance_mm(30.0)
        for before, after in ((0.10, 0.16), (0.16, 0.10)):
            self.assertAlmostEqual(housing.lash_from(30.0, after, before, thread), promised - 0.06, places=12)

    def test_of_two_stacks_as_near_the_wider_gap_is_taken(self):
        """Touching wrecks a pump, slip only costs flow."""
        self.assertEqual(stack_choice.best_stack({100: 1, 200: 1}, 150, 60, 60).stack, (200,))
        self.assertEqual(stack_choice.best_stack({100: 1, 200: 1}, 149, 60, 60).stack, (100,))

    def test_a_trial_stack_may_be_off_by_the_width_of_the_window(self):
        window = Window(0.20, 0.15, 0.25)
        _, choice = gaskets.first_move({100: 3, 380: 1}, 300, window, DEFAULT_WORDS)
        self.assertEqual(choice.stack, (380,))  # one piece, 0.08 off, before three that are on
        _, choice = gaskets.first_move({100: 3, 401: 1}, 300, window, DEFAULT_WORDS)
        self.assertEqual(choice.stack, (100, 100))

    def test_how_many_gaskets_and_shims_are_bought(self):
        """Three gaskets, two shims; the ones that then make the thinnest stack of pieces."""
        wanted = stack_choice.StackWanted(300, 295, 305)
        self.assertEqual(stack_choice.what_to_buy({}, (100,), wanted), (100, 100, 100))
        self.assertEqual(stack_choice.what_to_buy({}, (75,), wanted), ())
        self.assertEqual(stack_choice.what_to_buy({150: 1}, (50, 150), wanted), (150,))
        self.assertEqual(stack_choice.what_to_buy({250: 1}, (52, 50), wanted), (50,))  # as many pieces, the nearer one
        self.assertEqual(stack_choice.what_to_buy({}, (60, 40), stack_choice.StackWanted(50, 40, 60)), (40,))  # as near either side
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
        said = choose(rows, "iron", 50, 60, "sheet", DutyRange(50, 60, 0, 60)).hole.render(Units.MM)
        self.assertIn("from 10 °C", said)
        self.assertIn("to 50 °C", said)

    def test_a_viscosity_that_is_a_guess_is_said_beside_the_choice(self):
        liquid = Liquid(100, 40, 11, 100)
        rows = (Row("all", "iron", Range(0, math.inf), Range(-60, 200), 0.1),)
        for start, asked in ((10.0, False), (9.0, True)):
            choice = choose(rows, "iron", liquid.at(60), 60, "sheet", DutyRange(liquid.at(60), 60, start, 60, liquid))
            self.assertEqual(choice.hole is not None, asked)
        self.assertIn("is a guess", choice.hole.render(Units.MM))

    def test_an_expansion_outside_its_temperatures_asks_a_lead(self):
        steel = MATERIALS["steel"].expansion
        body = heat.Body(heat.HeatedPart(200, steel), heat.HeatedPart(200, steel))
        hot = Duty("cast iron", 50, 60, 60, hot_c=310.0)
        for duty, asked in ((Duty("cast iron", 50, 60, 60), False), (hot, True), (replace(hot, hot_c=60.0, start_c=-25.0), True)):
            told = assess(job_record(sheet=replace(sheet(), heat=body), duty=duty, tries=job_record().tries)).blockers
            found = [b.lead_may for b in told if "is a guess" in b.sentence.render(Units.MM)]
            self.assertEqual(found, [True] if asked else [])


class Building(unittest.TestCase):
    def test_the_preload_of_a_nut_is_told_least_first(self):
        """The lower torque with the higher friction, then the other way round (VDI 2230: the tightening factor)."""
        thread = thread_of("M40x1.5")
        torque = Torque("lock nut", 80.0, 90.0, "oiled", "1", thread=thread, friction=FRICTION["oiled"])
        spec = DiscSpec(DiscSpring(60, 30.5, 3.5, 1.4), 0.05, "lock nut")
        line = next(x for x in spring_lines(spec, (torque,)) if x.name.startswith("The nut"))
        told = [line.text.amounts[name].value for name in ("least", "most")]
        d2, lead = thread.pitch_diameter_mm, 1.5

        def preload(n_m: float, mu: float) -> float:
            wedge = math.tan(math.atan(lead / (math.pi * d2)) + math.atan(mu / math.cos(math.radians(30))))
            return 1000 * n_m / (d2 / 2 * wedge + mu * 1.27 * 40 / 2)

        for value, expected in zip(told, (preload(80, 0.16), preload(90, 0.10)), strict=True):
            self.assertAlmostEqual(value / expected, 1, places=9)


class Sheets(unittest.TestCase):
    """The demo's sheets as printed, each quantity by pint, against what is read of them."""

    UNITS = pint.UnitRegistry()

    def of(self, text: str, unit: str = "mm") -> float:
        number, _, written = text.partition(" ")
        names = {"C": "degC", "F": "degF", "mm2/s": "mm**2/s", "L/min": "liter/minute", "N.m": "newton*meter", "lbf.ft": "lbf*foot"}
        return self.UNITS.Quantity(float(number), names.get(written, written)).to(names.get(unit, unit)).magnitude

    def sheets(self):
        for path in sorted((Path(__file__).parents[2] / "demo/sheets").glob("*.json")):
            data = json.loads(path.read_text())
            yield data, read_sheet(data)

    def test_slip(self):
        seen = 0
        for data, sheet_ in self.sheets():
            for raw, path in zip(data.get("slip", {}).get("paths", ()), sheet_.losses.paths if sheet_.losses else (), strict=True):
                feature = sheet_.family.by_key[path.feature]
                self.assertAlmostEqual(path.width_mm, self.of(raw["width"]) * feature.sides)
                self.assertAlmostEqual(path.length_mm, self.of(raw["length"]))
                self.assertAlmostEqual(path.wall_mm, self.of(raw["wall"]) if "wall" in raw else 0.0)
                self.assertEqual((path.feature, path.against), (raw["feature"], True))
                self.assertEqual(path.share, 0.5 if feature.kind.name == "PAIR" else 1 / feature.sides)
                seen += 1
            test = data.get("slip", {}).get("test")
            if test:
                read = sheet_.losses.test
                self.assertAlmostEqual(read.flow_l_min, self.of(test["flow"], "L/min"))
                self.assertAlmostEqual(read.pressure_bar, self.of(test["pressure"], "bar"))
                self.assertAlmostEqual(read.viscosity_mm2_s, self.of(test["viscosity"], "mm2/s"))
                self.assertEqual(read.speed_r_min, test["speed"])
                self.assertEqual(dict(read.gaps_mm), {k: self.of(v) for k, v in test["gaps"].items()})
        self.assertGreaterEqual(seen, 8)

    def test_springs_timing_heat_and_what_is_bought(self):
        for data, sheet_ in self.sheets():
            if "disc_spring" in data:
                raw, spec = data["disc_spring"], sheet_.building.disc
                for name in ("outside", "inside", "thickness", "cone"):
                    self.assertAlmostEqual(getattr(spec.disc, f"{name}_mm"), self.of(raw[name]))
                self.assertEqual((spec.settles_mm, spec.under), (self.of(raw["settles"]), raw["under"].lower()))
            if "timing" in data:
                raw, timing = data["timing"], sheet_.mesh.timing
                self.assertAlmostEqual(timing.pitch_mm, self.of(raw["pitch_diameter"]))
                self.assertAlmostEqual(timing.marked_mm, self.of(raw.get("marked_diameter", raw["pitch_diameter"])))
                self.assertAlmostEqual(sheet_.mesh.difference_mm, self.of(raw["difference"]))
                self.assertEqual((sheet_.mesh.window.low_mm, sheet_.mesh.window.high_mm), tuple(self.of(t) for t in raw["gap"]))
            if "heat" in data and "head" in data["heat"]:
                raw, body = data["heat"], sheet_.heat
                self.assertAlmostEqual(body.head.length_mm, self.of(raw["head"]["reach"]))
                self.assertEqual((body.warming.rotor_min, body.warming.casing_min), tuple(raw["warming"].values()))
                self.assertAlmostEqual(body.least_mm, self.of(raw["least_hot"]))
                self.assertIs(body.casing.expansion, MATERIALS[raw["casing"]].expansion)
            for raw, kit in zip(
                data.get("catalogue", {}).get("kits", ()), sheet_.catalogue.kits if sheet_.catalogue else (), strict=True
            ):
                self.assertEqual(
                    (kit.number, kit.lead_days, kit.price_cents), (raw["number"], raw["lead_days"], round(100 * raw["price"]))
                )
                self.assertEqual(dict(kit.contents), raw["contents"])
            for raw, plan in zip(data.get("lubrication", ()), sheet_.lubrication, strict=True):
                self.assertEqual((plan.name, plan.every_h), (raw["name"], raw["every_hours"]))
                if "cold" in raw:
                    self.assertAlmostEqual(plan.cold_below_c, self.of(raw["cold"]["below"], "C"))

    def leaves(self, thing, path=""):
        """Every quantity of a sheet with its place in the file."""
        if isinstance(thing, dict):
            for key, one in thing.items():
                yield from self.leaves(one, f"{path}.{key}" if path else key)
        elif isinstance(thing, list):
            for i, one in enumerate(thing):
                yield from self.leaves(one, f"{path}[{i}]")
        elif isinstance(thing, str) and re.fullmatch(r"-?[\d.]+ [^ ]+", thing):
            yield path

    def test_a_quantity_that_cannot_be_read_is_named_by_its_place(self):
        seen = 0
        for data, _ in self.sheets():
            for path in self.leaves(data):
                if path.startswith("details."):
                    continue  # what a sheet says of counts and weights is words
                broken = json.loads(json.dumps(data))
                *into, last = [int(k[1:-1]) if k.startswith("[") else k for k in re.findall(r"\[\d+\]|[^.\[\]]+", path)]
                at = broken
                for key in into:
                    at = at[key]
                at[last] = "12 parsec"
                with self.subTest(sheet=data["slug"], path=path), self.assertRaises(FieldError) as caught:
                    read_sheet(broken)
                self.assertEqual(caught.exception.field, path)
                seen += 1
        self.assertGreater(seen, 200)

    def test_a_bushing_of_its_own_material_keeps_its_strength_and_temperature(self):
        data = next(data for data, _ in self.sheets() if "press_fits" in data and any(
            isinstance(p["bushing_material"], dict) for p in data["press_fits"].values()))  # fmt: skip
        for key, raw in data["press_fits"].items():
            material = raw["bushing_material"]
            if isinstance(material, dict):
                solid = read_sheet(data).building.presses[key].bushing
                self.assertAlmostEqual(solid.modulus_mpa, self.of(material["modulus"], "MPa"))
                self.assertAlmostEqual(solid.allowed_mpa, self.of(material["compressive"], "MPa"))
                self.assertIsNone(solid.yield_mpa)
                self.assertEqual([solid.expansion.knows(t) for t in (250, 250.1)], [True, False])
                metal = json.loads(json.dumps(data))
                metal["press_fits"][key]["bushing_material"] |= {"yield": "90 MPa"}
                del metal["press_fits"][key]["bushing_material"]["compressive"]
                again = read_sheet(metal).building.presses[key].bushing
                self.assertEqual((again.yield_mpa, again.allowed_mpa), (90.0, None))


class SmallSums(unittest.TestCase):
    def run_one(self, key, **typed):
        return {line.name: line for line in calculator(key).run(TYPED[key] | typed, Entry(Units.MM))}

    def test_a_grade_is_ten_percent_either_way(self):
        """iso-vg-01: ISO 3448, table 1."""
        for grade, of in VALUES["iso-vg-01"]["expected"].items():
            span = self.run_one("grade", grade=str(grade))["A new oil of the grade"].text.amounts
            for name, end in (("low", "min"), ("high", "max")):
                self.assertAlmostEqual(span[name].value / of[end], 1, delta=0.011)

    def test_fits_are_named_by_what_they_are(self):
        for code, name in (
            ("H7/r6", "Interference"), ("H7/p6", "Interference"), ("H7/h6", "Clearance"), ("H7/g6", "Clearance"),
            ("H7/k6", "Interference, or clearance where negative"),
        ):  # fmt: skip
            self.assertIn(name, self.run_one("fit", fit=code))
        self.assertEqual(self.run_one("fit", fit="H7/g6")["Clearance"].text.amounts["low"].text(Units.MM), "0.009 mm")

    def test_a_test_of_the_pump_takes_the_tips_as_they_were_then(self):
        test = {"test_flow": "200", "test_pressure": "6", "test_viscosity": "60", "test_speed": "300", "test_end": "0.2"}
        same, narrower = (
            self.run_one("performance", **test, test_radial=r)["Flow at the duty"].text.value for r in ("0.1", "0.05")
        )
        self.assertAlmostEqual(same, 200, places=9)  # the duty is the test: it gives what was measured
        self.assertLess(narrower, 200)  # tips that were finer then explain less of the slip, so the duty slips more
        fresh = self.run_one("performance", radial_new="0.05", end_new="")
        self.assertNotIn("gives", render(fresh["End clearance"].text, Units.MM))
        self.assertIn("gives", render(fresh["Radial clearance"].text, Units.MM))

    def test_bounds_just_met(self):
        self.assertEqual(Adapter(300, 150, 180).share, 2.0)
        self.assertEqual(by_bucket(10, 1), 600)
        self.assertAlmostEqual(
            first_hour(Running({FirstHourItem.FLOW: 60.0, FirstHourItem.POWER: 1.0}), None, "end", 5, 40)[1]
            .text.amounts["h"]
            .value,
            0.5,
        )
        calculator("run-in").run({"log": "4320 60 25 0"}, Entry())
        with self.assertRaises(FieldError):
            calculator("run-in").run({"log": "4321 60 25 0"}, Entry())
        for density in (300, 3000):
            self.assertEqual(Fluid(10, density).density_kg_m3, density)
        self.assertTrue(plausible(30.0, is_gap=False)(37.5))
        self.assertFalse(plausible(30.0, is_gap=False)(37.51))
        with self.assertRaisesRegex(FieldError, "122 F or at 210 F"):
            parse("90 SSF at 51 C", Dimension.VISCOSITY, "viscosity")

    def test_what_an_hour_of_odd_entries_found(self):
        self.assertIs(self.run_one("performance", speed="0.1")["Flow at the duty"].status, Status.ASK)  # a bound just met
        with self.assertRaisesRegex(FieldError, "first at: the viscosity is said to be at 122 F"):
            calculator("viscosity").run(TYPED["viscosity"] | {"first": "200 SSF at 122 F"}, Entry(Units.MM))
        with self.assertRaisesRegex(FieldError, "second at: the viscosity is said to be at 200 F"):
            calculator("viscosity").run(TYPED["viscosity"] | {"second": "52 SUS @ 200 F"}, Entry(Units.MM))
        self.run_one("viscosity", first="46 mm2/s", second="52 SUS @ 212 F")
        gone = self.run_one("disc-spring", settles="1.1")["After the joint has settled"]
        self.assertEqual((gone.status, gone.text.render(Units.MM)), (Status.STOP, "Nothing is left once 1.100 mm is gone."))
        self.assertIs(self.run_one("disc-spring", cone="4.25")["Shape"].status, Status.ASK)
        self.assertNotIn("Shape", self.run_one("disc-spring", cone="4.24"))
        hot = self.run_one("hot-gap", casing_at="-40", rotor_at="-40")
        self.assertIs(hot["Gap when hot"].status, Status.ASK)
        past = self.run_one("press-fit", interference="1")
        self.assertEqual({line.status for line in past.values()}, {Status.ASK})
        self.assertEqual({line.status for line in self.run_one("press-fit").values()}, {Status.GOOD})
        self.assertEqual(thread_of("1-1/2-6"), replace(thread_of("1 1/2-6"), name="1-1/2-6"))
        self.assertEqual(thread_of("½-13").diameter_mm, 12.7)
        for ten in ("0.49", "200.1"):
            with self.assertRaisesRegex(FieldError, "ten strokes"):
                self.run_one("grease", ten=ten)
        self.run_one("grease", ten="0.5")

    def test_a_disc_that_snaps_has_a_peak_before_it_is_flat(self):
        """Where the slope of the load is zero, by a fine walk along it: only from a cone of the root of 2 thicknesses on."""
        for share, falls in ((1.40, False), (1.42, True)):
            disc = DiscSpring(50, 25.4, 3, 3 * share)
            loads = [disc.load_n(disc.cone_mm * i / 4000) for i in range(4001)]
            self.assertEqual(any(b < a for a, b in itertools.pairwise(loads)), falls)

    def test_a_stop_pile_lies_above_the_middle(self):
        go, stop = go_and_no_go((150,), 100, 200)
        self.assertEqual((go.leaves_um, stop), ((150,), None))

    def test_leaves_and_cells_as_lists_have_them(self):
        self.assertEqual(read_leaves("0.05, 0.10, 0.15", "mm"), (50, 100, 150))
        spots = stations(("front", "back"), ("12–6", "3–9"))
        for text, count in (("34.1\t\n34.2\t\t", 2), ("34.1\t34.2\t\t\t", 2), ("34.1\t34.2\t34.3\t", 3)):
            self.assertEqual(len(read_set(text, spots, "mm", "Bore")), count, text)

    def test_marks_of_a_tape(self):
        """Every hundredth of a millimetre, its arc by the screw; one in five has its number."""
        tape = Tape(Housing(124, 1.25), Window(0.15, 0.13, 0.18), Units.MM)
        marks = tape.marks()
        self.assertEqual(len(marks), 25)
        for n, mark in enumerate(marks):
            self.assertAlmostEqual(mark.arc_mm, n * 0.01 / 1.25 * math.pi * 124, places=9)
            self.assertEqual(mark.label, f"{n * 0.01:.2f}" if n % 5 == 0 else "")
        with self.assertRaisesRegex(FieldError, r"go 1\.6 times round"):
            Tape(Housing(124, 1.25), Window(1.5, 1.4, 1.54), Units.MM)

    def test_pieces_of_a_tape_cover_it_and_lap(self):
        tape = Tape(Housing(124, 1.25), Window(0.15, 0.13, 0.18), Units.MM)
        pieces = tape.segments(50.0, 10.0, 5.0, 7.0)
        self.assertEqual((pieces[0].start_mm, pieces[-1].end_mm), (-5.0, tape.length_mm + 7.0))
        for one, other in itertools.pairwise(pieces):
            self.assertAlmostEqual(one.end_mm - other.start_mm, 10.0)
        self.assertTrue(all(0 < p.end_mm - p.start_mm <= 50.0 for p in pieces))
        self.assertEqual(len(tape.segments(1000.0, 10.0, 5.0, 7.0)), 1)
        for overlap in (0.0, 50.0):
            with self.assertRaisesRegex(FieldError, "overlap"):
                tape.segments(50.0, overlap, 5.0, 7.0)

    def test_a_warm_part_with_an_expansion_known_better(self):
        """JCGM 100, 5.1.2: 2 K and the expansion's own half-width, both rectangles; a tenth of it where nothing is said."""
        told = Warm(40, 11.5, 2.0, 0.3).component(50.0).u
        self.assertAlmostEqual(told, 50 * 1e-6 * math.hypot(11.5 * 2, 0.3 * 20) / math.sqrt(3), places=12)
        usual = Warm(40, 11.5).component(50.0).u
        self.assertAlmostEqual(usual, 50 * 1e-6 * math.hypot(11.5 * 2, 1.15 * 20) / math.sqrt(3), places=12)

    def test_an_option_in_one_line(self):
        option = PairOption(("idler_pin",), "new idler pin", 0.1403, 0.1602, judge(0.15, 0.001, math.inf, Limit(None, 0.2)))
        self.assertEqual(option_words(option, fine=False).render(Units.MM), "New idler pin: 0.14 to 0.16 mm")
        self.assertEqual(option_words(option, fine=True).render(Units.MM), "New idler pin: 0.140 to 0.160 mm")

    def test_a_pump_that_stands_still_is_told_nothing_of(self):
        losses = Losses(0.74, (Path_("end", "End", 210, 19),))
        self.assertIsNone(perform(losses, {"end": 0.1}, {}, 6, 0, Fluid(50, 900)))
        self.assertIsNotNone(perform(losses, {"end": 0.1}, {}, 6, 1e-3, Fluid(50, 900)))

    def test_small_things_that_are_let_by(self):
        self.assertEqual(probability_below(1.0, 1.0, 0.0, math.inf), 1.0)
        self.assertEqual(pile_for((1, 5), 1).leaves_um, (1,))
        self.assertEqual(Liquid(2e7, 40, 6.8, 100).first_mm2_s, 2e7)
        self.assertLess(Liquid(46, 40, 45.99, 41).at(60), 46)
        self.assertTrue(all(type(n) is int for n in criss_cross(7)))
        leaf = summarize([StationReading("s", "", 0.2, GAUGE, half_mm=0.025)], Statistic.LARGEST, "bore")
        plain = summarize([StationReading("s", "", 0.1, GAUGE)], Statistic.SMALLEST, "pin")
        self.assertEqual([running_clearance(*pair, "c").half_mm for pair in ((leaf, plain), (plain, leaf))], [0.025, 0.025])

    def test_a_slip_of_unit_is_offered_in_every_unit_it_may_be(self):
        for typed, unit, expected, said, offered in (
            ("1.2", "mm", 30.0, "1.2 mm is far", ["1.2 in"]), ("30", "in", 30.0, "30 in is 762.000 mm, far", ["30 mm"]),
            ("30000", "mm", 30.0, "30000 mm is far", ["30000 um"]), ("1200", "mm", 30.0, "1200 mm is far", ["1200 thou"]),
            ("30''", "mm", 30.0, "30 in is 762.000 mm, far", ["30 mm"]), ("1½", "mm", 38.1, "1 1/2 mm is far", ["1 1/2 in"]),
            ("30 µin", "mm", 30.0, "30 uin is 0.001 mm, far", ["30 mm"]),
        ):  # fmt: skip
            with self.subTest(typed=typed), self.assertRaises(Unlikely) as caught:
                check_plausible(parse(typed, Dimension.LENGTH, "bore", unit), "bore", expected, is_gap=False)
            self.assertIn(said, caught.exception.problem)
            self.assertEqual([s.typed for s in caught.exception.suggestions], offered)

    def test_shims_wanted_are_the_windows_in_micrometres(self):
        wanted = wanted_of(Window(0.15, 0.1201, 0.1799), Window(0.25, 0.2, 0.3), 0.0309)
        self.assertEqual(wanted, Wanted((121, 150, 179), (200, 250, 300), 30))
        means = ShimMeans((25,), 100, 0.03)
        far = [TryMade(tuple(Check(mm, 0.0001, math.inf) for mm in (0.40, 0.10, 0.40, 0.10)), stacks=((100,), (100,)))]
        move = set_by_shims(means, Window(0.15, 0.12, 0.18), Window(0.35, 0.3, 0.4), far, School.PLAIN, {}).move
        self.assertIn("Drive shaft takes 0.320 mm to 0.380 mm of shims.", [d.render(Units.MM) for d in move.details])

    def test_a_try_that_turned_nothing_keeps_its_direction_and_swallows_no_play(self):
        """Opened past the play, then checked again, then opened on: no reversal, so no play is taken up or seen."""
        means, window = HousingMeans(Housing(120, 1.5), Zero.FIRST_DRAG, 0.05, None), Window(0.20, 0.17, 0.23)
        arc = means.housing.arc_mm

        def tried(*made):
            tries = [TryMade((Check(gap, 0.0001, math.inf),), moved=turned) for turned, gap in made]
            return set_by_housing(means, window, tries, School.PLAIN, Zero.FIRST_DRAG, 0.05)

        first = tried((arc(0.15), 0.10))
        self.assertAlmostEqual(first.lash_seen_mm or 0.05, 0.05)
        self.assertAlmostEqual(first.move.travel_mm, 0.10)
        again = tried((arc(0.15), 0.10), (0.0, 0.10))
        self.assertIsNone(again.lash_seen_mm)
        self.assertIsNone(again.mismatch)
        self.assertAlmostEqual(again.move.travel_mm, 0.10)
        back = tried((arc(0.35), 0.30), (0.0, 0.30))
        self.assertAlmostEqual(back.move.travel_mm, 0.10 + 0.05)  # closing again takes up the play
        other = tried((arc(0.15), 0.05))
        self.assertAlmostEqual(other.lash_seen_mm, 0.10)

    def test_small_parts_of_sheets(self):
        self.assertEqual([one.kind for one in (RingMeans(), CouplingMeans())], ["ring", "coupling"])
        self.assertEqual(read_run_in({"drops": [4, 12], "hottest": "88 C"}), RunIn((4.0, 12.0), 88.0))
        self.assertEqual(read_run_in({}), RunIn(None, None))
        with self.assertRaisesRegex(FieldError, "negative"):
            TimingMeans.read({"pitch_diameter": "84 mm", "gap": ["-0.1 mm", "0.3 mm"], "difference": "0.04 mm"}, sheet().family)

    def test_rings_and_counts(self):
        barely = ORing(49.8, 3.53, 50, 2.8, 4.8, encapsulated=True).lines()[0]
        self.assertIs(barely.status, Status.STOP)
        self.assertIn("jacket cracks", barely.text.render(Units.MM))
        one, two = (summarize([StationReading("s", "", 30.0, GAUGE)] * n, Statistic.LARGEST, "bore") for n in (2, 3))
        self.assertEqual(running_clearance(two, one, "c").count, 5)
        self.assertIn("k", [g.symbol for g in one.working.given])
        leaf = summarize([StationReading("s", "", 0.2, GAUGE, half_mm=0.025)], Statistic.LARGEST, "gap")
        self.assertNotIn("k", [g.symbol for g in leaf.working.given])
        spots = stations(tuple(f"p{i}" for i in range(200)), ("a", "b"))
        self.assertEqual(len(read_set("\n".join(["30.1"] * 400), spots, "mm", "Bore")), 400)


class Wearing(unittest.TestCase):
    def line(self, *points):
        return forecast(
            Life(tuple(Point(h, MeasuredSize(mm, 0.002)) for h, mm in points), points[-1][0]), Limit(None, 30.11), True, 4000
        )

    def test_what_is_told_is_what_is_reckoned(self):
        coming = self.line((0.0, 30.0), (5000.0, 30.05))
        told = coming.sentence.amounts
        self.assertEqual(told["left"], "6\u00a0000")
        self.assertEqual([told["early"], told["late"]], [grouped(round(h, -1)) for h in (coming.early, coming.late)])
        self.assertEqual(coming.working.result.amounts["left"], "6\u00a0000")
        shown = {g.symbol: getattr(g.text, "value", None) for g in coming.working.given}
        for symbol, mm in (("a", coming.line.at_mm), ("b", 1000 * coming.line.rate_mm_h), ("u(b)", 1000 * coming.line.rate_u)):
            self.assertAlmostEqual(shown[symbol], mm, places=12)
        limit = next(g for g in coming.working.given if g.symbol == "L")
        self.assertEqual(limit.text.value, 30.11)
        self.assertIn("limit", coming.sentence.template)

    def test_a_size_that_stays_is_said_to_stay(self):
        self.assertEqual(self.line((0.0, 30.0), (5000.0, 30.0)).sentence.render(Units.MM), "By its sizes so far it does not wear.")

    def test_wears_up(self):
        bore, pin = (next(f for f in sheet().family.features if f.key == key) for key in ("idler_bore", "idler_pin"))
        for feature, limit, up in (
            (bore, Limit(None, 30.1), True), (bore, Limit(29.9, None), False), (pin, Limit(29.9, None), False),
            (pin, Limit(None, 30.1), True), (bore, Limit(29.9, 30.1), True), (pin, Limit(29.9, 30.1), False), (pin, None, False),
        ):  # fmt: skip
            self.assertIs(wears_up(feature, limit), up)


class Working(unittest.TestCase):
    def test_gaskets_that_are_fitted_may_be_used_again(self):
        means = GasketMeans((50, 100), 300)
        tries = [TryMade((Check(0.30, 0.0001, math.inf),), stacks=((100, 100, 100),))]
        done = set_by_gaskets(means, Window(0.20, 0.19, 0.21), tries, School.PLAIN, {})
        self.assertEqual(done.change.next, (100, 100))

    def test_shims_of_each_shaft_are_its_own(self):
        means, box = ShimMeans((50, 100), 100, 0.03), {100: 1, 50: 2}
        window = Window(0.15, 0.12, 0.18)
        first = set_by_shims(means, window, Window(0.2, 0.15, 0.25), [], School.PLAIN, box)
        self.assertEqual([c.next for c in first.changes], [(100,), (50, 50)])
        self.assertIn("drive shaft's, 0.05 mm", first.move.headline.render(Units.MM).replace("2 × ", ""))
        sharp = tuple(Check(mm, 0.0001, math.inf) for mm in (0.15, 0.20, 0.15, 0.20))
        tried = [TryMade(sharp, stacks=((100,), (50, 50)))]
        right = set_by_shims(means, window, Window(0.2, 0.15, 0.25), tried, School.PLAIN, {})
        self.assertEqual([c.next for c in right.changes], [(100,), (50, 50)])
        # the driven shaft's back opened by less than its shim: that, and only that, is odd
        again = [
            *tried,
            TryMade(tuple(Check(mm, 0.0001, math.inf) for mm in (0.15, 0.20, 0.10, 0.20)), stacks=((100,), (50, 50, 50))),
        ]
        said = set_by_shims(means, window, Window(0.2, 0.15, 0.25), again, School.PLAIN, {}).mismatch.render(Units.MM)
        self.assertIn("Driven shaft, back", said)
        self.assertNotIn("front", said)

    def test_slip_of_a_gap_without_a_land_goes_with_pressure_and_of_no_gap_is_none(self):
        path = Path_("end", "End")
        one, two = (path.flows(0.2, bar, 300, Fluid(50, 900)).driven for bar in (3, 6))
        self.assertAlmostEqual(two / one, 2)
        land = Path_("end", "End", 100, 5)
        self.assertEqual(
            (land.flows(0.0, 3, 300, Fluid(50, 900)).driven, land.flows(-0.1, 3, 300, Fluid(50, 900)).driven), (0.0, 0.0)
        )
        self.assertIsNotNone(Path_("end", "End", 100, 3).flows(3.0, 20, 300, Fluid(1, 1000)).untold)

    def test_density_of_the_duty_is_the_liquids(self):
        losses = Losses(0.74, (Path_("end_clearance", "End", 210, 19),))
        duties = [Duty("cast iron", 50, 60, 60, 5.0, 300.0, density_kg_m3=density) for density in (None, 1200.0)]
        of = replace(sheet(), losses=losses)
        told = [assess(job_record(sheet=of, duty=duty)).gap.left.fluid.density_kg_m3 for duty in duties]
        self.assertEqual(told, [900.0, 1200.0])

    def test_what_waits_is_counted_only_where_there_is_more(self):
        wanted = tuple((name, "tool") for name in ("a", "b", "c", "d"))
        self.assertEqual(not_ready(wanted[:3], {})[0].render(Units.MM), "Nobody has looked for: a, b, c.")
        self.assertEqual(not_ready(wanted, {})[0].render(Units.MM), "Nobody has looked for: a, b, c and 1 more.")

    def test_an_open_gap_holds_back_only_what_comes_after_the_gaps(self):
        family, gap_open = job_record().family, (Sentence("The gap is open."),)
        every = frozenset(s.key for s in family.steps)
        for step in (s for s in family.steps if s.hold):
            waits = out_of_turn(step, family, every, gap_open)
            self.assertEqual(bool(waits), GAP_RIGHT in must_be_done(step, family), step.key)
