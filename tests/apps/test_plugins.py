"""A made-up family, means and task go from the sheet to the signed page with nothing else of the project changed.

They are put into a copy of it: the family a folder, means and task one file each, with one component and one line of a map.
"""

import json
import os
import shutil
import subprocess
import sys
import tempfile
from pathlib import Path

from django.conf import settings
from django.test import SimpleTestCase

ROOT = settings.BASE_DIR
PLUGINS = ROOT / "tests" / "plugins"
COPIED = ("finegap", "tests", "docs/formats", "frontend/src")
LINKED = ("frontend/node_modules",)
FILES = ("manage.py", "frontend/tsconfig.json", "frontend/package.json", "frontend/index.html", "frontend/vite.config.ts")


class Plugged(SimpleTestCase):
    @classmethod
    def setUpClass(cls):
        super().setUpClass()
        cls.folder = tempfile.TemporaryDirectory()
        cls.copy = Path(cls.folder.name)
        for name in COPIED:
            shutil.copytree(ROOT / name, cls.copy / name, ignore=shutil.ignore_patterns("__pycache__", "static"))
        for name in (*LINKED, *FILES):
            (cls.copy / name).parent.mkdir(parents=True, exist_ok=True)
            (cls.copy / name).symlink_to(ROOT / name) if name in LINKED else shutil.copy(ROOT / name, cls.copy / name)
        shutil.copytree(PLUGINS / "plate_pump", cls.copy / "finegap/core/families/plate_pump")
        shutil.copy(PLUGINS / "wedge.py", cls.copy / "finegap/core/means/wedge.py")
        shutil.copy(PLUGINS / "both_sides.py", cls.copy / "finegap/core/tasks/both_sides.py")
        shutil.copy(PLUGINS / "BothSidesTask.tsx", cls.copy / "frontend/src/bench/tasks/BothSidesTask.tsx")
        shutil.copy(PLUGINS / "wedge.tsx", cls.copy / "frontend/src/bench/means/wedge.tsx")

    @classmethod
    def tearDownClass(cls):
        cls.folder.cleanup()
        super().tearDownClass()

    def run_there(self, *command, folder="."):
        env = os.environ | {"FINEGAP_VAR": str(self.copy / "var"), "PYTHONPATH": str(self.copy)}
        return subprocess.run(
            command, cwd=self.copy / folder, env=env, capture_output=True, text=True, check=False, timeout=300
        )  # fmt: skip

    def test_from_sheet_to_signed_page(self):
        told = self.run_there(sys.executable, str(PLUGINS.relative_to(ROOT) / "from_sheet_to_page.py"))
        self.assertEqual(told.returncode, 0, told.stderr[-3000:])
        said = json.loads(told.stdout)
        self.assertEqual(said["means"]["kind"], "wedge")
        self.assertEqual(said["means"]["depth"], "0.047")  # 1.2 mm
        self.assertEqual(said["tries"], ["pushed 0.039 in", "pushed 0.008 in"])
        self.assertIn(["Run for a millimetre", "10.00 mm"], said["sheet"])
        self.assertIn("adjustment.run", said["held"], "the editor asks for what the means declares")
        self.assertNotIn("packing.section", said["held"])
        self.assertIn("Measure every side first.", said["held"])
        self.assertEqual([task["told"] for task in said["tasks"]], ["2 of 2 sides measured."])
        for words in ("Signed off by Tom", "Plate", "holed", "pushed 0.039 in", "turns freely"):
            self.assertIn(words, said["page"])

    def test_its_picture_is_asked_for_by_the_compiler_and_one_line_answers(self):
        schema = self.copy / "openapi.yaml"
        told = self.run_there(sys.executable, "manage.py", "spectacular", "--validate", "--fail-on-warn", "--file", str(schema))
        self.assertEqual(told.returncode, 0, told.stderr[-2000:])
        tools = "node_modules/.bin/"
        self.run_there(f"{tools}openapi-typescript", str(schema), "-o", "src/api/schema.d.ts", folder="frontend")
        compiled = self.compile()
        self.assertIn("Property 'wedge' is missing", compiled.stdout)
        self.assertIn("""Property '"both-sides"' is missing""", compiled.stdout)
        index = self.copy / "frontend/src/bench/means/index.ts"
        lines = index.read_text().replace("  timing: TIMING,\n", "  timing: TIMING,\n  wedge: WEDGE,\n")
        index.write_text("import { WEDGE } from './wedge';\n" + lines)
        tasks = self.copy / "frontend/src/bench/tasks/Task.tsx"
        lines = tasks.read_text().replace(
            "  'end-play': EndPlayTask,\n", "  'both-sides': BothSidesTask,\n  'end-play': EndPlayTask,\n"
        )
        tasks.write_text("import { BothSidesTask } from './BothSidesTask';\n" + lines)
        self.assertEqual(self.compile().stdout, "")

    def compile(self):
        options = ("--noEmit", "--incremental", "--tsBuildInfoFile", str(self.copy / "built.json"))
        return self.run_there("node_modules/.bin/tsc", *options, "-p", ".", folder="frontend")
