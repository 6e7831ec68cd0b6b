"""The commands of the Makefile: one clear line for each thing that can be in the way, and data that is kept."""

from __future__ import annotations

import os
import socket
import subprocess
import sys
import tempfile
from pathlib import Path

from django.conf import settings
from django.test import SimpleTestCase

ROOT = Path(settings.BASE_DIR)


def run(*command: str, **environment: str) -> tuple[int, str]:
    """A command's exit code and all it printed."""
    done = subprocess.run(command, cwd=ROOT, env=os.environ | environment, capture_output=True, text=True, timeout=60)
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
        return run(sys.executable, "tools/serve.py", *arguments, FINEGAP_VAR=var, FINEGAP_DEMO="1")

    def test_ports_that_cannot_be_had(self):
        with tempfile.TemporaryDirectory() as var, socket.socket() as taken:
            taken.bind(("127.0.0.1", 0))
            taken.listen()
            for port, says in ((str(taken.getsockname()[1]), "is taken"), ("80", "not a port"), ("many", "not a port")):
                code, said = self.serve("--port", port, var=var)
                self.assertEqual((code, len(said.strip().splitlines())), (1, 1))
                self.assertIn(says, said)
            self.assertFalse((Path(var) / "finegap.sqlite3").exists())

    def test_reset_throws_the_data_away_and_nothing_else(self):
        with tempfile.TemporaryDirectory() as var:
            for name in ("finegap.sqlite3", "finegap.sqlite3-wal", "secret_key"):
                (Path(var) / name).touch()
            code, said = self.serve("--reset", var=var)
            self.assertEqual((code, sorted(os.listdir(var))), (0, ["holds", "secret_key"]))
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
