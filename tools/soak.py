"""Long and hard use of a real server, not part of CI: kills under writers, sixteen people for twenty minutes, made-up requests.

    tools/soak.py kills [--kills 100] [--writers 8]
    tools/soak.py load [--minutes 20] [--clients 16]
    tools/soak.py requests [--each 25000]          # goes on where it stopped: var/soak.json
    tools/soak.py upgrades                         # data of every version that landed

Each works on a demo of its own that is thrown away, prints what it measured, and leaves with 1 where something is wrong.
"""

from __future__ import annotations

import argparse
import datetime as dt
import json
import os
import random
import shutil
import signal
import socket
import sqlite3
import statistics
import subprocess
import sys
import tempfile
import threading
import time
import urllib.error
import urllib.request
import uuid
from http.client import HTTPException
from http.cookiejar import CookieJar
from pathlib import Path
from typing import Any

ROOT = Path(__file__).resolve().parents[1]
sys.path.insert(0, str(ROOT))
FAULTS = (OSError, ValueError, HTTPException)
STATIONS = ("front/12–6", "front/3–9")


class Server:
    """The demo, served from a folder; killed and started again as often as is wanted."""

    def __init__(self, folder: str) -> None:
        self.folder = folder
        with socket.socket() as probe:
            probe.bind(("127.0.0.1", 0))
            self.port = probe.getsockname()[1]
        self.process: subprocess.Popen[bytes] | None = None

    def start(self) -> None:
        """Serve, and wait until somebody can sign in."""
        command = [sys.executable, "-m", "finegap.command", "demo", "--works", self.folder, "--port", str(self.port)]
        quiet = {"stdout": subprocess.DEVNULL, "stderr": subprocess.DEVNULL}
        self.process = subprocess.Popen(command, cwd=ROOT, start_new_session=True, **quiet)
        for _ in range(600):
            try:
                urllib.request.urlopen(f"http://127.0.0.1:{self.port}/sign-in", timeout=5).read()
                return
            except FAULTS:
                time.sleep(0.1)
        raise SystemExit("the server does not start")

    def workers(self) -> list[int]:
        """Its processes that answer."""
        assert self.process
        children = Path(f"/proc/{self.process.pid}/task/{self.process.pid}/children").read_text().split()
        return [int(pid) for pid in children if b"stand_in" not in Path(f"/proc/{pid}/cmdline").read_bytes()]

    def kill_worker(self, rng: random.Random) -> None:
        """One of them, at once."""
        os.kill(rng.choice(self.workers()), signal.SIGKILL)

    def kill(self) -> None:
        """All of it, at once."""
        assert self.process
        os.killpg(self.process.pid, signal.SIGKILL)
        self.process.wait()


class Client:
    """Somebody at a tablet: signed in once, and again where the cookie is gone."""

    def __init__(self, port: int, username: str) -> None:
        self.base, self.username = f"http://127.0.0.1:{port}", username
        self.jar = CookieJar()
        self.opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(self.jar))
        self.opener.open(f"{self.base}/sign-in", timeout=20).read()
        form = f"username={username}&csrfmiddlewaretoken={self.token()}".encode()
        self.opener.open(f"{self.base}/sign-in/demo", form, timeout=20).read()

    def token(self) -> str:
        """What a change carries."""
        return next(cookie.value or "" for cookie in self.jar if cookie.name == "csrftoken")

    def get(self, path: str) -> bytes:
        """What is there."""
        return bytes(self.opener.open(f"{self.base}{path}", timeout=30).read())

    def post(self, path: str, body: dict[str, Any]) -> dict[str, Any]:
        """A change, typed now."""
        typed = {"unit": "mm", "mark": "point", "person": self.username, "at": dt.datetime.now(dt.UTC).isoformat(), "meant": True}
        headers = {"Content-Type": "application/json", "X-CSRFToken": self.token()}
        request = urllib.request.Request(f"{self.base}{path}", json.dumps(typed | body).encode(), headers)
        answer: dict[str, Any] = json.load(self.opener.open(request, timeout=30))
        return answer

    def reading(self, number: int, of: tuple[str, str, str, str], id_: str) -> None:
        """A reading, by the version of the job there is."""
        feature, station, gauge, typed = of
        version = json.loads(self.get(f"/api/jobs/{number}/version"))["version"]
        self.post(
            f"/api/jobs/{number}/readings",
            {"version": version, "id": id_, "feature": feature, "station": station, "gauge": gauge, "typed": typed},
        )


def places(client: Client) -> list[tuple[int, tuple[str, str, str, str]]]:
    """Where readings can be saved in the demo's open jobs: a job, and a feature, station, gauge and value."""
    found = []
    for line in json.loads(client.get("/api/jobs?state=open"))["lines"]:
        job = json.loads(client.get(f"/api/jobs/{line['number']}"))
        for feature in job["features"]:
            last = next((one for one in reversed(feature["readings"]) if not one["struck_reason"] and one["gauge"]), None)
            if last:
                found.append((line["number"], (feature["key"], last["station"], last["gauge"], last["typed"])))
    return found


class Writers:
    """People who save readings, and send again what was not answered, under the same identity, as the bench does."""

    def __init__(self, server: Server, count: int) -> None:
        self.server, self.usable = server, _usable(Client(server.port, "ines"))
        self.sent, self.acknowledged, self.refused = [set[str]() for _ in range(3)]
        self.done = threading.Event()
        self.threads = [threading.Thread(target=self._write, args=(random.Random(n),)) for n in range(count)]
        for thread in self.threads:
            thread.start()

    def _write(self, own: random.Random) -> None:
        client: Client | None = None
        while not self.done.is_set():
            id_ = str(uuid.UUID(int=own.getrandbits(128), version=4))
            self.sent.add(id_)
            client = self._save(client, own, id_)

    def _save(self, client: Client | None, own: random.Random, id_: str) -> Client | None:
        number, of = own.choice(self.usable)
        while not self.done.is_set():
            try:
                client = client or Client(self.server.port, "ines")
                client.reading(number, of, id_)
                self.acknowledged.add(id_)
                return client
            except urllib.error.HTTPError as answer:
                if answer.code != 409:  # then somebody else was first: it is looked at anew, and sent again
                    self.refused.add(f"{answer.code} {answer.read()[:200]!r}")
                    return client
            except FAULTS:
                client = None
                time.sleep(0.2)
        return client

    def stop(self) -> None:
        """When each has its answer."""
        self.done.set()
        for thread in self.threads:
            thread.join(60)


def kills(count: int, writers: int) -> bool:
    """Kill workers and whole servers under writers."""
    rng, folder = random.Random(22), tempfile.mkdtemp(prefix="soak-")
    server = Server(folder)
    server.start()
    writing = Writers(server, writers)
    for n in range(count):
        time.sleep(0.5 + rng.random())
        if n % 2:
            server.kill_worker(rng)
        else:
            server.kill()
            server.start()
        if n % 10 == 9:
            print(f"  {n + 1} kills, {len(writing.acknowledged)} saves acknowledged", flush=True)
    time.sleep(3)
    writing.stop()
    server.kill()
    whole = (count + 1) // 2
    print(f"kills: {whole} of the whole server, {count - whole} of a worker, under {writers} writers", flush=True)
    good = _kept(Path(folder) / "finegap.sqlite3", writing)
    shutil.rmtree(folder)
    return good


def _kept(path: Path, writing: Writers) -> bool:
    """Whether everything acknowledged is there, once, with one line of the trail; printed."""
    database = sqlite3.connect(path)
    kept = [str(uuid.UUID(row[0])) for row in database.execute("SELECT id FROM bench_reading")]
    lines = database.execute("SELECT count(*) FROM audit_change WHERE kind = 'bench.reading' AND act = 'added'").fetchone()[0]
    state = database.execute("PRAGMA integrity_check").fetchone()[0]
    loose = database.execute("PRAGMA foreign_key_check").fetchall()
    database.close()
    lost, twice = writing.acknowledged - set(kept), len(kept) - len(set(kept))
    unanswered = {one for one in kept if one in writing.sent} - writing.acknowledged
    print(
        f"kills: {len(writing.acknowledged)} saves acknowledged, {len(lost)} lost, {twice} twice; {len(unanswered)} saved and not"
        f" answered before the end; {len(kept)} readings, {lines} lines of the trail; {len(writing.refused)} refused; database"
        f" {state}, {len(loose)} loose rows"
    )
    for one in sorted(writing.refused)[:5]:
        print("  refused:", one)
    return not (lost or twice or writing.refused or loose) and lines == len(kept) and state == "ok"


def _usable(client: Client) -> list[tuple[int, tuple[str, str, str, str]]]:
    """The places that take a reading once more."""
    found = []
    for number, of in places(client):
        try:
            client.reading(number, of, str(uuid.uuid4()))
            found.append((number, of))
        except urllib.error.HTTPError:
            continue
    assert found, "no job of the demo takes a reading"
    return found


def load(minutes: float, clients: int) -> bool:
    """People at work, a press every two seconds or so each; beside it, before, one alone."""
    folder = tempfile.mkdtemp(prefix="soak-")
    server = Server(folder)
    server.start()
    usable = _usable(Client(server.port, "ines"))
    alone, failed = _work(server, usable, 1, min(1.0, minutes))
    many, more = _work(server, usable, clients, minutes)
    server.kill()
    shutil.rmtree(folder)
    for name, of in (("one client", alone), (f"{clients} clients at once", many)):
        every = [ms for times in of.values() for ms in times]
        for kind, times in [*sorted(of.items()), ("in all", every)]:
            print(f"load: {name}, {kind}: {len(times)}, p50 {_at(times, 50)}, p95 {_at(times, 95)}, p99 {_at(times, 99)} ms")
    print(f"load: {len(failed) + len(more)} errors")
    for one in [*failed, *more][:5]:
        print("  ", one)
    return not failed and not more


def _at(times: list[float], percent: int) -> str:
    return f"{statistics.quantiles(times, n=100)[percent - 1]:.0f}" if len(times) > 1 else "-"


def _work(
    server: Server, usable: list[tuple[int, tuple[str, str, str, str]]], clients: int, minutes: float
) -> tuple[dict[str, list[float]], list[str]]:
    until, taken, failed = time.monotonic() + 60 * minutes, dict[str, list[float]](), list[str]()

    def work(own: random.Random) -> None:
        client = Client(server.port, own.choice(("ines", "otto")))
        while time.monotonic() < until:
            number, of = own.choice(usable)
            kind = own.choices(("job", "list", "page", "save", "report"), (30, 20, 20, 28, 2))[0]
            begun = time.perf_counter()
            try:
                if kind == "save":
                    _save(client, number, of)
                else:
                    path = {"job": f"/api/jobs/{number}", "report": f"/api/jobs/{number}/report.pdf"}.get(kind) or own.choice(
                        ("/api/jobs?state=open", "/api/pumps", "/api/gauges", "/api/sheets", "/api/me")
                        if kind == "list"
                        else ("/bench", f"/api/jobs/{number}/version", f"/api/jobs/{number}/drawing")
                    )
                    client.get(path)
                taken.setdefault(kind, []).append(1000 * (time.perf_counter() - begun))
            except FAULTS as wrong:
                failed.append(f"{kind}: {wrong!r}")
            time.sleep(own.expovariate(1 / 2))

    threads = [threading.Thread(target=work, args=(random.Random(n),)) for n in range(clients)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    return taken, failed


def _save(client: Client, number: int, of: tuple[str, str, str, str]) -> None:
    """A save; where somebody else was first it is looked at anew and sent again, which counts with it."""
    id_ = str(uuid.uuid4())
    for _ in range(10):
        try:
            return client.reading(number, of, id_)
        except urllib.error.HTTPError as answer:
            if answer.code != 409:
                raise
    raise ValueError("ten times somebody else was first")


def made_up(each: int) -> bool:
    """Requests made up from the published schema, for either role, a piece at a time; what was done is written down."""
    state_file = ROOT / "var" / "soak.json"
    state_file.parent.mkdir(exist_ok=True)
    state = json.loads(state_file.read_text()) if state_file.exists() else {}
    environment = os.environ | {"FINEGAP_TEST_DB": ":memory:"}
    good = True
    for role in ("tom", "lena"):
        done = state.get(role, {"sent": 0, "round": 0, "faults": 0})
        while done["sent"] < each:
            piece = {"SOAK_ROLE": role, "SOAK_ROUND": str(done["round"] + 2), "SOAK_EACH": "12"}
            command = [sys.executable, "manage.py", "test", "--noinput", "tests.soaked"]
            told = subprocess.run(command, cwd=ROOT, env=environment | piece, capture_output=True, text=True, check=False)
            line = next((one for one in told.stdout.splitlines() if one.startswith("SOAKED ")), None)
            if line is None:
                print(told.stderr[-3000:])
                return False
            count, faults = json.loads(line.removeprefix("SOAKED "))
            done = {"sent": done["sent"] + count, "round": done["round"] + 1, "faults": done["faults"] + len(faults)}
            state[role] = done
            state_file.write_text(json.dumps(state))
            for fault in faults[:5]:
                print("  ", fault[:600])
            good = good and not faults
            print(f"  {role}: {done['sent']} requests, {done['faults']} faults", flush=True)
        # The next run sends others.
        state[role] = {"sent": 0, "round": done["round"], "faults": 0}
        state_file.write_text(json.dumps(state))
        print(f"requests: {role}: {done['sent']} made-up requests, {done['faults']} faults of the server or of the shape")
        good = good and not done["faults"]
    return good


def upgrades() -> bool:
    """Data of every version that landed."""
    command = [sys.executable, "manage.py", "test", "--noinput", "tests.apps.test_upgrades.Landed"]
    return subprocess.run(command, cwd=ROOT, env=os.environ | {"FINEGAP_ALL": "1", "FINEGAP_TEST_DB": ":memory:"}).returncode == 0


def main() -> None:
    """One of them, or all in turn."""
    parser = argparse.ArgumentParser(description=__doc__.splitlines()[0])
    parser.add_argument("what", nargs="?", choices=("kills", "load", "requests", "upgrades"))
    parser.add_argument("--kills", type=int, default=100)
    parser.add_argument("--writers", type=int, default=8)
    parser.add_argument("--minutes", type=float, default=20)
    parser.add_argument("--clients", type=int, default=16)
    parser.add_argument("--each", type=int, default=25_000)
    asked = parser.parse_args()
    ways = {
        "kills": lambda: kills(asked.kills, asked.writers),
        "load": lambda: load(asked.minutes, asked.clients),
        "requests": lambda: made_up(asked.each),
        "upgrades": upgrades,
    }
    good = [way() for name, way in ways.items() if asked.what in (None, name)]
    sys.exit(0 if all(good) else 1)


if __name__ == "__main__":
    main()
