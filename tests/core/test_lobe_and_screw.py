"""Lobe and twin screw pumps: their means in one job, what pressure bends, their orders, and what they share.

The lobe pump is general knowledge, no source; the twin screw's orders are common practice, no source.
"""

import math
import re
import unittest

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from finegap.core.errors import FieldError
from finegap.core.families import FAMILIES
from finegap.core.families.check import every_build
from finegap.core.families.lobe.phase import PICTURES
from finegap.core.families.steps import Stage
from finegap.core.families.timed_seals import SEAL
from finegap.core.formatting import Units
from finegap.core.gap.move import Window
from finegap.core.gap.tries import Check, TryMade
from finegap.core.gap_assessment import gap_assessment_of
from finegap.core.inspection import inspect
from finegap.core.job import assess
from finegap.core.job_record import Decided, Duty, FeatureDecision, Phase
from finegap.core.means.base import SetNow
from finegap.core.means.helix import HelixMeans
from finegap.core.measuring.readings import StationReading
from finegap.core.measuring.verdict import School, Verdict
from finegap.core.sheet import read_sheet
from finegap.core.tasks.registry import check_tasks
from tests.core.job_records import GAUGE, job_record, readings
from tests.core.test_two_families import demo_sheet

LOBE, SCREW, PISTON = (FAMILIES[key] for key in ("lobe", "twin_screw", "circumferential_piston"))
B2, T3 = demo_sheet("tarnholt-b2-1"), demo_sheet("oxgarth-t3-c")
TIMED, HELIX = read_sheet(B2).mesh, read_sheet(T3).means
LOBES = {f"mesh:{side}": ("lobe 1", "lobe 2", "lobe 3") for side in ("left", "right")}
TURNS = {f"flank:{side}": ("mark", "¼ turn", "½ turn", "¾ turn") for side in ("left", "right")}


def tried(*values, u=0.001, moved=0.0):
    return TryMade(tuple(Check(mm, u, 50.0) for mm in values), moved)


def setting(means, tries, window, **more):
    return means.set(SetNow(window, tuple(tries), School.PLAIN, SCREW.gap, **more))


def said(sentence):
    return sentence.render(Units.MM)


class EveryLobe(unittest.TestCase):
    """Half the difference of the narrowest, left and right, over all lobes."""

    def mesh(self, *tries, **more):
        return setting(TIMED, tries, TIMED.window, **{"places": LOBES} | more)

    def test_each_lobe_is_asked_for_on_either_side(self):
        names = [one.name for one in self.mesh().targets]
        self.assertEqual(names, [f"mesh gap, {side}, lobe {n}" for side in ("left", "right") for n in (1, 2, 3)])
        self.assertEqual({one.gap for one in self.mesh().targets}, {"mesh:left", "mesh:right"})
        self.assertEqual([one.key for one in self.mesh(places={}).targets], ["mesh:left", "mesh:right"])
        self.assertIn("at each place", said(self.mesh().move.details[0]))
        self.assertIn("at several turns", said(self.mesh(places={}).move.details[0]))

    def test_the_turn_follows_the_narrowest_lobe(self):
        """0.30 and 0.20 at their narrowest: 0.05 along the pitch circle of 83, 0.0711 on the marks at 118."""
        found = self.mesh(tried(0.33, 0.30, 0.31, 0.20, 0.24, 0.22))
        self.assertIn("towards the wider gap, left: 0.07 mm", said(found.move.headline))
        self.assertAlmostEqual(found.move.change_mm, 0.05)

    def test_one_lobe_out_of_its_window_is_named(self):
        found = self.mesh(tried(0.25, 0.25, 0.37, 0.25, 0.25, 0.25))
        self.assertFalse(found.right)
        self.assertEqual(found.tries[-1].worst.target.name, "mesh gap, left, lobe 3")

    def test_with_the_case_shut_nothing_is_turned(self):
        found = self.mesh(tried(0.33, 0.33, 0.33, 0.20, 0.20, 0.20), shut=True)
        self.assertEqual((found.move.travel_mm, found.right), (0.0, False))
        self.assertIn("stays shut", said(found.move.headline))
        self.assertTrue(self.mesh(tried(*[0.25] * 6), shut=True).right)


class OverTheHelix(unittest.TestCase):
    """Two screws as they lie: what one gap gains along the axis the other loses."""

    @given(
        st.floats(0.20, 0.26), st.floats(-0.15, 0.15), st.lists(st.floats(0.9, 1.1), min_size=3, max_size=3),
        st.lists(st.floats(0, 0.01), min_size=4, max_size=4),
    )  # fmt: skip
    @settings(deadline=None)
    def test_told_and_turned_by_a_hand_that_is_off_it_comes_right(self, both, off, hand, wobble):
        """Gaps square to the flank: along the axis they are longer by the length of the normal of x = r·tan(a) + lead·t/2pi."""
        flank = HELIX.geared.flank
        normal = math.sqrt(1 + math.tan(math.radians(12)) ** 2 + (flank.lead_mm / (math.pi * flank.pitch_mm)) ** 2)
        window, tries, moved = Window(both, both - 0.05, both + 0.05), [], 0.0
        for share in hand:
            left, right = both + off / normal, both - off / normal
            tries.append(tried(*(left + w for w in wobble), *(right + w for w in wobble), u=0.0, moved=moved))
            found = setting(HELIX, tries, window, places=TURNS)
            self.assertIsNone(found.mismatch)
            if found.right:
                self.assertLessEqual(abs(left - right), HELIX.difference_mm + 1e-9)
                return
            view = HELIX.show(found, SetNow(window, tuple(tries), School.PLAIN, SCREW.gap))
            self.assertEqual(view.toward, "left" if off > 0 else "right")
            arc = view.angle_deg / 360 * math.pi * HELIX.geared.marked_mm * share
            moved = math.copysign(arc, off)
            # the screw goes along its axis by lead a turn
            off -= math.copysign(arc / (math.pi * HELIX.geared.marked_mm) * flank.lead_mm, off)
        self.assertLess(abs(2 * off / normal), 0.1 * 2 * 0.15)

    def test_the_wrong_way_is_told(self):
        window = Window(0.23, 0.18, 0.28)
        first, arc = tried(*[0.31] * 4, *[0.16] * 4), HELIX.geared.arc_mm(0.078)
        worse = setting(HELIX, [first, tried(*[0.38] * 4, *[0.09] * 4, moved=arc)], window, places=TURNS)
        self.assertIn("turned away from the wider gap", said(worse.mismatch))

    def test_with_the_case_shut_it_is_only_checked(self):
        window = Window(0.23, 0.18, 0.28)
        for tries in ([], [tried(*[0.31] * 4, *[0.16] * 4)]):
            found = setting(HELIX, tries, window, places=TURNS, shut=True)
            self.assertEqual((found.move.travel_mm, found.right), (0.0, False))
            self.assertIn("stays shut", said(found.move.headline) + "".join(map(said, found.move.details)))
        self.assertTrue(setting(HELIX, [tried(*[0.23] * 8)], window, places=TURNS, shut=True).right)

    def test_no_turn_cures_a_pair_that_is_worn_or_wrong(self):
        for gap, why in ((0.34, "worn"), (0.12, "too tight")):
            found = setting(HELIX, [tried(*[gap + 0.02] * 4, *[gap - 0.02] * 4)], Window(0.23, 0.18, 0.28), places=TURNS)
            self.assertIn("No turn", said(found.move.headline))
            self.assertIn(why, said(found.move.details[0]))

    def test_what_slips_is_the_widest_place_and_what_is_left_the_narrowest(self):
        duty = Duty("stainless 316", 50, 40, 40, pressure_bar=7.0, speed_r_min=1150)
        record = job_record(
            sheet=read_sheet(T3), build={"scope": "wet_end"}, duty=duty,
            tries=(tried(0.231, 0.235, 0.229, 0.230, *[0.224] * 4),),
        )  # fmt: skip
        of = gap_assessment_of(record, inspect(record))
        self.assertEqual(of.checked["flank:left"].value_mm, 0.229)
        slipped = next(line.text for line in of.left.lines() if line.name == "Flank gap, left")
        self.assertIn("0.235 mm", said(slipped))

    def test_what_no_sheet_can_say(self):
        good = T3["adjustment"]
        for change, field in (({"lead": "0 in"}, "adjustment.lead"), ({"marked_diameter": "-1 in"}, "adjustment.marked_diameter")):
            with self.subTest(change), self.assertRaises(FieldError) as caught:
                HelixMeans.read(good | change, SCREW, ())
            self.assertEqual(caught.exception.field, field)


class Bent(unittest.TestCase):
    """Tips towards suction, with the shaft's bend at working pressure taken off."""

    def state(self, suction_mm, discharge_mm=0.20, bar=5.0, phase=Phase.FOUND, **build):
        of = read_sheet(B2 | {"build": B2["build"] | build})
        at = {s.key: suction_mm if "suction" in s.key else discharge_mm for s in LOBE.by_key["tip_drive"].stations}
        taken = tuple(StationReading(key, "", mm, GAUGE) for key, mm in at.items())
        others = readings({"length_drive": 55.98}, of)
        duty = Duty("stainless 316", 300, 40, 40, pressure_bar=bar)
        record = job_record(sheet=of, duty=duty, readings={**others, ("tip_drive", phase): taken}, tries=())
        states = {one.feature.key: one for one in inspect(record)}
        found = states["tip_drive"]
        return found.found_judgement if phase is Phase.FOUND else found.left_judgement

    def words(self, judgement):
        return " ".join(map(said, (judgement.sentence, *judgement.reasons)))

    def test_what_is_left_is_said_and_the_narrowest_place_decides(self):
        bend = read_sheet(B2).bend.bend_mm(5.0)
        self.assertIn(f"bends the shaft by {bend:.3f} mm: {0.18 - bend:.3f} mm", self.words(self.state(0.18)))
        self.assertIs(self.state(0.18).verdict, Verdict.KEEP)

    def test_a_tip_that_would_touch_is_a_change_whatever_its_limit_says(self):
        for phase in Phase:
            judgement = self.state(0.03, phase=phase)
            self.assertIs(judgement.verdict, Verdict.CHANGE)
            self.assertIn("they touch", self.words(judgement))
        self.assertIs(self.state(0.20, discharge_mm=0.03).verdict, Verdict.KEEP, "the discharge side opens")

    def test_it_is_said_of_shafts_that_overhang_and_are_pressed(self):
        for change in ({"bar": 0.0}, {"outer": "bearing"}):
            self.assertNotIn("bends", self.words(self.state(0.03, **change)))

    def test_a_sheet_cannot_bend_what_closes_nothing(self):
        with self.assertRaisesRegex(FieldError, "no gap of a twin screw pump closes"):
            read_sheet(T3 | {"bend": B2["bend"]})
        with self.assertRaises(FieldError) as caught:
            read_sheet(B2 | {"bend": B2["bend"] | {"rotor_length": "200 mm"}})
        self.assertTrue(caught.exception.field.startswith("bend"))

    def test_the_widest_place_is_held_against_the_limit(self):
        self.assertIs(self.state(0.36).verdict, Verdict.CHANGE)


class OfNewParts(unittest.TestCase):
    """What is measured of a rotor and its body is another gap with a new rotor in."""

    def states(self, decisions, left=None):
        of = read_sheet(B2)
        sizes = readings({"length_drive": 55.98, "tip_drive": 0.20, "bore_drive": 122.03}, of)
        after = readings(left or {}, of, Phase.LEFT)
        changed = {key: FeatureDecision(Decided.CHANGE, "x") for key in decisions}
        record = job_record(sheet=of, duty=Duty("stainless 316", 300, 40, 40), readings=sizes | after, decisions=changed, tries=())
        found = assess(record)
        return {s.feature.key: s for s in found.features}, [said(b.sentence) for b in found.blockers]

    def test_with_a_new_rotor_the_tips_are_not_as_found(self):
        states, blockers = self.states(("length_drive",), {"length_drive": 55.98})
        self.assertTrue(states["tip_drive"].renewed)
        self.assertFalse(states["tip_driven"].renewed)
        self.assertIn("Drive rotor, tips to body: changed, but not measured after.", blockers)
        _, blockers = self.states(("length_drive",), {"length_drive": 55.98, "tip_drive": 0.19})
        self.assertEqual([b for b in blockers if b.startswith("Drive rotor, tips")], [])

    def test_a_gap_is_not_changed_by_itself(self):
        said_of = "Drive rotor, tips to body: to be changed, and no part of it is. Say which part is new."
        self.assertIn(said_of, self.states(("tip_drive",))[1])
        self.assertNotIn(said_of, self.states(("tip_drive", "length_drive"))[1])
        self.assertNotIn(said_of, self.states(())[1])


def outlines(picture):
    """The rotors of a picture, each a polygon: the first two marks."""
    numbers = ([float(n) for n in re.findall(r"-?\d+\.?\d*", mark.path)] for mark in picture[:2])
    return [np.array(one[: len(one) // 2 * 2]).reshape(-1, 2) for one in numbers]


def turned(points, centre, degrees):
    """Points turned about a centre."""
    c, s = math.cos(math.radians(degrees)), math.sin(math.radians(degrees))
    return (points - centre) @ np.array([[c, s], [-s, c]]) + centre


def inside(points, polygon):
    """Whether points lie in a polygon: a ray to the right crosses it an odd number of times."""
    (x, y), (x1, y1), (x2, y2) = points.T[:, :, None], polygon.T[:, None, :], np.roll(polygon, -1, axis=0).T[:, None, :]
    with np.errstate(divide="ignore", invalid="ignore"):
        crossed = ((y1 > y) != (y2 > y)) & (x < (x2 - x1) * (y - y1) / (y2 - y1) + x1)
    return crossed.sum(axis=1) % 2 == 1


class OfTheSecondRotor(unittest.TestCase):
    """The second rotor stands turned by half the way from lobe to lobe."""

    def test_a_quarter_a_sixth_and_an_eighth_of_a_turn(self):
        """90° for two lobes, 60° for three, 45° for four; with one it points the other way."""
        for lobes, angle in (("1", "180°"), ("2", "90°"), ("3", "60°"), ("4", "45°")):
            built = LOBE.built(LOBE.complete({"lobes": lobes}))
            (step,) = (s for s in built.steps if s.key.startswith("phase_"))
            self.assertIn(angle, step.text)
            rotor = next(p for s in built.stacks if s.place == "rotors" for p in s.parts if p.key == "rotor_driven")
            self.assertIn(angle, rotor.facing)

    def test_turned_so_they_never_meet_and_otherwise_they_do(self):
        """Lobes that rise and fall as a cosine about half the distance of the shafts, turned against each other all the way."""
        turn = np.radians(np.arange(360))
        for lobes in (1, 2, 3, 4):
            for phase in range(0, 360 // lobes, 5):
                # towards the other: a right angle on; the second turns the other way
                high = np.cos(lobes * (math.pi / 2 - turn)) + np.cos(lobes * (-math.pi / 2 - math.radians(phase) + turn))
                self.assertEqual(np.allclose(high, 0, atol=1e-6), math.isclose(phase, 180 / lobes), (lobes, phase))

    def test_the_picture_shows_it(self):
        """Both rotors of the picture turned against each other: those of the right one never lie in one another."""
        for key in ("1", "2", "3", "4"):
            for shown, meets in ((PICTURES[f"phase_{key}"].right, False), (PICTURES[f"phase_{key}"].wrong, True)):
                first, second = outlines(shown)
                met = any(inside(turned(first, (96, 110), at), turned(second, (204, 110), -at)).any() for at in range(0, 360, 5))
                self.assertEqual(met, meets, key)


class Declared(unittest.TestCase):
    def steps(self, family, stage, **build):
        return [s.key for s in family.built(family.complete(build)).steps_of(stage)]

    def test_every_build_names_only_what_there_is(self):
        for family in (LOBE, SCREW):
            check_tasks(family, every_build(family))

    def test_both_pumps_with_an_oiled_case_share_their_fluid_end(self):
        """The seals part by part, and every step of the one is a step of the other."""
        for seal in SEAL.choices:
            both = [next(s for s in f.built(f.complete({"seal": seal})).stacks if s.place == "seal").parts for f in (LOBE, PISTON)]
            self.assertEqual(*both)
        self.assertLessEqual({s.key for s in PISTON.steps}, {s.key for s in LOBE.steps})

    def test_with_an_odd_number_of_lobes_no_diameter_can_be_spanned(self):
        for lobes, there in (("1", False), ("2", True), ("3", False), ("4", True)):
            keys = LOBE.built(LOBE.complete({"lobes": lobes})).by_key
            self.assertEqual("over_drive" in keys, there)
            self.assertEqual("over_driven" in keys, there)

    def test_a_sheet_says_how_many_lobes(self):
        stations = read_sheet(B2).family_of({}).by_key["mesh_left"].stations
        self.assertEqual([s.key for s in stations], ["lobe 1", "lobe 2", "lobe 3"])
        self.assertEqual(len(read_sheet(B2).family_of({"lobes": "4"}).by_key["mesh_left"].stations), 4)
        with self.assertRaises(FieldError) as caught:
            read_sheet(B2 | {"build": {k: v for k, v in B2["build"].items() if k != "lobes"}})
        self.assertEqual(caught.exception.field, "build.lobes")

    def test_the_wet_end_opens_no_gear_case(self):
        shut, opened = (set(self.steps(SCREW, Stage.BUILD, scope=scope)) for scope in ("wet_end", "opened"))
        self.assertEqual(opened - shut, {"gears_home", "gear_clamped"})
        self.assertNotIn("gears_opened", self.steps(SCREW, Stage.STRIP, scope="wet_end"))

    def test_a_torque_of_another_scope_is_not_asked_for(self):
        """The clamp is reached with the gear case open; in a wear check no rotor nut is."""
        for of, scope, missing in ((T3, "wet_end", "clamp screws"), (B2, "check", "rotor nuts"), (B2, "rotors", "clamp screws")):
            record = job_record(sheet=read_sheet(of), build={"scope": scope}, tries=())
            asked = {task.of for step in record.family.steps for task in step.tasks if task.kind == "torque"}
            self.assertNotIn(missing, asked)
            self.assertIn("cover nuts", asked)

    def test_screws_go_on_and_off_together_in_the_trades_order(self):
        strip = ["casing_marked", "cover_off", "casing_off", "nuts_off", "screws_off", "glands_off", "plugs_out", "cartridges_out"]
        order = self.steps(SCREW, Stage.STRIP)
        self.assertEqual(sorted(strip, key=order.index), strip)
        build = ["cartridges_in", "screws_on", "nuts_tight", "block_out"]
        order = self.steps(SCREW, Stage.BUILD)
        self.assertEqual(sorted(build, key=order.index), build)
        pair = next(p for s in SCREW.stacks if s.key == "screws" for p in s.parts if p.key == "pair")
        self.assertEqual((pair.facing, [up.mark for up in pair.lines_up]), ("ends flush", ["screw marks", "2 splines"]))
        for one, also in (("screw_drive", "screw_driven"), ("screw_driven", "screw_drive"), ("flanks", "screw_drive")):
            self.assertTrue(any(r.changed == one and also in r.also for r in SCREW.replaced_with), one)

    def test_a_cartridge_goes_on_between_its_elastomers_and_the_screw(self):
        cartridges = next(s for s in SCREW.stacks if s.key == "cartridges")
        for shaft in ("drive", "driven"):
            mine = [p.key for p in cartridges.parts if p.on == shaft]
            order = ("outer_ring", "cartridge", "plug_ring", "plug", "gland", "front_ring")
            self.assertEqual(mine, [f"{key}_{shaft}" for key in order])
