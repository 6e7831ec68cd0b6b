"""What follows from the facts of a job: what blocks a signature, what is still to do, and that it all can be shown."""

import math
import unittest
from dataclasses import fields, is_dataclass, replace

from hypothesis import given
from hypothesis import strategies as st

from finegap.core.families.family import Family
from finegap.core.families.features import Feature, FeatureKind, stations
from finegap.core.families.steps import Stage, Step
from finegap.core.formatting import Sentence, Units, render
from finegap.core.gap.housing import Zero
from finegap.core.gap.tries import Check, TryMade
from finegap.core.inspection import reason_needed
from finegap.core.job import assess
from finegap.core.job_record import Decided, Duty, FeatureDecision, Phase
from finegap.core.measuring.readings import CertifiedGauge
from finegap.core.measuring.verdict import Limit, School, Verdict, judge
from finegap.core.sheet_parts import FeatureSpec
from finegap.core.working import Working
from tests.apps.base import GOOD
from tests.core.job_records import gasket_sheet, job_record, readings, sheet


def tried(gap: float, u: float = 0.003, arc: float = 18.85) -> tuple[TryMade, ...]:
    return (TryMade((Check(gap, u, math.inf),), moved=arc),)


def blockers(**changes):
    return [(b.stage, b.sentence.render(Units.MM), b.lead_may) for b in assess(job_record(**changes)).blockers]


class Blocking(unittest.TestCase):
    def test_nothing_blocks_a_finished_job(self):
        self.assertEqual(blockers(), [])

    def test_each_hold_point_alone_blocks_and_no_other_step_does(self):
        family = job_record().family
        every = frozenset(s.key for s in family.steps)
        for step in family.steps:
            found = blockers(steps_done=every - {step.key})
            with self.subTest(step=step.key):
                self.assertEqual(len(found), 1 if step.hold else 0)
                if step.hold:
                    self.assertEqual((found[0][0], found[0][2]), (step.stage, False))
                    self.assertIn(step.text, found[0][1])

    def test_the_gap(self):
        cases = [
            ((), "not been set and checked", False),
            (tried(0.0), "never run at zero", False),
            (tried(-0.01), "never run at zero", False),
            (tried(0.16), "is not inside 0.10 mm to 0.14 mm", True),
            (tried(0.139, 0.01), "is not proved inside", True),
        ]
        for tries, says, lead_may in cases:
            with self.subTest(says=says):
                # below zero cold it is below zero hot as well, and both are said
                found = blockers(tries=tries)[-1]
                self.assertEqual((found[0], found[2]), (Stage.SET, lead_may))
                self.assertIn(says, found[1])

    def test_a_hot_gap_at_or_below_zero_even_before_anything_is_set(self):
        # steel rotor 100 K hotter than its casing over 150 mm: 0.17 mm, more than the 0.12 of the table
        hot = Duty("cast iron", 50, 115, 15)
        for tries in ((), tried(0.12)):
            words = " ".join(text for _, text, lead in blockers(duty=hot, tries=tries) if not lead)
            self.assertIn("seizes", words)

    def test_no_row_of_the_table(self):
        (found,) = blockers(duty=Duty("cast iron", 50, 150, 150))
        self.assertIn("never extrapolate", found[1])
        assessment = assess(job_record(duty=Duty("cast iron", 50, 150, 150)))
        self.assertIsNone(assessment.gap.window)
        self.assertIsNone(assessment.gap.setting)

    def test_parts(self):
        of = sheet()
        worn = readings(GOOD | {"idler_bore": 30.19}, of)
        self.assertIn("Idler, bore: not decided.", [text for _, text, _ in blockers(readings=worn)])
        change = {
            "idler_bore": FeatureDecision(Decided.CHANGE),
            "idler_clearance": FeatureDecision(Decided.CHANGE, parts=("idler_bore",)),
        }
        after = blockers(readings=worn, decisions=change)
        self.assertTrue(all(lead and "not measured after" in text for _, text, lead in after))
        renewed = worn | readings({"idler_bore": 30.03}, of, Phase.LEFT)
        self.assertEqual(blockers(readings=renewed, decisions=change), [])
        wrong = worn | readings({"idler_bore": 30.2}, of, Phase.LEFT)
        self.assertIn("Not the new part", str(blockers(readings=wrong, decisions=change)))
        missing = {k: v for k, v in worn.items() if k[0] != "shaft_at_bushing"}
        texts = [text for _, text, _ in blockers(readings=missing, decisions=change)]
        self.assertIn("Shaft at the bushing: not measured.", texts)
        self.assertIn("Shaft in its bushing: not measured.", texts)

    def test_a_gauge_out_of_date_needs_a_lead(self):
        fault = Sentence("{g} was past its calibration date.", {"g": "C-1"})
        self.assertEqual(blockers(gauge_faults=(fault,)), [(Stage.INSPECT, "C-1 was past its calibration date.", True)])

    def test_in_working_order(self):
        empty = assess(job_record(readings={}, looks={}, steps_done=frozenset(), tries=())).blockers
        order = [list(Stage).index(b.stage) for b in empty]
        self.assertEqual(order, sorted(order))


class Deciding(unittest.TestCase):
    def test_a_reason_is_needed_against_the_verdict_only(self):
        limit = Limit(None, 1.0, (0.0, 0.1))
        verdicts = {
            Verdict.KEEP: judge(0.2, 0.01, 9, limit),
            Verdict.WATCH: judge(0.85, 0.01, 9, limit, near_share=0.2),
            Verdict.CHANGE: judge(1.5, 0.01, 9, limit),
            Verdict.MEASURE_AGAIN: judge(0.999, 0.01, 9, limit),
        }
        needed = {
            Verdict.KEEP: (False, True),
            Verdict.WATCH: (False, False),
            Verdict.CHANGE: (True, False),
            Verdict.MEASURE_AGAIN: (True, False),
        }
        for call, verdict in verdicts.items():
            self.assertIs(verdict.verdict, call)
            self.assertEqual((reason_needed(call, Decided.KEEP), reason_needed(call, Decided.CHANGE)), needed[call])
        self.assertTrue(reason_needed(None, Decided.KEEP) and reason_needed(None, Decided.CHANGE))

    def test_a_verdict_that_turns_against_a_decision_opens_it_again(self):
        of = sheet()
        worn = readings(GOOD | {"shaft_at_bushing": 39.89}, of)
        kept = {"shaft_at_bushing": FeatureDecision(Decided.KEEP)}
        with_reason = {"shaft_at_bushing": FeatureDecision(Decided.KEEP, "no spare before May")}
        self.assertEqual(blockers(decisions=kept), [])
        self.assertEqual([b[1] for b in blockers(readings=worn, decisions=kept)], ["Shaft at the bushing: not decided."])
        self.assertEqual(blockers(readings=worn, decisions=with_reason), [])
        open_, done = (assess(job_record(readings=worn, decisions=d)).progress[Stage.DECIDE] for d in (kept, with_reason))
        self.assertEqual((open_, done), ((0, 1), (1, 1)))


class Progress(unittest.TestCase):
    def test_done_of_each_stage(self):
        done = assess(job_record()).progress
        self.assertEqual(done[Stage.INSPECT], (9, 9))
        self.assertEqual(done[Stage.SET], (3, 3))
        self.assertEqual(done[Stage.DECIDE], (0, 0))
        begun = assess(job_record(steps_done=frozenset({"isolate"}), readings={}, looks={}, tries=())).progress
        self.assertEqual((begun[Stage.PREPARE], begun[Stage.INSPECT], begun[Stage.SET]), ((1, 8), (0, 9), (0, 3)))

    def test_a_running_clearance_as_left_takes_new_parts_with_kept_ones(self):
        of = sheet()
        both = readings(GOOD, of) | readings({"idler_bore": 30.03}, of, Phase.LEFT)
        change = {"idler_bore": FeatureDecision(Decided.CHANGE)}
        states = {s.feature.key: s for s in assess(job_record(readings=both, decisions=change)).features}
        self.assertAlmostEqual(states["idler_clearance"].found.value_mm, 30.06 - 29.97)
        self.assertAlmostEqual(states["idler_clearance"].left.value_mm, 30.03 - 29.97)
        self.assertIsNone(states["shaft_clearance"].left)


def everything_shown(thing):
    """Every working and sentence below a result."""
    if isinstance(thing, Working | Sentence):
        yield thing
    if isinstance(thing, tuple | list):
        for one in thing:
            yield from everything_shown(one)
    elif isinstance(thing, dict):
        yield from everything_shown(list(thing.values()))
    elif is_dataclass(thing) and not isinstance(thing, type):
        for field in fields(thing):
            yield from everything_shown(getattr(thing, field.name))


class Shown(unittest.TestCase):
    @given(
        sizes=st.fixed_dictionaries({key: st.floats(mm * 0.99, mm * 1.01) for key, mm in GOOD.items()}),
        gap=st.floats(-0.05, 0.4),
        u=st.floats(0, 0.05),
        viscosity=st.floats(0.5, 5000),
        temperature=st.floats(-40, 200),
        school=st.sampled_from(School),
        zero=st.sampled_from([None, *Zero]),
        by_gaskets=st.booleans(),
        overdue=st.booleans(),
    )
    def test_whatever_is_recorded_every_sentence_and_working_can_be_shown_in_both_units(
        self, sizes, gap, u, viscosity, temperature, school, zero, by_gaskets, overdue
    ):
        of = replace(gasket_sheet() if by_gaskets else sheet(), school=school)
        check = Check(gap, u, math.inf)
        one = TryMade((check,), stacks=((250,),)) if by_gaskets else TryMade((check,), moved=20.0)
        assessment = assess(
            job_record(
                sheet=of,
                readings=readings(sizes, of),
                tries=(one,),
                zero=zero,
                box={50: 3, 100: 2, 250: 1},
                duty=Duty("cast iron", viscosity, temperature, temperature),
                gauge_faults=(Sentence("X was out of date."),) if overdue else (),
            )
        )
        shown = list(everything_shown(assessment))
        self.assertGreater(len(shown), 20)
        for units in Units:
            for thing in shown:
                if isinstance(thing, Sentence):
                    self.assertNotRegex(thing.render(units), r"[{}]|None|nan")
                    continue
                self.assertTrue(thing.title and thing.formula and thing.source)
                for amount in [g.text for g in thing.given] + [thing.result]:
                    self.assertNotRegex(render(amount, units), r"[{}]|None|nan")

    @given(st.floats(0.0, 0.4), st.sampled_from(School))
    def test_signed_without_a_lead_means_inside_the_window_and_never_touching(self, gap, school):
        of = replace(sheet(), school=school)
        assessment = assess(job_record(sheet=of, tries=tried(gap)))
        if not assessment.blockers:
            self.assertTrue(assessment.gap.window.low_mm <= gap <= assessment.gap.window.high_mm)
            self.assertGreater(gap, 0)
            self.assertGreater(assessment.gap.hot.gap_mm, 0)


class AnotherFamily(unittest.TestCase):
    """A made-up family of two sizes goes through the engine with no change to it."""

    FAMILY = Family(
        "made_up",
        "Made-up pump",
        (
            Feature("plate", 1, "Plate", "Plate", FeatureKind.EXTERNAL, stations(("",), ("left", "right"))),
            Feature("hole", 2, "Hole", "Plate", FeatureKind.INTERNAL, stations(("top",), ("12–6",))),
        ),
        (Step(Stage.PROVE, "spin", "It spins.", hold=True),),
    )

    def test_it_is_measured_judged_and_blocked_like_any_other(self):
        specs = {
            "plate": FeatureSpec(Limit(9.9, None, (10.0, 10.1)), (10.0, 10.1), "", False),
            "hole": FeatureSpec(Limit(None, 5.2, (5.0, 5.1)), (5.0, 5.1), "", False),
        }
        of = replace(sheet(), family=self.FAMILY, features=specs, build={})
        assessment = assess(job_record(sheet=of, readings=readings({"plate": 10.0, "hole": 5.3}, of), steps_done=frozenset()))
        calls = [s.found_judgement.verdict for s in assessment.features]
        self.assertEqual(calls, [Verdict.KEEP, Verdict.CHANGE])
        self.assertEqual(
            [b.sentence.render(Units.MM) for b in assessment.blockers],
            ["Hole: not decided.", "Hold point not done: It spins."],
        )

    def test_a_coarse_gauge_shows_fewer_decimals_than_a_fine_one(self):
        of = sheet()
        coarse = CertifiedGauge("C", 0.01, 0.03, 2)
        taken = {key: tuple(replace(r, gauge=coarse) for r in group) for key, group in readings(GOOD, of).items()}
        states = assess(job_record(readings=taken)).features
        self.assertFalse(states[1].fine)
        self.assertTrue(assess(job_record()).features[1].fine)
