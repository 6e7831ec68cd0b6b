"""Does a test fail when the core is wrong? A seeded sample of faults in its functions, and every number of its tables changed once.

Faults in functions are mutmut's; it runs only the tests that reach the function, and what was tried stays tried: begun again, this
goes on where it stopped. Words of a sentence are no arithmetic: a fault in them alone is not drawn. Numbers of tables are this
script's own: each is changed once, and first the tests named for its module are run, then all of the core. Neither is part of CI.
"""

from __future__ import annotations

import argparse
import ast
import hashlib
import json
import math
import os
import random
import re
import shutil
import subprocess
import sys
import textwrap
import threading
from collections import Counter
from collections.abc import Iterable, Iterator
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from pathlib import Path

ROOT = Path(__file__).parents[1]
WORK = Path(os.environ.get("FINEGAP_VAR", ROOT / "var")) / "mutants"
SEED, SAMPLE, PROCESSES = 20261128, 640, 2
LAYOUT = ("drawing", "pictures", "features", "presses")
"""Modules of a family whose numbers are places on a picture: looked at, not asserted."""

PUT_TOGETHER = (".families.", ".calculators.")
AT_IMPORT = [f"tests.core.test_{name}" for name in ("words", "tables", "families", "sequence", "sheet")]
"""Tests of what is put together when it is imported: forms, and what a family declares."""

LIVES = (0, 33)
"""What mutmut writes down of a fault that no test sees, or that none reaches."""

FIRST = {
    "quantities": ["tests.core.test_tables", "tests.core.test_quantities.AgainstPint"],
}
"""What is run first, by module; of any other it is the test of tables alone."""

CONFIG = """
[tool.mutmut]
source_paths = ["finegap"]
only_mutate = ["finegap/core/*"]
do_not_mutate = ["*/drawing.py", "*/pictures.py"]
also_copy = ["conftest.py", "demo", "docs", "manage.py", "CHANGELOG.md"]
pytest_add_cli_args = ["-q", "-p", "no:cacheprovider", "--ignore=tests/core/test_version.py"]
pytest_add_cli_args_test_selection = ["tests/core"]
"""
CONFTEST = """
import os

import django
from hypothesis import HealthCheck, settings

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "finegap.site.settings")
django.setup()
import tests  # its own profile first

settings.register_profile(
    "mutants", deadline=None, derandomize=True, database=None, max_examples=50, suppress_health_check=list(HealthCheck)
)
settings.load_profile("mutants")
"""
# The digest of results would kill every fault, and say of none what is wrong.


def copy_of_the_tree(to: Path) -> None:
    """What is kept in git, as it stands; files that did not change keep their time, so that mutmut keeps its results."""
    kept = subprocess.run(["git", "ls-files", "-z"], cwd=ROOT, capture_output=True, check=True, text=True).stdout.split("\0")
    for name in filter(None, kept):
        if not name.startswith("frontend/") and (ROOT / name).is_file():
            _put(to / name, (ROOT / name).read_bytes())
    _put(to / "pyproject.toml", ((ROOT / "pyproject.toml").read_text() + CONFIG).encode())
    _put(to / "conftest.py", CONFTEST.encode())


def _put(path: Path, content: bytes) -> None:
    if not path.exists() or path.read_bytes() != content:
        path.parent.mkdir(parents=True, exist_ok=True)
        path.write_bytes(content)


def interval(killed: int, of: int) -> tuple[float, float]:
    """Wilson's 95 % interval of a share."""
    z, share = 1.959964, killed / of
    middle, half = share + z * z / (2 * of), z * math.sqrt(share * (1 - share) / of + z * z / (4 * of * of))
    return (middle - half) / (1 + z * z / of), (middle + half) / (1 + z * z / of)


class Functions:
    """The sample of faults in functions."""

    def __init__(self, tree: Path, size: int, seed: int) -> None:
        self.tree, self.size, self.seed = tree, size, seed

    def _mutmut(self, *names: str) -> None:
        command = [str(Path(sys.executable).with_name("mutmut")), "run", "--max-children", str(PROCESSES), *names]
        done = subprocess.run(command, cwd=self.tree, capture_output=True, text=True, check=False)
        if "Running mutation testing" not in done.stdout:
            said = re.sub(r"\r?. Running clean tests\r?", "", done.stdout)
            sys.exit(said[-4000:] + done.stderr[-4000:])

    def _digest(self) -> str:
        of = hashlib.sha256()
        for path in sorted((self.tree / "finegap/core").rglob("*.py")):
            of.update(path.read_bytes())
        return of.hexdigest()

    def _tried(self) -> dict[str, int | None]:
        found: dict[str, int | None] = {}
        for meta in sorted((self.tree / "mutants/finegap/core").rglob("*.meta")):
            found |= json.loads(meta.read_text())["exit_code_by_key"]
        return found

    def run(self) -> None:
        """Draw it, try what was not tried yet, and tell."""
        kept, now = WORK / "tree.sha256", self._digest()
        if not kept.exists() or kept.read_text() != now:
            self._mutmut("finegap.core.sequence.x__and_more__*")  # names of faults are those of the tree as it is now
            kept.write_text(now)
        os.chdir(self.tree)
        drawn = self._draw(sorted(self._tried()))
        tried = self._tried()
        # What lived may die by a test written since.
        left = [name for name in drawn if tried[name] is None or tried[name] in LIVES]
        print(f"{len(drawn)} faults drawn of {len(tried)}; {len(left)} to try", flush=True)
        if left:
            self._mutmut(*left)
        tried = self._tried()
        self._tell(drawn, tried, self._seen_otherwise([name for name in drawn if tried[name] in LIVES]))

    def _draw(self, names: list[str]) -> list[str]:
        """Two of every module, then from all, in the order of the seed; none that is of words alone."""
        rng = random.Random(self.seed)
        rng.shuffle(names)
        by_module: dict[str, list[str]] = {}
        for name in names:
            by_module.setdefault(name.rsplit(".", 1)[0], []).append(name)
        first = [name for module in sorted(by_module) for name in by_module[module][:4]]
        drawn: dict[str, None] = {}
        per_module: Counter[str] = Counter()
        for name in first:
            if per_module[name.rsplit(".", 1)[0]] < 2 and not is_words(diff_of(name)):
                drawn[name] = None
                per_module[name.rsplit(".", 1)[0]] += 1
        for name in names:
            if len(drawn) >= self.size:
                break
            if name not in drawn and not is_words(diff_of(name)):
                drawn[name] = None
        return list(drawn)

    def _seen_otherwise(self, names: list[str]) -> set[str]:
        """Faults that mutmut does not see: refused by the types (`make check`), or in what is put together when it is imported.

        Each is put into the tree for a moment, and read anew.
        """
        kept = WORK / "otherwise.json"
        known: dict[str, bool] = json.loads(kept.read_text()) if kept.exists() else {}
        for name in names:
            key = f"{name}\n{diff_of(name)}"
            if key not in known:
                path = self._source_of(name)
                source, times = path.read_bytes(), path.stat()
                try:
                    path.write_text(with_fault(name, path, source.decode()))
                    steps = [["-m", "mypy"]]
                    if any(place in name for place in PUT_TOGETHER):
                        steps.append(["manage.py", "test", "--failfast", "-v0", *AT_IMPORT])
                    known[key] = any(
                        subprocess.run([sys.executable, *step], capture_output=True, timeout=300, check=False).returncode
                        for step in steps
                    )
                finally:
                    path.write_bytes(source)
                    os.utime(path, ns=(times.st_atime_ns, times.st_mtime_ns))
                kept.write_text(json.dumps(known))
        return {name for name in names if known[f"{name}\n{diff_of(name)}"]}

    def _source_of(self, name: str) -> Path:
        module = self.tree / name.rsplit(".", 1)[0].replace(".", "/")
        return module / "__init__.py" if module.is_dir() else module.with_suffix(".py")

    def _tell(self, drawn: list[str], tried: dict[str, int | None], otherwise: set[str]) -> None:
        survivors = [name for name in drawn if tried[name] in LIVES and name not in otherwise]
        killed = len(drawn) - len(survivors)
        low, high = interval(killed, len(drawn))
        for name in survivors:
            print(f"\n{name}{' (no test reaches it)' if tried[name] == 33 else ''}\n{diff_of(name)}")
        by = f"{len(otherwise)} of them by the types, or when what is put together at import was read anew; seed {self.seed}"
        print(f"\n{killed} of {len(drawn)} faults killed: {killed / len(drawn):.1%} (95 %: {low:.1%} to {high:.1%}), {by}")


def diff_of(name: str) -> str:
    """What a fault changes, in lines; only in the tree."""
    from mutmut.mutation.diff_apply import get_diff_for_mutant

    return "\n".join(line for line in get_diff_for_mutant(name).splitlines() if re.match(r"[-+](?![-+])", line))


def with_fault(name: str, path: Path, source: str) -> str:
    """A module with a fault in it. Mutmut's own way takes the first method of that name, whichever class it is of."""
    import libcst as cst
    from mutmut.mutation.diff_apply import read_functions_from_index, read_mutant_function, read_mutants_module

    mangled = name.rsplit(".", 1)[1].split("__mutmut_")[0]
    of_class, function = mangled[2:].split("ǁ", 1) if mangled.startswith("xǁ") else ("", mangled[2:])
    inside: ast.AST = ast.parse(source)
    if of_class:
        inside = next(n for n in ast.walk(inside) if isinstance(n, ast.ClassDef) and n.name == of_class)
    where = next(n for n in ast.iter_child_nodes(inside) if isinstance(n, ast.FunctionDef) and n.name == function)
    relative = path.relative_to(Path.cwd()) if path.is_absolute() else path
    found = read_functions_from_index(name, relative)
    mutant = found[1] if found else read_mutant_function(read_mutants_module(relative), name)
    code = cst.Module([]).code_for_node(mutant.with_changes(name=cst.Name(function), leading_lines=()))
    code = textwrap.indent(textwrap.dedent(code).strip("\n"), " " * where.col_offset)
    lines = source.splitlines()
    assert not where.decorator_list
    assert where.end_lineno is not None
    return "\n".join([*lines[: where.lineno - 1], code, *lines[where.end_lineno :]]) + "\n"


def is_words(diff: str) -> bool:
    """Whether a fault is in a sentence alone: the lines differ in one string, and that has a blank in it."""
    old, new = ([line[1:].strip() for line in diff.splitlines() if line.startswith(sign)] for sign in "-+")
    if len(old) != len(new):
        return False
    for one, other in zip(old, new, strict=True):
        strings, changed = (re.findall(r'"[^"]*"', line) for line in (one, other))
        if re.sub(r'"[^"]*"', '""', one) != re.sub(r'"[^"]*"', '""', other):
            return False
        if any(was != now and " " not in was for was, now in zip(strings, changed, strict=True)):
            return False
    return True


@dataclass(frozen=True)
class Number:
    """A number of a table: its file below the core, where it stands, and as it is written."""

    file: str
    line: int
    column: int
    end: int
    text: str

    @property
    def other(self) -> str:
        """Another number in its place."""
        value = ast.literal_eval(self.text)
        return str(value + 1) if isinstance(value, int) else repr(value * 1.1 or 0.1)


def numbers() -> Iterator[Number]:
    """Every number of every table: in what a module of the core assigns."""
    core = ROOT / "finegap/core"
    for path in sorted(core.rglob("*.py")):
        if path.stem in LAYOUT:
            continue
        source = path.read_text()
        for statement in ast.parse(source).body:
            if not isinstance(statement, ast.Assign | ast.AnnAssign) or statement.value is None:
                continue
            # A place in a tuple is no number of a table.
            places = {id(n) for s in ast.walk(statement.value) if isinstance(s, ast.Subscript) for n in ast.walk(s.slice)}
            for one in ast.walk(statement.value):
                if not isinstance(one, ast.Constant) or type(one.value) not in (int, float) or id(one) in places:
                    continue
                if one.lineno == one.end_lineno and one.end_col_offset is not None:
                    text = ast.get_source_segment(source, one) or ""
                    yield Number(str(path.relative_to(ROOT)), one.lineno, one.col_offset, one.end_col_offset, text)


class Tables:
    """Every number of every table, changed once."""

    def __init__(self, tree: Path) -> None:
        self.trees = [tree.with_name(f"{tree.name}-{i}") for i in range(PROCESSES)]
        self.kept = tree.with_name("tables.json")
        self.writing = threading.Lock()

    def run(self) -> None:
        """Change each that was not changed yet, or went by unseen before, and tell which go by unseen."""
        results: dict[str, bool] = json.loads(self.kept.read_text()) if self.kept.exists() else {}
        for tree in self.trees:
            copy_of_the_tree(tree)
        todo = [(n, key) for n in numbers() if not results.get(key := f"{n.file}:{n.line}:{n.column}:{_line(n)}")]
        print(f"{len(todo)} numbers to change", flush=True)
        shares = [todo[i :: len(self.trees)] for i in range(len(self.trees))]
        with ThreadPoolExecutor(len(self.trees)) as pool:
            done = [pool.submit(self._change, tree, share, results) for tree, share in zip(self.trees, shares, strict=True)]
            for one in done:
                one.result()
        now = [f"{n.file}:{n.line}:{n.column}:{_line(n)}" for n in numbers()]
        survivors = [key for key in now if not results[key]]
        print("\n".join(survivors))
        print(f"{len(now) - len(survivors)} of {len(now)} numbers of tables killed")

    def _change(self, tree: Path, share: Iterable[tuple[Number, str]], results: dict[str, bool]) -> None:
        for number, key in share:
            path = tree / number.file
            source = path.read_text()
            lines = source.splitlines(keepends=True)
            line = lines[number.line - 1].encode()
            changed = line[: number.column] + number.other.encode() + line[number.end :]
            path.write_text("".join([*lines[: number.line - 1], changed.decode(), *lines[number.line :]]))
            try:
                seen = self._is_seen(tree, number.file)
            finally:
                path.write_text(source)
            with self.writing:
                results[key] = seen
                self.kept.write_text(json.dumps(results, indent=0))

    def _is_seen(self, tree: Path, file: str) -> bool:
        module = file.removeprefix("finegap/core/").removesuffix(".py")
        every = sorted(f"tests.core.{t.stem}" for t in (tree / "tests/core").glob("test_*.py") if t.stem != "test_version")
        # The first needs no Django, and starts in a third of the time.
        steps = (
            ["-m", "unittest", "-f", *FIRST.get(module, ["tests.core.test_tables"])],
            ["manage.py", "test", "--failfast", "-v0", *every],
        )
        env = {**os.environ, "PYTHONPATH": str(tree), "PYTHONDONTWRITEBYTECODE": "1", "FINEGAP_VAR": str(tree / "var")}
        return any(
            subprocess.run([sys.executable, *step], cwd=tree, env=env, capture_output=True, timeout=900, check=False).returncode
            for step in steps
        )


def _line(number: Number) -> str:
    return (ROOT / number.file).read_text().splitlines()[number.line - 1].strip()


def main() -> None:
    """Both parts, or one of them."""
    asked = argparse.ArgumentParser(description=__doc__)
    asked.add_argument("--only", choices=("functions", "tables"))
    asked.add_argument("--sample", type=int, default=SAMPLE, help="how many faults in functions")
    asked.add_argument("--seed", type=int, default=SEED)
    asked.add_argument("--anew", action="store_true", help="forget what was tried")
    given = asked.parse_args()
    if given.anew:
        shutil.rmtree(WORK, ignore_errors=True)
    tree = WORK / "tree"
    if given.only != "functions":
        Tables(tree).run()
    if given.only != "tables":
        copy_of_the_tree(tree)
        Functions(tree, given.sample, given.seed).run()


if __name__ == "__main__":
    main()
