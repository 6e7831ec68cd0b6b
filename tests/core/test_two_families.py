"""External gear and roller pumps as families: their means in one job, their orders, and what is asked of them.

Trade facts are common practice, no source; what is reckoned from the strip has no source either.
"""

import json
import math
import re
import unittest
from dataclasses import replace
from pathlib import Path
from types import SimpleNamespace

import numpy as np
from hypothesis import example, given, settings
from hypothesis import strategies as st

from finegap.core.deciding import decided
from finegap.core.drawing.end_view import Centre
from finegap.core.drawing.views import Pump
from finegap.core.errors import FieldError
from finegap.core.families import FAMILIES
from finegap.core.families.features import FeatureKind
from finegap.core.families.rotation import arrows
from finegap.core.families.steps import Stage
from finegap.core.formatting import Units
from finegap.core.gap.declared import read_losses
from finegap.core.gap.gasket_pair import GearEnds, PairWanted
from finegap.core.gap.move import Window
from finegap.core.gap.slip import Fluid
from finegap.core.gap.table import Range, Row
from finegap.core.gap.tries import Check, TryMade
from finegap.core.gauges import GaugeKind
from finegap.core.job import assess
from finegap.core.job_record import Decided, FeatureDecision
from finegap.core.means.base import FittedSize, SetNow
from finegap.core.means.fixed import FixedMeans
from finegap.core.means.gasket_pair import GasketPairMeans
from finegap.core.means.gaskets import GasketMeans
from finegap.core.means.tap import TapMeans
from finegap.core.measuring.verdict import School
from finegap.core.sheet import read_sheet
from finegap.core.tasks.asked import AskedTask
from tests.core.job_records import job_record
from tests.core.solvers import pair_by_trying

GEAR, ROLLER = FAMILIES["external_gear"], FAMILIES["roller"]
WINDOW = Window(0.10, 0.07, 0.13)


def demo_sheet(slug):
    return json.loads((Path(__file__).parents[2] / "demo" / "sheets" / f"{slug}.json").read_text())


G30, R4 = demo_sheet("fenwade-g30-3"), demo_sheet("wickermere-r4-b")
PAIR, TAP = read_sheet(G30).means, read_sheet(R4).means


def size(*stations, name="", **planes):
    ends = {plane.replace("_", " "): (min(mm), max(mm)) for plane, mm in planes.items()} or {"": (min(stations), max(stations))}
    return FittedSize(min(mm for pair in ends.values() for mm in pair), name, 0.002, ends)


def about(housing=44.0, drive=34.02, idler=34.01, front=4.98, back=4.98):
    """The sizes of a gear pump, alike at all stations."""
    plates = {"drive_gear": [front], "idler_gear": [front]}, {"drive_gear": [back], "idler_gear": [back]}
    return {
        "length_drive": size(housing), "length_idler": size(housing), "width_drive": size(drive), "width_idler": size(idler),
        "plate_front": size(**plates[0]), "plate_back": size(**plates[1]),
    }  # fmt: skip


def setting(means, tries=(), window=WINDOW, school=School.GUARDED, **more):
    return means.set(SetNow(window, tuple(tries), school, GEAR.gap, **more))


def tried(*values, u=0.002, **more):
    return TryMade(tuple(Check(mm, u, 50.0) for mm in values), **more)


class PairOfGaskets(unittest.TestCase):
    def test_the_sizes_tell_the_pair_where_each_gear_is_narrowest(self):
        """By hand: 44.000 less 4.98, 4.98 and 34.02 leaves 0.02, at the idler 0.03; 0.04 each come to 0.10 and 0.11."""
        found = setting(PAIR, sizes=about(), box={40: 4, 60: 2, 80: 2})
        self.assertEqual((found.state.next, found.state.bare_mm), (((40,), (40,)), (0.02, 0.03)))
        # one tight place at one station of the drive gear is what would touch
        tight = about() | {"width_drive": size(34.02, 34.03), "plate_back": size(drive_gear=[4.95, 4.98], idler_gear=[4.98])}
        found = setting(PAIR, sizes=tight, box={40: 4, 60: 2, 80: 2})
        self.assertEqual(found.state.bare_mm, (0.01, 0.03))
        self.assertIn("0.090 mm at the drive gear", found.move.details[0].render(Units.MM))

    def test_a_thicker_plate_behind_takes_the_thicker_gasket(self):
        """With the gear in the middle of its housing; the ends then are alike again."""
        found = setting(PAIR, sizes=about(housing=43.99, front=4.97, back=4.99), box={40: 4, 60: 4})
        self.assertEqual(found.state.next, ((40,), (60,)))
        view = PAIR.show(found, SetNow(WINDOW, (), School.GUARDED, GEAR.gap))
        self.assertAlmostEqual(view.gears[0].front_mm, view.gears[0].back_mm)
        self.assertAlmostEqual(view.gears[0].front_mm + view.gears[0].back_mm, 0.11)

    def test_by_the_sizes_too_it_keeps_inside_by_what_is_not_known_of_them(self):
        """0.045 of metal: 0.04 twice would leave the ends alike at 0.125, nearer to 0.130 than the sizes are known (U 0.007)."""
        found = setting(PAIR, sizes=about(drive=33.995, idler=33.995), box={40: 2, 20: 1})
        self.assertEqual(sorted(map(sum, found.state.next)), [20, 40])
        plain = setting(PAIR, sizes=about(drive=33.995, idler=33.995), box={40: 2, 20: 1}, school=School.PLAIN)
        self.assertEqual(plain.state.next, ((40,), (40,)))

    def test_without_every_size_it_begins_with_the_sheets_gasket(self):
        for sizes in (None, about() | {"plate_back": FittedSize(None, "")}):
            found = setting(PAIR, sizes=sizes, box={60: 2})
            self.assertEqual((found.state.next, found.state.bare_mm), (((60,), (60,)), None))
        self.assertEqual(setting(PAIR, box={60: 1}).state.next, ((), ()))

    @given(
        st.integers(-60, 60), st.integers(-8, 8), st.integers(-20, 20), st.integers(-20, 20),
        st.dictionaries(st.sampled_from((40, 60, 80, 120)), st.integers(0, 3), max_size=4),
    )  # fmt: skip
    @settings(deadline=None)
    def test_after_a_check_the_next_pair_is_the_best_of_all_that_keep_both_gears_inside(self, bare, unlike, off, ahead, box):
        """Measured with one pair, whatever the sizes said: brute force over the shelf and what is in, with the check's guard."""
        fitted, metal = ((60,), (60,)), (bare + off, bare + unlike + off)
        sizes = about(front=5.0 - ahead / 2000, back=5.0 + ahead / 2000)
        checks = tried(*((120 + mm) / 1000 for mm in metal), u=0.0, stacks=fitted)
        found = setting(PAIR, [checks], sizes=sizes, box=box, school=School.PLAIN)
        stock = {t: box.get(t, 0) + 2 * (t == 60) for t in {*box, 60}}
        best = pair_by_trying(stock, [GearEnds(mm, ahead) for mm in metal], PairWanted(70, 100, 130))
        choice = found.state.choice
        self.assertEqual(choice.stacks is None, best is None)
        if best:
            front, back = choice.stacks
            self.assertEqual((choice.uneven_um, len(front) + len(back), choice.error_um), best)

    def test_a_check_is_kept_inside_by_its_own_doubt(self):
        """0.06 and 0.06 read 0.125 +- 0.005 at one gear: the guarded school goes on, though 0.125 is inside."""
        found = setting(PAIR, [tried(0.125, 0.115, u=0.005, stacks=((60,), (60,)))], sizes=about(), box={40: 2})
        self.assertEqual(found.state.next, ((40,), (60,)))  # 0.04 twice would read 0.075, as near to the other edge
        self.assertFalse(found.right)

    def test_what_to_buy_is_the_fewest_that_make_a_pair(self):
        found = setting(PAIR, sizes=about(), box={40: 1})
        self.assertEqual((found.state.choice.stacks, found.state.choice.buy), (None, (40,)))
        self.assertIn("buy 0.04 mm", found.move.headline.render(Units.MM))
        self.assertEqual(setting(PAIR, sizes=about(), box={}).state.choice.buy, (40, 40))
        worn = setting(PAIR, sizes=about(front=4.95, back=4.95), box={40: 2})
        self.assertEqual((worn.state.choice.buy, worn.move.headline.render(Units.MM)), ((), "No gasket is thin enough"))

    def test_a_gap_that_does_not_follow_its_gaskets_is_said_of_its_gear(self):
        before, after = tried(0.15, 0.15, stacks=((60,), (60,))), tried(0.15, 0.11, stacks=((40,), (40,)))
        odd = setting(PAIR, [before, after], sizes=about(), box={40: 4, 60: 4}).mismatch.render(Units.MM)
        self.assertIn("Drive gear", odd)
        followed = tried(0.11, 0.11, stacks=((40,), (40,)))
        self.assertIsNone(setting(PAIR, [before, followed], sizes=about(), box={40: 4}).mismatch)

    def test_each_end_is_sealed(self):
        self.assertEqual(PAIR.check_stacks([[40, 60], [40]]), [[60, 40], [40]])
        for stacks in ([[40], []], [[40]], [[40], [0]]):
            with self.subTest(stacks=stacks), self.assertRaises(FieldError):
                PAIR.check_stacks(stacks)

    def test_what_a_sheet_cannot_say(self):
        of = G30["adjustment"]
        for change, field in (
            ({"between": {**of["between"], "gear": ["width_drive", "teeth_drive"]}}, "adjustment.between.gear[1]"),
            ({"gaskets": [{"compressed": "0.04 mm"}, {"compressed": "0.04 mm"}]}, "adjustment.gaskets[1].compressed"),
            ({"gaskets": [{"compressed": "0.04 mm", "sold": "0.03 mm"}]}, "adjustment.gaskets[0].sold"),
        ):
            with self.subTest(field), self.assertRaises(FieldError) as caught:
                GasketPairMeans.read(of | change, GEAR, ())
            self.assertEqual(caught.exception.field, field)


class Tapped(unittest.TestCase):
    @given(st.integers(40, 240), st.integers(-100, 100), st.lists(st.integers(-30, 30), min_size=1, max_size=4))
    def test_told_and_followed_the_rotor_comes_to_the_middle(self, both, begin, taps):
        """A rotor in um between two faces, tapped as told, by a hand that is off: it never goes the other way."""
        front, back = (both + begin) / 2, (both - begin) / 2
        window = Window(both / 2000, max(both / 2000 - 0.05, 0.001), both / 2000 + 0.05)
        made, way = [], ""
        for slip in taps:
            made.append(tried(front / 1000, back / 1000, u=0.0, moved=TAP.moved.signed(1.0 if way else 0.0, way)))
            found = setting(TAP, made, window, School.PLAIN)
            self.assertIsNone(found.mismatch)
            view = TAP.show(found, SetNow(window, tuple(made), School.PLAIN, ROLLER.gap))
            if not view.end:
                self.assertLessEqual(abs(front - back), 25.4 + 1e-6)
                return
            self.assertEqual(view.end, "front" if front < back else "back")
            way = f"{view.end} end"
            gone = max(abs(front - back) / 2 + slip, 0) * (1 if view.end == "front" else -1)
            front, back = front + gone, back - gone

    def test_the_wrong_way_and_what_lies_between_are_told_apart(self):
        first = tried(0.06, 0.12, moved=0.0)
        wrong = setting(TAP, [first, tried(0.03, 0.15, moved=1.0)], WINDOW).mismatch.render(Units.MM)
        self.assertIn("the other way", wrong)
        dirt = setting(TAP, [first, tried(0.10, 0.12, moved=1.0)], WINDOW).mismatch.render(Units.MM)
        self.assertIn("0.040 mm more", dirt)
        self.assertIsNone(setting(TAP, [first, tried(0.09, 0.09, moved=1.0)], WINDOW).mismatch)

    def test_no_tap_cures_parts_that_are_worn(self):
        found = setting(TAP, [tried(0.15, 0.17)], WINDOW)
        self.assertIn("No tap", found.move.headline.render(Units.MM))
        self.assertIn("worn", found.move.details[0].render(Units.MM))

    def test_both_sides_are_foretold_where_they_are_least(self):
        """42.20 deep at least, 41.98 wide at most: 0.11 on either side. Not measured, nothing is foretold."""
        sizes = {"housing_depth": size(42.20, 42.24), "rotor_width": size(41.95, 41.98)}
        found = setting(TAP, (), WINDOW, sizes=sizes)
        self.assertIn("0.110 mm", found.move.headline.render(Units.MM))
        wide = setting(TAP, (), WINDOW, sizes=sizes | {"rotor_width": size(42.3)})
        self.assertIn("wider than its housing", wide.move.headline.render(Units.MM))
        self.assertIn("Bolted", setting(TAP, (), WINDOW, sizes={"housing_depth": size(42.2)}).move.headline.render(Units.MM))

    def test_the_end_that_was_tapped_is_kept_and_no_other_word(self):
        said = [str(TAP.set_by(tried(0.1, 0.1, moved=moved), "")) for moved in (None, 0.0, 1.0, -1.0)]
        self.assertEqual(said, ["as bolted, not tapped"] * 2 + ["tapped on the front end", "tapped on the back end"])
        with self.assertRaises(FieldError):
            TAP.moved.signed(1.0, "left")
        with self.assertRaises(FieldError):
            TapMeans.read(R4["adjustment"] | {"between": ["housing_depth", "rollers"]}, ROLLER, ())


class Narrowest(unittest.TestCase):
    def test_a_tapered_rotor_touches_with_its_longer_side(self):
        """Cylinder 180.00 to 180.03, rotor 179.90 to 179.97: 0.03 where it is narrowest, so 0.20 of gasket makes 0.23."""
        means = GasketMeans((50, 100, 200), 200, "cylinder_length", "rotor_length")
        sizes = {"cylinder_length": size(180.00, 180.03), "rotor_length": size(179.90, 179.97)}
        found = setting(means, (), Window(0.22, 0.18, 0.27), sizes=sizes, box={50: 3, 100: 3, 200: 1})
        self.assertEqual(found.state.choice.stack, (200,))


class Unadjusted(unittest.TestCase):
    def test_nothing_is_right_before_every_gap_was_checked(self):
        """Where nothing adjusts them, two gears still have two end gaps; the one that is furthest out is told by its name."""
        means = FixedMeans.read({}, GEAR, ())
        self.assertEqual([one.key for one in setting(means).targets], ["end:1", "end:2"])
        for checks, right, said in (((0.10, 0.11), True, "All are right"), ((0.10, 0.19), False, "0.19 mm is too wide")):
            found = setting(means, [tried(*checks)])
            self.assertEqual((found.right, said in found.move.headline.render(Units.MM)), (right, True))
        self.assertEqual([one.key for one in setting(means, [tried(0.10)]).targets], ["gap"])  # begun before both were asked

    def test_behind_a_rotor_it_is_another_window(self):
        piston = FAMILIES["circumferential_piston"]
        row = Row("all", "steel", Range(0, 9e9), Range(-9e9, 9e9), 0.14, 0.11)
        asked = setting(FixedMeans.read({}, piston, (row,)), back=Window(0.11, 0.09, 0.13)).targets
        self.assertEqual([(t.key, t.window.target_mm) for t in asked][1:3], [("back:1", 0.11), ("front:2", 0.10)])
        self.assertEqual(len(asked), 4)
        with self.assertRaises(FieldError):
            FixedMeans.read({}, piston, (replace(row, back_mm=None),))


class Declared(unittest.TestCase):
    def built(self, family, **build):
        return family.built(family.complete(build))

    def test_three_chambers_alike_and_one_not(self):
        stacks = {s.key: s for s in GEAR.stacks}
        alike = [p.key for s in ("back_chambers", "front_chambers") for p in stacks[s].parts]
        kinds = {
            end: [key.removesuffix(end) for key in alike if key.endswith(end)]
            for end in ("back_drive", "back_idler", "front_idler")
        }
        self.assertEqual(len({tuple(kind) for kind in kinds.values()}), 1)
        self.assertEqual(kinds["back_drive"], ["lip_", "ring_", "inner_", "ptfe_1_", "ptfe_2_", "seal_housing_", "outer_"])
        drive = [p.key for p in stacks["front_chambers"].parts if not p.key.endswith("idler")]
        self.assertEqual([k for k in drive if "snap" in k or "housing" in k], ["snap_inner", "seal_housing_drive", "snap_outer"])

    def test_guide_pins_hold_the_place_of_the_last_bolts(self):
        for end, stack in (("front", "front_on"), ("back", "back_on")):
            keys = [p.key for p in next(s for s in GEAR.stacks if s.key == stack).parts]
            order = [keys.index(f"{one}_{end}") for one in ("gasket", "pins", "plate_on", "bolts", "pins_out")]
            self.assertEqual(order, sorted(order))

    def test_changing_a_pair_takes_both_plates_off_and_leaves_the_chambers(self):
        self.assertEqual(
            [s.key for s in PAIR.opens(self.built(GEAR))],
            ["front_joined", "free_front", "back_joined", "plates_tight", "ends_closed", "cap_tight"],
        )
        ends = next(s for s in GEAR.steps if s.key == "ends_closed")
        self.assertEqual((ends.stage, ends.after), (Stage.SET, ("gap",)))

    def test_both_seals_before_both_bearings_and_turned_before_a_bolt(self):
        seats = [p.key for p in next(s for s in ROLLER.stacks if s.place == "seats").parts]
        self.assertEqual(seats, ["seal_cover", "seal_housing", "bearing_cover", "bearing_housing"])
        keys = [s.key for s in self.built(ROLLER).steps]
        order = [keys.index(k) for k in ("seats_built", "pressed_together", "free_unbolted", "bolts_in", "free_bolted")]
        self.assertEqual(order, sorted(order))
        why = {s.key: s.why for s in ROLLER.steps}
        self.assertIn("dirt", why["free_unbolted"])
        self.assertIn("position", why["free_bolted"])

    def test_every_roller_is_measured_as_many_as_the_sheet_counts(self):
        for count in ("5", "8"):
            family = read_sheet(R4 | {"details": R4["details"] | {"rollers": count}}).family_of({})
            self.assertEqual(len(family.by_key["roller_length"].stations), int(count))
            self.assertEqual(len(family.by_key["roller_diameter"].stations), 2 * int(count))

    def test_a_pitted_shaft_goes_whatever_its_size(self):
        pitted = next(d for d in ROLLER.by_key["seal_zone"].damages if d.key == "pitted")
        self.assertEqual(pitted.verdict.value, "Change")
        (rule,) = (r for r in ROLLER.replaced_with if r.changed == "seal_zone")
        self.assertIn("shaft_at_seal", rule.also)

    def test_a_depth_is_measured_by_what_reaches_into_it(self):
        self.assertIs(ROLLER.by_key["housing_depth"].kind, FeatureKind.DEPTH)
        made = {kind for kind in GaugeKind if kind.suits(FeatureKind.DEPTH)}
        self.assertEqual(made, {GaugeKind.DEPTH, GaugeKind.CALIPER})


class Suction(unittest.TestCase):
    def told(self, family, way):
        return next(s.text for s in family.steps if s.key == f"suction_{way}")

    def test_of_two_gears_it_is_where_the_teeth_part(self):
        """Seen from the drive end, y up, the drive gear above: its lowest point moves along omega x r, away from suction."""
        for way, omega in (("clockwise", -1.0), ("counterclockwise", 1.0)):
            velocity = np.cross([0, 0, omega], [0, -1, 0])[0]
            self.assertIn("on the left" if velocity < 0 else "on the right", self.told(GEAR, way))

    def test_of_rollers_it_is_where_the_chambers_grow(self):
        """A rotor high in its bore: the room between them at an angle, and whether it grows as the rotor turns on."""

        def room(at):  # at an angle clockwise from the narrow place above
            return 1 - math.cos(at)

        for way, turn in (("clockwise", 1e-3), ("counterclockwise", -1e-3)):
            grows = {side: room(at + turn) > room(at) for side, at in (("right", math.pi / 2), ("left", -math.pi / 2))}
            (side,) = (side for side, more in grows.items() if more)
            self.assertIn(f"on the {side}", self.told(ROLLER, way))

    def test_the_drawing_has_the_liquid_come_in_there(self):
        """Of two gears turning clockwise from the left: its arrow begins outside on the left, and points inwards."""
        for way, side in (("clockwise", -1), ("counterclockwise", 1)):
            _, into, out = arrows(Pump({"rotation": way}), Centre(), 10, Centre(), 100, -90)
            ends = [[float(n) for n in re.findall(r"-?[0-9.]+", mark.path)[:4:2]] for mark in (into, out)]
            self.assertEqual([math.copysign(1, x) for x, _ in ends], [side, -side])
            self.assertTrue(abs(ends[0][0]) > abs(ends[0][1]) and abs(ends[1][0]) < abs(ends[1][1]))
        self.assertEqual(arrows(Pump({"rotation": "unknown"}), Centre(), 10, Centre(), 100, -90), ())

    def test_it_is_asked_and_its_step_waits(self):
        for rotation, waits in (("unknown", 1), ("clockwise", 0)):
            sheet = read_sheet(R4 | {"build": R4["build"] | {"rotation": rotation}})
            task = AskedTask.read(SimpleNamespace(record=SimpleNamespace(family=sheet.family_of({}))), "rotation")
            self.assertEqual(len(task.holds_back()), waits)
            self.assertEqual([a.key for a in task.show("asked:rotation").answers], ["clockwise", "counterclockwise"])
            steps = {s.key for s in sheet.family_of({}).steps}
            self.assertEqual({"suction_clockwise", "suction_counterclockwise"} & steps, set() if waits else {"suction_clockwise"})


class Slip(unittest.TestCase):
    def test_a_total_gap_is_two_slots_of_half_of_it(self):
        """Plane Poiseuille flow through each end, thick liquid: w h^3 dp / (12 mu L), twice."""
        losses = read_losses(G30["slip"], GEAR)
        path = next(p for p in losses.paths if p.feature == "end_drive")
        fluid = Fluid(20_000, 900)
        mu, h = 20_000e-6 * 900, 0.05e-3
        by_hand = 2 * 50e-3 * h**3 * 8e5 / (12 * mu * 12e-3) * 60_000
        self.assertAlmostEqual(path.flows(0.10, 8, 960, fluid).driven / by_hand, 1, 4)
        self.assertEqual(assess(job_record()).gap.outside, ())


class OnePiece(unittest.TestCase):
    @given(st.sampled_from(sorted(FAMILIES)), st.lists(st.tuples(st.integers(0, 40), st.booleans(), st.integers(1, 3)), max_size=6))
    @example("roller", [(4, True, 1), (7, False, 1)])  # one part in two pairs: changed by the one, kept by the other
    @settings(deadline=None)
    def test_a_part_is_new_in_all_its_sizes_or_in_none(self, name, decisions):
        """Whatever is decided in whatever order, of parts or of pairs: no size is kept of a part of which another is new."""
        family, after = FAMILIES[name], {}
        for at, change, both in decisions:
            feature = family.features[at % len(family.features)]
            members = (feature.bore, feature.shaft)
            parts = tuple(m for i, m in enumerate(members) if both >> i & 1) if change and feature.kind is FeatureKind.PAIR else ()
            wanted = Decided.CHANGE if change else Decided.KEEP
            after, touched = decided(family, after, feature.key, FeatureDecision(wanted, "", parts))
            self.assertIs(after[feature.key].decided if feature.kind is not FeatureKind.PAIR else wanted, wanted)
            self.assertEqual(touched[0], feature.key)
            for piece in family.one_piece:
                new = {after[key].decided for key in piece if key in after}
                self.assertTrue(
                    Decided.CHANGE not in new or (len([k for k in piece if k in after]) == len(piece) and len(new) == 1), piece
                )
            for pair in (f for f in family.features if f.kind is FeatureKind.PAIR and f.key in after):
                new_parts = tuple(k for k in (pair.bore, pair.shaft) if k in after and after[k].decided is Decided.CHANGE)
                if after[pair.key].decided is Decided.CHANGE:
                    self.assertEqual(after[pair.key].parts, new_parts)

    def test_it_says_with_what_it_is_one_part(self):
        after, touched = decided(GEAR, {}, "width_drive", FeatureDecision(Decided.CHANGE))
        self.assertEqual(set(touched), {"width_drive", "tips_drive", "shaft_drive", "teeth_drive"})
        self.assertEqual(after["tips_drive"].reason, "one part with drive gear, width")
        kept, touched = decided(GEAR, after, "tips_drive", FeatureDecision(Decided.KEEP, "stones dressed"))
        self.assertEqual({one.decided for one in kept.values()}, {Decided.KEEP})

    def test_a_family_names_each_size_of_a_part_once(self):
        for pieces, said in (((("width_drive", "nothing"),), "nothing"), ((("tip_clearance_drive",),), "tip_clearance_drive"),
                             ((("width_drive",), ("width_drive",)), "twice"), ((("end_drive",),), "end_drive")):  # fmt: skip
            with self.subTest(said), self.assertRaisesRegex(FieldError, said):
                replace(GEAR, one_piece=pieces)
