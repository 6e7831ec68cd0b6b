"""Speed and size, as ratios within one run: what is ours against what it is measured by."""

from __future__ import annotations

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
import uuid
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
    """The gasket solver against brute force and against a general-purpose exact solver, on the same stocks."""
    from finegap.core.gap.gaskets import best_stack
    from tests.core.test_gap import brute_force, by_ortools

    draw = random.Random(7)
    for thicknesses, most, compare in ((6, 3, "brute"), (14, 6, "cp-sat"), (30, 8, "cp-sat")):
        stock = {draw.randrange(20, 400): draw.randint(1, most) for _ in range(thicknesses)}
        target = sum(t * n for t, n in stock.items()) // 3
        ours = median_ms(lambda: best_stack(stock, target, 10, 10), 15)  # noqa: B023
        rival = brute_force if compare == "brute" else by_ortools
        other = median_ms(lambda: rival(stock, target, 10, 10), 5)  # noqa: B023
        name = "brute force" if compare == "brute" else "general-purpose solver (CP-SAT)"
        row(f"gasket stack, {len(stock)} thicknesses, up to {most} each", ours, other, name)


def reading() -> None:
    """A saved reading's server time against the bare SQL and JSON it needs."""
    import django

    django.setup()
    from django.conf import settings
    from django.core.management import call_command
    from django.db import connection, transaction
    from django.test import Client

    settings.ALLOWED_HOSTS = ["*"]
    call_command("migrate", verbosity=0)
    call_command("load_demo", stdout=open(os.devnull, "w"))  # noqa: SIM115
    from django.contrib.auth.models import User

    client = Client()
    client.force_login(User.objects.get(username="ines"))
    state = {"version": client.get("/api/jobs/4").json()["version"]}
    answer = b""

    def save() -> None:
        nonlocal answer
        body = {
            "version": state["version"], "id": str(uuid.uuid4()), "feature": "shaft_at_bushing", "station": "front/12–6",
            "typed": "41.985", "gauge": "M-03",
        }  # fmt: skip
        response = client.post("/api/jobs/4/readings", json.dumps(body), content_type="application/json")
        assert response.status_code == 200, response.content
        answer = response.content
        state["version"] += 1

    ours = median_ms(save, 30)
    record = json.loads(answer)
    counter = itertools.count(10_000)

    def bare() -> None:
        with transaction.atomic(), connection.cursor() as cursor:
            cursor.execute("SELECT * FROM bench_job WHERE number = 4")
            cursor.execute("SELECT * FROM bench_reading WHERE job_id = 4")
            cursor.fetchall()
            cursor.execute("UPDATE bench_reading SET value_mm = value_mm WHERE job_id = 4 AND %s > 0", [next(counter)])
            cursor.execute("UPDATE bench_job SET version = version WHERE number = 4")
        json.dumps(record)

    row("a reading saved over HTTP, answer included", ours, median_ms(bare, 30), "bare SQL and JSON")


def shipped() -> None:
    """JavaScript the bench screen needs, gzip."""
    page = (ROOT / "frontend/dist/index.html").read_text()
    names = re.findall(r'(?:src|href)="/static/(app/[^"]+\.js)"', page)
    size = sum(len(gzip.compress((ROOT / "frontend/dist" / n).read_bytes(), 9)) for n in names) / 1000
    print(f"JavaScript for the bench screen: {size:.0f} kB gzip (aim: 200 or less, ratio {size / 200:.2f})")


if __name__ == "__main__":
    gaskets()
    reading()
    shipped()
