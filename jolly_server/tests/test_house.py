"""The house keeps its own rules: examples of docstrings are true, files and functions fit into a head."""

from __future__ import annotations

import ast
import doctest
import importlib
import pkgutil
import re
import subprocess
from collections import Counter
from functools import cache
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


@cache
def tree_of(path: Path) -> ast.Module:
    """Return what a Python file says, read once."""
    return ast.parse(path.read_text(encoding="utf-8"))


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
            for node in ast.walk(tree_of(path))
            if isinstance(node, (ast.FunctionDef, ast.AsyncFunctionDef))
            and (node.end_lineno or 0) - node.lineno >= LONGEST_FUNCTION
        ]
        self.assertEqual(long, [])


# Class and type names of the core that stand for two things: the list may only shrink. A name that narrows the type of
# the same name is one word.
TWICE = set(
    re.findall(
        r"\w+",
        """
Act Amount Art Asked Block BlockPlace Blocks Build Change Column Columns Difference Document Drawing Face Facts Fault
Field Found Group Kept Kind Label Leg Names Numbers Pair Part Pattern Picture Place Places Proposal Quantity
Run SheetChange Slot State Strand Strings Stroke Table Taken Target Text Thing Unit Vector Way WireRow
Written
""",
    )
)


def is_named_type(node: ast.stmt) -> str:
    """Return the name of a class or of a type that a module names, but for a leading stroke; empty for others."""
    if isinstance(node, ast.ClassDef):
        return node.name.lstrip("_")
    name = ""
    if isinstance(node, ast.Assign) and len(node.targets) == 1 and isinstance(node.targets[0], ast.Name):
        name = node.targets[0].id.lstrip("_")
    if (
        not name[:1].isupper()
        or name.isupper()
        or name in {n.attr for n in ast.walk(node) if isinstance(n, ast.Attribute)}
    ):
        return ""
    return name


class Words(TestCase):
    def test_no_more_names_of_the_core_stand_for_two_things(self) -> None:
        found = Counter(
            name
            for path in sources("jolly_core/*.py")
            if "tests" not in path.parts
            for node in tree_of(path).body
            if (name := is_named_type(node))
        )
        self.assertGreater(len(found), 600)
        self.assertEqual({name for name, count in found.items() if count > 2}, set(), "three things under one name")
        twice = {name for name, count in found.items() if count == 2}
        self.assertEqual(twice - TWICE, set(), "a name that is taken: the trade's word, or a longer one")
        self.assertEqual(TWICE - twice, set(), "said once now: take it off the list")

    def test_the_glossary_says_each_word_once(self) -> None:
        rows = (ROOT / "docs" / "glossary.md").read_text(encoding="utf-8").split("\n| --- | --- |\n")[1].splitlines()
        words = [word.strip() for row in rows for word in re.split(r",(?![^(]*\))", row.split("|")[1])]
        self.assertGreater(len(words), 90)
        self.assertEqual({word for word in words if words.count(word) > 1}, set())

    def test_the_face_of_the_model_is_what_others_use(self) -> None:
        face = set(dir(importlib.import_module("jolly_core.model"))) - {"fields"}
        used: dict[str, set[Path]] = {}
        handed_on = {
            alias.name
            for node in ast.parse((ROOT / "jolly_core/model/__init__.py").read_text(encoding="utf-8")).body
            if isinstance(node, ast.ImportFrom)
            for alias in node.names
        } & face
        for path in sources("*.py"):
            if (ROOT / "jolly_core" / "model") in path.parents:
                continue
            for node in ast.walk(tree_of(path)):
                if isinstance(node, ast.ImportFrom) and node.module == "jolly_core.model":
                    for alias in node.names:
                        used.setdefault(alias.name, set()).add(path)
        self.assertGreater(len(handed_on), 90)
        self.assertEqual({name for name in handed_on if len(used.get(name, ())) < 2}, set())


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
