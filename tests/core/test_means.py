"""Shims, the timing gear, cover gaskets, fixed gaps: against brute force, a solver, and the geometry run backwards."""

import itertools
import math
import unittest
from collections import Counter
from fractions import Fraction

from hypothesis import assume, given, settings
from hypothesis import strategies as st

from finegap.core.calculators import calculator
from finegap.core.entry import Entry
from finegap.core.errors import FieldError
from finegap.core.families.family import GapWords
from finegap.core.formatting import Units, render
from finegap.core.gap import gaskets
from finegap.core.gap.move import Window
from finegap.core.gap.shims import Faces, Wanted, choose_shims, move_for, wanted_of, what_to_buy
from finegap.core.gap.timing import Timing
from finegap.core.gap.timing import move_for as turn
from finegap.core.gap.tries import Check, TryMade, feeler_check
from finegap.core.measuring.verdict import School, Verdict
from finegap.core.result_lines import Status
from tests.core.setting import (
    CouplingMeans,
    GasketMeans,
    RingMeans,
    ShimMeans,
    TimingMeans,
    set_by_gaskets,
    set_by_nothing,
    set_by_ring,
    set_by_shims,
    set_by_timing,
)  # fmt: skip
from tests.core.solvers import shims_by_solver, shims_by_trying

FRONT, BACK = Window(0.14, 0.11, 0.17), Window(0.20, 0.16, 0.24)
WANTED = wanted_of(FRONT, BACK, 0.03)
WORDS = GapWords("total side gap", "under the cover", "rotor and end cover")


def sharp(*values):
    return tuple(Check(v, 0.001, math.inf) for v in values)


@st.composite
def pumps(draw, thickness=(10, 120), sizes=(1, 4), most=2):
    """A stock and two rotors that some shims may or may not bring home."""
    stock = draw(st.dictionaries(st.integers(*thickness), st.integers(1, most), min_size=sizes[0], max_size=sizes[1]))
    rotors = []
    for _ in range(2):
        front = draw(st.integers(60, 420))
        rotors.append(Faces(front, draw(st.integers(300, 400)) - front, ()))
    return stock, rotors


class Shims(unittest.TestCase):
    @given(pumps(), st.sampled_from([0, 10, 30, 80]))
    @settings(max_examples=150)
    def test_against_brute_force(self, pump, difference):
        stock, rotors = pump
        wanted = Wanted(WANTED.front_um, WANTED.back_um, difference)
        self.agrees(choose_shims(stock, rotors, wanted), shims_by_trying(stock, rotors, wanted), stock, rotors, wanted)

    @given(pumps((20, 300), (10, 30), 8))
    @settings(max_examples=25)
    def test_against_a_general_purpose_solver(self, pump):
        stock, rotors = pump
        self.agrees(choose_shims(stock, rotors, WANTED), shims_by_solver(stock, rotors, WANTED), stock, rotors, WANTED)

    def agrees(self, choice, expected, stock, rotors, wanted):
        if expected is None:
            self.assertIsNone(choice.stacks)
            return
        self.assertIsNotNone(choice.stacks)
        self.assertEqual((sum(map(len, choice.stacks)), choice.error_um), expected)
        self.assertFalse(Counter(choice.stacks[0]) + Counter(choice.stacks[1]) - Counter(stock), "more than there is")
        after = [rotor.moved(sum(stack)) for rotor, stack in zip(rotors, choice.stacks, strict=True)]
        for front, back in after:
            self.assertTrue(wanted.front_um[0] <= front <= wanted.front_um[2] and wanted.back_um[0] <= back <= wanted.back_um[2])
        for one, other in zip(*after, strict=True):
            self.assertLessEqual(abs(one - other), wanted.difference_um)

    def test_a_shim_moves_the_rotor_forward(self):
        """Trade: a shim of thickness s behind the front bearing makes f - s and b + s."""
        self.assertEqual(Faces(300, 100, (50,)).moved(150), (200, 200))

    def test_one_shelf_for_both_shafts(self):
        """Each could have the one thick shim; together they cannot."""
        rotors = [Faces(240, 100), Faces(240, 100)]
        self.assertEqual(choose_shims({100: 2}, rotors, WANTED).stacks, ((100,), (100,)))
        one = choose_shims({100: 1, 60: 1, 40: 1}, rotors, WANTED)
        self.assertEqual(sorted(map(sorted, one.stacks)), [[40, 60], [100]])
        self.assertIsNone(choose_shims({100: 1}, rotors, WANTED).stacks)

    @given(pumps(sizes=(1, 3)))
    @settings(max_examples=30)
    def test_what_to_buy_does_it_and_less_does_not(self, pump):
        stock, rotors = pump
        choice = choose_shims(stock, rotors, WANTED)
        assume(choice.stacks is None and not choice.shut)
        sold, best = (25, 50, 100), ()
        for bought in (1, 2):
            fits = []
            for extra in itertools.combinations_with_replacement(sold, bought):
                found = choose_shims(Counter(stock) + Counter(extra), rotors, WANTED)
                if found.stacks is not None:
                    fits.append((sum(map(len, found.stacks)), found.error_um, extra))
            if fits:
                best = min(fits)[2]
                break
        self.assertEqual(what_to_buy(stock, sold, rotors, WANTED), best)

    def test_what_is_typed_has_bounds_that_are_named(self):
        sizes = {f"{side}_{i}": "0.2" for i in (1, 2) for side in ("front", "back")}
        ends = {"low": "0.1", "target": "0.2", "high": "0.3"}
        windows = {f"{side}_{end}": mm for side in ("front", "back") for end, mm in ends.items()}
        usual = {"shims_1": "0.1", "shims_2": "0.1", "stock": "0.05 x 6", "difference": "0.03"} | sizes | windows
        calculator("shims").run(usual, Entry(Units.MM))
        many = "; ".join(f"{i / 100:g}" for i in range(1, 62))
        for key, typed, field in (
            ("stock", "0.05 x 1000000000", "stock"), ("stock", many, "stock"), ("stock", "51 x 2", "stack"),
            ("shims_2", "0.05 x 61", "shims of shaft 2"), ("front_high", "1.2", "front high"), ("difference", "2", "difference"),
        ):  # fmt: skip
            with self.subTest(key=key, typed=typed[:20]), self.assertRaises(FieldError) as caught:
                calculator("shims").run(usual | {key: typed}, Entry(Units.MM))
            self.assertEqual(caught.exception.field, field)

    def test_rotors_no_shims_make_alike(self):
        """A shim moves front and back of a rotor against each other: their sum stays, so two sums too far apart stay apart."""
        move, changes, choice = move_for((Faces(140, 200), Faces(165, 236)), FRONT, BACK, 0.03, {10: 40}, (10, 25))
        self.assertEqual((changes, choice.unlike, choice.buy), (None, True, ()))
        self.assertIn("no shim makes the rotors stand alike", move.details[0].render(Units.MM))
        self.assertFalse(move_for((Faces(140, 200), Faces(165, 235)), FRONT, BACK, 0.03, {10: 40}, (10, 25))[2].unlike)

    def test_a_job_from_trial_to_right_and_what_it_says_on_the_way(self):
        means, box = ShimMeans((50, 100), 100, 0.03), {100: 4, 50: 4}
        first = set_by_shims(means, FRONT, BACK, [], School.GUARDED, box)
        self.assertIn("0.10 mm behind both front bearings", first.move.headline.render(Units.MM))
        self.assertIn("never assemble", first.move.details[-1].render(Units.MM))
        stacks = tuple(change.next for change in first.changes)
        tries = [TryMade(sharp(0.19, 0.15, 0.14, 0.20), stacks=stacks)]
        second = set_by_shims(means, FRONT, BACK, tries, School.GUARDED, {100: 2, 50: 4})
        self.assertFalse(second.right)
        self.assertEqual(second.move.headline.render(Units.MM), "Drive shaft: put in 0.05 mm")
        self.assertIs(second.tries[-1].results[4].judgement.verdict, Verdict.CHANGE)  # the rotors differ by 0.05
        tries.append(TryMade(sharp(0.14, 0.20, 0.14, 0.20), stacks=((100, 50), (100,))))
        third = set_by_shims(means, FRONT, BACK, tries, School.GUARDED, {100: 2, 50: 3})
        self.assertTrue(third.right)
        self.assertIsNone(third.mismatch)
        # the shim that went behind the other shaft's bearing
        crossed = [*tries[:1], TryMade(sharp(0.19, 0.15, 0.09, 0.25), stacks=((100, 50), (100,)))]
        said = set_by_shims(means, FRONT, BACK, crossed, School.GUARDED, {100: 2, 50: 3}).mismatch
        self.assertIn("Drive shaft, front", said.render(Units.MM))
        self.assertIn("behind the other shaft's bearing", set_by_shims(
            means, FRONT, BACK, [*tries[:1], TryMade(sharp(0.24, 0.10, 0.14, 0.20), stacks=((100, 50), (100,)))],
            School.GUARDED, {100: 2, 50: 3},
        ).mismatch.render(Units.MM))  # fmt: skip

    @given(st.tuples(*[st.integers(-60, 60)] * 2), st.tuples(*[st.integers(-25, 25)] * 2), st.floats(0.001, 0.006))
    def test_shims_as_told_are_called_right_by_the_next_check(self, off, spare, half):
        """Not only inside the windows: so far inside that a check as good as the last leaves no doubt."""
        means, box = ShimMeans((20, 50, 100), 100, 0.04), {20: 8, 50: 6, 100: 4}

        def check(mm):
            return feeler_check(mm - half, mm + half)[0]

        gaps = [v / 1000 for o, s in zip(off, spare, strict=True) for v in (140 + o, 200 - o + s)]
        found = [TryMade(tuple(check(gap) for gap in gaps), stacks=((100,), (100,)))]
        told = set_by_shims(means, FRONT, BACK, found, School.GUARDED, box)
        assume(told.choice.stacks and not told.right)
        moved = [(sum(stack) - 100) / 1000 for stack in told.choice.stacks for _ in (0, 1)]
        after = [gap + sign * move for gap, sign, move in zip(gaps, (-1, 1, -1, 1), moved, strict=True)]
        tries = [*found, TryMade(tuple(check(gap) for gap in after), stacks=told.choice.stacks)]
        again = set_by_shims(means, FRONT, BACK, tries, School.GUARDED, box)
        self.assertTrue(again.right, again.move.headline.render(Units.MM))

    def test_where_the_stock_allows_no_more_that_is_said(self):
        """A depth gauge good to 0.026 mm in a window of 0.06: both rotors nearer to the middle, by half of its doubt."""
        front, back, box = Window(0.19, 0.16, 0.22), Window(0.11, 0.08, 0.14), {25: 8, 50: 6, 75: 4, 100: 4}
        means, coarse = ShimMeans((25, 50), 250, 0.04), (0.013, 0.0035, 0.013, 0.0035)
        read = [Check(mm, u, math.inf) for mm, u in zip((0.215, 0.085, 0.255, 0.055), coarse, strict=True)]
        for school, added, says in ((School.GUARDED, [25, 50], "half the doubt"), (School.PLAIN, [0, 50], "")):
            told = set_by_shims(means, front, back, [TryMade(tuple(read), stacks=((250,), (250,)))], school, box)
            self.assertEqual([sum(stack) - 250 for stack in told.choice.stacks], added)
            self.assertIn(says, " ".join(note.render(Units.MM) for note in told.move.working.notes))

    def test_gaskets_as_told_are_called_right_by_the_next_check(self):
        means, box = GasketMeans((30, 50, 100), 100), {30: 4, 50: 4, 100: 4}
        window = Window(0.15, 0.13, 0.18)
        for gap in (0.10, 0.125, 0.21, 0.30):
            for half in (0.002, 0.010):
                with self.subTest(gap=gap, half=half):
                    tries = [TryMade((feeler_check(gap - half, gap + half)[0],), stacks=((100, 100),))]
                    told = set_by_gaskets(means, window, tries, School.GUARDED, box)
                    after = gap + (sum(told.choice.stack) - 200) / 1000
                    tries.append(TryMade((feeler_check(after - half, after + half)[0],), stacks=(told.choice.stack,)))
                    self.assertTrue(set_by_gaskets(means, window, tries, School.GUARDED, box).right)

    def test_what_no_shim_can_do_is_said_with_the_reason(self):
        means = ShimMeans((50, 100), 0, 0.03)
        wide = [TryMade(sharp(0.30, 0.30, 0.14, 0.20), stacks=((), ()))]
        shut = set_by_shims(means, FRONT, BACK, wide, School.PLAIN, {50: 9})
        self.assertIn("drive shaft's rotor fits no shim", shut.move.headline.render(Units.MM))
        self.assertIn("together are 0.600 mm", shut.move.details[0].render(Units.MM))
        short = [TryMade(sharp(0.24, 0.10, 0.14, 0.20), stacks=((), ()))]
        self.assertIn("buy 0.10 mm", set_by_shims(means, FRONT, BACK, short, School.PLAIN, {}).move.headline.render(Units.MM))

    def test_a_rotor_above_the_body_face_stops(self):
        typed = {"front_1": "-0.01", "back_1": "0.35", "front_2": "0.14", "back_2": "0.20", "front_target": "0.14",
                 "front_low": "0.11", "front_high": "0.17", "back_target": "0.20",
                 "back_low": "0.16", "back_high": "0.24", "difference": "0.03",
                 "stock": "0.05 x 4"}  # fmt: skip
        above = calculator("shims").run(typed, Entry(Units.MM))[0]
        self.assertIs(above.status, Status.STOP)
        self.assertIn("never assemble", render(above.text, Units.MM))
        inch = calculator("shims").run(
            {k: (v if k == "stock" else f"{float(v)} mm") for k, v in typed.items()} | {"stock": "0.05 mm x 4"}, Entry(Units.IN)
        )
        self.assertEqual([x.status for x in inch[:2]], [Status.STOP, Status.STOP])
        self.assertIn("together are 0.0134 in", " ".join(render(x.text, Units.IN) for x in inch))


class TimingGear(unittest.TestCase):
    MESH = TimingMeans(Timing(84, 132), Window(0.25, 0.17, 0.33), 0.04)

    @given(st.integers(0, 600), st.integers(0, 600))
    def test_half_the_difference_at_the_pitch_radius(self, left, right):
        """Exact: e = (l - r)/2 along the pitch circle, e·D/d on the marks, e/(d/2) in radians."""
        move = turn(Timing(84, 132), left / 1000, right / 1000, Window(0, 0, 1), 0.04)
        shift = Fraction(left - right, 2000)
        self.assertAlmostEqual(
            move.change_mm, float(shift) if abs(shift) * Fraction(132, 84) >= Fraction(5, 1000) else 0, places=12
        )
        self.assertAlmostEqual(Timing(84, 132).arc_mm(float(shift)), float(shift * 132 / 84), places=12)
        self.assertAlmostEqual(math.radians(Timing(84, 132).angle_deg(float(shift))) * 42, float(shift), places=12)

    @given(st.floats(0, 0.5), st.floats(0, 0.5))
    def test_turned_as_it_says_both_gaps_are_alike(self, left, right):
        timing = self.MESH.timing
        move = turn(timing, left, right, Window(0, 0, 1), 0.04)
        along = timing.along_mm(timing.arc_mm(move.change_mm))  # towards the left closes the left gap
        self.assertAlmostEqual(left - along, right + along, delta=0.01)

    def test_towards_the_wider_gap_until_they_differ_by_no_more_than_the_sheet_says(self):
        first = set_by_timing(self.MESH, [], School.GUARDED)
        self.assertIn("measure both mesh gaps", first.move.headline.render(Units.MM))
        tries = [TryMade(sharp(0.20, 0.32), moved=0.0)]
        second = set_by_timing(self.MESH, tries, School.GUARDED)
        self.assertIn("towards the wider gap, right: 0.09 mm along its marks", second.move.headline.render(Units.MM))
        self.assertIs(second.tries[0].results[2].judgement.verdict, Verdict.CHANGE)
        tries.append(TryMade(sharp(0.26, 0.26), moved=-self.MESH.timing.arc_mm(0.06)))
        third = set_by_timing(self.MESH, tries, School.GUARDED)
        self.assertTrue(third.right)
        self.assertIsNone(third.mismatch)
        wrong = [tries[0], TryMade(sharp(0.14, 0.38), moved=-self.MESH.timing.arc_mm(0.06))]
        self.assertIn("turned away from the wider gap", set_by_timing(self.MESH, wrong, School.GUARDED).mismatch.render(Units.MM))

    def test_two_gaps_too_narrow_together_are_not_for_the_gear(self):
        move = turn(self.MESH.timing, 0.20, 0.10, self.MESH.window, 0.04)
        self.assertIn("cannot help", move.headline.render(Units.MM))
        with self.assertRaisesRegex(FieldError, "pitch_diameter"):
            Timing(0, 100)


class Covers(unittest.TestCase):
    WINDOW = Window(0.22, 0.18, 0.27)
    MEANS = GasketMeans((50, 100, 150), 200, "cylinder_length", "rotor_length")

    @given(st.integers(-20, 150))
    def test_cylinder_and_gaskets_less_rotor(self, offset_um):
        """Trade: total side gap = cylinder length + compressed gaskets - rotor length."""
        known = gaskets.MetalGap(180 + offset_um / 1000, 180, "cylinder", "rotor")
        box = {50: 6, 100: 4, 150: 2}
        setting = set_by_gaskets(self.MEANS, self.WINDOW, [], School.PLAIN, box, WORDS, known)
        gap = offset_um / 1000 + sum(setting.change.next) / 1000
        self.assertTrue(0.18 - 1e-9 <= gap <= 0.27 + 1e-9)
        self.assertIn("under the cover", setting.move.headline.render(Units.MM))
        # a check that agrees with the sizes is right at once
        after = set_by_gaskets(
            self.MEANS, Window(gap, gap - 0.03, gap + 0.03), [TryMade(sharp(gap), stacks=(setting.change.next,))],
            School.GUARDED, box, WORDS, known,
        )  # fmt: skip
        self.assertTrue(after.right)

    def test_a_vane_as_long_as_the_rotor_is_stopped(self):
        typed = {
            "cylinder": "180.01",
            "rotor": "179.95",
            "target": "0.22",
            "low": "0.18",
            "high": "0.27",
            "stock": "0.05 x 6; 0.10 x 2",
        }
        for vane, status in (("179.80", Status.GOOD), ("179.95", Status.STOP)):
            self.assertIs(calculator("cover-gasket").run(typed | {"vane": vane}, Entry(Units.MM))[-1].status, status)
        self.assertIs(calculator("cover-gasket").run(typed | {"stock": "1.0 x 1"}, Entry(Units.MM))[0].status, Status.STOP)


class NothingAndLeaves(unittest.TestCase):
    WINDOW = Window(0.10, 0.08, 0.13)

    def test_a_fixed_gap_is_only_checked(self):
        said = [
            set_by_nothing(self.WINDOW, [TryMade(sharp(g)) for g in tries], School.GUARDED, WORDS)
            for tries in ((), (0.2,), (0.02,), (0.1,))
        ]
        headlines = [s.move.headline.render(Units.MM) for s in said]
        for headline, word in zip(headlines, ("nothing adjusts it", "too wide", "too narrow", "is right"), strict=True):
            self.assertIn(word, headline)
        self.assertEqual([s.right for s in said], [False, False, False, True])

    def test_a_coupling_names_the_side_that_is_never_touched(self):
        """Common practice, no source: the motor side never; the bearing 1 to 1.5 mm below its cover face."""
        coupled = set_by_ring(CouplingMeans((1.0, 1.5)), self.WINDOW, [], School.GUARDED)
        words = " ".join(d.render(Units.MM) for d in coupled.move.details)
        self.assertIn("motor side never touched", words)
        self.assertIn("1.00 mm to 1.50 mm below the cover face", words)
        ring = set_by_ring(RingMeans(), self.WINDOW, [], School.GUARDED)
        self.assertNotIn("motor", " ".join(d.render(Units.MM) for d in ring.move.details))
