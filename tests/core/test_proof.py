"""Proving: the run-in coach against a simulated stuffing box and the trade's rules, drops, the first hour."""

import unittest

from hypothesis import given, settings
from hypothesis import strategies as st

from finegap.core.calculators import calculator
from finegap.core.entry import Entry
from finegap.core.errors import FieldError
from finegap.core.formatting import Units, render
from finegap.core.gap.losses import Losses, Path
from finegap.core.gap.performance import perform
from finegap.core.gap.slip import Fluid
from finegap.core.proof.first_hour import NOISES, FirstHourItem, Running, by_bucket, first_hour
from finegap.core.proof.run_in import Note, Rules, Say, advise, check_note, count_drops, rules_for
from finegap.core.result_lines import Status
from tests.references import VALUES

RULES = Rules((2, 10), 60, 10)


class Box:
    """A stuffing box made up for the test: leak falls with each eighth, warmth rises as the leak falls short of cooling it."""

    def __init__(self, leak: float, grip: float, cooling: float) -> None:
        self.leak, self.grip, self.cooling = leak, grip, cooling
        self.minute = self.turned = 0.0
        self.box_c = 22.0

    def look(self) -> tuple[float, float]:
        return max(self.leak * (1 - self.grip) ** self.turned, 0.0), self.box_c

    def wait(self, minutes: float) -> None:
        drops, _ = self.look()
        settles_at = 22 + 60 * self.turned * self.grip / (1 + self.cooling * drops)
        self.box_c += (settles_at - self.box_c) * min(minutes / 12, 1)
        self.minute += minutes


def run(box: Box, most: int = 120) -> list[tuple[Note, Say]]:
    """Does what the coach says, to the word."""
    notes: list[Note] = []
    said = []
    for _ in range(most):
        drops, warm = box.look()
        advice = advise([*notes, Note(box.minute, drops, warm)], RULES)
        note = Note(box.minute, drops, warm, advice.eighths)
        check_note(note, notes)
        notes.append(note)
        said.append((note, advice.say))
        box.turned = max(box.turned + advice.eighths, 0.0)
        if advice.say is Say.DONE:
            break
        box.wait(max(advice.wait_min, RULES.settle_min if advice.eighths else 5.0))
    return said


class Coach(unittest.TestCase):
    @given(st.floats(20, 400), st.floats(0.05, 0.4), st.floats(0.05, 1))
    @settings(max_examples=120)
    def test_the_rules_of_the_trade_hold_whatever_the_box_does(self, leak, grip, cooling):
        """Common practice, no source: an eighth at most, time between, never tightened when hot or dry, left only dripping."""
        said = run(Box(leak, grip, cooling))
        last_turn = None
        for note, say in said:
            self.assertLessEqual(note.eighths, 1)
            if note.eighths > 0:
                self.assertLessEqual(note.box_c, RULES.hottest_c)
                self.assertGreater(note.drops, RULES.drops[1])
                self.assertTrue(last_turn is None or note.minute - last_turn >= RULES.settle_min)
            if note.eighths:
                last_turn = note.minute
            if note.box_c > RULES.hottest_c or note.drops < RULES.drops[0]:
                self.assertIn(say, (Say.BACK_OFF, Say.WAIT, Say.STOP))
        end, say = said[-1]
        if say is Say.DONE:
            self.assertTrue(RULES.drops[0] <= end.drops <= RULES.drops[1] and end.box_c <= RULES.hottest_c)
            calm = [n for n, _ in said if end.minute - n.minute <= 20]
            self.assertTrue(all(n.eighths == 0 for n in calm))

    def test_an_easy_box_is_run_in(self):
        said = run(Box(80, 0.25, 0.5))
        self.assertIs(said[-1][1], Say.DONE)
        self.assertIn(Say.TIGHTEN, [s for _, s in said])

    def test_a_heating_episode(self):
        """Too hot: back off, then wait until it is cool, and only then go on; hotter all the same: stop."""
        notes = [Note(0, 60, 25), Note(12, 40, 35, 1), Note(24, 30, 50, 1), Note(36, 20, 63)]
        told = advise(notes, RULES)
        self.assertEqual((told.say, told.eighths), (Say.BACK_OFF, -1))
        notes[-1] = Note(36, 20, 63, -1)
        cooling = [*notes, Note(42, 35, 61)]
        self.assertIs(advise(cooling, RULES).say, Say.WAIT)
        self.assertIs(advise([*cooling, Note(48, 35, 57)], RULES).say, Say.WAIT)  # hardly below
        self.assertIs(advise([*cooling, Note(60, 35, 45)], RULES).say, Say.TIGHTEN)
        self.assertIs(advise([*notes, Note(42, 20, 64)], RULES).say, Say.STOP)
        # still rising on the line it is backed off at: that look came before the turn
        self.assertIs(advise([*notes[:3], Note(36, 20, 63), Note(37, 20, 64, -1)], RULES).say, Say.WAIT)
        self.assertIs(advise([Note(0, 20, 25), Note(5, 20, 80)], RULES).say, Say.STOP)
        self.assertIs(advise([Note(0, 40, 40), Note(12, 30, 52)], RULES).say, Say.WAIT)  # still warming

    def test_what_to_do_one_thing_at_a_time(self):
        for notes, say in (
            ([], Say.BEGIN), ([Note(0, 40, None)], Say.WAIT), ([Note(0, None, 30)], Say.WAIT), ([Note(0, 40, 30)], Say.WAIT),
            ([Note(0, 80, 25), Note(11, 40, 30)], Say.TIGHTEN), ([Note(0, 80, 25), Note(9, 40, 30)], Say.WAIT),
            ([Note(0, 0, 25)], Say.BACK_OFF), ([Note(0, 20, 25, -1), Note(4, 1, 25)], Say.WAIT), ([Note(0, 5, 25)], Say.WAIT),
            ([Note(0, 5, 25), Note(10, 6, 26), Note(21, 5, 25)], Say.DONE),
            ([Note(0, 5, 25), Note(10, 6, 26, 0.5), Note(21, 5, 25)], Say.WAIT),
        ):  # fmt: skip
            with self.subTest(notes=notes):
                self.assertIs(advise(notes, RULES).say, say)
        self.assertEqual(advise([Note(0, 80, 25), Note(11, 15, 30)], RULES).eighths, 0.5)  # nearly there: half as much

    def test_lines_that_cannot_be(self):
        before = [Note(30, 10, 30)]
        for note, said in (
            (Note(31, None, None), "nothing was entered"), (Note(29, 5, 30), "last line was at 30"),
            (Note(31, 5, 30, 2), "more than an eighth"),
            (Note(31, 5, 400), "no stuffing box"), (Note(31, -1, 30), "cannot be negative"), (Note(1e6, 5, 30), "cannot be"),
        ):  # fmt: skip
            with self.subTest(note=note), self.assertRaisesRegex(FieldError, said):
                check_note(note, before)
        self.assertEqual((rules_for(65).hottest_c, rules_for(10).hottest_c, rules_for(65, (4, 12), 88).drops), (85, 60, (4, 12)))

    def test_from_the_shell_in_either_unit(self):
        log = {"log": "0 60 77 0; 12 40 131 1/8; 24 30 145 0", "pumping": "20 C"}
        self.assertEqual(render(calculator("run-in").run(log, Entry(Units.IN))[2].text, Units.IN), "back off")
        metric = {"log": "0 60 25 0; 12 40 55 1/8; 24 30 62.8 0", "pumping": "20 C"}
        self.assertEqual(render(calculator("run-in").run(metric, Entry(Units.MM))[2].text, Units.MM), "back off")
        for wrong in ("0 60 25", "0 60 25 1/4", "a 60 25 0", "5 60 25 0; 4 60 25 0", ""):
            with self.subTest(wrong=wrong), self.assertRaises(FieldError):
                calculator("run-in").run({"log": wrong}, Entry(Units.MM))


class Drops(unittest.TestCase):
    @given(st.lists(st.floats(0.2, 20), min_size=2, max_size=40))
    def test_n_drops_leave_n_less_one_times_between(self, between):
        taps = [0.0]
        for gap in between:
            taps.append(taps[-1] + gap)
        counted = count_drops(taps)
        self.assertAlmostEqual(counted.a_minute, 60 * len(between) / sum(between), places=6)
        self.assertGreaterEqual(counted.expanded, 0)

    def test_even_drops_are_sure_uneven_ones_are_not(self):
        self.assertAlmostEqual(count_drops([0, 2, 4, 6, 8]).expanded, 0)
        # s = 1, n = 4, t(3, 95 %) = 3.182 (JCGM 100, table G.2): 60/2.5 · 3.182·s/(2·2.5)
        uneven = count_drops([0, 2, 4, 6.5, 10])
        s = (((2 - 2.5) ** 2 * 2 + 0 + (3.5 - 2.5) ** 2) / 3) ** 0.5
        self.assertAlmostEqual(uneven.expanded, 24 * 3.182 * s / 2 / 2.5, delta=0.01)

    def test_what_is_no_count(self):
        for taps in ([], [0, 1], [0, 1, 1], [0, 2, 1]):
            with self.assertRaises(FieldError):
                count_drops(taps)

    def test_what_they_leak(self):
        """drops-01: about 20 drops of water a mL."""
        of = VALUES["drops-01"]
        for rate, leak in zip(of["inputs"]["drops_per_min"], of["expected"], strict=True):
            lines = calculator("drops").run({"count": str(rate * 10 + 1), "seconds": "600"}, Entry(Units.MM))
            self.assertEqual(render(lines[1].text, Units.MM), f"{leak:.1f} mL/h")


class FirstHour(unittest.TestCase):
    LOSSES = Losses(0.74, (Path("end", "End clearance", 210, 19), Path("tips", "Tips", 59, 14)))
    PREDICTED = perform(LOSSES, {"end": 0.2, "tips": 0.1}, {}, 6, 320, Fluid(20, 900))

    def told(self, noise="", **values):
        running = Running({FirstHourItem(k): v for k, v in values.items()}, noise)
        return {line.name: line for line in first_hour(running, self.PREDICTED, "end", 6, 65)}

    def test_flow_against_what_slip_predicts(self):
        for flow, status in ((self.PREDICTED.flow_l_min, Status.GOOD), (180, Status.CARE), (260, Status.ASK), (0, Status.CARE)):
            self.assertIs(self.told(flow=flow)["Flow"].status, status, flow)

    @given(st.floats(0.21, 0.6))
    def test_the_gap_it_names_would_pass_just_that(self, wide):
        """The inverse: put the gap it names in, and the flow that was measured comes out."""
        measured = perform(self.LOSSES, {"end": wide, "tips": 0.1}, {}, 6, 320, Fluid(20, 900)).flow_l_min
        line = self.told(flow=measured)["Flow"]
        if line.status is Status.CARE and measured > 0:
            self.assertAlmostEqual(line.text.amounts["gap"].value, wide, places=6)

    def test_slip_at_another_pressure_than_the_duty(self):
        half = self.PREDICTED.theoretical_l_min - self.PREDICTED.slip_l_min / 2
        self.assertIs(self.told(flow=half, pressure=3)["Flow"].status, Status.GOOD)

    def test_pressure_power_warmth_and_noise(self):
        """Overall efficiency = Q·dp/P: 100 L/min at 6 bar is 1 kW."""
        self.assertIn("50.0%", render(self.told(flow=100, power=2)["Power"].text, Units.MM))
        for power, status in ((2, Status.GOOD), (0.9, Status.ASK), (4, Status.CARE)):
            self.assertIs(self.told(flow=100, power=power)["Power"].status, status)
        for bar, status in ((6.2, Status.GOOD), (8, Status.CARE), (4, Status.CARE)):
            self.assertIs(self.told(pressure=bar)["Pressure difference"].status, status)
        for c, status in ((90, Status.GOOD), (120, Status.CARE)):
            self.assertIs(self.told(temperature=c)["Bearing temperature"].status, status)
        stands = {noise: self.told(noise=noise)["Noise"].status for noise in NOISES}
        self.assertEqual((stands.pop("even"), stands.pop("rub")), (Status.GOOD, Status.STOP))
        self.assertEqual(set(stands.values()), {Status.CARE})

    def test_a_bucket(self):
        self.assertAlmostEqual(by_bucket(10, 12), 50)
        self.assertEqual(
            render(calculator("bucket").run({"volume": "10", "seconds": "12"}, Entry(Units.MM))[0].text, Units.MM), "50.000 L/min"
        )
        with self.assertRaises(FieldError):
            by_bucket(10, 0)
