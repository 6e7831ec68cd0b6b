"""What must come before what. Orders are common practice, no source; the rules are held over every build of every family."""

import unittest
from dataclasses import replace

from finegap.core.assembly.stacking import Fitted
from finegap.core.assembly.tightening import Tightened
from finegap.core.families import FAMILIES
from finegap.core.families.family import Family
from finegap.core.families.steps import GAP_RIGHT, Stage, Step
from finegap.core.formatting import Sentence, Units
from finegap.core.gap.tries import TryMade, feeler_check
from finegap.core.gap_assessment import gap_blockers
from finegap.core.job import assess
from finegap.core.job_record import Phase
from finegap.core.measuring.readings import StationReading
from finegap.core.procedure import needed, reopened
from finegap.core.proof.seen import Proof
from finegap.core.sequence import comes_after, hangs_on, must_be_done, out_of_turn
from tests.apps.base import sheet_data
from tests.core.builds import procedures
from tests.core.job_records import TORQUES, gasket_sheet, job_record, readings, sheet

MEANS = ("gaskets", "housing", "ring", "coupling", "fixed", "shims", "timing", "gasket_pair", "tap", "helix")


class Declared(unittest.TestCase):
    def test_what_a_step_comes_after_is_a_step_of_its_family(self):
        for family in FAMILIES.values():
            keys = {s.key for s in family.steps} | {GAP_RIGHT}
            for step in family.steps:
                self.assertLessEqual(set(step.after), keys, step.key)
                self.assertLessEqual(set(step.undone_by), set(MEANS), step.key)
                self.assertTrue(step.hold or not step.after, f"{step.key} says what it comes after and is no hold point")

    def test_no_step_comes_after_itself_and_each_can_be_done_in_the_order_it_is_listed(self):
        """In the listed order, with the gap right, no hold point of any build has to wait."""
        for family in procedures():
            done: set[str] = set()
            for step in family.steps:
                self.assertNotIn(step.key, must_be_done(step, family))
                self.assertEqual(out_of_turn(step, family, frozenset(done), ()), (), (family.key, step.key))
                done.add(step.key)

    def test_nothing_turns_under_power_before_the_gap_is_right_and_every_hold_point_before_it_is_done(self):
        """Common practice, no source: isolated first, turned by hand, guards on, and only then a bump."""
        for family in procedures():
            bump = next((s for s in family.steps if s.key == "rotation"), None)
            if bump is None:
                continue
            needed_before = must_be_done(bump, family)
            self.assertIn(GAP_RIGHT, needed_before)
            for step in family.steps:
                if step.hold and step.stage in (Stage.PREPARE, Stage.STRIP, Stage.BUILD, Stage.SET):
                    self.assertIn(step.key, needed_before, family.key)
            self.assertLessEqual({"guards", "free_turn"}, needed_before)

    def test_whatever_is_open_before_a_hold_point_it_waits(self):
        """Each hold point, with each one it comes after left open alone."""
        for family in procedures():
            holds = frozenset(s.key for s in family.steps if s.hold)
            for step in family.steps:
                waits = {s.key for s in family.steps} & {*step.needs}
                if not step.hold:
                    self.assertEqual(bool(out_of_turn(step, family, frozenset(), (Sentence("x"),))), bool(waits), step.key)
                    continue
                for key in must_be_done(step, family) & holds:
                    self.assertEqual(len(out_of_turn(step, family, (holds | waits) - {key}, ())), 1, (step.key, key))
                for key in waits:
                    self.assertEqual(len(out_of_turn(step, family, (holds | waits) - {key}, ())), 1, (step.key, key))

    def test_packing_goes_in_after_the_gap_where_the_head_comes_off_for_it(self):
        gear = FAMILIES["internal_gear"]
        for means, stage in (("gaskets", Stage.SET), ("housing", Stage.BUILD), ("ring", Stage.BUILD)):
            built = gear.built(gear.complete({"seal": "packed", "means": means}))
            put_in = [s for s in built.steps if "seal" in s.of("stack")]
            self.assertEqual([s.stage for s in put_in], [stage], means)
        self.assertIn(GAP_RIGHT, comes_after(put_in[0], built) if put_in[0].stage is Stage.SET else (GAP_RIGHT,))


class Rules(unittest.TestCase):
    STEPS = (
        Step(Stage.PREPARE, "a", "A", hold=True),
        Step(Stage.BUILD, "b", "B", hold=True, undone_by=("gaskets",)),
        Step(Stage.SET, "c", "C", hold=True),
        Step(Stage.PROVE, "d", "D", hold=True, after=("c",)),
        Step(Stage.PROVE, "e", "E", hold=True, after=("d", "gone")),
        Step(Stage.PROVE, "f", "F"),
    )

    def family(self) -> Family:
        return replace(FAMILIES["sliding_vane"], steps=self.STEPS, build={})

    def step(self, key: str) -> Step:
        return next(s for s in self.STEPS if s.key == key)

    def test_declared_and_through_one_another(self):
        self.assertEqual(must_be_done(self.step("e"), self.family()), {"d", "c", "b", "a", GAP_RIGHT})
        self.assertEqual([s.key for s in hangs_on("c", self.family())], ["d", "e"])
        told = [s.render(Units.MM) for s in out_of_turn(self.step("e"), self.family(), frozenset(), ())]
        self.assertEqual(told, ["First: A", "First: B", "And 2 hold points after that."])

    def test_what_stands_on_a_step_waits_for_it_and_is_undone_with_it(self):
        """Hold point or not: the head is not on where the idler is not."""
        steps = (Step(Stage.BUILD, "x", "X"), Step(Stage.BUILD, "y", "Y", needs=("x",)), Step(Stage.BUILD, "z", "Z", needs=("y",)))
        family = replace(self.family(), steps=steps)
        self.assertEqual([s.render(Units.MM) for s in out_of_turn(steps[1], family, frozenset(), ())], ["First: X"])
        self.assertEqual(out_of_turn(steps[1], family, frozenset({"x"}), (Sentence("gap"),)), ())
        self.assertEqual([s.key for s in hangs_on("x", family)], ["y", "z"])

    def test_a_circle_ends(self):
        steps = (Step(Stage.PROVE, "x", "X", hold=True, after=("y",)), Step(Stage.PROVE, "y", "Y", hold=True, after=("x",)))
        family = replace(self.family(), steps=steps)
        self.assertEqual(must_be_done(steps[0], family), {"y"})
        self.assertEqual([s.key for s in hangs_on("x", family)], ["y"])

    def test_what_setting_took_apart_is_done_again_at_set_before_the_check(self):
        again = reopened(self.family(), frozenset({"gaskets"}))
        moved = next(s for s in again.steps if s.key == "b")
        self.assertEqual((moved.stage, moved.reopened, moved.puts_in), (Stage.SET, True, True))
        self.assertNotIn(GAP_RIGHT, comes_after(moved, again))
        untouched = reopened(self.family(), frozenset({"shims"}))
        self.assertEqual([s.stage for s in untouched.steps], [s.stage for s in self.STEPS])


class TheCheckThatCounts(unittest.TestCase):
    """A check counts when it was made after the last torque of what was opened for it."""

    def setting(self, tried: int, torqued: int, **more):
        tries = (TryMade((feeler_check(0.115, 0.125)[0],), stacks=((250,),), made=tried),)
        tightened = tuple(replace(one, made=torqued) for one in TORQUES)
        given = {"sheet": gasket_sheet(), "tries": tries, "tightened": tightened, "opened": frozenset({"gaskets"})}
        return assess(job_record(**(given | more)))

    def test_after_the_torque_it_is_right_before_it_is_to_be_done_again(self):
        self.assertTrue(self.setting(10, 9).gap.setting.right)
        late = self.setting(10, 11)
        self.assertFalse(late.gap.setting.right)
        self.assertIn("Check once more", late.gap.setting.move.headline.render(Units.MM))
        self.assertTrue(any("after the last check" in s.render(Units.MM) for s, _ in gap_blockers(late.record, late.gap)))

    def test_without_its_torque_it_is_right_on_trial_only(self):
        trial = self.setting(10, 0, tightened=())
        self.assertIn("Right on trial", trial.gap.setting.move.headline.render(Units.MM))
        self.assertFalse(trial.gap.setting.right)
        turn = next(s for s in trial.record.family.steps if s.key == "free_turn")
        self.assertTrue(any("had their torque" in s.render(Units.MM) for s in trial.out_of_turn(turn)))

    def test_so_it_is_with_all_that_holds_the_gap_whatever_the_means(self):
        """A bearing put in, a lock nut tightened, another part decided on after the check: none of it was checked."""
        checked = {"tries": (TryMade((feeler_check(0.115, 0.125)[0],), moved=18.85, made=5),)}
        before = tuple(replace(one, made=1) for one in TORQUES)
        self.assertTrue(assess(job_record(**checked, tightened=before)).gap.setting.right)
        other = sheet(
            torques=[*sheet_data()["torques"], {"fastener": "Gland nuts", "torque": ["5 N.m", "6 N.m"], "condition": "dry"}]
        )
        later = (*before, Tightened("gland nuts", 1, (1,), 5.5, made=9))
        self.assertTrue(assess(job_record(**checked, sheet=other, tightened=later)).gap.setting.right, "the gland holds no gap")
        for late, said in (
            ({"tightened": tuple(replace(one, made=9) for one in TORQUES)}, "lock nut, head bolts got their torque after"),
            (
                {"tightened": before, "fitted": (Fitted("thrust_half_rings_tang", "inner_lip", made=9),)},
                "put together after the last check",
            ),
            ({"tightened": before, "renewed": 9}, "Which parts are new was decided after the last check"),
        ):
            stale = assess(job_record(**checked, **late)).gap.setting
            self.assertFalse(stale.right)
            self.assertIn(said, stale.unproved.render(Units.MM))


class WhatANutHolds(unittest.TestCase):
    """A nut holds what is under it: a part that went in after its torque was not held by it."""

    def said(self, fitted: int, torqued: int) -> list[str]:
        parts = (Fitted("thrust_half_rings_tang", "lock_nut", made=fitted), Fitted("head_sealed", "head", made=fitted))
        marks = tuple(replace(one, made=torqued) for one in TORQUES)
        job = assess(job_record(fitted=parts, tightened=marks))
        steps = {s.key: s for s in job.record.family.steps}
        return [
            w.render(Units.MM) for key in ("nut_torque", "head_on") for w in job.holds_back(steps[key]) if "after" in w.template
        ]

    def test_a_part_that_went_in_after_the_torque_holds_the_step_back(self):
        nut, bolts = self.said(fitted=9, torqued=5)
        self.assertIn("Lock nut: lock nut went in after it was tightened", nut)
        self.assertIn("Head bolts: head with the idler on its pin went in after", bolts)
        self.assertEqual(self.said(fitted=5, torqued=9), [])
        self.assertEqual(self.said(fitted=5, torqued=0), [], "of the oldest records nothing is known")


class TheWholePump(unittest.TestCase):
    def test_a_gap_nobody_sets_and_that_is_outside_leaves_nothing_right(self):
        worn = readings({"idler_bore": 30.14, "idler_pin": 29.91}, sheet())
        found = assess(job_record(readings=job_record().readings | worn))
        self.assertTrue(found.gap.setting.right)
        self.assertEqual(len(found.gap.outside), 1)
        done, of = found.progress[Stage.SET]
        self.assertEqual(of - done, 1)
        turn = next(s for s in found.record.family.steps if s.key == "free_turn")
        self.assertIn("outside its limit", found.out_of_turn(turn)[-1].render(Units.MM))

    def test_a_step_proves_no_other(self):
        turned = assess(job_record(proofs=(Proof("another", "turning"), Proof("another", "end-play", 0.01))))
        free, play = (next(s for s in turned.record.family.steps if s.key == key) for key in ("free_turn", "end_play"))
        self.assertEqual(len(turned.holds_back(free)), 1)
        self.assertEqual(len(turned.holds_back(play)), 1)
        here = assess(job_record(proofs=(Proof("free_turn", "turning"), Proof("end_play", "end-play", 0.01))))
        self.assertEqual((here.holds_back(free), here.holds_back(play)), ((), ()))

    def test_a_new_part_that_nobody_measured_holds_its_step(self):
        from finegap.core.job_record import Decided, FeatureDecision

        decided = {"bushing_bore": FeatureDecision(Decided.CHANGE, "worn")}
        before = assess(job_record(decisions=decided))
        step = next(s for s in before.record.family.steps if s.key == "bushings")
        self.assertIn("changed, but not measured after", " ".join(s.render(Units.MM) for s in before.holds_back(step)))
        after = readings({"bushing_bore": 40.06}, sheet(), Phase.LEFT)
        measured = assess(job_record(decisions=decided, readings=job_record().readings | after))
        self.assertNotIn("measured after", " ".join(s.render(Units.MM) for s in measured.holds_back(step)))

    def test_how_deep_a_bearing_lies_is_measured_while_it_can_be(self):
        """Of a close-coupled pump whose sheet prints the depth with its means: the step waits, and the limit is the sheet's."""
        of = sheet(adjustment={"means": "coupling", "depth": ["1 mm", "1.5 mm"]}, build={"seal": "mechanical"})

        def at(**more):
            job = assess(job_record(sheet=of, build={}, **more))
            step = next(s for s in job.record.family.steps if s.key == "unit_built")
            told = [words.render(Units.MM) for words in job.tasks.holds_back(step)]
            depth = next(state for state in job.features if state.feature.key == "bearing_depth")
            return [one for one in told if "measured now" in one], depth

        self.assertEqual(at()[0], ["Bearing, depth: measured now; later it cannot be reached."])
        self.assertEqual(of.spec("bearing_depth").limit.upper_mm, 1.5)
        gauge = next(iter(job_record().readings.values()))[0].gauge
        taken = {("bearing_depth", Phase.LEFT): (StationReading("depth", "", 1.8, gauge),)}
        told, depth = at(readings=job_record().readings | taken)
        self.assertEqual((told, depth.left_judgement.verdict.value), ([], "Change"))

    def test_kit_and_tools_are_not_there_before_somebody_looked(self):
        job = assess(job_record())
        ready = next(s for s in job.record.family.steps if s.key == "ready")
        self.assertIn("Nobody has looked for", job.holds_back(ready)[0].render(Units.MM))
        there = {item: True for item, _ in job.needs}
        self.assertEqual(assess(job_record(on_hand=there)).holds_back(ready), ())
        first = job.needs[0][0]
        self.assertIn("Missing", assess(job_record(on_hand=there | {first: False})).holds_back(ready)[0].render(Units.MM))

    def test_the_first_hour_is_not_done_with_nothing_seen(self):
        job = assess(job_record())
        step = next(s for s in job.record.family.steps if s.key == "first_hour")
        self.assertIn("Nothing of the first hour", job.holds_back(step)[0].render(Units.MM))

    def test_the_steps_of_a_job_leave_out_nothing_by_being_reopened(self):
        of = gasket_sheet()
        before = job_record(sheet=of).family
        after = needed(before, frozenset(), frozenset(), (), ())
        self.assertEqual({s.key for s in reopened(after, frozenset({"gaskets"})).steps}, {s.key for s in after.steps})
