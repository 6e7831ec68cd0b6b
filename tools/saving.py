"""What a save costs, beside the least it could: CPU time, in turn, in one run."""

from __future__ import annotations

import gzip
import json
import os
import sqlite3
import statistics
import time
import uuid
from collections.abc import Callable, Iterator
from pathlib import Path
from typing import Any

from django.db import connection
from django.test import Client
from django.utils import timezone

HERE = Path(__file__).resolve().parent
PRAGMAS = "PRAGMA journal_mode=WAL; PRAGMA synchronous=FULL; PRAGMA foreign_keys=OFF"
COMPACT = (",", ":")


def cpu_ms(run: Callable[[], object]) -> float:
    """CPU time of a call, in milliseconds."""
    start = time.process_time()
    run()
    return (time.process_time() - start) * 1000


class Floor:
    """The least a saved reading could cost, fixed for good: the 32 statements of main 2689a8e through plain sqlite3, on the rows
    they touched, and its answer, 160 kB, as compact JSON."""

    def __init__(self, folder: Path) -> None:
        given = json.loads(gzip.decompress((HERE / "floor" / "reading.json.gz").read_bytes()))
        self.answer = given["answer"]
        self.db = sqlite3.connect(folder / "floor.sqlite3", isolation_level=None)
        self.db.executescript(PRAGMAS)
        for sql in given["schema"]:
            self.db.execute(sql)
        for table, rows in given["rows"].items():
            marks = ",".join("?" * len(given["columns"][table]))
            self.db.executemany(f'INSERT INTO "{table}" VALUES ({marks})', rows)
        self.statements = [(one["sql"], one["values"]) for one in given["statements"]]

    def measure(self) -> float:
        """CPU time of one save, in milliseconds."""

        def save() -> None:
            for sql, values in self.statements:
                self.db.execute(sql, values).fetchall()
            self.db.execute("COMMIT")
            json.dumps(self.answer, separators=COMPACT)

        spent = cpu_ms(save)
        # What was put in is taken out, so that the next save meets the same rows.
        for sql, values in self.statements:
            if sql.startswith("INSERT"):
                table = sql.split('"')[1]
                key = ("id", values[0]) if table == "bench_reading" else ("version", values[1])
                self.db.execute(f'DELETE FROM "{table}" WHERE "{key[0]}" = ?', key[1:])
        return spent


class OfTheDay:
    """The statements and bytes a change has today, through plain sqlite3 on a copy of the database, taken back each time."""

    def __init__(self, folder: Path) -> None:
        self.db = sqlite3.connect(folder / f"{uuid.uuid4()}.sqlite3", isolation_level=None)
        with sqlite3.connect(str(connection.settings_dict["NAME"])) as source:
            source.backup(self.db)
        self.statements: list[tuple[str, Any]] = []
        self.answer: Any = None

    def record(self, execute: Any, sql: str, values: Any, many: bool, context: Any) -> Any:
        """A statement as Django runs it."""
        if sql.split()[0] not in ("BEGIN", "COMMIT", "SAVEPOINT", "RELEASE"):
            self.statements.append((sql.replace("%s", "?"), values or ()))
        return execute(sql, values, many, context)

    def measure(self) -> float:
        """CPU time in milliseconds."""

        def again() -> None:
            for sql, values in self.statements:
                self.db.execute(sql, values).fetchall()
            json.dumps(self.answer, separators=COMPACT)

        self.db.execute("BEGIN IMMEDIATE")
        spent = cpu_ms(again)
        self.db.execute("ROLLBACK")
        return spent


class Page:
    """A page of a job: it says what it holds, and changes the job."""

    def __init__(self, client: Client, number: int, person: str) -> None:
        self.client, self.address, self.person = client, f"/api/jobs/{number}", person
        self.tags: dict[str, str] = {}
        self.last = b""
        self.take(client.get(self.address, headers=self.headers))

    @property
    def headers(self) -> dict[str, str]:
        """What it holds; and it reads gzip, as browsers do."""
        return {"Held": ",".join(self.tags.values()), "accept-encoding": "gzip"}

    def take(self, answer: Any) -> None:
        """What was answered is held."""
        assert answer.status_code == 200, answer.content
        self.packed = len(answer.content)
        packed = answer.get("Content-Encoding") == "gzip"
        self.last = gzip.decompress(answer.content) if packed else answer.content
        sent = json.loads(self.last)["sections"]
        self.tags |= {name: one["tag"] for name, one in sent.items()}
        self.version = sent["self"]["value"]["version"]

    def change(self, kind: str, **body: Any) -> float:
        """CPU time of a change in milliseconds, from the request to its answer."""
        said = {"version": self.version, "unit": "mm", "mark": "point", "person": self.person, "at": timezone.now().isoformat()}
        text, headers = json.dumps({**said, "id": str(uuid.uuid4()), **body}), self.headers
        answers: list[Any] = []
        spent = cpu_ms(
            lambda: answers.append(self.client.post(f"{self.address}/{kind}", text, "application/json", headers=headers))
        )
        self.take(answers[0])
        return spent

    def whole(self) -> Any:
        """The job."""
        return self.client.get(self.address).json()


def changes_of(page: Page) -> dict[str, Iterator[dict[str, Any]]]:
    """Changes to the demo's half-done job, by kind, as a technician makes them one after another."""
    job = page.whole()
    return {"readings": readings(job), "parts": parts(job), "decisions": decisions(), "steps": steps(job)}


def readings(job: Any) -> Iterator[dict[str, Any]]:
    """The middle of its new size, at every station of what was not measured yet."""
    for feature in job["features"]:
        if feature["new_mm"] and feature["made"] and not feature["readings"]:
            typed = f"{sum(feature['new_mm']) / 2:.3f}"
            for station in feature["stations"]:
                at = {"feature": feature["key"], "station": station["key"], "gauge": feature["gauge"]}
                yield {**at, "typed": typed, "meant": True}


def steps(job: Any) -> Iterator[dict[str, Any]]:
    """Of Build, those that wait for nothing."""
    for step in job["steps"]:
        if step["stage"] == "build" and not step["by"] and not step["tasks"] and not step["waits"] and not step["early"]:
            yield {"step": step["key"]}


def decisions() -> Iterator[dict[str, Any]]:
    """One thought better of, again and again."""
    for new in (["idler_bore"], ["idler_bore", "idler_pin"]) * 6:
        yield {"feature": "idler_clearance", "decided": "change", "parts": new, "reason": "worn"}


def parts(job: Any) -> Iterator[dict[str, Any]]:
    """Every stack, in order."""
    for task in job["tasks"]:
        for part in task["parts"] if task["kind"] == "stack" else []:
            if not part["by"]:
                yield {"stack": task["key"].partition(":")[2], "part": part["key"], "confirmed": True, "reason": "asked"}


def saving(number: int = 4, person: str = "ines") -> None:
    """Reading, part, decision, step: each beside the floor, and beside its own statements and bytes of today."""
    folder = Path(os.environ["FINEGAP_VAR"])
    from django.contrib.auth.models import User

    client = Client()
    client.force_login(User.objects.get(username=person))
    page, floor = Page(client, number, person), Floor(folder)
    for kind, bodies in changes_of(page).items():
        day = OfTheDay(folder)
        with connection.execute_wrapper(day.record):
            page.change(kind, **next(bodies))
        day.answer = json.loads(page.last)
        rows = [(page.change(kind, **body), floor.measure(), day.measure(), len(page.last), page.packed) for body in bodies]
        ours, least, today = (statistics.median(row[i] for row in rows) for i in range(3))
        size, packed = (max(row[i] for row in rows) for i in (3, 4))
        print(
            f"{'a save: ' + kind:<24} {ours:7.1f} ms CPU   {ours / least:5.1f} times the floor (aim 4; {least:.1f} ms)   "
            f"{ours / today:5.1f} times its own {len(day.statements)} statements and bytes   "
            f"answer {size / 1000:.1f} kB, {packed / 1000:.1f} packed (aim 15, 4)   {len(rows)} saves"
        )
