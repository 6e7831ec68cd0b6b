"""Readings as they are really taken, gauges that can or cannot decide, damage, pairs, symptoms and procedures."""

import math
import unittest
from dataclasses import replace

from hypothesis import given
from hypothesis import strategies as st

from finegap.core.errors import FieldError, Unlikely
from finegap.core.families import FAMILIES
from finegap.core.families.features import Feature, FeatureKind, stations
from finegap.core.families.steps import Stage
from finegap.core.formatting import Units, render
from finegap.core.gap.tries import Check, TryMade
from finegap.core.gauges import Cabinet, CabinetGauge, GaugeKind
from finegap.core.job import assess
from finegap.core.job_record import Decided, FeatureDecision, Past, Phase, SeenDamage
from finegap.core.measuring.feeler import check_leaves, check_pile, interval
from finegap.core.measuring.readings import CertifiedGauge, StationReading, Statistic, summarize
from finegap.core.measuring.temperature import Warm
from finegap.core.measuring.verdict import Limit, School, Verdict, judge
from finegap.core.ordering import to_order
from finegap.core.paste import read_set
from finegap.core.procedure import ShopStep, in_force, read_steps, told
from finegap.core.quantities import parse
from finegap.core.settle import MOST_REPEATS, guard_after, repeats_needed, settle
from finegap.core.units import Dimension
from finegap.core.wear.hours import HoursRead
from finegap.core.wear.lives import MeasuredSize, Visit
from finegap.core.wear.parts import Catalogue, CataloguePart, Kit
from tests.apps.base import GOOD
from tests.core.job_records import job_record, readings, sheet
from tests.references import VALUES

MICROMETER = CertifiedGauge("M", 0.001, 0.002, 2, 0.001)


class Warmth(unittest.TestCase):
    def test_a_warm_part_is_corrected_with_its_uncertainty(self):
        """GTC 1.5.1 (check-values gum-09, -10, -12): value, u, degrees of freedom, U."""
        for name in ("gum-09", "gum-10", "gum-12"):
            given_, expected = VALUES[name]["inputs"], VALUES[name]["expected"]
            gauge = CertifiedGauge("M", given_["resolution_mm"], given_["U_cal_mm"], given_["k_cal"])
            warm = Warm(
                20 + given_["dT_from_20_K"],
                given_["alpha_per_K"] * 1e6,
                given_["dT_half_width_K"],
                given_["alpha_half_width"] * 1e6,
            )
            taken = [StationReading("one", "", mm, gauge, warm=warm) for mm in given_["readings_mm"]]
            result = summarize(taken, Statistic.AS_MEASURED, "part")
            with self.subTest(name=name):
                self.assertAlmostEqual(result.value_mm, expected["value_mm"], places=8)
                # the scatter shrinks with the part: a factor of 1 - alpha dT, which the reference leaves out
                self.assertAlmostEqual(result.u_mm / expected["u_mm"], 1, delta=2e-4)
                self.assertAlmostEqual(result.dof / expected["nu_eff"], 1, delta=1e-3)
                self.assertAlmostEqual(result.expanded_mm / expected["U_mm"], 1, delta=2e-4)

    def test_a_part_at_20_degrees_has_its_size(self):
        self.assertEqual(Warm(20, 11.7).corrected(50.0), 50.0)


class Feelers(unittest.TestCase):
    def test_goes_and_stops_is_a_rectangle_between(self):
        value, half = interval(0.10, 0.12, "gap")
        self.assertAlmostEqual(value, 0.11)
        result = summarize(
            [StationReading("gap", "", value, CertifiedGauge("F", 0.01, 0.004, 2), half_mm=half)], Statistic.AS_MEASURED, "gap"
        )
        # 0.02/√12 between the leaves, 0.004/2 of the set; never the step of a scale it does not have
        self.assertAlmostEqual(result.u_mm, math.hypot(0.02 / math.sqrt(12), 0.002))
        with self.assertRaisesRegex(FieldError, "not thinner"):
            interval(0.12, 0.12, "gap")

    def test_leaves(self):
        self.assertEqual(check_leaves([100, 50]), (50, 100))
        for leaves, says in (([], "no leaf"), ([0, 50], "no thickness"), ([50, 100, 50], "0.05 mm is in it twice")):
            with self.assertRaisesRegex(FieldError, says):
                check_leaves(leaves)

    def test_a_thickness_the_set_cannot_make_is_asked_about(self):
        def check(said, leaves=(30, 50, 100, 200)):
            check_pile(parse(said, Dimension.LENGTH, "leaf", "mm"), leaves, "F-2", "gap")

        for said in ("0", "0.03", "0.08", "0.15", "0.35", "0.004 in", "8 thou"):  # the last two are marked 0.10 and 0.20
            check(said)
        for said in ("0.04", "0.36", "0.38", "0.096", "0.0015 in"):  # 0.38 would take four
            with self.assertRaisesRegex(Unlikely, said):
                check(said)
        check("0.04", ())


STATIONS = stations(("front", "back"), ("12–6", "3–9"))


class Pasting(unittest.TestCase):
    def read(self, text, unit="mm"):
        return [(p.station.key, round(p.quantity.value, 4)) for p in read_set(text, STATIONS, unit, "Bore")]

    def test_as_spreadsheets_give_them(self):
        four = [("front/12–6", 34.1), ("front/3–9", 34.2), ("back/12–6", 34.3), ("back/3–9", 34.4)]
        self.assertEqual(self.read("34.1\n34.2\n34.3\n34.4"), four)
        self.assertEqual(self.read("34,1\r\n34,2\r\n34,3\r\n34,4\r\n\r\n"), four)
        self.assertEqual(self.read("Station\tReading\nfront, 12–6\t34.1\nback, 3–9\t34.4"), [four[0], four[3]])
        self.assertEqual(self.read("34.1\t34.11\t34.12\n34.2"), [four[0], ("front/12–6", 34.11), ("front/12–6", 34.12), four[1]])
        self.assertEqual(self.read("Reading (in)\n1.3425"), [("front/12–6", 34.0995)])
        self.assertEqual(self.read("size in thou\n1342.5"), [("front/12–6", 34.0995)])
        self.assertEqual(self.read("Reading [mm]\n34.1", unit="in"), [four[0]])
        self.assertEqual(self.read("Reading, in inches\n1.3425"), [("front/12–6", 34.0995)])
        # “in” and “m” are words, too: inside a sentence they are no unit
        for heading in ("Bore in housing", "as found in pump", "Idler m 12", "In (front)", "size in (mm)", "first (mm)\tin front"):
            self.assertEqual(self.read(f"{heading}\n34.1"), [four[0]], heading)
        self.assertEqual(self.read("in\n1.3425"), [("front/12–6", 34.0995)])
        self.assertEqual(self.read("Reading (IN)\n1.3425"), [("front/12–6", 34.0995)])
        self.assertEqual(self.read("1.3425 in\n34.2 mm"), [("front/12–6", 34.0995), four[1]])

    def test_what_cannot_be_read_names_row_and_column(self):
        for text, where in (
            ("", "nothing was pasted"),
            ("\t\n\t", "nothing was pasted"),
            ("Reading (mm)", "a heading, but no reading"),
            ("first (mm)\tsecond (in)\n34.1\t34.2", "its heading names in and mm"),
            ("34.1\n34.2\n34.3\n34.4\n34.5", "row 5: there are only 4 stations"),
            ("34.1\t\t34.2", "row 1, column 2: the cell is empty"),
            ("front, 12–6\t34.1\n\t34.2", "row 2: the station is empty: merged cells"),
            ("front, 12–6\t34.1\nmiddle\t34.2", "row 2: “middle” is not one of its stations"),
            ("front, 12–6\t\nback, 3–9\t34.1", "row 1, column 2: there is no reading"),
            ("34.1\nabout 34", "row 2, column 1: “about 34” is not a number"),
            ("34.1 bar", "row 1, column 1: “bar” makes this a pressure"),
            ("-34.1", "it cannot be negative"),
            ("\n".join(["34.1"] * 500), "500 rows"),
        ):
            with self.subTest(text=text), self.assertRaises(FieldError) as caught:
                self.read(text)
            self.assertIn(where, str(caught.exception))


def choice(tag="G", kind=GaugeKind.OUTSIDE, low=0.0, high=50.0, expanded=0.003, step=0.001, overdue=False, repeat=0.001):
    return CabinetGauge(CertifiedGauge(tag, step, expanded, 2, repeat), kind, low, high, overdue)


CHOICES = st.lists(
    st.builds(
        choice,
        tag=st.uuids().map(str),
        kind=st.sampled_from(GaugeKind),
        low=st.sampled_from([0.0, 25.0]),
        high=st.sampled_from([50.0, 75.0, 150.0]),
        expanded=st.floats(0.001, 0.1),
        overdue=st.booleans(),
    ),
    max_size=8,
)


class Choosing(unittest.TestCase):
    """Which gauge suits what is common practice, no source."""

    def test_a_bore_is_not_measured_with_an_outside_micrometer(self):
        self.assertFalse(GaugeKind.OUTSIDE.suits(FeatureKind.INTERNAL))
        self.assertFalse(GaugeKind.BORE.suits(FeatureKind.EXTERNAL))
        self.assertTrue(all(GaugeKind.CALIPER.suits(k) for k in (FeatureKind.INTERNAL, FeatureKind.EXTERNAL)))
        self.assertTrue(GaugeKind.FEELER.suits(FeatureKind.FLATNESS) and GaugeKind.INDICATOR.suits(FeatureKind.RUNOUT))
        self.assertFalse(any(kind.suits(k) for kind in GaugeKind for k in (FeatureKind.PAIR, FeatureKind.CHECK)))

    @given(CHOICES, st.sampled_from([k for k in FeatureKind if k.taken]), st.floats(1, 150))
    def test_the_one_offered_can_do_it_and_no_better_one_could(self, gauges, feature, size):
        able = [
            g for g in gauges
            if g.kind.suits(feature) and not g.overdue and size <= g.high_mm and (feature.is_gap or g.low_mm <= size)
        ]  # fmt: skip
        offered = Cabinet.of(gauges, feature, (size, size), None).pick
        if not able:
            self.assertEqual(offered, "")
            return
        chosen = next(g for g in able if g.tag == offered)
        self.assertTrue(all(chosen.guard_mm <= g.guard_mm for g in able))

    @given(st.floats(0.001, 0.3), st.floats(0.0005, 0.05), st.sampled_from([0.001, 0.01]))
    def test_a_gauge_decides_just_where_a_new_part_read_with_it_would_be_proved_good(self, allowance, expanded, step):
        """The promise made beforehand against the verdict itself, for a part at its new size."""
        limit = Limit(30 - allowance, None, (30.0, 30.0))
        gauge = choice(expanded=expanded, step=step)
        cabinet = Cabinet.of([gauge], FeatureKind.EXTERNAL, (30.0, 30.0), limit)
        result = summarize([StationReading("x", "", 30.0, gauge.gauge)], Statistic.SMALLEST, "part")
        judgement = judge(result.value_mm, result.u_mm, result.dof, limit)
        fit = cabinet.fit(gauge)
        if abs(fit.ratio - 1) > 1e-6:
            self.assertEqual(fit.decides, judgement.verdict is Verdict.KEEP)

    @given(st.floats(-0.05, 0.05), st.floats(0.0005, 0.02))
    def test_so_near_the_limit_as_it_was_found_it_decides_just_where_the_verdict_does(self, margin, expanded):
        limit = Limit(30.0, None, (30.2, 30.2))
        gauge = choice(expanded=expanded)
        result = summarize([StationReading("x", "", 30.0 + margin, gauge.gauge)], Statistic.SMALLEST, "part")
        called = judge(result.value_mm, result.u_mm, result.dof, limit).verdict
        words = Cabinet.of([gauge], FeatureKind.EXTERNAL, (30.2, 30.2), limit).fit(gauge, margin).sentence.render(Units.MM)
        if abs(abs(margin) - gauge.guard_mm) > 1e-9:
            self.assertEqual("too near for this gauge" in words, called is Verdict.MEASURE_AGAIN)

    def test_it_says_which_other_could(self):
        limit = Limit(29.99, None, (30.0, 30.0))
        coarse, fine = choice("C-1", GaugeKind.CALIPER, expanded=0.03, step=0.01), choice("M-1", expanded=0.002)
        cabinet = Cabinet.of([coarse, fine], FeatureKind.EXTERNAL, (30.0, 30.0), limit)
        self.assertIn("Cannot decide this", cabinet.fit(coarse).sentence.render(Units.MM))
        self.assertIn("M-1 could", cabinet.fit(coarse).sentence.render(Units.MM))
        self.assertIn("outside the range", cabinet.fit(choice("X", low=40)).sentence.render(Units.MM))
        alone = Cabinet.of([coarse], FeatureKind.EXTERNAL, (30.0, 30.0), limit)
        self.assertIn("Nor could any other", alone.fit(coarse).sentence.render(Units.MM))


class Settling(unittest.TestCase):
    @given(st.floats(0.0005, 0.006), st.integers(2, 6), st.floats(0.0005, 0.006), st.floats(0.0001, 0.02))
    def test_the_repeats_named_would_settle_it_and_one_fewer_would_not(self, s, n, expanded, margin):
        taken = [StationReading("x", "", 30 + s * (1 if i % 2 else -1), CertifiedGauge("M", 0.0001, expanded, 2)) for i in range(n)]
        result = summarize(taken, Statistic.AS_MEASURED, "part")
        more = repeats_needed(result, margin)
        if more is None:
            self.assertGreaterEqual(guard_after(result, MOST_REPEATS), margin)
        else:
            self.assertLess(guard_after(result, more), margin)
            if more > 1:
                self.assertGreaterEqual(guard_after(result, more - 1), margin)

    def test_in_words(self):
        cabinet = Cabinet.of(
            [choice("M-9", expanded=0.0005, step=0.0001, repeat=0)], FeatureKind.EXTERNAL, (30.0, 30.0), Limit(29.9, None, (30, 30))
        )
        rough = summarize(
            [StationReading("x", "", mm, CertifiedGauge("M", 0.001, 0.0005, 2)) for mm in (29.998, 30.002, 30.0)],
            Statistic.SMALLEST,
            "p",
        )
        self.assertRegex(
            settle(rough, 0.002, cabinet).render(Units.MM), r"Repeat the deciding station \d+ times more, or take M-9\."
        )
        worn_out = summarize([StationReading("x", "", 30.0, CertifiedGauge("M", 0.001, 0.05, 2))], Statistic.SMALLEST, "p")
        self.assertIn("M-9 would", settle(worn_out, 0.002, cabinet).render(Units.MM))
        self.assertIn("decide with a reason", settle(worn_out, 0.000001, cabinet).render(Units.MM))
        self.assertIn("measure its parts", settle(worn_out, 0.000001, None).render(Units.MM))


def states(**changes):
    return {s.feature.key: s for s in assess(job_record(**changes)).features}


class Damage(unittest.TestCase):
    """What damage means is the family's rule; that a pitted shaft does not seal is common practice, no source."""

    def test_damage_the_rules_reject_is_change_whatever_the_size(self):
        of = sheet()
        look = {("shaft_at_bushing", Phase.FOUND): SeenDamage(("scored",))}
        state = states(looks=look)["shaft_at_bushing"]
        self.assertIs(state.found_judgement.verdict, Verdict.CHANGE)
        self.assertIn("Scored", state.found_judgement.sentence.render(Units.MM))
        self.assertIn("Inside by", state.found_judgement.reasons[0].render(Units.MM))
        self.assertGreater(state.found_judgement.probability, 0.99)
        worn = readings(GOOD | {"shaft_at_bushing": 39.89}, of)
        both = states(readings=worn, looks={("shaft_at_bushing", Phase.FOUND): SeenDamage(("burr",))})["shaft_at_bushing"]
        self.assertIs(both.found_judgement.verdict, Verdict.CHANGE)
        self.assertEqual(len(both.found_judgement.reasons), 1)

    def test_a_burr_is_watched_and_a_sound_part_says_so(self):
        burr = states(looks={("shaft_at_bushing", Phase.FOUND): SeenDamage(("burr",))})["shaft_at_bushing"]
        self.assertIs(burr.found_judgement.verdict, Verdict.WATCH)
        sound = states(looks={("bearings", Phase.FOUND): SeenDamage(())})["bearings"]
        self.assertEqual((sound.found_judgement.verdict, sound.done), (Verdict.KEEP, True))
        self.assertFalse(states(looks={})["bearings"].done)

    def test_a_new_lip_seal_will_not_seal_on_a_pitted_shaft(self):
        pitted = states(looks={("shaft_at_seal", Phase.FOUND): SeenDamage(("pitted",))})["shaft_at_seal"]
        self.assertIs(pitted.found_judgement.verdict, Verdict.CHANGE)

    def test_every_damage_of_every_family_has_a_call_and_a_meaning(self):
        for family in FAMILIES.values():
            for damage in (d for f in family.features for d in f.damages):
                self.assertTrue(damage.name and damage.meaning.endswith("."))
                self.assertIsNot(damage.verdict, Verdict.MEASURE_AGAIN)


class Pairs(unittest.TestCase):
    def test_what_the_clearance_would_be_with_new_parts(self):
        of = sheet()
        state = states(readings=readings(GOOD | {"idler_bore": 30.14, "idler_pin": 29.91}, of))["idler_clearance"]
        self.assertIs(state.found_judgement.verdict, Verdict.CHANGE)
        told = {o.new: (round(o.low_mm, 3), round(o.high_mm, 3), o.judgement.verdict) for o in state.options}
        # new pin 29.98 to 30.00 in a bore of 30.14; new bore 30.02 to 30.04 on a pin of 29.91; both new 0.02 to 0.06
        self.assertEqual(told[("idler_pin",)], (0.14, 0.16, Verdict.KEEP))
        self.assertEqual(told[("idler_bore",)], (0.11, 0.13, Verdict.KEEP))
        self.assertEqual(told[("idler_bore", "idler_pin")], (0.02, 0.06, Verdict.KEEP))

    def test_a_new_pin_decides_the_pair_where_that_is_enough(self):
        worn = readings(GOOD | {"idler_bore": 30.14, "idler_pin": 29.91}, sheet())
        change = {"idler_pin": FeatureDecision(Decided.CHANGE, "worn")}
        self.assertTrue(states(readings=worn)["idler_clearance"].open_decision)
        self.assertFalse(states(readings=worn, decisions=change)["idler_clearance"].open_decision)
        worse = readings(GOOD | {"idler_bore": 30.25, "idler_pin": 29.91}, sheet())
        self.assertTrue(states(readings=worse, decisions=change)["idler_clearance"].open_decision)


class Coming(unittest.TestCase):
    def past(self, found, hours=5000.0, planned=4000.0):
        before = Visit(1, 1, HoursRead(hours), 0.0, MeasuredSize(found, 0.001))
        return Past({"idler_bore": (before,)}, 2, 400, HoursRead(2 * hours), planned)

    def test_inside_now_but_predicted_past_the_limit_is_watched(self):
        of = sheet()
        duty = replace(job_record().duty, pressure_bar=1, speed_r_min=1)
        past = self.past(30.075)
        past = replace(past, visits={"idler_bore": (replace(past.visits["idler_bore"][0], work=1.0),)})
        # 0.045 mm in 5,000 h: 30.12 now, past 30.15 after another 3,300 h, before the next overhaul at 4,000 h
        worn = readings(GOOD | {"idler_bore": 30.12, "idler_pin": 29.99}, of)
        state = states(readings=worn, past=past, duty=duty)["idler_bore"]
        self.assertIs(state.found_judgement.verdict, Verdict.WATCH)
        self.assertIn("predicted past the limit before the next planned overhaul", state.found_judgement.sentence.render(Units.MM))
        self.assertAlmostEqual(state.forecast.hours_left, 3300, delta=150)
        soon = states(readings=worn, past=replace(past, planned_h=1000.0), duty=duty)["idler_bore"]
        self.assertIs(soon.found_judgement.verdict, Verdict.KEEP)

    def test_sizes_that_scatter_past_the_limit_are_watched_now(self):
        """Inside by its own reading, but one further size of this life may lie past the limit: with no overhaul planned, too."""
        of, duty = sheet(), replace(job_record().duty, pressure_bar=1, speed_r_min=1)
        sizes = (30.02, 30.13, 30.04, 30.14)
        visits = tuple(Visit(i, i, HoursRead(1000.0 * i), 1.0, MeasuredSize(mm, 0.001)) for i, mm in enumerate(sizes, 1))
        for planned in (None, 100.0):
            past = Past({"idler_bore": visits}, 5, 400, HoursRead(5000.0), planned)
            read = readings(GOOD | {"idler_bore": 30.11}, of)
            state = states(readings=read, past=past, duty=duty)["idler_bore"]
            self.assertEqual(state.forecast.early, 0)
            self.assertIs(state.found_judgement.verdict, Verdict.WATCH)
            self.assertIn("could be past the limit already", state.found_judgement.sentence.render(Units.MM))
            plain = states(readings=read, past=past, duty=duty, sheet=replace(of, school=School.PLAIN))["idler_bore"]
            self.assertIs(plain.found_judgement.verdict, Verdict.KEEP)  # as read; a plain school looks at the line alone


class Missing(unittest.TestCase):
    def test_a_statistic_that_needs_more_says_what(self):
        of = sheet()
        one = readings(GOOD, of)
        one["idler_bore", Phase.FOUND] = one["idler_bore", Phase.FOUND][:1]
        state = states(readings=one)["idler_bore"]
        words = state.missing.render(Units.MM)
        self.assertIn("front, 3–9; back, 12–6; back, 3–9", words)
        self.assertIn("no out-of-round and no taper", words)
        self.assertIsNone(states()["idler_bore"].missing)


class Ordering(unittest.TestCase):
    OF = Catalogue(
        "EUR",
        (
            CataloguePart("1", "Idler", 400, 28, renews=("idler_bore",)),
            CataloguePart("2", "Pin", 100, 14, renews=("idler_pin",)),
            CataloguePart("3", "Gasket", 5, 0, always=True),
        ),
        (Kit("K", "Kit", 450, 21, {"1": 1, "2": 1, "3": 1}),),
    )

    def order(self, **changes):
        of = replace(sheet(), catalogue=self.OF)
        assessment = assess(job_record(sheet=of, **changes))
        return to_order(job_record().family, assessment.features, self.OF)

    def test_what_is_never_used_twice_is_always_in_it(self):
        self.assertEqual(self.order().needs, {"3": 1})

    def test_an_idler_brings_its_pin_and_the_kit_is_cheaper(self):
        order = self.order(decisions={"idler_bore": FeatureDecision(Decided.CHANGE, "x")})
        self.assertEqual(order.needs, {"1": 1, "2": 1, "3": 1})
        self.assertEqual([(line.number, line.is_kit) for line in order.cover.lines], [("K", True)])
        self.assertIn("goes with idler", " ".join(order.cover.lines[0].reasons))

    def test_a_pin_alone_is_bought_alone(self):
        order = self.order(decisions={"idler_pin": FeatureDecision(Decided.CHANGE, "x")})
        self.assertEqual(sorted(line.number for line in order.cover.lines), ["2", "3"])

    def test_a_part_the_catalogue_does_not_name_is_said(self):
        order = self.order(decisions={"shaft_at_bushing": FeatureDecision(Decided.CHANGE, "x")})
        self.assertEqual(order.unlisted, ("Shaft at the bushing",))


class Symptoms(unittest.TestCase):
    def test_it_says_what_to_measure_first_then_what_explains_it(self):
        of = sheet()
        begun = assess(job_record(symptom="low_flow", readings={})).explained
        self.assertEqual(begun.suspects[0], "end_clearance")
        self.assertIn("look first at end clearance found", begun.sentence.render(Units.MM))
        wide = assess(job_record(symptom="low_flow", readings=readings(GOOD | {"end_clearance": 0.4}, of)))
        self.assertEqual(wide.explained.explains, ("end_clearance",))
        self.assertIn("wider than 0.10 to 0.14 mm", wide.explained.sentence.render(Units.MM))

    def test_or_that_nothing_does(self):
        of = sheet()
        sound = readings(GOOD | {"end_clearance": 0.12}, of)
        explained = assess(job_record(symptom="low_flow", readings=sound)).explained
        self.assertEqual(explained.explains, ())
        self.assertIn("Nothing found explains", explained.sentence.render(Units.MM))
        noise = assess(job_record(symptom="noise", readings=sound)).explained
        self.assertIn("Starved suction", noise.sentence.render(Units.MM))
        not_looked = assess(job_record(symptom="noise", readings=sound, looks={})).explained
        self.assertIn("look first at bearings", not_looked.sentence.render(Units.MM))
        self.assertIsNone(assess(job_record(symptom="planned")).explained)

    def test_every_suspect_is_a_feature(self):
        for family in FAMILIES.values():
            for symptom in family.symptoms:
                self.assertEqual([k for k in symptom.suspects if k not in family.by_key], [])
            for rule in family.replaced_with:
                self.assertTrue({rule.changed, *rule.also} <= set(family.by_key))


class Builds(unittest.TestCase):
    def test_only_what_the_build_has(self):
        family = FAMILIES["internal_gear"]
        housing = family.built(family.complete({"means": "housing", "seal": "packed"}))
        gaskets = family.built(family.complete({"means": "gaskets", "seal": "mechanical", "relief": "fitted"}))
        self.assertIn("half_rings", housing.by_key)
        self.assertNotIn("half_rings", gaskets.by_key)
        keys = [{s.key for s in f.steps} for f in (housing, gaskets)]
        self.assertTrue({"packing_out", "housing_out"} <= keys[0] and {"seat_out", "bearing_out", "relief_faces"} <= keys[1])
        self.assertFalse({"seat_out", "relief_faces"} & keys[0] or {"packing_out", "housing_out"} & keys[1])
        self.assertIs(housing, family.built(family.complete({"means": "housing", "seal": "packed"})))
        for build in ({"colour": "red"}, {"seal": "glued"}):
            with self.assertRaises(FieldError):
                family.complete(build)

    def test_every_condition_names_a_choice_there_is(self):
        for family in FAMILIES.values():
            choices = {o.key: {c for same in family.options if same.key == o.key for c in same.choices} for o in family.options}
            for thing in (*family.features, *family.steps, *family.stacks):
                for option, wanted in thing.when.items():
                    self.assertTrue(set(wanted) <= choices[option], thing)


class Procedures(unittest.TestCase):
    FAMILY = FAMILIES["internal_gear"]

    def steps(self):
        return [{"key": s.key, "stage": s.stage.value} for s in self.FAMILY.steps]

    def test_a_shop_rewords_reorders_and_adds(self):
        data = self.steps()
        data[0], data[1] = data[1] | {"text": "Our words."}, data[0]
        data.insert(2, {"key": "own-1", "stage": "prepare", "text": "Tell the shift leader.", "hold": True})
        shop = in_force(self.FAMILY, read_steps(data, self.FAMILY))
        first = shop.steps_of(Stage.PREPARE)[:3]
        self.assertEqual([s.key for s in first], ["ready", "identify", "own-1"])
        self.assertEqual((first[0].text, first[2].hold), ("Our words.", True))
        isolate = next(s for s in shop.steps if s.key == "isolate")
        self.assertTrue(isolate.hold and isolate.caution)

    def test_what_a_shop_may_not_do(self):
        good = self.steps()
        for data, says in (
            (good[1:], "is missing"),
            ([*good, good[0]], "given twice"),
            ([*good, {"key": "other", "stage": "prepare", "text": "x"}], "has no step other"),
            ([*good, {"key": "own-1", "stage": "lunch", "text": "x"}], "is no stage"),
            ([*good, {"key": "own-1", "stage": "prepare", "text": " "}], "has no words"),
            ([{**good[0], "stage": "strip"}, *good[1:]], "cannot move to another stage"),
            ([*good, {"key": "own-1", "stage": "prepare", "text": "x" * 500}], "too long"),
        ):
            with self.subTest(says=says), self.assertRaisesRegex(FieldError, says):
                read_steps(data, self.FAMILY)

    def test_a_step_new_to_the_application_finds_its_place_in_an_older_version(self):
        kept = tuple(ShopStep(s.key, s.stage.value) for s in self.FAMILY.steps if s.key != "pressure")
        keys = [s.key for s in in_force(self.FAMILY, kept).steps]
        self.assertEqual(keys.index("pressure"), keys.index("isolate") + 1)

    def test_values_are_told_where_they_are_known(self):
        step = next(s for s in self.FAMILY.steps if s.key == "bolts")
        self.assertEqual([render(said, Units.MM) for said in told(step, {"head_bolts": "6"})], ["Expect 6 head bolts."])
        self.assertEqual(told(step, {}), ())
        nut = next(s for s in self.FAMILY.steps if s.key == "nut")
        self.assertEqual(told(nut, {}), ("Block with brass or hardwood.",))


class WhatIsSet(unittest.TestCase):
    def test_a_gap_with_neither_limit_nor_size_is_measured_all_the_same(self):
        feature = Feature("x", 1, "Extra", "Part", FeatureKind.RUNOUT, stations(("",), ("a", "b")))
        self.assertTrue(feature.kind.is_gap and feature.kind.taken)
        bare = states(
            readings=readings(GOOD, sheet())
            | {("shaft_runout", Phase.FOUND): (StationReading("at the seal", "", 0.03, MICROMETER),)}
        )
        self.assertEqual(bare["shaft_runout"].found.value_mm, 0.03)
        self.assertIsNone(bare["shaft_runout"].found_judgement)
        self.assertFalse(bare["shaft_runout"].wanted)
        finished = assess(job_record(tries=(TryMade((Check(0.12, 0.003, math.inf),), moved=18.85),)))
        self.assertEqual(finished.blockers, ())
