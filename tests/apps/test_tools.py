"""The commands of the Makefile: one clear line for each thing that can be in the way, and data that is kept."""

from __future__ import annotations

import fcntl
import os
import socket
import subprocess
import sys
import tempfile
import zipfile
from pathlib import Path

from django.conf import settings
from django.test import SimpleTestCase

from finegap.core import VERSION

ROOT = Path(settings.BASE_DIR)


IN_THE_WHEEL = (
    "command.py", "shipped/frontend/index.html", "shipped/formats/spec-sheet.schema.json", "shipped/demo/works.json",
    "site/templates/site/first_visit.html", "site/static/site/zone.js", "formats/fonts/DejaVuSansCondensed.ttf",
    "bench/migrations/words_before_0015.json", "core/families/internal_gear/__init__.py",
)  # fmt: skip


def run(*command: str, **environment: str) -> tuple[int, str]:
    """A command's exit code and all it printed."""
    said = {"stdin": subprocess.DEVNULL, "capture_output": True, "text": True}
    done = subprocess.run(command, cwd=ROOT, env=os.environ | environment, timeout=60, **said)
    return done.returncode, done.stdout + done.stderr


def stand_in(folder: Path, name: str, script: str) -> None:
    """A program that only pretends."""
    path = folder / name
    path.write_text(f"#!/bin/sh\n{script}\n")
    path.chmod(0o755)


class Machine(SimpleTestCase):
    def check(self, python: str = sys.executable, **programs: str) -> tuple[int, str]:
        with tempfile.TemporaryDirectory() as folder:
            for name, script in programs.items():
                stand_in(Path(folder), name, script)
            return run("/bin/sh", "tools/machine", python, PATH=folder)

    def test_what_is_missing_or_too_old_is_said_in_one_line(self):
        good = {"node": "exit 0", "npm": "exit 0"}
        for programs, python, says in (
            (good, "no-such-python", "install Python 3.11"),
            (good | {"old": 'case "$1" in --version) echo Python 3.9.2;; *) exit 1;; esac'}, "old", "This is Python 3.9.2"),
            ({"npm": "exit 0"}, sys.executable, "Node is missing"),
            (good | {"node": 'case "$1" in --version) echo v18.1.0;; *) exit 1;; esac'}, sys.executable, "This is Node v18.1.0"),
            ({"node": "exit 0"}, sys.executable, "npm is missing"),
        ):
            code, said = self.check(python, **programs)
            with self.subTest(says=says):
                self.assertEqual(code, 1)
                self.assertIn(says, said)
                self.assertEqual(len(said.strip().splitlines()), 1)

    def test_a_machine_with_everything_says_nothing(self):
        self.assertEqual(self.check(node="exit 0", npm="exit 0"), (0, ""))


class Serving(SimpleTestCase):
    def serve(self, *arguments: str, var: str) -> tuple[int, str]:
        return run(sys.executable, "-m", "finegap.command", "demo", *arguments, FINEGAP_VAR=var)

    def test_ports_that_cannot_be_had(self):
        with tempfile.TemporaryDirectory() as var, socket.socket() as taken:
            taken.bind(("127.0.0.1", 0))
            taken.listen()
            for port, says in ((str(taken.getsockname()[1]), "is taken"), ("80", "not a port"), ("many", "not a port")):
                code, said = self.serve("--port", port, var=var)
                self.assertEqual((code, len(said.strip().splitlines())), (1, 1))
                self.assertIn(says, said)
            for host, says in (("192.0.2.1", "no address of this machine"), ("pumps", "is no address")):
                code, said = self.serve("--host", host, var=var)
                self.assertEqual((code, len(said.strip().splitlines())), (1, 1))
                self.assertIn(says, said)
            self.assertFalse((Path(var) / "finegap.sqlite3").exists())

    def test_reset_throws_the_data_away_and_nothing_else(self):
        with tempfile.TemporaryDirectory() as var:
            for name in ("finegap.sqlite3", "finegap.sqlite3-wal", "secret_key"):
                (Path(var) / name).touch()
            code, said = self.serve("--reset", var=var)  # nobody there to ask
            self.assertEqual((code, (Path(var) / "finegap.sqlite3").exists()), (1, True))
            self.assertIn("Nothing was thrown away", said)
            with open(Path(var) / "in-use") as served:
                fcntl.flock(served, fcntl.LOCK_SH)
                code, said = self.serve("--reset", "--yes", var=var)
                self.assertEqual((code, (Path(var) / "finegap.sqlite3").exists()), (1, True))
                self.assertIn("is being served", said)
            code, said = self.serve("--reset", "--yes", var=var)
            self.assertEqual((code, sorted(os.listdir(var))), (0, ["holds", "in-use", "secret_key"]))
            self.assertIn("starts afresh", said)

    def test_a_works_is_neither_reset_nor_served_as_the_demo(self):
        with tempfile.TemporaryDirectory() as var:
            (Path(var) / "holds").write_text("works\n")
            (Path(var) / "finegap.sqlite3").touch()
            for command in (("--reset",), ("--port", "8931")):
                code, said = self.serve(*command, var=var)
                self.assertEqual(code, 1)
                self.assertIn("holds a works", said)
            self.assertTrue((Path(var) / "finegap.sqlite3").exists())


class Deployment(SimpleTestCase):
    def test_served_by_tls_there_is_nothing_djangos_own_check_finds(self):
        with tempfile.TemporaryDirectory() as var:
            for tls in ("1", "own"):
                environment = {"FINEGAP_VAR": var, "FINEGAP_TLS": tls, "FINEGAP_HOSTS": "pumps.local"}
                self.assertEqual(run(sys.executable, "manage.py", "check", "--deploy", "--fail-level", "INFO", **environment)[0], 0)

    def test_a_proxy_that_is_none_is_said_when_the_server_starts(self):
        with tempfile.TemporaryDirectory() as var:
            code, said = run(
                sys.executable, "-m", "finegap.command", "serve", "--port", "8931", FINEGAP_VAR=var, FINEGAP_PROXY="10.0.0.0/99"
            )
        self.assertEqual(code, 1)
        self.assertIn("FINEGAP_PROXY: '10.0.0.0/99' does not appear to be", said)
        self.assertNotIn("Traceback", said)

    def test_browsers_are_pinned_to_tls_by_a_public_certificate_alone(self):
        asked = "from django.conf import settings; print(settings.SECURE_HSTS_SECONDS, settings.SESSION_COOKIE_SECURE)"
        for tls, expected in (("1", "86400 True"), ("own", "0 True"), ("", "0 False")):
            with tempfile.TemporaryDirectory() as var:
                environment = {"FINEGAP_VAR": var, "FINEGAP_TLS": tls, "DJANGO_SETTINGS_MODULE": "finegap.site.settings"}
                self.assertIn(expected, run(sys.executable, "-c", asked, **environment)[1])

    def test_the_wheel_has_the_front_end_the_formats_and_the_demo_in_it(self):
        with tempfile.TemporaryDirectory() as folder:
            build = ["-m", "pip", "wheel", "--quiet", "--no-deps", "--no-build-isolation", "--wheel-dir", folder, "."]
            self.assertEqual(run(sys.executable, *build)[0], 0)
            (wheel,) = Path(folder).glob("*.whl")
            self.assertIn(VERSION, wheel.name)
            with zipfile.ZipFile(wheel) as packed:
                names = set(packed.namelist())
            lacking = {f"finegap/{name}" for name in IN_THE_WHEEL} - names
            self.assertEqual(lacking, set())
            self.assertTrue(any(name.startswith("finegap/shipped/frontend/app/") for name in names))
            self.assertEqual([name for name in names if name.startswith(("tests/", "tools/", "bench"))], [])


class Contracts(SimpleTestCase):
    def test_the_linter_fails_when_the_core_reaches_for_django(self):
        """The contract itself is tried: a core that imports Django breaks it."""
        with tempfile.TemporaryDirectory() as folder:
            copy = Path(folder) / "finegap"
            subprocess.run(["cp", "-r", str(ROOT / "finegap"), str(copy)], check=True)
            (Path(folder) / "pyproject.toml").write_text((ROOT / "pyproject.toml").read_text())
            lint = [str(Path(sys.executable).with_name("lint-imports")), "--no-cache"]
            for module, breaks in (("", False), ("import django.db\n", True), ("import datetime\n", True)):
                (copy / "core" / "gap" / "slipped.py").write_text(f'"""A slip."""\n{module}')
                done = subprocess.run(lint, cwd=folder, capture_output=True, text=True, timeout=60)
                with self.subTest(module=module):
                    self.assertEqual(done.returncode != 0, breaks, done.stdout[-800:])
