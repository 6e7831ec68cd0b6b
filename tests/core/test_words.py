"""What the core says, word for word: names, symbols, formulas, sources and sentences of every sum and of jobs of every kind.

Approved by reading, kept in ``tests/references/words.txt``; run with APPROVE=1 to keep what is said now, and read the difference.
Numbers are left out: they are held against references of their own.
"""

import ast
import json
import math
import os
import re
import unittest
from collections.abc import Iterator
from dataclasses import fields, is_dataclass, replace
from pathlib import Path

from finegap.core import sheet as sheet_module
from finegap.core.assembly.disc_spring import DiscSpring
from finegap.core.assembly.fits import fit_of
from finegap.core.assembly.grease import Greased
from finegap.core.assembly.oring import ORing
from finegap.core.assembly.packing import Joints, Packing
from finegap.core.assembly.press import PressFit, Solid
from finegap.core.assembly.torque import Adapter, Joint, Tang, criss_cross, thread_of
from finegap.core.calculators import CALCULATORS, calculator
from finegap.core.entry import Entry
from finegap.core.errors import FieldError
from finegap.core.families.features import FeatureKind
from finegap.core.formatting import Amount, Sentence, Units, render
from finegap.core.gap import stack_choice
from finegap.core.gap.duty_range import DutyRange
from finegap.core.gap.heat import Body, HeatedPart, Warming
from finegap.core.gap.housing import Housing, move_for
from finegap.core.gap.leaves import go_and_no_go, pile_for
from finegap.core.gap.losses import Losses, TestPoint
from finegap.core.gap.losses import Path as SlipPath
from finegap.core.gap.move import Window
from finegap.core.gap.performance import perform
from finegap.core.gap.shims import faces
from finegap.core.gap.slip import Annulus, Fluid, Slot
from finegap.core.gap.tape import Tape
from finegap.core.gap.timing import Timing
from finegap.core.gap.tries import Check, TryMade
from finegap.core.gap.viscosity import Liquid, grade_mm2_s, read_viscosity
from finegap.core.job import assess
from finegap.core.job_record import Decided, Duty, FeatureDecision, JobRecord, Past, Phase, SeenDamage
from finegap.core.materials import MATERIALS
from finegap.core.measuring.feeler import check_leaves, check_pile, interval, read_leaves
from finegap.core.measuring.readings import CertifiedGauge, Statistic, summarize
from finegap.core.measuring.verdict import Limit, School
from finegap.core.proof.first_hour import NOISES, FirstHourItem, Running, by_bucket, first_hour
from finegap.core.proof.run_in import Note, Rules, advise, count_drops
from finegap.core.quantities import parse, parse_hours, parse_number
from finegap.core.result_lines import ResultLine
from finegap.core.saybolt import from_furol, from_saybolt, furol_seconds, saybolt_seconds
from finegap.core.sheet import read_sheet
from finegap.core.units import Dimension
from finegap.core.wear.hours import HoursRead, check_replaced
from finegap.core.wear.lives import MeasuredSize, Visit
from finegap.core.working import Working
from tests.core.job_records import gasket_sheet, job_record, readings, sheet
from tests.core.test_building import TYPED

KEPT = Path(__file__).parents[1] / "references" / "words.txt"

OTHERWISE = (
    ("viscosity", {"at": "-40"}), ("liquid", {"viscosity": "46 mm2/s"}), ("grade", {"grade": "100"}),
    ("lash", {"arc": "0"}), ("gaskets", {"stock": "0.10 x 1"}), ("gaskets", {"measured": "0.17"}),
    ("cover-gasket", {"stock": "0.05 x 1"}), ("cover-gasket", {"vane": "150.4"}), ("shims", {"stock": "0.05 x 1"}),
    ("end-gap", {"gear": "70.7"}), ("end-gap", {"ahead": "0.3"}),
    ("gasket-pair", {"stock": "0.05 x 1"}), ("gasket-pair", {"gear_2": "70.1"}),
    ("gasket-pair", {"housing_1": "81", "housing_2": "81"}),
    ("tap", {"front": "0.07"}), ("tap", {"front": "0.3"}), ("tap", {"rotor": "40.1"}), ("tap", {"depth": "", "rotor": ""}),
    ("nut-factor", {"preload": "", "torque": "40"}), ("proof-load", {"preload": "60 kN"}), ("proof-load", {"preload": ""}),
    ("lip", {"lip_high": "49.9"}), ("bend", {"gap": "0.001"}), ("bend", {"gap": ""}),
    ("two-doubts", {"of": "sum"}), ("readings", {"readings": "30.01; 30.01"}),
    ("flank-gap", {"right": "0.30"}), ("flank-gap", {"read": "round the pitch circle", "left": "0.1"}),
    ("flank-gap", {"read": "square to the flank"}),
    ("mesh-gap", {"left": "0.2"}), ("mesh-gap", {"left": "0.1"}), ("performance", {"viscosity": "1"}),
    ("performance", {"end": "3"}), ("performance", {"test_flow": "200", "test_pressure": "6", "test_viscosity": "60",
                                   "test_speed": "300", "test_end": "0.15"}),
    ("run-in", {"log": "0 60 25 0; 12 30 90 0"}), ("run-in", {"log": "0 5 25 0; 12 5 25 0; 24 5 25 0; 40 5 25 0"}),
    ("hot-gap", {"cold": "0.01", "rotor_at": "160", "start_at": "20"}), ("hot-gap", {"casing_at": "500"}),
    ("hot-gap", {"rotor_minutes": "5", "casing_minutes": "20", "start_at": "20", "head_reach": "9"}),
    ("slot", {"wall": "-90"}), ("slot", {"viscosity": "0.5", "gap": "2"}), ("annulus", {"eccentricity": "0.5"}),
    ("leaves", {"thickness": "0.33"}), ("go-no-go", {"low": "0.9", "high": "0.95"}),
    ("fit", {"fit": "H7/g6"}), ("fit", {"fit": "H7/k6"}), ("press-fit", {"interference": "0.4"}),
    ("press-fit", {"bushing": "cast iron"}), ("press-fit", {"allowed": "20 MPa"}), ("press-fit", {"temperature": "300"}),
    ("press-fit", {"bushing": "other", "modulus": "15 GPa", "poisson": "0.2", "expansion": "4.8", "temperature": "200"}),
    ("packing", {"joints": "quarter"}), ("o-ring", {"inside": "51"}), ("o-ring", {"groove": "56", "depth": "1.8", "width": "3"}),
    ("o-ring", {"kind": "encapsulated", "depth": "3.2", "width": "4"}), ("o-ring", {"depth": "4", "use": "moving"}),
    ("elastomer", {"elastomer": "EPDM"}), ("elastomer", {"temperature": "300"}),
    ("elastomer", {"liquid": "water", "temperature": "90"}),
    ("elastomer", {"elastomer": "NBR", "liquid": "lye", "temperature": "20"}),
    ("elastomer", {"elastomer": "FKM", "liquid": "phosphate ester"}),
    ("tang", {"tangs": "12", "turn": "7"}), ("tang", {"turn": "7"}), ("grease", {"ten": ""}), ("disc-spring", {"travel": ""}),
)  # fmt: skip
"""Sums where something else is said: (sum, what is typed differently)."""


def wordless(text: str) -> str:
    """A text without its numbers."""
    return re.sub(r"[-−]?\d[\d., ]*", "#", text)


def said(thing: object) -> str:
    match thing:
        case Sentence():
            parts = {name: said(part) for name, part in thing.amounts.items()}
            return wordless(thing.template.format(**{name: f"‹{part}›" for name, part in parts.items()}))
        case Amount():
            return thing.kind.name.lower()
        case str():
            return wordless(thing)
    return said(getattr(thing, "amount", ""))


def told(thing: object) -> Iterator[str]:
    """Every line, working and sentence below a result."""
    if isinstance(thing, ResultLine):
        yield f"{thing.name} [{thing.status.value}]: {said(thing.text)}"
        yield from told(thing.working)
    elif isinstance(thing, Working):
        given = "; ".join(f"{wordless(g.symbol)} = {wordless(g.meaning)}: {said(g.text)}" for g in thing.given)
        yield f"  {thing.title} | {thing.formula} | {given} | {said(thing.result)} | {thing.source}"
        yield from (f"    {said(note)}" for note in thing.notes)
    elif isinstance(thing, Sentence):
        yield said(thing)
    elif isinstance(thing, tuple | list):
        for one in thing:
            yield from told(one)
    elif isinstance(thing, dict):
        yield from told(list(thing.values()))
    elif is_dataclass(thing) and not isinstance(thing, type) and not type(thing).__module__.startswith("finegap.core.families"):
        for field in fields(thing):
            yield from told(getattr(thing, field.name))


def sums() -> Iterator[str]:
    for key, of in CALCULATORS.items():
        yield f"== {key}: {of.name}"
        yield from (f"  asks {i.key}: {i.name} {' / '.join(name for _, name in i.choices)}".rstrip() for i in of.inputs)
    for key, changes in [*((key, {}) for key in TYPED), *OTHERWISE]:
        yield f"== {key} {changes or ''}".rstrip()
        yield from told(calculator(key).run({k: v for k, v in (TYPED[key] | changes).items() if v}, Entry(Units.MM)))


def jobs() -> Iterator[object]:
    """Jobs of every kind the core works out; numbers of no meaning."""
    of = sheet()
    worn = {"end_clearance": 0.19, "idler_bore": 30.148, "idler_pin": 29.93, "bushing_bore": 40.1, "shaft_at_bushing": 39.91}
    visits = (
        Visit(1, 700_000, HoursRead(4000.0), 1500.0, MeasuredSize(30.06, 0.002)),
        Visit(2, 700_400, HoursRead(8000.0), 1500.0, MeasuredSize(30.10, 0.002)),
    )
    duty = Duty("cast iron", 50, 60, 60, 5.0, 300.0)
    history = Past({"idler_bore": visits}, 3, 700_800, HoursRead(12_000.0), 4000.0)
    change = {"idler_bore": FeatureDecision(Decided.CHANGE, "worn")}
    left = readings(worn, of) | readings({"idler_bore": 30.03}, of, Phase.LEFT)
    wrong = readings(worn, of) | readings({"idler_bore": 30.2}, of, Phase.LEFT)
    metal = MATERIALS["cast iron"].expansion, MATERIALS["steel"].expansion
    body = Body(HeatedPart(200, metal[0]), HeatedPart(200, metal[1]), HeatedPart(9, metal[0]), Warming(9, 16), 0.04)
    yield assess(job_record())
    yield assess(job_record(readings=readings(worn, of), duty=duty, past=history))
    yield assess(job_record(readings=readings(worn, of), duty=duty, past=replace(history, planned_h=1000.0)))
    yield assess(job_record(readings=left, decisions=change, duty=duty, past=history))
    yield assess(job_record(readings=wrong, decisions=change, confirmed_new=frozenset()))
    yield assess(job_record(sheet=replace(of, school=School.PLAIN), readings=readings(worn, of)))
    yield assess(job_record(readings={}, looks={}, steps_done=frozenset(), tightened=(), tries=()))
    yield assess(job_record(looks={**job_record().looks, ("idler_bore", Phase.FOUND): SeenDamage(("cracked", "scored"))}))
    yield assess(job_record(sheet=replace(of, heat=body), duty=replace(duty, start_c=5.0, hot_c=140.0)))
    for gap, u in ((0.3, 0.003), (0.12, 0.05), (0.146, 0.004), (-0.02, 0.003), (0.05, 0.003)):
        yield assess(job_record(tries=(TryMade((Check(gap, u, math.inf),), moved=18.85),), duty=duty))
        yield assess(
            job_record(sheet=gasket_sheet(), tries=(TryMade((Check(gap, u, math.inf),), stacks=((250,),)),), box={50: 4, 100: 3})
        )
    yield from makers()
    yield assess(job_record(sheet=gasket_sheet(), tries=(), box={250: 1}))
    yield assess(job_record(sheet=gasket_sheet(), tries=(), box={}))


def makers() -> Iterator[object]:
    """A job of each of the demo's pumps: nothing done yet, then all as new and looked at, then worn and damaged."""
    for path in sorted((Path(__file__).parents[2] / "demo/sheets").glob("*.json")):
        of = read_sheet(json.loads(path.read_text()))
        row = of.rows[0]
        middle = [sum(span) / 2 if math.isfinite(sum(span)) else span[0] + 10 for span in (
            (row.viscosity_mm2_s.low, row.viscosity_mm2_s.high), (row.temperature_c.low, row.temperature_c.high))]  # fmt: skip
        duty = Duty(row.material, max(middle[0], 5.0), middle[1], middle[1], 5.0, 300.0, "mineral oil")
        nothing = JobRecord(of, duty, {}, frozenset(), {}, None, 0.0, (), {})
        features = [f for f in nothing.family.features if f.kind is not FeatureKind.PAIR and of.spec(f.key).new_mm is not None]
        looked = {(f.key, Phase.FOUND): SeenDamage() for f in nothing.family.features}
        damaged = {(f.key, Phase.FOUND): SeenDamage(tuple(d.key for d in f.damages)) for f in nothing.family.features}
        fresh = readings({f.key: sum(of.spec(f.key).new_mm) / 2 for f in features}, of)
        worn = readings(
            {f.key: of.spec(f.key).new_mm[0] * (1.02 if f.kind is FeatureKind.INTERNAL else 0.98) for f in features}, of
        )
        yield assess(nothing)
        yield assess(replace(nothing, readings=fresh, looks=looked))
        yield assess(replace(nothing, readings=worn, looks=damaged))


def running() -> Iterator[object]:
    losses = Losses(0.74, (SlipPath("end", "End clearance", 210, 19), SlipPath("tips", "Tips", 59, 14)))
    bare = Losses(0.74, (SlipPath("end", "End clearance"),), TestPoint(225, 7, 46, 310, {"end": 0.16}))
    duty = perform(losses, {"end": 0.2, "tips": 0.1}, {"end": 0.1}, 6, 320, Fluid(20, 900))
    yield perform(bare, {"end": 0.2}, {"end": 0.15}, 6, 320, Fluid(20, 900)).lines()
    yield perform(losses, {"end": -0.1}, {"tips": 0.1}, 6, 320, Fluid(20, 900)).lines()
    for predicted in (duty, None, perform(losses, {"end": 3.0}, {"tips": 0.1}, 6, 320, Fluid(20, 900))):
        for flow, bar, kw, c in ((230, 6, 3, 60), (100, 9, 9, 140), (260, 3, 0.5, 60), (0, 6, 1, 60)):
            values = {FirstHourItem.FLOW: flow, FirstHourItem.PRESSURE: bar, FirstHourItem.POWER: kw, FirstHourItem.TEMPERATURE: c}
            yield first_hour(Running(values), predicted, "end", 6, 65)
    yield [first_hour(Running({}, noise), None, "end", 6, 65) for noise in NOISES]
    for log in (
        (), ((0, 60, 25),), ((0, 60, 25), (5, 60, 30, 1)), ((0, 0, 25),), ((0, 5, 65),), ((0, 5, 80),), ((0, 5, 30), (12, 5, 52)),
        ((0, 5, 65, -1), (5, 5, 64)), ((0, 5, 65, -1), (30, 5, 40)), ((0, 5, 25), (12, 5, 25), (24, 5, 25), (40, 5, 25)),
        ((0, None, 25),), ((0, 5, None),), ((0, 14, 25),), ((0, 60, 57),), ((0, 1, 25, -1), (4, 1, 25)), ((0, 1, 25),),
    ):  # fmt: skip
        yield advise([Note(*one) for one in log], Rules())


OIL = (46, 40, 6.8, 100)
HOLED = PressFit(40, 50, 90, 60, Solid.of(MATERIALS["tin bronze"]), Solid.of(MATERIALS["cast iron"]), (0.1, 0.2))
REFUSED = (
    lambda: ORing(0, 3, 50, 3, 5),
    lambda: ORing(49, 3, 50, 3, 0),
    lambda: ORing(49, 50, 50, 3, 5),
    lambda: ORing(49, 3, 200, 3, 5),
    lambda: replace(HOLED, inside_mm=50),
    lambda: replace(HOLED, seat_outside_mm=50),
    lambda: replace(HOLED, length_mm=0),
    lambda: replace(HOLED, friction=(0.3, 0.2)),
    lambda: Adapter(0, 10, 0),
    lambda: Adapter(300, -1, 0),
    lambda: Adapter(300, 300, 0),
    lambda: Adapter(300, 10, 181),
    lambda: Adapter(300, 200, 180),
    lambda: Tang(0, 4),
    lambda: Tang(4, 101),
    lambda: Tang(4, 4, 0),
    lambda: criss_cross(0),
    lambda: Joint(thread_of("M10"), (0, 0.1)),
    lambda: Joint(thread_of("M10"), (0.1, 0.2), 9),
    lambda: thread_of("M11"),
    lambda: thread_of("half"),
    lambda: thread_of("M10x9"),
    lambda: fit_of("H7/z9", 50),
    lambda: fit_of("H7/r6", 501),
    lambda: fit_of("H7/r6", 0),
    lambda: Greased(0, 10),
    lambda: Greased(40, 50),
    lambda: Greased(90, 30, 0.1),
    lambda: Packing(0, 10, 4, Joints.OPPOSITE),
    lambda: DiscSpring(40, 41, 2, 1),
    lambda: DiscSpring(40, 20, 7, 1),
    lambda: DiscSpring(40, 20, 2, 0),
    lambda: DiscSpring(40, 20, 2, 1).load_n(2),
    lambda: Fluid(0, 900),
    lambda: Fluid(10, 200),
    lambda: Slot(0, 1, 1, 1, Fluid(10, 900)),
    lambda: Annulus(50, 6, 40, 1, Fluid(10, 900)),
    lambda: Annulus(50, 0.1, 40, 1, Fluid(10, 900), 1.1),
    lambda: Losses(1, ()),
    lambda: Losses(1, (SlipPath("a", "A"),)),
    lambda: Losses(1, (SlipPath("a", "A", 9, 9),), TestPoint(9, 1, 1, 10, {})),
    lambda: Losses(1, (SlipPath("a", "A", 9, 9),), TestPoint(11, 1, 1, 10, {"a": 1})),
    lambda: Losses(1, (SlipPath("a", "A", 9, 9),), TestPoint(9, 0, 1, 10, {"a": 1})),
    lambda: Losses(1, (SlipPath("a", "A", wall_mm=9),), TestPoint(9, 1, 1, 10, {"a": 1})),
    lambda: Liquid(0.1, *OIL[1:]),
    lambda: Liquid(*OIL[:2], 9e9, 100),
    lambda: Liquid(*OIL[:3], 40.5),
    lambda: Liquid(46, 40, 60, 100),
    lambda: Liquid(46, -300, 6.8, 100),
    lambda: Liquid(*OIL).at(-300),
    lambda: Liquid(*OIL).at(-120),
    lambda: grade_mm2_s(45),
    lambda: read_viscosity("", 40),
    lambda: read_viscosity("1; 2; 3", 40),
    lambda: read_viscosity("90 cP", 40),
    lambda: read_viscosity("46 mm2/s at 40 C", 60),
    lambda: read_viscosity("VG 46 at 50 C", 50),
    lambda: DutyRange(50, 60, 70, 80),
    lambda: DutyRange(50, 60, 20, 50),
    lambda: Warming(0, 5),
    lambda: Warming(5, 0),
    lambda: Tape(Housing(124, 1.25), Window(0, -1, 0), Units.MM),
    lambda: Tape(Housing(124, 1.25), Window(2, 1, 3), Units.MM),
    lambda: Tape(Housing(20, 30), Window(0.1, 0.05, 0.15), Units.MM),
    lambda: Housing(0, 1),
    lambda: Housing(100, 0),
    lambda: move_for(Housing(100, 1), 0.1, None, lash_mm=-0.1),
    lambda: Timing(0, 1),
    lambda: Timing(1, 0),
    lambda: stack_choice.best_stack({100: 1}, 100, -1, 0),
    lambda: stack_choice.best_stack({100: 1}, 100, 0, -1),
    lambda: stack_choice.best_stack({0: 1}, 100, 1, 1),
    lambda: stack_choice.best_stack({100: -1}, 100, 1, 1),
    lambda: faces((0.1,), ((), ())),
    lambda: go_and_no_go((50,), 100, 100),
    lambda: pile_for((50,), 0),
    lambda: check_leaves([]),
    lambda: check_leaves([0]),
    lambda: check_leaves([5, 5]),
    lambda: read_leaves("0.05 mm 2 thou", "mm"),
    lambda: interval(0.2, 0.1, "gap"),
    lambda: Limit(),
    lambda: Limit(2, 1),
    lambda: CertifiedGauge("g", 0, 0.1, 2),
    lambda: CertifiedGauge("g", 0.1, -1, 2),
    lambda: CertifiedGauge("g", 0.1, 1, 0),
    lambda: summarize((), Statistic.LARGEST, "bore"),
    lambda: check_replaced(5, 4, 0, 9),
    lambda: check_replaced(5, 9, 6, 8),
    lambda: check_replaced(5, None, 0, 9),
    lambda: count_drops([0, 1]),
    lambda: count_drops([0, 2, 1]),
    lambda: by_bucket(1, 0),
    lambda: calculator("none"),
    lambda: parse_number("many", "n", 0, 9),
    lambda: parse_number("10", "n", 0, 9),
    lambda: parse_number("1,500", "n", 0, 9000),
    lambda: parse_hours("1.5", "h"),
    lambda: from_saybolt(20),
    lambda: saybolt_seconds(1),
    lambda: furol_seconds(10, 50.0),
    lambda: from_furol(20, 50.0),
    lambda: from_furol(90, None),
    lambda: from_furol(90, 40.0),
    lambda: check_pile(parse("0.33 mm", Dimension.LENGTH, "gap"), (50, 100), "F-1", "gap"),
)
"""What cannot be, each refused in words of its own."""


def refused() -> Iterator[str]:
    """Field, problem and hint of what is refused; then what every form says of nothing, rubbish, nought, less, and far too much."""
    for make in REFUSED:
        try:
            make()
        except FieldError as error:
            yield f"{error.field} | {error.problem} | {error.hint}"
        else:
            yield "nothing"
    for key, typed in TYPED.items():
        for one in calculator(key).inputs:
            for text in ("", "rubbish", "0", "-1", "1e8"):
                try:
                    calculator(key).run(typed | {one.key: text}, Entry(Units.MM))
                except FieldError as error:
                    yield f"{key}, {text or 'nothing'}: {error.field} | {wordless(error.problem)} | {error.hint}"


def everything() -> str:
    lines = [
        *sums(),
        "== refused",
        *dict.fromkeys(refused()),
        "== jobs",
        *dict.fromkeys(line for job in jobs() for line in told(job)),
    ]
    return "\n".join([*lines, "== running", *dict.fromkeys(line for one in running() for line in told(one))]) + "\n"


class Words(unittest.TestCase):
    maxDiff = None

    def test_what_is_said_is_what_was_approved(self):
        now = everything()
        if os.environ.get("APPROVE"):
            KEPT.write_text(now)
        self.assertEqual(now.splitlines(), KEPT.read_text().splitlines(), "Read the difference; then run it with APPROVE=1.")

    def test_every_refusal_names_a_field_and_what_was_expected(self):
        for line in refused():
            self.assertRegex(line, r"^\S.* \| \S.*([.?]|#) ?\| \S.*[.?)]$")

    def test_nothing_is_left_out_of_a_sentence_in_either_unit(self):
        for thing in [*jobs(), *running()]:
            for line in told(thing):
                self.assertNotRegex(line, r"None|[{}]|‹›")
        for key in TYPED:
            for line in calculator(key).run(TYPED[key], Entry(Units.MM)):
                self.assertNotRegex(render(line.text, Units.IN), r"None|[{}]|nan")


class Templates(unittest.TestCase):
    def test_no_template_of_a_sentence_is_made_of_its_values(self):
        """A template with a value in it could not be translated, and a record would keep one for each value."""
        core = Path(sheet_module.__file__).parent
        made = [
            f"{path.name}:{node.lineno}"
            for path in core.rglob("*.py")
            for node in ast.walk(ast.parse(path.read_text()))
            if isinstance(node, ast.Call) and isinstance(node.func, ast.Name) and node.func.id == "Sentence"
            if node.args and isinstance(node.args[0], ast.JoinedStr)
        ]
        self.assertEqual(made, [])
