"""Numbers round a drawing: shortest of all ways by brute force, nothing crossed or overlapped whatever is measured."""

import itertools
import json
import math
import unittest
from pathlib import Path

from hypothesis import given, settings
from hypothesis import strategies as st

from finegap.core.drawing.end_view import Centre, meets
from finegap.core.drawing.labels import APART_PX, RING_PX, TEXT_PX, Columns, Screen, columns, placed, width_px
from finegap.core.drawing.marks import clockwise
from finegap.core.drawing.section import Axis
from finegap.core.drawing.spots import Spot
from finegap.core.drawing.views import Pump
from finegap.core.drawn import Beside, drawn, faces_of, said
from finegap.core.errors import FieldError
from finegap.core.families import FAMILIES
from finegap.core.families.builds import belonging
from finegap.core.families.check import every_build
from finegap.core.families.features import FeatureKind
from finegap.core.formatting import Units
from finegap.core.sheet import read_sheet

AT = Columns(100, 300, 400, 3)
SPOT = st.tuples(st.floats(115, 285), st.floats(5, 395))


def length(spots, ports):
    return sum(math.dist(spot, port) for spot, port in zip(spots, ports, strict=True))


def side(a, b, c):
    return (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0])


def crossed(one, other):
    """Whether two straight leaders meet anywhere, by the sides their ends lie on."""
    (a, b), (c, d) = one, other
    return side(a, b, c) * side(a, b, d) <= 0 and side(c, d, a) * side(c, d, b) <= 0


def through(leader, box):
    """Whether a leader touches a box (left, top, right, bottom): an end in it, or one of its edges crossed."""
    left, top, right, bottom = box
    corners = [(left, top), (right, top), (right, bottom), (left, bottom)]
    inside = any(left <= x <= right and top <= y <= bottom for x, y in leader)
    return inside or any(crossed(leader, (corners[i - 1], corners[i])) for i in range(4))


def overlap(one, other):
    return one[0] < other[2] and other[0] < one[2] and one[1] < other[3] and other[1] < one[3]


def every_drawing():
    """Every sheet of the demo, which are of every family, in every build that has other features, in both units on both screens."""
    for path in sorted((Path(__file__).parents[2] / "demo/sheets").glob("*.json")):
        sheet = read_sheet(json.loads(path.read_text()))
        seen = set()
        for build in every_build(sheet.family):
            key = tuple(f.key for f in belonging(build, sheet.family.features))
            if key in seen:
                continue
            seen.add(key)
            family = sheet.family.built(sheet.family.complete(build))
            for units, screen in itertools.product(Units, Screen):
                yield family, sheet, units, screen


class Placing(unittest.TestCase):
    @given(st.lists(SPOT, min_size=1, max_size=4, unique=True))
    @settings(max_examples=60)
    def test_the_leaders_are_as_short_as_any_way_of_placing_them(self, spots):
        chosen = placed(dict(enumerate(spots)), AT)
        shortest = min(length(spots, ports) for ports in itertools.permutations(AT.ports, len(spots)))
        self.assertAlmostEqual(length(spots, [chosen[i] for i in range(len(spots))]), shortest, 6)
        self.assertEqual(len(set(chosen.values())), len(spots))

    def test_more_numbers_than_go_round_are_refused(self):
        self.assertEqual(columns(Screen.WIDE, 24, 100).rows, 12)
        with self.assertRaises(FieldError) as caught:
            columns(Screen.WIDE, 25, 100)
        self.assertIn("24 or fewer", caught.exception.hint)

    def test_a_width_is_the_sum_of_its_letters_and_an_unknown_letter_is_the_widest(self):
        self.assertAlmostEqual(width_px("34.142", bold=True), (5 * 528 + 300) * 14 / 1000)
        self.assertGreater(width_px("Ω"), width_px("W"))


class Proportions(unittest.TestCase):
    USUAL = {"outside": 140.0, "pin": 34.0, "shaft": 42.0}

    def test_a_size_that_is_not_printed_goes_with_those_that_are(self):
        self.assertEqual(Pump({}).sized(**self.USUAL), (140, 34, 42))
        self.assertEqual(Pump({}, {"outside": 70.0, "pin": 17.0}).sized(**self.USUAL), (70, 17, 21))
        # 18 mm for 17 is printed so; 60 would be a pin thicker than its idler
        self.assertEqual(Pump({}, {"outside": 70.0, "pin": 18.0, "shaft": 21.0}).sized(**self.USUAL)[1], 18)
        self.assertEqual(Pump({}, {"outside": 70.0, "pin": 60.0, "shaft": 21.0}).sized(**self.USUAL), (70, 17, 21))

    @given(st.floats(-40, 40), st.floats(-40, 40), st.floats(0, 360))
    def test_a_vane_reaches_the_cylinder(self, x, y, towards):
        reached = meets((x, y), towards, (0, 0), 62)
        self.assertAlmostEqual(math.hypot(*reached), 62, 6)
        away = math.dist((x, y), reached)
        self.assertAlmostEqual(math.dist(clockwise(towards, away, x, y), reached), 0, 6)

    def test_there_are_as_many_vanes_as_the_sheet_says(self):
        views = FAMILIES["sliding_vane"].views
        marks = [sum(m.of == "vane_height" for v in views(Pump({}, {}, {"vanes": n})) for m in v.marks) for n in (4, 6)]
        self.assertEqual(marks, [4, 6])


class Stations(unittest.TestCase):
    FACES = tuple((f"{p}/{d}", p, d) for p in ("front", "back") for d in ("12–6", "3–9"))

    def test_planes_follow_one_another_along_an_axis_and_a_diameter_is_marked_on_the_side_of_the_spot(self):
        for below, end in ((False, 0), (True, 20)):
            spot = Axis(10).on(0, 40, 20, below=below)
            self.assertEqual((spot.x, spot.y), (20, end))
            found = spot.stations(self.FACES)
            expected = {"front/12–6": (10, end), "front/3–9": (10, 10), "back/12–6": (30, end), "back/3–9": (30, 10)}
            for key, point in expected.items():
                self.assertAlmostEqual(math.dist(found[key], point), 0, 9, key)

    def test_twelve_o_clock_is_above_whatever_side_the_leader_ends_on(self):
        found = Axis(10).on(5, 0, 20, below=True).stations((hour, "", hour) for hour in ("12", "6"))
        self.assertEqual({hour: round(y, 9) for hour, (_, y) in found.items()}, {"12": 0, "6": 20})

    def test_places_that_are_no_directions_follow_one_another_too(self):
        found = Axis().on(0, 30, 0).stations((name, "", name) for name in ("at the bushing", "at the seal", "at the coupling"))
        self.assertEqual([x for x, _ in found.values()], [5, 15, 25])

    def test_the_clock_lies_round_a_centre_and_a_plane_behind_further_in(self):
        found = Centre(5, 5).on(90, 20).stations((hour, "", hour) for hour in ("12", "3", "6", "9"))
        for hour, point in {"12": (5, -5), "3": (15, 5), "6": (5, 15), "9": (-5, 5)}.items():
            self.assertAlmostEqual(math.dist(found[hour], point), 0, 9, hour)
        deep = Centre().on(90, 20).stations(self.FACES)
        self.assertEqual([round(math.hypot(*deep[f"{plane}/12–6"]), 3) for plane in ("front", "back")], [10, 9.2])

    def test_one_vane_after_another_has_a_place_of_its_own(self):
        vanes = [(f"vane {n}/{end}", f"vane {n}", end) for n in (1, 2) for end in ("left end", "right end")]
        found = Spot(0, 0, each=((1, 1), (2, 2))).stations(vanes)
        self.assertEqual([found[key] for key, *_ in vanes], [(1, 1), (1, 1), (2, 2), (2, 2)])
        self.assertEqual(Spot(0, 0).stations(vanes), {})

    def test_the_faces_are_those_of_the_parts_and_a_size_of_a_pair_has_its_partners(self):
        family = FAMILIES["internal_gear"].built(FAMILIES["internal_gear"].complete({}))
        of = {key: faces_of(family.by_key[key], family) for key in ("idler_bore", "idler_pin", "idler_clearance", "crescent")}
        self.assertEqual(of["idler_bore"], (("Idler pin", "Idler"), "idler_pin"))
        self.assertEqual(of["idler_pin"], (("Idler pin", "Idler"), "idler_bore"))
        self.assertEqual(of["idler_clearance"], (("Idler pin", "Idler"), ""))
        self.assertEqual(of["crescent"], (("Head", ""), ""))
        gaps = [f for f in family.features if f.kind is FeatureKind.GAP]
        self.assertEqual([faces_of(one, family)[0] for one in gaps if one.is_set], [("head", "rotor")])


class EveryDrawing(unittest.TestCase):
    def test_no_leader_crosses_anything_and_all_that_can_be_said_has_room(self):
        checked = 0
        for family, sheet, units, screen in every_drawing():
            for beside in Beside:
                with self.subTest(family.key, build=family.build, units=units, screen=screen, beside=beside):
                    self.check(family, sheet, units, screen, beside)
            checked += 1
        self.assertGreater(checked, 100)

    def check(self, family, sheet, units, screen, beside):
        of = drawn(family, sheet, units, screen, beside)
        self.assertEqual({n.key for n in of.numbers}, {f.key for f in family.features if not f.press})
        leaders = [(number.port, number.spot) for number in of.numbers]
        boxes = []
        for number in of.numbers:
            ring = (number.x - RING_PX, number.y - RING_PX, number.x + RING_PX, number.y + RING_PX)
            words = sorted((number.text_x, number.text_x + (1 if number.right else -1) * of.words_px))
            boxes += [ring, (words[0], number.y - TEXT_PX - 3, words[1], number.y + TEXT_PX + 3)]
        for i, box in enumerate(boxes):
            self.assertTrue(box[0] >= 0 and box[1] >= 0 and box[2] <= of.width and box[3] <= of.height, box)
            self.assertFalse([other for other in boxes[:i] if overlap(box, other)], box)
        for i, leader in enumerate(leaders):
            self.assertFalse([other for other in leaders[:i] if crossed(leader, other)], of.numbers[i].key)
            # A leader ends at its own ring, a hair outside every box.
            begun = (leader[0][0] + (-0.01 if of.numbers[i].right else 0.01), leader[0][1])
            self.assertFalse([box for box in boxes if through((begun, leader[1]), box)], of.numbers[i].key)
        at = columns(screen, len(of.numbers), of.words_px)
        for number in of.numbers:
            for x, y in (number.spot, *number.stations.values()):
                self.assertTrue(at.left + APART_PX <= x <= at.right - APART_PX and 0 <= y <= of.height, number.key)
            feature = family.by_key[number.key]
            self.assertTrue(set(number.stations) in ({s.key for s in feature.stations}, set()), number.key)
        for feature in (one for one in family.features if not one.press):
            for first, second in said(feature, sheet, units, screen, beside):
                widest = max(width_px(first, bold=not screen.named), width_px(second, bold=True))
                self.assertLessEqual(widest, of.words_px, (first, second))
