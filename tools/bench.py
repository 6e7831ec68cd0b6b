"""Speed and size, as ratios within one run: what is ours against what it is measured by."""

from __future__ import annotations

import argparse
import gzip
import itertools
import json
import os
import random
import re
import statistics
import sys
import tempfile
import time
from collections.abc import Callable
from pathlib import Path

ROOT = Path(__file__).resolve().parents[1]
sys.path.insert(0, str(ROOT))
os.environ["DJANGO_SETTINGS_MODULE"] = "finegap.site.settings"
os.environ["FINEGAP_VAR"] = tempfile.mkdtemp()


def median_ms(run: Callable[[], object], times: int) -> float:
    """Median wall time of a call, in milliseconds."""
    spent = []
    for _ in range(times):
        start = time.perf_counter()
        run()
        spent.append((time.perf_counter() - start) * 1000)
    return statistics.median(spent)


def row(what: str, ours: float, other: float, other_name: str) -> None:
    """One line of the table."""
    print(f"{what:<46} {ours:9.3f} ms   {other:9.3f} ms {other_name:<34} ratio {ours / other:8.3f}")


def gaskets() -> None:
    """The gasket solver against brute force and against a general-purpose exact solver: two stocks a size, the same optimum."""
    from finegap.core.gap.stack_choice import best_stack
    from tests.core.test_gap import brute_force, by_ortools

    draw = random.Random(7)
    for thicknesses, most, compare in ((6, 3, "brute"), (14, 6, "cp-sat"), (30, 8, "cp-sat"), (60, 8, "cp-sat")):
        rival = brute_force if compare == "brute" else by_ortools
        mine, theirs = [], []
        for _ in range(2):
            stock = {draw.randrange(20, 400): draw.randint(1, most) for _ in range(thicknesses)}
            target = min(sum(t * n for t, n in stock.items()) // 3, 15_000)
            ours, other = best_stack(stock, target, 10, 10), rival(stock, target, 10, 10)
            found = None if ours.stack is None else (len(ours.stack), abs(ours.error_um))
            assert found == (other and other[:2]), (stock, target, found, other)
            mine.append(median_ms(lambda: best_stack(stock, target, 10, 10), 15))  # noqa: B023
            theirs.append(median_ms(lambda: rival(stock, target, 10, 10), 5))  # noqa: B023
        name = "brute force" if compare == "brute" else "general-purpose solver (CP-SAT)"
        ours_ms, other_ms = statistics.median(mine), statistics.median(theirs)
        row(f"gasket stack, {thicknesses} thicknesses, up to {most} each", ours_ms, other_ms, name)


def purchase() -> None:
    """A stack that cannot be made, with what to buy looked for in all that is sold, beside one pass over the sums alone."""
    from finegap.core.gap.stack_choice import StackWanted, what_to_buy

    for sold in (16, 40, 60):
        stock = {50 * i: 10 for i in range(1, sold + 1)}
        wanted = StackWanted(1025, 1015, 1035)  # no multiple of 50 is in it

        def sums(stock: dict[int, int] = stock) -> int:
            made, mask = 1, (1 << 1036 + max(stock)) - 1
            for thickness, count in stock.items():
                for bundle in (1, 2, 4, count - 7):
                    made |= made << bundle * thickness & mask
            return made

        assert what_to_buy(stock, tuple(stock), wanted) == ()
        ours = median_ms(lambda: what_to_buy(stock, tuple(stock), wanted), 9)  # noqa: B023
        row(
            f"what to buy where nothing does, {sold} sold", ours, median_ms(sums, 9), "one pass over the sums, any number of pieces"
        )


def shims() -> None:
    """Shims for two shafts from one stock against trying every deal, and against a general-purpose exact solver."""
    from finegap.core.gap.move import Window
    from finegap.core.gap.shims import Faces, choose_shims, wanted_of
    from tests.core.solvers import shims_by_solver, shims_by_trying

    draw = random.Random(11)
    wanted = wanted_of(Window(0.14, 0.11, 0.17), Window(0.20, 0.16, 0.24), 0.03)
    for thicknesses, most, compare in ((4, 2, "brute"), (14, 6, "cp-sat"), (30, 8, "cp-sat")):
        worst = 0.0
        mine, theirs = [], []
        for _ in range(8):
            stock = {draw.randrange(20, 400): draw.randint(1, most) for _ in range(thicknesses)}
            fronts = [draw.randint(150, 700) for _ in range(2)]
            pump = [Faces(front, 340 - front + draw.randint(-15, 15)) for front in fronts]
            rival = shims_by_trying if compare == "brute" else shims_by_solver
            ours, other = choose_shims(stock, pump, wanted), rival(stock, pump, wanted)
            found = None if ours.stacks is None else (sum(map(len, ours.stacks)), ours.error_um)
            assert found == other, (stock, pump, found, other)
            mine.append(median_ms(lambda: choose_shims(stock, pump, wanted), 5))  # noqa: B023
            theirs.append(median_ms(lambda: rival(stock, pump, wanted), 3))  # noqa: B023
            worst = max(worst, mine[-1] / theirs[-1])
        name = "brute force" if compare == "brute" else "general-purpose solver (CP-SAT)"
        row(
            f"shims, two shafts, {thicknesses} thicknesses, up to {most} each",
            statistics.median(mine),
            statistics.median(theirs),
            name,
        )
        print(f"   the same optimum in all 8 pumps; slowest of them {worst:.3f} of the other")


def shell() -> None:
    """`calc` from the shell: how much of it is starting Python and Django, and what the sum itself takes."""
    import subprocess

    from finegap.core.calculators import calculator
    from finegap.core.entry import Entry
    from finegap.core.formatting import Units

    given = {"diameter": "124", "lead": "1.25", "clearance": "0.05"}

    def run(*command: str, text: str = "") -> None:
        done = subprocess.run([sys.executable, *command], input=text, capture_output=True, text=True, cwd=ROOT, check=True)
        assert not text or "15.58" in done.stdout, done.stdout

    whole = median_ms(lambda: run("manage.py", "calc", "arc", text=json.dumps(given)), 5)
    bare = median_ms(lambda: run("-m", "finegap.calc", "arc", text=json.dumps(given)), 5)
    python = median_ms(lambda: run("-c", "pass"), 5)
    django = median_ms(lambda: run("-c", "import django; django.setup()"), 5)
    answer = median_ms(lambda: calculator("arc").run(given, Entry(Units.MM)), 50)
    row("calc from the shell, answer included", whole, django, "Python and Django started alone")
    row("the same without Django", bare, django, "Python and Django started alone")
    print(f"   of it: Python {python / whole:.0%}, Django {(django - python) / whole:.0%}, the sum itself {answer:.3f} ms")


def saves() -> None:
    """Changes to the demo's half-done job, over HTTP, beside the least they could cost."""
    from django.conf import settings
    from django.core.management import call_command
    from django.db import connection
    from saving import saving

    settings.ALLOWED_HOSTS = ["*"]
    call_command("migrate", verbosity=0)
    asked = itertools.count()

    def counted(execute: Callable[..., object], *statement: object) -> object:
        next(asked)
        return execute(*statement)

    with connection.execute_wrapper(counted):
        call_command("load_demo", stdout=open(os.devnull, "w"))  # noqa: SIM115
    print(f"   SQL queries of the demo's first load: {next(asked)} (aim 2,763)")
    saving()


def lists() -> None:
    """What is listed and saved in a works of 0, 300 and 3,000 further signed jobs; CPU time, and the queries of each."""
    from scale import LISTS, asks, enlarge, measured, worked_out

    from finegap.bench.models import Job

    had, found = Job.objects.count(), []
    for more in (0, 300, 3000):
        enlarge(argparse.Namespace(pumps=7 + more // 10, jobs=had + more, sheets=0, gauges=0, people=0))
        worked_out(time.perf_counter())  # as the server's keeper does by itself: else each list does some of it
        of = asks()
        found.append({name: measured(of[name]) for name in LISTS})
    for name in LISTS:
        queries, _, ms, _ = zip(*(one[name] for one in found), strict=True)
        print(
            f"{name:<28} with 0, 300, 3,000 signed jobs more: {ms[0]:6.1f} {ms[1]:6.1f} {ms[2]:6.1f} ms CPU   "
            f"ratio {ms[1] / ms[0]:.2f} {ms[2] / ms[0]:.2f}   queries {queries[0]} {queries[1]} {queries[2]}"
        )


HISTORY = 20


def long_history() -> None:
    """12 features, 8 stations each, 20 earlier overhauls: the core's time for the whole inspection against a bare loop over it."""
    from dataclasses import replace

    from finegap.core.families.features import stations
    from finegap.core.inspection import inspect
    from finegap.core.job_record import Past, Phase
    from finegap.core.kept import forget
    from finegap.core.measuring.readings import CertifiedGauge, StationReading
    from finegap.core.measuring.verdict import Limit
    from finegap.core.sheet import FeatureSpec
    from finegap.core.wear.hours import HoursRead
    from finegap.core.wear.lives import MeasuredSize, Visit
    from tests.core.job_records import job_record

    base = job_record()
    kinds = [f for f in base.family.features if f.kind.taken][:12]
    eight = stations(("front", "back"), ("12–6", "1:30–7:30", "3–9", "4:30–10:30"))
    gauge = CertifiedGauge("M", 0.001, 0.002, 2, 0.001)
    draw = random.Random(5)
    specs, readings, visits = {}, {}, {}
    for feature in kinds:
        specs[feature.key] = FeatureSpec(Limit(None, 30.5, (30.0, 30.02)), (30.0, 30.02), stations=eight)
        readings[feature.key, Phase.FOUND] = tuple(
            StationReading(s.key, s.plane, 30.2 + draw.gauss(0, 0.002), gauge) for s in eight for _ in range(2)
        )
        visits[feature.key] = tuple(
            Visit(i, i * 200, HoursRead(1000.0 * i), 1.0, MeasuredSize(30.01 + 0.009 * i, 0.002)) for i in range(1, HISTORY + 1)
        )
    sheet = replace(base.sheet, features=specs)
    past = Past(visits, HISTORY + 1, 9000, HoursRead(21_000.0), 2000.0)
    job = replace(base, sheet=sheet, readings=readings, past=past, duty=replace(base.duty, pressure_bar=1, speed_r_min=1))
    assert sum(len(s.lives[-1].points) == HISTORY + 2 for s in inspect(job) if s.lives) == 12

    def cold() -> None:
        forget()  # a result that is looked up says nothing of what it costs
        inspect(job)

    ours = median_ms(cold, 40)

    def bare() -> None:
        for group in readings.values():
            sum(r.value_mm for r in group)
        for group in visits.values():
            sum(v.found.value_mm * v.meter.hours for v in group if v.found and v.meter.hours)

    row(f"inspection, 12 features, 8 stations, {HISTORY} overhauls", ours, median_ms(bare, 40), "adding up the same numbers")
    print(f"   of the 10 ms it may take: {ours / 10:.2f}")


def forecasts() -> None:
    """Forecasts of 5,000 parts against the same by a statistics library in a loop."""
    import numpy as np
    import statsmodels.api as sm
    from scipy.optimize import brentq
    from scipy.stats import t as student

    from finegap.core.wear.forecast import crossings, fit
    from finegap.core.wear.lives import MeasuredSize, Point

    draw = random.Random(11)
    parts = [
        [Point(2000.0 * i, MeasuredSize(30 + 0.015 * i + draw.gauss(0, 0.002), 0.0)) for i in range(draw.randint(4, 8))]
        for _ in range(5000)
    ]

    def ours() -> None:
        for points in parts:
            line = fit(points)
            assert line is not None
            crossings(line, 30.25, wears_up=True, now=0.0)

    def library(few: int) -> None:
        for points in parts[:few]:
            hours, sizes = np.array([p.hours for p in points]), np.array([p.size.value_mm for p in points])
            model = sm.OLS(sizes, sm.add_constant(hours)).fit()
            sure = float(student.ppf(0.95, model.df_resid))
            scatter, spread = float(model.mse_resid), model.normalized_cov_params

            def short(t: float) -> float:
                at = np.array([1.0, t])
                return float(at @ model.params + sure * np.sqrt(scatter * (1 + at @ spread @ at)) - 30.25)  # noqa: B023

            brentq(short, 0.0, 400_000.0)

    few = 25
    row("5,000 forecasts", median_ms(ours, 3), median_ms(lambda: library(few), 1) * len(parts) / few, f"statsmodels, from {few}")


def shipped() -> None:
    """JavaScript and style the screen of a job needs, gzip: what the page asks for, the job's own, and all they import."""
    dist = ROOT / "frontend/dist"
    page = (dist / "index.html").read_text()
    wanted = re.findall(r'(?:src|href)="/static/app/([^"]+\.js)"', page) + [path.name for path in dist.glob("app/JobPage-*.js")]
    needed: dict[str, bytes] = {}
    while wanted:
        name = wanted.pop()
        if name not in needed:
            needed[name] = (dist / "app" / name).read_bytes()
            wanted += re.findall(r'(?:from|import)"\./([^"]+\.js)"', needed[name].decode())
    style = [(dist / "app" / name).read_bytes() for name in re.findall(r'href="/static/app/([^"]+\.css)"', page)]
    for what, files, aim in (("JavaScript", list(needed.values()), 170), ("style", style, 25)):
        size = sum(len(gzip.compress(one, 9)) for one in files) / 1000
        print(f"{what} for the screen of a job: {size:.1f} kB gzip (aim: {aim} or less, ratio {size / aim:.2f})")


if __name__ == "__main__":
    import django

    django.setup()
    gaskets()
    purchase()
    shims()
    shell()
    long_history()
    forecasts()
    saves()
    lists()
    shipped()
