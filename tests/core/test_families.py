"""What the families declare, held against the trade: seals in their order, disc springs, vanes as a set, lubrication due."""

import json
import unittest
from pathlib import Path

import numpy as np
from hypothesis import given
from hypothesis import strategies as st
from scipy import integrate, optimize

from finegap.core.assembly.disc_spring import DiscSpring, SpringStack, preload_lines
from finegap.core.assembly.stacking import Fitted, Used, stack_state
from finegap.core.calculators import calculator
from finegap.core.entry import Entry
from finegap.core.errors import FieldError
from finegap.core.families import FAMILIES
from finegap.core.families.features import FeatureKind
from finegap.core.families.steps import Stage
from finegap.core.formatting import Units, render
from finegap.core.result_lines import Status
from finegap.core.sheet import read_sheet
from finegap.core.wear.hours import check_replaced
from finegap.core.wear.lubrication import Metered, Plan, due, hours_a_week, together
from tests.references import VALUES


def demo_sheet(slug):
    return json.loads((Path(__file__).parents[2] / "demo" / "sheets" / f"{slug}.json").read_text())


PISTON, VANE = FAMILIES["circumferential_piston"], FAMILIES["sliding_vane"]
DISCS = st.builds(
    lambda d, ratio, t, cone: DiscSpring(d, d / ratio, t, cone * t),
    st.floats(20, 120), st.floats(1.5, 2.6), st.floats(0.5, 6), st.floats(0.2, 1.3),
)  # fmt: skip


class DiscSprings(unittest.TestCase):
    def test_loads_of_din_2093_and_the_constants_of_din_2092(self):
        """belleville-01: catalogue loads at three quarters of the cone; -03: K1 at a ratio of 2; -04: packets and series."""
        of = VALUES["belleville-01"]
        for sizes, load in zip(of["inputs"]["De_Di_t_h0_s_mm"], of["expected"], strict=True):
            self.assertAlmostEqual(DiscSpring(*sizes[:4]).load_n(sizes[4]) / load, 1, delta=of["tolerance"]["rel"])
        self.assertAlmostEqual(DiscSpring(40, 20, 2, 1).k1, VALUES["belleville-03"]["expected"], delta=0.001)
        of = VALUES["belleville-04"]
        disc = DiscSpring(*(of["inputs"][k] for k in ("De", "Di", "t", "h0")))
        stack = SpringStack(disc, of["inputs"]["n_parallel"], of["inputs"]["i_series"])
        self.assertAlmostEqual(stack.load_n(of["inputs"]["s_total"]) / of["expected"]["F_N"], 1, places=6)

    @given(DISCS)
    def test_its_load_is_the_slope_of_the_energy_it_stores(self, disc):
        """The energy of the same theory, U(s) = c·[s²·((h−s/2)² + t²)/2], differentiated numerically."""
        c = 4 * disc.modulus_mpa / (1 - disc.poisson**2) * disc.thickness_mm / (disc.k1 * disc.outside_mm**2)
        h, t = disc.cone_mm, disc.thickness_mm
        work, _ = integrate.quad(disc.load_n, 0, h)
        # antiderivative of s·((h − s)(h − s/2) + t²): h²s²/2 − h s³/2 + s⁴/8 + t²s²/2
        self.assertAlmostEqual(work / (c * (h**4 / 2 - h**4 / 2 + h**4 / 8 + t**2 * h**2 / 2)), 1, places=6)
        self.assertEqual(disc.load_n(0), 0)
        self.assertAlmostEqual(SpringStack(disc, 1, 3).load_n(3 * h), disc.flat_n)

    def test_what_a_reversed_or_missing_one_does_is_said(self):
        disc = DiscSpring(40, 20.6, 1.9, 0.95)
        lines = {line.name: line for line in preload_lines(disc, 0.08, (1_000, 2_000))}
        self.assertIs(lines["Missing, or reversed"].status, Status.CARE)
        self.assertIn("loose", render(lines["Missing, or reversed"].text, Units.MM))
        self.assertIs(lines["The nut's preload from its torque"].status, Status.GOOD)
        # not pressed flat it follows by less: the load of what is left of its own deflection, found again by a root finder
        own = optimize.brentq(lambda s: disc.load_n(s) - 1_000, 0, disc.cone_mm)
        self.assertAlmostEqual(lines["After the joint has settled"].text.amounts["held"].value, disc.load_n(own - 0.08), places=6)
        # settled past its cone nothing is left
        gone = preload_lines(disc, 1.0, None)
        self.assertIn("Nothing is left", render(gone[1].text, Units.MM))

    @given(DISCS, st.floats(0.01, 1.5), st.floats(1, 1.6))
    def test_a_preload_at_or_over_flat_is_asked_about(self, disc, share, spread):
        least, most = share * disc.flat_n, share * spread * disc.flat_n
        line = preload_lines(disc, 0.05, (least, most))[1]
        travels = np.linspace(0, disc.cone_mm, 4001)
        loads = np.array([disc.load_n(s) for s in travels])
        if most >= disc.flat_n or loads.max() < most:
            self.assertIs(line.status, Status.ASK)
        else:
            reached = travels[np.argmax(loads >= most)] / disc.cone_mm
            if abs(reached - 0.75) > 1e-3:
                self.assertIs(line.status, Status.GOOD if reached <= 0.75 else Status.CARE)
        self.assertIs(preload_lines(disc, 0.05, (disc.flat_n, disc.flat_n))[1].status, Status.ASK)

    def test_what_is_no_disc(self):
        for sizes, said in (
            ((40, 41, 2, 1), "inside"),
            ((40, 20, 7, 1), "thickness"),
            ((40, 20, 2, 0), "cone"),
            ((40, 20, 0, 1), "thickness"),
        ):
            with self.subTest(sizes=sizes), self.assertRaisesRegex(FieldError, said):
                DiscSpring(*sizes)
        for travel in (-0.1, 1.2):
            with self.assertRaisesRegex(FieldError, "past flat"):
                DiscSpring(40, 20, 2, 1).load_n(travel)
        typed = {"outside": "50", "inside": "25.4", "thickness": "3", "cone": "1.1", "travel": "5", "series": "3"}
        with self.assertRaises(FieldError):
            calculator("disc-spring").run(typed, Entry(Units.MM))


class Seals(unittest.TestCase):
    def build(self, seal):
        (stack,) = (s for s in PISTON.built(PISTON.complete({"seal": seal})).stacks if s.place == "seal")
        return stack

    SEALS = ("single_o", "double_o", "single_m", "double_m", "single_b", "double_b")

    def test_six_arrangements_each_in_its_own_order_and_no_other(self):
        """Any part out of its turn is stopped with what comes next; what lines up with what is asked before it is in."""
        orders = set()
        for seal in self.SEALS:
            stack = self.build(seal)
            orders.add(tuple(p.key for p in stack.parts))
            fitted = []
            for i, part in enumerate(stack.parts):
                state = stack_state(
                    stack, tuple(fitted), {"elastomer": "FKM"}, Used("mineral oil", 60, "mineral grease"), frozenset()
                )
                for later in stack.parts[i + 1 :]:
                    with self.assertRaises(FieldError, msg=(seal, later.key)):
                        state.check(later.key, True, False, "", Units.MM)
                if part.directed:
                    with self.assertRaises(FieldError, msg=(seal, part.key)):
                        state.check(part.key, False, False, "", Units.MM)
                self.assertEqual(state.check(part.key, True, False, "", Units.MM).key, part.key)
                fitted.append(Fitted(stack.key, part.key))
        self.assertEqual(len(orders), 6)

    def test_what_the_trade_says_of_them(self):
        """Common practice, no source: flats to flats, notches to pins, flush ports to the body's cut-outs; the cone to the nut."""
        meets = {(up.mark, up.to) for seal in self.SEALS for part in self.build(seal).parts for up in part.lines_up}
        self.assertLessEqual({("2 flats", "2 flats"), ("3 notches", "3 pins"), ("ports", "cut-outs"), ("3 ears", "3 bolts")}, meets)
        rotors = next(s for s in PISTON.built(PISTON.complete({})).stacks if s.place == "rotors")
        springs = [p for p in rotors.parts if "spring" in p.key]
        self.assertEqual({p.facing for p in springs}, {"cone towards the nut"})
        order = [p.key for p in rotors.parts]
        self.assertLess(order.index("rotor_drive"), order.index("rotor_driven"))
        self.assertIn("right angles", next(p for p in rotors.parts if p.key == "rotor_driven").facing)
        cover = next(s for s in PISTON.stacks if s.place == "cover")
        self.assertEqual({up.to for p in cover.parts for up in p.lines_up}, {"large dowel", "small dowel"})


class Vanes(unittest.TestCase):
    def test_every_vane_at_both_ends_and_the_middle(self):
        height = VANE.by_key["vane_height"]
        self.assertEqual({s.direction for s in height.stations}, {"left end", "middle", "right end"})
        self.assertEqual(height.kind, FeatureKind.EXTERNAL)  # the smallest of all of them decides for the set

    def test_as_many_vanes_as_the_sheet_counts(self):
        """Six vanes at three places each; four where the sheet does not say; what is no count is refused."""
        of = demo_sheet("ellhaven-v8-2")
        for details, count in (({"vanes": "6"}, 18), ({"vanes": "4"}, 12), ({}, 12)):
            family = read_sheet(of | {"details": details}).family_of({})
            self.assertEqual(len(family.by_key["vane_height"].stations), count)
            self.assertEqual(len(family.by_key["rotor_length"].stations), 4)
        self.assertEqual(family.by_key["vane_height"].stations[0].key, "vane 1/left end")
        for wrong in ("six", "0", "400", "-2"):
            with self.subTest(vanes=wrong), self.assertRaises(FieldError) as caught:
                read_sheet(of | {"details": {"vanes": wrong}})
            self.assertEqual(caught.exception.field, "details.vanes")

    def test_a_check_through_the_port_is_a_job_of_its_own(self):
        check = VANE.built(VANE.complete({"service": "lubricated", "scope": "check"}))
        self.assertEqual({f.key for f in check.features}, {"port_depth", "port_line"})
        self.assertFalse([s for s in check.steps if s.stage is Stage.BUILD])
        self.assertTrue(any(s.caution and "locked" in s.text for s in check.steps))
        dry, lubricated = (VANE.built(VANE.complete({"service": s})) for s in ("dry", "lubricated"))
        more = {s.key for s in lubricated.steps} - {s.key for s in dry.steps}
        self.assertEqual(more, {"flange_off", "plate_off", "plate_on", "flange_on", "ports_closed"})


class Lubrication(unittest.TestCase):
    """Common practice, for tests: oil and grease every 750 h, sooner where it is wet, silicone grease below -15 C."""

    OIL = Plan("Oil", 750, 400, "gear oil")
    GREASE = Plan("Grease", 750, None, "lithium", -15, "silicone grease")

    def test_by_hours_sooner_where_wet_other_grease_when_cold(self):
        meter = [Metered(1000, 4000), Metered(1070, 4420)]
        oil, grease = due([self.OIL, self.GREASE], meter, {"Oil": Metered(1000, 4000), "Grease": Metered(1010, 4100)}, False, -20)
        self.assertEqual((oil.left_h, oil.at_h, oil.day), (330, 4750, 1070 + 55))
        self.assertIn("silicone grease", grease.sentence.render(Units.MM))
        wet = due([self.OIL], meter, {"Oil": Metered(1000, 4000)}, True, None)[0]
        self.assertEqual((wet.left_h, wet.late), (-20, True))
        self.assertIn("past due", wet.sentence.render(Units.MM))
        self.assertIn("lithium", due([self.GREASE], meter, {}, False, 5)[0].sentence.render(Units.MM))

    @given(
        st.lists(st.tuples(st.integers(1, 60), st.integers(0, 500)), min_size=1, max_size=12),
        st.integers(100, 3000),
        st.integers(0, 4000),
    )
    def test_the_day_is_when_the_meter_gets_there(self, steps, every, done):
        """The inverse: at the rate of the meter, it stands at the hours due on the day that is told, to half a day."""
        day, hours = 700_000, 5000
        meter = [Metered(day, hours)]
        for days, more in steps:
            day, hours = day + days, hours + more
            meter.append(Metered(day, hours))
        rate = hours_a_week(meter)
        (one,) = due([Plan("Oil", every)], meter, {"Oil": Metered(700_000, done)}, False, None)
        self.assertEqual(one.left_h, done + every - hours)
        if one.left_h <= 0:
            self.assertEqual((one.day, one.late), (day, one.left_h < 0))  # due when the meter showed it, never back in time
        elif one.day is None:
            self.assertGreater(one.left_h, 19 * 52 * rate)
        else:
            self.assertAlmostEqual(hours + (one.day - day) * rate / 7, one.at_h, delta=rate / 7 * 0.5 + 1e-6)

    def test_a_meter_that_was_replaced_and_one_that_was_never_read(self):
        self.assertEqual(hours_a_week([Metered(0, 9000), Metered(7, 9100), Metered(14, 0), Metered(21, 50)]), 50)
        self.assertEqual(hours_a_week([Metered(0, 9000)], 40), 40)
        self.assertIsNone(hours_a_week([Metered(0, 9000)]))
        self.assertEqual(due([self.OIL], [], {}, False, None), ())

    @given(
        st.lists(st.tuples(st.integers(1, 60), st.integers(0, 500)), min_size=2, max_size=12),
        st.integers(1, 11),
        st.integers(0, 300),
        st.integers(0, 200),
    )
    def test_a_replaced_meter_changes_nothing_that_is_due(self, steps, swapped, old_ran_on, new_first):
        """The same hours, on one meter and with the meter replaced on the way: rate, hours left and day are the same."""
        swapped = min(swapped, len(steps) - 1)
        day, hours, one_meter, two_meters, lost = 1000, 4000, [Metered(1000, 4000)], [Metered(1000, 4000)], None
        for i, (days, more) in enumerate(steps):
            day, hours = day + days, hours + more
            one_meter.append(Metered(day, hours))
            if lost is None and i >= swapped - 1:
                ended = hours - more + min(old_ran_on, more)
                lost = ended - new_first
                two_meters.append(Metered(day, hours - lost, ended, new_first))
            else:
                two_meters.append(Metered(day, hours - (lost or 0)))
        done = {"Oil": Metered(1000, 4000)}
        (plain,), (through,) = (due([self.OIL], meter, done, False, None) for meter in (one_meter, two_meters))
        self.assertEqual(hours_a_week(one_meter), hours_a_week(two_meters))
        self.assertEqual((plain.left_h, plain.day, plain.late), (through.left_h, through.day, through.late))

    def test_what_is_said_of_a_replaced_meter_has_to_be_possible(self):
        check_replaced(150, 4100, 0, 4000)
        check_replaced(4100, None, 0, 4000)
        for wrong in ((150, 3999, 0, 4000), (150, 4100, 200, 4000), (3999, None, 0, 4000)):
            with self.subTest(said=wrong), self.assertRaises(FieldError):
                check_replaced(*wrong)

    def test_what_falls_due_within_two_weeks_is_one_visit(self):
        meter = [Metered(0, 0), Metered(70, 1000)]
        plans = [Plan("a", 1200), Plan("b", 1300), Plan("c", 2400)]
        groups = [[one.plan.name for one in group] for group in together(due(plans, meter, {}, False, None))]
        self.assertEqual(groups, [["a", "b"], ["c"]])
