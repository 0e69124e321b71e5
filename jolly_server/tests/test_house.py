"""The house keeps its own rules: examples of docstrings are true, files and functions fit into a head."""

from __future__ import annotations

import ast
import doctest
import importlib
import pkgutil
import re
import subprocess
from pathlib import Path
from unittest import TestCase

import jolly_core

ROOT = Path(__file__).resolve().parents[2]
LONGEST_FILE, LONGEST_FUNCTION = 500, 60


def sources(*patterns: str) -> list[Path]:
    """Return the files of the project that git knows or would take in, but for what is made by tools."""
    listed = subprocess.run(
        ["git", "ls-files", "--cached", "--others", "--exclude-standard", *patterns],
        cwd=ROOT,
        check=True,
        capture_output=True,
        text=True,
    ).stdout.split()
    files = [ROOT / name for name in listed if "/migrations/" not in name]
    return [path for path in files if path.is_file()]


class Sizes(TestCase):
    def test_no_file_is_longer_than_one_can_hold_in_the_head(self) -> None:
        long = {
            str(p.relative_to(ROOT))
            for p in sources("*.py", "web/src/*.ts", "web/src/*.tsx")
            if lines(p) > LONGEST_FILE
        }
        self.assertEqual(long, set())

    def test_no_function_is_longer_than_a_page(self) -> None:
        long = [
            f"{path.relative_to(ROOT)}: {node.name}"
            for path in sources("*.py")
            for node in ast.walk(ast.parse(path.read_text(encoding="utf-8")))
            if isinstance(node, (ast.FunctionDef, ast.AsyncFunctionDef))
            and (node.end_lineno or 0) - node.lineno >= LONGEST_FUNCTION
        ]
        self.assertEqual(long, [])


class Papers(TestCase):
    def test_what_the_architecture_says_of_where_things_are_is_there(self) -> None:
        text = (ROOT / "docs" / "architecture.md").read_text(encoding="utf-8")
        drill = text.index("Drill, done with")
        told = text[:drill] + text[text.index("\n\n", drill) :]
        roots = [ROOT, ROOT / "jolly_core", ROOT / "jolly_server", ROOT / "web" / "src", ROOT / "docs"]
        places = re.findall(r"`([\w./-]+/[\w.-]+\.(?:py|tsx?|json|md))`", told)
        self.assertGreater(len(places), 25)
        lost = {p for p in places if not any((root / p).exists() for root in roots)}
        self.assertEqual(lost, set())
        for name, place in re.findall(r"`(\w+)` (?:in|of) `([\w./-]+\.\w+)`", told):
            found = [root / place for root in roots if (root / place).is_file()]
            if found:
                self.assertIn(name, found[0].read_text(encoding="utf-8"), place)


class Examples(TestCase):
    def test_what_docstrings_of_the_core_show_is_what_comes_out(self) -> None:
        tried = 0
        for module in pkgutil.walk_packages(jolly_core.__path__, "jolly_core."):
            if ".tests" not in module.name:
                flags = doctest.NORMALIZE_WHITESPACE | doctest.ELLIPSIS
                result = doctest.testmod(importlib.import_module(module.name), optionflags=flags)
                self.assertEqual(result.failed, 0, module.name)
                tried += result.attempted
        self.assertGreater(tried, 60)


def lines(path: Path) -> int:
    """Return how many lines a file has."""
    return path.read_text(encoding="utf-8").count("\n")
