"""What stands on the page is so: parts measured at every station, pairs of the parts that are in them, new parts that are new."""

import unittest
from dataclasses import replace

from hypothesis import given
from hypothesis import strategies as st

from finegap.core.deciding import decided
from finegap.core.families.features import FeatureKind
from finegap.core.formatting import Units
from finegap.core.job import assess
from finegap.core.job_record import Decided, FeatureDecision, Phase, one_decision
from finegap.core.measuring.readings import StationReading
from finegap.core.measuring.verdict import Verdict
from tests.apps.base import GOOD, SIZES
from tests.core.job_records import GAUGE, job_record, readings, sheet

KEEP, CHANGE = FeatureDecision(Decided.KEEP, "made so"), FeatureDecision(Decided.CHANGE, "made so")
PAIR = ("idler_bore", "idler_pin")


def states(**changes):
    return {state.feature.key: state for state in assess(job_record(**changes)).features}


def partly(sizes, of, count, phase=Phase.FOUND):
    """Each feature read at its first stations only."""
    return {key: group[:count] for key, group in readings(sizes, of, phase).items()}


class Stations(unittest.TestCase):
    def test_a_part_is_measured_when_every_station_is(self):
        of = sheet()
        for count in range(1, 5):
            some = readings(GOOD, of) | partly({"idler_bore": 30.06}, of, count)
            state = states(readings=some)["idler_bore"]
            told = [b.sentence.render(Units.MM) for b in assess(job_record(readings=some)).blockers if b.feature == "idler_bore"]
            with self.subTest(count=count):
                self.assertIs(state.done, count == 4)
                self.assertEqual(told, [] if count == 4 else [f"Idler, bore: measured at {count} of 4 stations."])
                self.assertIs(state.found_judgement.verdict, Verdict.KEEP if count == 4 else Verdict.MEASURE_AGAIN)
                self.assertEqual(len(state.lives[-1].points) if state.lives else 0, 0)

    @given(st.sampled_from(["idler_bore", "idler_pin", "shaft_at_bushing"]), st.integers(1, 3), st.floats(-0.4, 0.4))
    def test_a_part_not_measured_everywhere_is_worn_out_or_to_be_measured(self, key, count, off):
        of = sheet()
        some = readings(GOOD, of) | partly({key: GOOD[key] + off}, of, count)
        found = states(readings=some)
        judgement = found[key].found_judgement
        self.assertIn(judgement.verdict, (Verdict.CHANGE, Verdict.MEASURE_AGAIN))
        if judgement.verdict is Verdict.MEASURE_AGAIN:
            self.assertIsNone(judgement.probability)
            self.assertEqual(judgement.sentence.render(Units.MM), f"{count} of 4 stations only: it is not measured yet.")
        pair = next(s for s in found.values() if key in (s.feature.bore, s.feature.shaft))
        self.assertIn(pair.found_judgement.verdict, (Verdict.CHANGE, Verdict.MEASURE_AGAIN))

    def test_worn_out_beyond_doubt_at_one_station_is_worn_out(self):
        of = sheet()
        self.assertIs(states(readings=partly({"idler_bore": 30.19}, of, 1))["idler_bore"].found_judgement.verdict, Verdict.CHANGE)

    def test_a_clearance_below_zero_is_never_good(self):
        of = sheet()
        state = states(readings=readings(GOOD | {"idler_pin": 30.061}, of))["idler_clearance"]
        self.assertAlmostEqual(state.found.value_mm, -0.001)
        self.assertIs(state.found_judgement.verdict, Verdict.MEASURE_AGAIN)
        self.assertIn("below zero cannot be", state.found_judgement.sentence.render(Units.MM))
        self.assertIsNone(state.found_judgement.probability)


class Pairs(unittest.TestCase):
    """The running clearance left comes from the parts that are in the pump."""

    LEFT = {"idler_bore": 30.03, "idler_pin": 29.99}

    def left(self, new, measured):
        of = sheet()
        decisions = dict.fromkeys(new, CHANGE)
        both = readings(GOOD, of) | readings({key: self.LEFT[key] for key in measured}, of, Phase.LEFT)
        state = states(readings=both, decisions=decisions)["idler_clearance"]
        return None if state.left is None else round(state.left.value_mm, 6)

    def test_every_combination_of_changed_and_measured(self):
        """By hand: what is new counts as measured after, what is kept as found; with a new part unmeasured there is no number."""
        found = {"idler_bore": GOOD["idler_bore"], "idler_pin": GOOD["idler_pin"]}
        sets = [(), ("idler_bore",), ("idler_pin",), PAIR]
        for new in sets:
            for measured in sets:
                size = {key: self.LEFT[key] if key in new else found[key] for key in PAIR}
                known = new and set(new) <= set(measured)
                expected = round(size["idler_bore"] - size["idler_pin"], 6) if known else None
                with self.subTest(new=new, measured=measured):
                    self.assertEqual(self.left(new, measured), expected)

    def test_changing_both_with_one_measured_blocks(self):
        of = sheet()
        both = readings(GOOD, of) | readings({"idler_bore": 30.03}, of, Phase.LEFT)
        change = dict.fromkeys(PAIR, CHANGE) | {"idler_clearance": FeatureDecision(Decided.CHANGE, "made so", PAIR)}
        told = {b.feature: b.sentence.render(Units.MM) for b in assess(job_record(readings=both, decisions=change)).blockers}
        self.assertEqual(told, {"idler_pin": "Idler pin: changed, but not measured after."})

    def test_measured_after_at_one_station_is_not_measured_after(self):
        of = sheet()
        some = readings(GOOD, of) | partly({"idler_bore": 30.03}, of, 2, Phase.LEFT)
        assessed = assess(job_record(readings=some, decisions={"idler_bore": CHANGE}))
        told = {b.feature: b.sentence.render(Units.MM) for b in assessed.blockers}
        self.assertEqual(told, {"idler_bore": "Idler, bore: changed, but measured after at 2 of 4 stations only."})
        by_key = {s.feature.key: s for s in assessed.features}
        self.assertIsNone(by_key["idler_clearance"].left)
        self.assertIs(by_key["idler_bore"].left_judgement.verdict, Verdict.MEASURE_AGAIN)


decisions = st.lists(
    st.tuples(
        st.sampled_from([*PAIR, "idler_clearance", "shaft_clearance", "bushing_bore"]),
        st.sampled_from([Decided.KEEP, Decided.CHANGE]),
        st.sampled_from([(PAIR[0],), (PAIR[1],), PAIR]),
    ),
    max_size=8,
)


class OneDecision(unittest.TestCase):
    FAMILY = sheet().family

    def decide(self, made, key, what, parts):
        pair = self.FAMILY.by_key[key]
        if pair.kind is FeatureKind.PAIR:
            parts = tuple((pair.bore, pair.shaft)[PAIR.index(part)] for part in parts)
        return decided(self.FAMILY, made, key, FeatureDecision(what, "why", parts if pair.kind is FeatureKind.PAIR else ()))

    @given(decisions)
    def test_however_they_are_made_no_part_contradicts_its_pair(self, steps):
        made = {}
        for key, what, parts in steps:
            made, touched = self.decide(made, key, what, parts)
            self.assertEqual(touched[0], key)
            self.assertEqual(made, one_decision(self.FAMILY, made))
            for pair in self.FAMILY.features:
                if pair.kind is FeatureKind.PAIR and pair.key in made:
                    new = {k for k in (pair.bore, pair.shaft) if k in made and made[k].decided is Decided.CHANGE}
                    whole = made[pair.key]
                    self.assertEqual(set(whole.parts), new if whole.decided is Decided.CHANGE else set())
                    self.assertEqual(bool(new), whole.decided is Decided.CHANGE)

    def test_changing_one_of_a_pair_is_one_decision_from_the_pair(self):
        made, touched = self.decide({}, "idler_clearance", Decided.CHANGE, ("idler_pin",))
        self.assertEqual(
            {k: d.decided for k, d in made.items() if k in PAIR}, {"idler_pin": Decided.CHANGE, "idler_bore": Decided.KEEP}
        )
        self.assertEqual(set(touched), {"idler_clearance", *PAIR})
        made, _ = self.decide(made, "idler_pin", Decided.KEEP, ())
        self.assertNotIn("idler_clearance", made)

    def test_an_older_decision_for_a_pair_means_both(self):
        old = {"idler_clearance": CHANGE, "idler_pin": KEEP}
        self.assertEqual(
            {k for k, d in one_decision(self.FAMILY, old).items() if d.decided is Decided.CHANGE}, {"idler_clearance", *PAIR}
        )


class NewParts(unittest.TestCase):
    def left(self, mm, of, reason="", key="idler_bore", **more):
        both = readings(GOOD, of) | {
            (key, Phase.LEFT): tuple(replace(r, reason=reason) for r in readings({key: mm}, of)[key, Phase.FOUND])
        }
        assessed = assess(job_record(sheet=of, readings=both, decisions={key: CHANGE}, **more))
        return next(s for s in assessed.features if s.feature.key == key), assessed

    def test_against_its_tolerance_not_the_wear_limit_alone(self):
        """New 30.02 to 30.04, worn out at 30.15: 30.08 is inside the limit and no new part."""
        state, assessed = self.left(30.08, sheet())
        self.assertIs(state.left_judgement.verdict, Verdict.CHANGE)
        self.assertIn("Not the new part", state.left_judgement.sentence.render(Units.MM))
        self.assertIn(("idler_bore", True), [(b.feature, b.lead_may) for b in assessed.blockers])
        held = [s for s in job_record(decisions={"idler_bore": CHANGE}).family.steps if assessed.holds_back(s)]
        self.assertIn("idler_bore", {key for step in held for key in step.changed})
        self.assertIs(self.left(30.03, sheet())[0].left_judgement.verdict, Verdict.KEEP)

    def test_with_one_number_a_share_of_the_wear_allowance_is_asked_about(self):
        """New 30.03, worn out at 30.15: allowance 0.12, a tenth of it 0.012."""
        of = sheet(features=SIZES | {"idler_bore": {"new": ["30.03 mm", "30.03 mm"], "maximum": "30.15 mm"}})
        for mm, asked in ((30.03, False), (30.041, False), (30.043, True), (30.017, True)):
            with self.subTest(mm=mm):
                self.assertIs(self.left(mm, of)[0].not_new is not None, asked)
        self.assertIsNone(self.left(30.043, of, new_share=0.2)[0].not_new)
        state, assessed = self.left(30.043, of, reason="reamed to the sleeve")
        self.assertIsNone(state.not_new)
        self.assertIn("because: reamed to the sleeve", state.left_note.render(Units.MM))
        self.assertEqual([b for b in assessed.blockers if b.feature == "idler_bore"], [])

    def test_with_neither_tolerance_nor_limit_nothing_is_called_good(self):
        of = sheet(features={k: v for k, v in SIZES.items() if k != "idler_bore"})
        state, _ = self.left(30.03, of)
        self.assertIsNone(state.left_judgement)
        self.assertEqual(state.left_note.render(Units.MM), "no tolerance on the sheet")

    def test_a_tolerance_without_a_limit_still_decides(self):
        of = sheet(features=SIZES | {"idler_bore": {"new": ["30.02 mm", "30.04 mm"]}})
        self.assertIs(self.left(30.03, of)[0].left_judgement.verdict, Verdict.KEEP)
        self.assertIs(self.left(30.09, of)[0].left_judgement.verdict, Verdict.CHANGE)


class Confirmed(unittest.TestCase):
    def test_a_changed_part_that_no_size_shows_is_confirmed(self):
        changed = {"bearings": CHANGE}
        for confirmed, blocked in ((frozenset({"lock_washer"}), True), (frozenset({"lock_washer", "bearings"}), False)):
            assessed = assess(job_record(decisions=changed, confirmed_new=confirmed))
            state = next(s for s in assessed.features if s.feature.key == "bearings")
            self.assertTrue(state.to_confirm)
            self.assertIs("bearings" in {b.feature for b in assessed.blockers}, blocked)

    def test_what_is_never_used_twice_is_confirmed_whatever_was_decided(self):
        assessed = assess(job_record(confirmed_new=frozenset()))
        self.assertEqual({b.feature for b in assessed.blockers}, {"lock_washer"})

    def test_a_size_the_sheet_does_not_give_cannot_show_it(self):
        state = states(decisions={"shaft_at_seal": CHANGE})["shaft_at_seal"]
        self.assertTrue(state.to_confirm)
        self.assertFalse(states(decisions={"idler_bore": CHANGE})["idler_bore"].to_confirm)

    def test_readings_carry_their_reason(self):
        self.assertEqual(StationReading("a", "", 1.0, GAUGE, reason="why").reason, "why")


if __name__ == "__main__":
    unittest.main()
