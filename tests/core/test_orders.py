"""Orders and stacks as they are practised. Common practice, no source, wherever nothing else is named."""

import unittest
from dataclasses import replace

from finegap.core.assembly.stacking import Fitted, Used, stack_state
from finegap.core.errors import FieldError
from finegap.core.families import FAMILIES
from finegap.core.families.builds import UNSAID
from finegap.core.families.check import check_builds, every_build, every_convention
from finegap.core.families.family import in_order
from finegap.core.families.stack import FACED, Carrier, LinesUp, Points, Shape, Stack, StackPart
from finegap.core.families.steps import Stage, Step
from finegap.core.formatting import Units
from finegap.core.procedure import read_conventions, read_steps
from tests.core.builds import distinct, procedures

GEAR, PISTON, VANE = (FAMILIES[key] for key in ("internal_gear", "circumferential_piston", "sliding_vane"))
COUPLED = ("ring", "coupling")
USED = Used("mineral oil", 60, "mineral grease")


def built(family, **build):
    return family.built(family.complete(build))


def order(family, *stages):
    return [s.key for s in family.steps if not stages or s.stage in stages]


def stack(family, place, **build):
    return next(s for s in built(family, **build).stacks if s.place == place)


def parts(family, place, **build):
    return [p.key for p in stack(family, place, **build).parts]


class Orders(unittest.TestCase):
    def before(self, keys, *pairs):
        for earlier, later in pairs:
            self.assertIn(earlier, keys)
            self.assertIn(later, keys)
            self.assertLess(keys.index(earlier), keys.index(later), f"{earlier} before {later}")

    def test_what_stands_on_what_in_every_build(self):
        """Step before step, wherever a build has both."""
        pairs = (
            ("bushings", "rotor_in"), ("bushings", "seal_built"), ("rotor_in", "head_on"), ("seal_built", "head_on"),
            ("idler_on", "head_on"), ("head_on", "nut_torque"), ("nut_torque", "tang"), ("nut_torque", "block_out"),
            ("block_out", "free_turn"), ("thrust_first", "drawn_in"), ("drawn_in", "head_on"), ("head_on", "packing_now"),
            ("packing_now", "thrust_built"), ("thrust_built", "nut_torque"), ("front_off", "front_back"),
            ("front_back", "coupling"), ("coupling", "unit_out"), ("unit_built", "unit_in"), ("nut", "block_off"),
            ("block_off", "shaft"), ("shaft", "rotating_out"), ("shaft", "seat_out"), ("bracket_guards_on", "rotation"),
            ("cover_down", "rotors_down"), ("rotors_down", "body_down"), ("gears_rocked", "bearings_out"),
            ("bearings_home", "seals_built"), ("seals_built", "rotors_up"), ("rotors_up", "rotor_nuts"),
            ("rotor_nuts", "block_out"), ("pins_clean", "vanes_drawn"), ("vanes_drawn", "blown"), ("vanes_in", "faces_clean"),
            ("faces_clean", "end_on"), ("faces_clean", "plate_on"), ("plate_on", "flange_on"), ("greased", "filter_back"),
            ("flange_off", "plate_off"), ("guards", "rotation"), ("rotation", "run_in"),
        )  # fmt: skip
        seen = set()
        for family in procedures():
            keys = order(family)
            for earlier, later in pairs:
                if earlier in keys and later in keys:
                    seen.add((earlier, later))
                    self.assertLess(keys.index(earlier), keys.index(later), (dict(family.build), earlier, later))
        self.assertEqual(seen, set(pairs), "each pair is in some build")

    def test_light_build_is_packed_when_the_gap_is_right(self):
        light = built(GEAR, seal="packed", means="gaskets", bearing="none", bushing="casing")
        self.before(order(light), ("rotor_in", "head_on"), ("head_on", "packing_set"))
        self.assertEqual([s.stage for s in light.steps if s.key == "packing_set"], [Stage.SET])
        self.assertFalse({"nut", "nut_torque", "thrust_built", "bearing_out"} & {*order(light)}, "it has no lock nut to ask for")

    def test_heavy_build_is_packed_before_its_housing_or_by_the_works_after_the_gap(self):
        heavy = built(GEAR, seal="packed", means="housing")
        self.before(order(heavy), ("head_on", "packing_now"), ("packing_now", "thrust_built"))
        after = built(GEAR, seal="packed", means="housing", packing_when="after")
        self.assertEqual([s.stage.value for s in after.steps if "seal" in s.of("stack")], ["set"])

    def test_grease_comes_after_the_gap_and_behind_the_rotor_while_turning(self):
        for family in procedures():
            if family.key != "internal_gear":
                continue
            for step in family.steps:
                if step.has("grease"):
                    self.assertIs(step.stage, Stage.SET, step.key)
        behind = built(GEAR, seal="mechanical", means="housing")
        grease = next(s for s in behind.steps if s.key == "grease_turning")
        self.assertIn("while the shaft is turned", grease.text)
        self.assertIn("relief fitting", grease.text)

    def test_a_seal_behind_the_rotor_keeps_the_head_on_until_the_housing_is_out(self):
        keys = order(built(GEAR, seal="mechanical", means="housing"))
        self.before(
            keys, ("bracket_guards", "nut"), ("housing_first", "bolts"), ("thrust_first", "drawn_in"), ("drawn_in", "head_on")
        )
        for seal in ("packed", "bellows"):
            self.before(order(built(GEAR, seal=seal, means="housing")), ("head", "nut"), ("head_on", "thrust_built"))

    def test_close_coupled_the_cover_is_back_before_a_screw_of_the_coupling_is_touched(self):
        for means in COUPLED:
            coupled = built(GEAR, seal="mechanical", means=means)
            keys = order(coupled)
            self.before(keys, ("front_back", "coupling"), ("unit_built", "unit_in"))
            self.assertFalse({"nut", "nut_torque", "tang", "head_on"} & {*keys})
            self.assertNotIn("lock_washer", coupled.by_key)
            self.assertIn("bearing_depth", coupled.by_key)
            self.before(parts(GEAR, "bearing", means=means), ("bolts", "bearing"), ("bearing", "bolts_out"), ("bolts_out", "ring"))

    def test_what_blocks_the_rotor_comes_out_before_it_is_turned(self):
        for family in procedures():
            steps = {s.key: s for s in family.steps}
            if "nut_torque" in steps or "rotor_nuts" in steps:
                self.assertTrue(steps["block_out"].hold and steps["block_out"].before_check)

    def test_dry_vane_pump(self):
        keys = order(built(VANE, service="dry"))
        self.before(
            keys, ("outer_off", "end_off"), ("end_off", "pins_clean"), ("pins_clean", "vanes_drawn"), ("greased", "filter_back")
        )
        self.assertEqual(keys[-2:], ["valves", "first_hour"])
        greased = next(s for s in built(VANE).steps if s.key == "greased")
        self.assertFalse(greased.changed or greased.opened, "at every service of the vanes, not only with new bearings")

    def test_lubricated_vane_pump_is_closed_over_its_bearing(self):
        plate = parts(VANE, "cover", service="lubricated")
        self.before(
            plate,
            ("plate", "bearing"),
            ("bearing", "holding_out"),
            ("holding_out", "pins"),
            ("bolts", "pins_out"),
            ("pins_out", "bearing_home"),
        )
        flange = stack(VANE, "drive", service="lubricated")
        self.assertEqual([p.key for p in flange.parts], ["retaining", "wave", "flange", "key"])
        self.assertNotIn(
            "keyway", {m for p in flange.parts if p.key == "flange" for m in p.marks}, "it is bolted, it has no keyway"
        )

    def test_bearings_and_shims_stay_in_for_a_seal(self):
        for scope, out in (("overhaul", True), ("rotors", False), ("check", False)):
            self.assertEqual("bearings_out" in order(built(PISTON, scope=scope)), out)
        self.before(order(built(PISTON)), ("gears_rocked", "bearings_out"))


class Seals(unittest.TestCase):
    before = Orders.before

    def test_nothing_that_sits_behind_the_rotor_goes_in_after_it(self):
        for seal, means in (
            ("mechanical", "housing"),
            ("bellows", "housing"),
            ("wedge", "housing"),
            ("oring", "housing"),
            ("mechanical", "coupling"),
        ):
            keys = parts(GEAR, "seal", seal=seal, means=means)
            self.before(keys, ("seat", "rotor_shaft"))
            turning = next(k for k in keys if k in ("rotating", "bellows", "upper"))
            self.before(keys, (turning, "rotor_shaft"))

    def test_sleeve_and_tape_come_off_again(self):
        for family in FAMILIES.values():
            for one in family.stacks:
                tools = {p.key for p in one.parts if p.shape is Shape.TOOL}
                self.assertEqual(tools, {p.takes_out for p in one.parts if p.takes_out}, one.key)

    def test_a_bellows_is_one_unit(self):
        bellows = stack(GEAR, "seal", seal="bellows", means="housing")
        self.assertFalse({"collar", "screws", "set_screws", "spring"} & {p.key for p in bellows.parts})
        self.assertIn("not compressed", next(p for p in bellows.parts if p.key == "bellows").checked)

    def test_screws_first_to_touch_then_tight(self):
        keys = parts(GEAR, "seal", seal="mechanical", means="housing")
        self.before(
            keys, ("bracket_lip", "spacer"), ("spacer", "seat"), ("screws_touch", "screws_tight"), ("screws_tight", "clips_off")
        )
        seat = next(p for p in stack(GEAR, "seal", seal="mechanical", means="housing").parts if p.key == "seat")
        self.assertEqual([(u.to, u.of) for u in seat.lines_up], [("grooves", "bracket bushing")])

    def test_faces_face_each_other_in_every_build_of_every_family(self):
        """Where several lie in each other, as of a double seal, they meet as one."""
        seen = 0
        for family in FAMILIES.values():
            for build in distinct(family):
                for one in family.built(build).stacks:
                    faces = [p.points for p in one.together if p.shape in FACED]
                    if faces:
                        seen += 1
                        self.assertEqual((faces[0], faces[-1]), (Points.DRIVE, Points.ROTOR), one.key)
        self.assertGreater(seen, 100)

    def test_each_goes_in_part_by_part_to_its_last(self):
        """Every stack of every build: in its order each part is let in, once what is to be confirmed of it is."""
        seen = set()
        for family in FAMILIES.values():
            for build in distinct(family):
                for one in family.built(build).stacks:
                    if one.key in seen:
                        continue
                    seen.add(one.key)
                    fitted = []
                    for part in one.parts:
                        now = stack_state(one, tuple(fitted), {"elastomer": "FKM"}, USED, frozenset())
                        self.assertIs(now.next, part)
                        now.check(part.key, True, False, "", Units.MM)
                        fitted.append(Fitted(one.key, part.key))
        self.assertEqual(seen, {one.key for family in FAMILIES.values() for one in family.stacks}, "each is in some build")

    def test_the_six_of_a_circumferential_piston(self):
        for seal, pairs in {
            "single_o": (("housing_ring", "housing"), ("housing", "body_ring"), ("body", "sleeve"), ("sleeve", "rotor_ring")),
            "double_o": (("spring_seat", "wave"), ("wave", "shaft_ring"), ("housing", "sleeve"), ("sleeve", "body")),
            "single_m": (("shaft_ring", "seat"), ("inner_spring", "inner"), ("inner", "body")),
            "double_m": (("inner", "outer_spring"), ("outer_spring", "outer"), ("outer", "body")),
            "single_b": (("seat_ring", "spring_seat"), ("spring_seat", "tab"), ("tab", "spring"), ("spring", "carrier"),
                         ("product_ring", "product")),
            "double_b": (("drive_ring", "outer_rotating"), ("carrier", "carrier_tab"), ("carrier_tab", "flush_housing"),
                         ("flush_housing", "inner_spring"), ("inner_spring", "inner"), ("stationary_ring", "stationary")),
        }.items():  # fmt: skip
            self.before(parts(PISTON, "seal", seal=seal), *pairs)
        self.assertNotIn("outer", parts(PISTON, "seal", seal="single_m"))
        pinned = {up.mark for p in stack(PISTON, "rotors", seal="double_o").parts for up in p.lines_up}
        self.assertIn("2 pins", pinned)
        rings = [p for p in parts(PISTON, "rotors") if "ring" in p and "spring" not in p]
        self.assertEqual(len(rings), 4, "one of the hub and one of the nut for each rotor")


def line(*given, carriers=(), fixed=None):
    return Stack("s", "S", "seal", given, fixed or {}, carriers=carriers)


class Undoable(unittest.TestCase):
    """What nobody can put together is not declared."""

    ON = Carrier("shaft", "On the shaft")

    def refused(self, said, *given, **more):
        with self.assertRaisesRegex(FieldError, said):
            line(*given, **more)

    def test_an_outer_part_before_an_inner_one(self):
        inner, outer = (StackPart(k, k, Shape.COLLAR, on="shaft", at=n) for n, k in ((1, "inner"), (2, "outer")))
        self.refused("inner cannot go in behind outer", outer, inner, carriers=(self.ON,))
        line(inner, outer, carriers=(self.ON,))
        line(outer, replace(inner, split=True), carriers=(self.ON,))  # half rings, a split gland

    def test_behind_the_rotor_after_the_rotor(self):
        rotor = StackPart("rotor", "Rotor", Shape.ROTOR, on="casing")
        seat = StackPart("seat", "Seat", Shape.WASHER, on="shaft")
        shaft = replace(self.ON, brought="rotor")
        self.refused("cannot be reached any more", rotor, seat, carriers=(shaft, Carrier("casing", "In the casing")))
        line(seat, rotor, carriers=(shaft, Carrier("casing", "In the casing")))
        open_end = replace(shaft, reach=3)
        line(rotor, replace(seat, at=3), carriers=(open_end, Carrier("casing", "In the casing")))
        self.refused("cannot be reached", rotor, replace(seat, at=2), carriers=(open_end, Carrier("casing", "In the casing")))

    def test_onto_what_is_not_there(self):
        ring = StackPart("ring", "Ring", Shape.O_RING, on="housing")
        housing = StackPart("plate", "Housing", Shape.CAP, on="shaft")
        carriers = (self.ON, Carrier("housing", "In the housing", needs="plate"))
        self.refused("not there yet", ring, housing, carriers=carriers)
        line(housing, ring, carriers=carriers)
        self.refused("there is no cellar", replace(ring, on="cellar"), carriers=carriers)
        self.refused("there is no part plate", replace(ring, on="shaft"), carriers=carriers)

    def test_a_tool_that_stays_in_or_was_never_put_in(self):
        tape, off = StackPart("tape", "Tape", Shape.TOOL), StackPart("off", "Tape off", Shape.OUT, takes_out="tape")
        ring = StackPart("ring", "Ring", Shape.O_RING)
        line(tape, ring, off)
        self.refused("Tape stays in", tape, ring)
        self.refused("no tool tape is in", ring, off)
        self.refused("no tool tape is in", tape, off, replace(off, key="again"))

    def test_faces_that_do_not_meet_and_marks_that_do_not_number(self):
        face = StackPart("face", "Face", Shape.FACE, points=Points.DRIVE, on="shaft")
        seat = StackPart("seat", "Seat", Shape.SEAT, points=Points.ROTOR, on="shaft")
        line(face, seat, carriers=(self.ON,))
        self.refused("do not face each other", seat, face, carriers=(self.ON,))
        self.refused("do not face each other", face, replace(seat, points=Points.DRIVE), carriers=(self.ON,))
        notched = StackPart("seal", "Seal", Shape.WASHER, marks=("3 notches",), lines_up=(LinesUp("3 notches", "2 pins", "body"),))
        self.refused("3 notches of Seal cannot meet 2 pins", notched, fixed={"body": ("2 pins",)})


class Conventions(unittest.TestCase):
    """Practitioners differ on these: both ways are offered, and nothing is asserted where nobody chose."""

    CONVENTIONS = (
        (GEAR, {"seal": "mechanical"}, "faces", {"dry": "dry", "film": "A film"}),
        (GEAR, {}, "head_gasket", {"dry": "goes in dry", "sealant": "Sealant on both sides"}),
        (GEAR, {}, "lips_inner", {"outward": "towards the shaft end", "inward": "towards the pump"}),
        (GEAR, {}, "lips_outer", {"outward": "towards the shaft end", "inward": "towards the pump"}),
        (GEAR, {"relief": "fitted"}, "relief_sign", {"arrow": "its arrow", "cap": "its cap", "end": "its adjusting end"}),
        (PISTON, {}, "rotor_turns", {"one": "before the second goes on", "both": "then both nuts"}),
        (PISTON, {}, "body_on", {"drawn": "never pushed", "pressed": "Pressed onto its pins"}),
        (PISTON, {}, "antiseize", {"before": "first, the nut's ring after", "after": "The nut's ring first"}),
        (PISTON, {}, "oil_mark", {"middle": "middle of its glass", "top": "top of its glass"}),
        (PISTON, {"seal": "double_m"}, "faces", {"dry": "dry", "film": "A film"}),
        (VANE, {}, "serviced", {"site": "where it stands.", "away": "sent away"}),
    )  # fmt: skip

    def words(self, family, **build):
        of = built(family, **build)
        told = [w for s in of.steps for w in (s.text, s.why, *s.tells)]
        return " ".join([*told, *(w for one in of.stacks for p in one.parts for w in (p.facing, p.note))])

    def test_each_way_is_said_where_it_was_chosen_and_neither_where_it_was_not(self):
        for family, build, key, ways in self.CONVENTIONS:
            for choice, said in ways.items():
                with self.subTest(key=key, choice=choice):
                    self.assertIn(said, self.words(family, **build, **{key: choice}))
            unsaid = self.words(family, **build)
            for said in ways.values():
                if key not in ("faces", "lips_inner", "lips_outer", "relief_sign"):
                    self.assertNotIn(said, unsaid, key)
        self.assertNotIn("lip towards", self.words(GEAR))

    def test_those_that_change_an_order(self):
        first, after = (parts(PISTON, "rotors", rotor="key", key_when=way) for way in ("before", "after"))
        self.assertLess(first.index("key_drive"), first.index("rotor_drive"))
        self.assertEqual(after[-2:], ["key_drive", "key_driven"])
        self.assertEqual(parts(PISTON, "rotors", rotor="key"), first)

    def test_what_a_shop_chooses_is_a_choice_there_is(self):
        self.assertEqual(read_conventions({"faces": "film", "lips_inner": UNSAID}, GEAR), {"faces": "film"})
        for wrong in ({"faces": "wet"}, {"seal": "packed"}, {"colour": "red"}):
            with self.assertRaises(FieldError):
                read_conventions(wrong, GEAR)

    def test_no_words_are_left_open_in_any_build_whatever_is_chosen(self):
        for family in FAMILIES.values():
            conventions = [o.key for o in family.options if o.is_convention]
            for build in distinct(family):
                words = self.words(family, **{k: v for k, v in build.items() if v != UNSAID})
                for key in conventions:
                    self.assertNotIn(f"{{{key}}}", words)


class Generated(unittest.TestCase):
    STEPS = (Step(Stage.BUILD, "c", "C", needs=("b",)), Step(Stage.BUILD, "a", "A"), Step(Stage.BUILD, "b", "B"))

    def test_the_order_declared_but_nothing_before_what_it_needs(self):
        self.assertEqual([s.key for s in in_order(self.STEPS)], ["a", "b", "c"])
        self.assertEqual([s.key for s in in_order(self.STEPS[:2])], ["c", "a"], "what is not in a build is not waited for")

    def test_a_circle_of_needs_is_refused_with_its_build(self):
        turned = tuple(replace(s, needs=("head_on",)) if s.key == "rotor_in" else s for s in GEAR.steps)
        with self.assertRaisesRegex(FieldError, "come after each other"):
            replace(GEAR, steps=turned)

    def test_a_works_own_order_is_taken_unless_it_breaks_one_and_told_which(self):
        gear = built(GEAR)
        listed = [{"key": s.key, "stage": s.stage.value} for s in gear.steps]
        keys = [one["key"] for one in listed]

        def swapped(one, other):
            i, j = keys.index(one), keys.index(other)
            moved = list(listed)
            moved[i], moved[j] = moved[j], moved[i]
            return moved

        read_steps(swapped("pin", "crescent"), gear)
        with self.assertRaisesRegex(FieldError, "“Head on to its marks.*cannot be done before “"):
            read_steps(swapped("rotor_in", "head_on"), gear)

    def test_every_build_there_is_holds_together(self):
        for family in FAMILIES.values():
            check_builds(family, every_convention(family))


class Scopes(unittest.TestCase):
    def test_each_has_only_its_steps_and_sizes(self):
        for scope, with_, without in (
            ("repack", {"packing_out", "packing_now", "run_in"}, {"bolts", "shaft", "nut", "bushings"}),
            ("bearing", {"housing_out", "thrust_built", "nut_torque"}, {"bolts", "shaft", "packing_out", "bushings", "run_in"}),
            ("check", {"bolts", "head", "head_on"}, {"shaft", "nut", "packing_out", "thrust_built"}),
        ):
            of = built(GEAR, scope=scope)
            self.assertLessEqual(with_, {*order(of)})
            self.assertFalse(without & {*order(of)}, scope)
        self.assertEqual([f.key for f in built(GEAR, scope="repack").features], ["shaft_at_seal"])
        self.assertFalse(any(f.is_set for f in built(GEAR, scope="repack").features))
        seal = built(GEAR, seal="bellows", means="housing", scope="seal")
        self.assertIn("seal_built", order(seal))
        self.assertNotIn("idler_bore", seal.by_key)
        with self.assertRaisesRegex(FieldError, "not a choice of this job"):
            GEAR.complete({"seal": "bellows", "scope": "repack"})

    def test_an_overhaul_has_all_sizes(self):
        for family in FAMILIES.values():
            for build in every_build(family):
                if build.get("scope") == "overhaul":
                    whole = {f.key for f in family.built(build).features}
                    for scope in ("check", "bearing", "seal", "repack", "rotors"):
                        try:
                            part = family.built(family.complete({**build, "scope": scope}))
                        except FieldError:
                            continue
                        less = {f.key for f in part.features if not f.key.startswith("port_")}
                        self.assertLessEqual(less, whole, (build, scope))
                    break
