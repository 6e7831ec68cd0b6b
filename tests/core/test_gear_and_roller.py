"""A gasket at each end of a gear pump, against brute force and a general-purpose solver; a roller pump tapped across."""

import unittest

import GTC
from hypothesis import given, settings
from hypothesis import strategies as st

from finegap.core.calculators import calculator
from finegap.core.entry import Entry
from finegap.core.errors import FieldError
from finegap.core.formatting import Units, render
from finegap.core.gap import tap
from finegap.core.gap.gasket_pair import MOST_AN_END, GearEnds, PairWanted, choose_pair
from finegap.core.result_lines import Status
from tests.core.solvers import pair_by_solver, pair_by_trying
from tests.core.test_building import TYPED

WANTED = PairWanted(100, 125, 150)
GEARS = st.lists(st.builds(GearEnds, st.integers(-400, 60), st.integers(-80, 80)), min_size=2, max_size=2)


class Pairs(unittest.TestCase):
    def agrees(self, stock, gears, wanted, best):
        choice = choose_pair(stock, gears, wanted)
        if best is None:
            self.assertIsNone(choice.stacks)
            return
        self.assertIsNotNone(choice.stacks, (stock, gears, best))
        front, back = choice.stacks
        self.assertEqual((choice.uneven_um, len(front) + len(back), choice.error_um), best)
        self.assertTrue(all((front + back).count(t) <= stock[t] for t in set(front + back)))
        for gear in gears:
            self.assertTrue(wanted.low_um <= gear.bare_um + sum(front + back) <= wanted.high_um)
        self.assertEqual(choice.uneven_um, max(abs(g.ahead_um + sum(front) - sum(back)) for g in gears))

    @given(st.dictionaries(st.integers(20, 250), st.integers(0, 3), min_size=1, max_size=4), GEARS)
    @settings(deadline=None)
    def test_the_same_optimum_as_trying_every_way(self, stock, gears):
        self.agrees(stock, gears, WANTED, pair_by_trying(stock, gears, WANTED))

    @given(st.dictionaries(st.integers(20, 400), st.integers(0, 9), min_size=5, max_size=9), GEARS)
    @settings(deadline=None, max_examples=12)
    def test_the_same_optimum_as_a_general_purpose_solver(self, stock, gears):
        self.agrees(stock, gears, WANTED, pair_by_solver(stock, gears, WANTED))

    def test_by_hand(self):
        """Housing less plates less gear leaves -0.30 and -0.29 mm: gaskets of 0.40 to 0.44 mm make 0.10 to 0.15 of it."""
        gears = (GearEnds(-300), GearEnds(-290))
        choice = choose_pair({200: 2, 210: 2, 420: 1}, gears, WANTED)
        self.assertEqual(choice.totals, (400, 440))
        # alike before near the target: 0.21 and 0.21 leave 0.12 and 0.13, the ends alike
        self.assertEqual((choice.stacks, choice.uneven_um, choice.error_um), (((210,), (210,)), 0, 5))
        # where the metal has 0.01 more in front, the thinner goes there
        ahead = (GearEnds(-300, 10), GearEnds(-290, 10))
        self.assertEqual(choose_pair({200: 2, 210: 2}, ahead, WANTED).stacks, ((200,), (210,)))

    def test_both_ends_are_sealed_and_gears_too_unlike_have_no_pair(self):
        self.assertIsNone(choose_pair({420: 1}, (GearEnds(-300), GearEnds(-300)), WANTED).stacks)
        apart = choose_pair({200: 9}, (GearEnds(-300), GearEnds(-240)), WANTED)
        self.assertEqual((apart.stacks, apart.totals), (None, (400, 390)))
        self.assertIsNone(choose_pair({10: 99}, (GearEnds(-300), GearEnds(-300)), WANTED).stacks)  # 8 an end are 0.16 mm

    def test_many_thicknesses_are_chosen_from_at_once(self):
        stock = {50 + 7 * i: 8 for i in range(60)}
        choice = choose_pair(stock, (GearEnds(-700, 3), GearEnds(-705, -4)), WANTED)
        self.assertIsNotNone(choice.stacks)
        self.assertTrue(all(1 <= len(stack) <= MOST_AN_END for stack in choice.stacks))

    def test_what_cannot_be_is_refused(self):
        gear = (GearEnds(-300), GearEnds(-300))
        for stock, gears, wanted, field in (
            ({0: 1}, gear, WANTED, "stock"),
            ({100: -1}, gear, WANTED, "stock"),
            ({100: 1}, (), WANTED, "window"),
            ({100: 1}, gear, PairWanted(150, 125, 100), "window"),
            ({100: 1}, (GearEnds(-20_000),), WANTED, "gaskets"),
        ):
            with self.subTest(field=field), self.assertRaises(FieldError) as caught:
                choose_pair(stock, gears, wanted)
            self.assertEqual(caught.exception.field, field)


class QuickFigure(unittest.TestCase):
    def run_one(self, units=Units.MM, **typed):
        lines = calculator("gasket-pair").run(TYPED["gasket-pair"] | typed, Entry(units))
        return lines[0].status, [render(line.text, units) for line in lines]

    def test_what_to_fit_and_what_it_comes_to(self):
        """80.10 mm of housing less 5.10, 5.10 and 70.20 or 70.19 leave -0.30 and -0.29; twice 0.21 leaves 0.12 and 0.13."""
        status, (what, become, alike) = self.run_one()
        self.assertEqual((status, what), (Status.GOOD, "Front: 0.21 mm. Back: 0.21 mm"))
        self.assertEqual(become, "Total end gap: 0.120 mm at the drive gear, 0.130 mm at the idler gear.")
        self.assertEqual(alike, "The two ends of a gear differ by 0.000 mm at most.")

    def test_what_cannot_be_is_said_with_its_reason(self):
        for typed, words in (
            ({"stock": "0.05 x 1"}, "take 0.400 mm to 0.440 mm"),
            ({"gear_2": "70.1"}, "differ by 0.100 mm"),
            ({"housing_1": "81", "housing_2": "81"}, "Look for a worn gear, plate or housing."),
        ):
            status, lines = self.run_one(**typed)
            with self.subTest(words):
                self.assertIs(status, Status.STOP)
                self.assertIn(words, lines[1])
        with self.assertRaises(FieldError):
            self.run_one(ahead_1="2")


class Tapped(unittest.TestCase):
    @given(st.integers(0, 300), st.integers(0, 300), st.integers(0, 60))
    def test_the_rotor_goes_towards_the_wider_gap_until_both_are_alike(self, front, back, difference):
        """In micrometres: driven from the end whose gap is smaller by what is said, both gaps are alike."""
        move = tap.move_for(front / 1000, back / 1000, difference / 1000)
        said = render(move.headline, Units.MM)
        self.assertEqual("leave the shaft" in said, abs(front - back) <= difference)
        if abs(front - back) <= difference:
            return
        way = move.change_mm * 1000 * (1 if "front end" in said else -1)
        self.assertAlmostEqual(front + way, back - way, 6)

    def test_both_sides_together_are_held_against_the_sizes(self):
        for typed, status in (({}, Status.GOOD), ({"front": "0.2"}, Status.CARE), ({"rotor": "40.1"}, Status.STOP)):
            lines = calculator("tap").run(TYPED["tap"] | typed, Entry(Units.MM))
            together = next(line for line in lines if line.name == "Both sides together")
            self.assertIs(together.status, status, typed)
        with self.assertRaises(FieldError) as caught:
            calculator("tap").run(TYPED["tap"] | {"rotor": ""}, Entry(Units.MM))
        self.assertEqual(caught.exception.field, "rotor width")


class EndGap(unittest.TestCase):
    def test_the_sum_and_its_doubt_as_gtc_has_them(self):
        """GTC 1.5.1 propagates the same six sizes, each with U 0.004 mm at k = 2."""
        sizes = {"housing": 80.10, "front": 0.21, "back": 0.21, "front_plate": 5.10, "back_plate": 5.10, "gear": 70.20}
        of = {key: GTC.ureal(mm, 0.002) for key, mm in sizes.items()}
        theirs = of["housing"] + of["front"] + of["back"] - of["front_plate"] - of["back_plate"] - of["gear"]
        lines = calculator("end-gap").run(TYPED["end-gap"], Entry(Units.MM))
        u = 1.96 * GTC.uncertainty(theirs)
        self.assertEqual(render(lines[0].text, Units.MM), f"{GTC.value(theirs):.3f} ± {u:.3f} mm")
        self.assertEqual(render(lines[1].text, Units.MM), "0.065 mm in front, 0.055 mm behind, with the gear where it was measured")

    def test_a_gear_that_touches_is_a_stop(self):
        for typed in ({"gear": "70.7"}, {"ahead": "0.3"}):
            lines = calculator("end-gap").run(TYPED["end-gap"] | typed, Entry(Units.MM))
            self.assertIs(lines[-1].status, Status.STOP)
