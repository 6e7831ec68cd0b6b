"""The server killed in the middle of saving: every reading and torque that was acknowledged is there after a restart."""

from __future__ import annotations

import datetime as dt
import json
import os
import random
import signal
import socket
import sqlite3
import subprocess
import sys
import tempfile
import threading
import time
import urllib.request
import uuid
from http.client import HTTPException
from http.cookiejar import CookieJar
from pathlib import Path
from typing import Any

from django.conf import settings
from django.test import SimpleTestCase

ROOT = Path(settings.BASE_DIR)
ENOUGH = 6


def free_port() -> int:
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return probe.getsockname()[1]


class Client:
    """A bench that saves readings and torques as fast as it can until the server is gone."""

    def __init__(self, port: int) -> None:
        self.base = f"http://127.0.0.1:{port}"
        self.jar = CookieJar()
        self.opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(self.jar))
        self.opener.open(f"{self.base}/sign-in").read()
        self.opener.open(f"{self.base}/sign-in/demo", f"username=ines&csrfmiddlewaretoken={self.token()}".encode()).read()
        self.acknowledged: list[str] = []

    def token(self) -> str:
        return next(c.value for c in self.jar if c.name == "csrftoken")

    def save_until_cut_off(self) -> None:
        """A reading, a torque, a reading, a torque; when all are logged, the first is struck out and it begins again."""
        job = json.load(self.opener.open(f"{self.base}/api/jobs/4"))
        while True:
            for path, body in (self.reading(), self.torque(job)):
                headers = {"Content-Type": "application/json", "X-CSRFToken": self.token()}
                typed = {"unit": "mm", "mark": "point", "person": "ines", "at": dt.datetime.now(dt.UTC).isoformat()}
                sent = json.dumps(body | typed | {"version": job["version"]}).encode()
                try:
                    job = json.load(self.opener.open(urllib.request.Request(f"{self.base}/api/jobs/4/{path}", sent, headers)))
                except (OSError, ValueError, HTTPException):
                    return
                self.acknowledged += [body["id"]] if "id" in body else []

    def reading(self) -> tuple[str, dict[str, Any]]:
        return "readings", {
            "id": str(uuid.uuid4()), "feature": "shaft_at_bushing", "station": "front/12–6", "typed": "41.985", "gauge": "M-03",
        }  # fmt: skip

    def torque(self, job: dict[str, Any]) -> tuple[str, dict[str, Any]]:
        bolts = next(t for t in job["tasks"] if t["key"] == "torque:head bolts")
        if bolts["pass_number"] is None:
            first = next(t for t in bolts["log"] if not t["struck_reason"])
            return "torques/strike", {"torque": first["id"], "reason": "again"}
        return "torques", {
            "id": str(uuid.uuid4()), "fastener": "head bolts", "pass_number": bolts["pass_number"], "bolts": bolts["left"][:1],
            "typed": bolts["middle"], "wrench": bolts["wrench"],
        }  # fmt: skip


class Killed(SimpleTestCase):
    def test_kill_9_loses_nothing_that_was_acknowledged(self):
        with tempfile.TemporaryDirectory() as var:
            acknowledged: list[str] = []
            (Path(var) / "finegap.sqlite3").touch(0o644)  # as a version that let everybody read it left it
            for _ in range(3):
                acknowledged += self.serve_and_kill(var, acknowledged)
            database = sqlite3.connect(Path(var) / "finegap.sqlite3")
            readings, torques = (
                {str(uuid.UUID(row[0])) for row in database.execute(f"SELECT id FROM bench_{kind}")}
                for kind in ("reading", "torquemark")
            )
            whole = database.execute("PRAGMA integrity_check").fetchone()
            database.close()
            kept = [path for path in Path(var).rglob("*") if path.name.startswith("finegap.") or "media" in path.parts]
            self.assertEqual([path for path in kept if path.stat().st_mode & 0o077], [])
            self.assertIn("finegap.sqlite3", [path.name for path in kept])
        self.assertGreaterEqual(len(acknowledged), 3 * ENOUGH)
        self.assertEqual(set(acknowledged) - readings - torques, set())
        self.assertGreaterEqual(len(set(acknowledged) & torques), ENOUGH)
        self.assertEqual(whole, ("ok",))

    def many_at_once(self, port: int) -> list[str]:
        """Sixteen people, a few presses each, as ``make soak`` has them for twenty minutes: no error."""
        failed: list[str] = []

        def work(n: int) -> None:
            try:
                client = Client(port)
                for path in ("/api/jobs/4", "/api/pumps", "/bench", f"/api/jobs/{n % 3 + 1}", "/api/me"):
                    client.opener.open(f"{client.base}{path}").read()
            except (OSError, HTTPException) as wrong:
                failed.append(repr(wrong))

        threads = [threading.Thread(target=work, args=(n,)) for n in range(16)]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join(60)
        return failed

    def waits_for_the_slow(self, port: int) -> float:
        """Eight people begin a request and say no more, one for each thread: how long somebody else waits, in seconds."""
        slow = [socket.create_connection(("127.0.0.1", port)) for _ in range(8)]
        for one in slow:
            one.sendall(b"GET /sign-in HTTP/1.1\r\nX-Slow: ")
        time.sleep(0.5)
        begun = time.monotonic()
        urllib.request.urlopen(f"http://127.0.0.1:{port}/sign-in", timeout=60).read()
        for one in slow:
            one.close()
        return time.monotonic() - begun

    def serve_and_kill(self, var: str, acknowledged: list[str]) -> list[str]:
        port = free_port()
        serve = [sys.executable, "-m", "finegap.command", "demo", "--port", str(port)]
        environment = os.environ | {"FINEGAP_VAR": var, "FINEGAP_DEMO": "1"}
        server = subprocess.Popen(
            serve, cwd=ROOT, env=environment, start_new_session=True, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL
        )
        try:
            for _ in range(600):  # the first time the whole demo is loaded
                try:
                    client = Client(port)
                    break
                except OSError:
                    time.sleep(0.2)
            if not acknowledged:
                self.assertEqual(self.many_at_once(port), [])
                self.assertLess(self.waits_for_the_slow(port), 25)
            saving = threading.Thread(target=client.save_until_cut_off)
            saving.start()
            for _ in range(600):
                if len(client.acknowledged) >= ENOUGH:
                    break
                time.sleep(0.1)
            reset = subprocess.run([*serve[:4], "--reset", "--yes"], cwd=ROOT, env=environment, capture_output=True, text=True)
            self.assertIn("is being served", reset.stderr)
            time.sleep(random.random() / 5)  # anywhere in the middle of a save
        finally:
            os.killpg(server.pid, signal.SIGKILL)
            server.wait()
        saving.join(10)
        return client.acknowledged
