"""What `scripts/mutants` changes of a rule, and what it leaves alone."""

from __future__ import annotations

import ast
import sys
from importlib.machinery import SourceFileLoader
from importlib.util import module_from_spec, spec_from_loader
from types import ModuleType
from unittest import TestCase

from .test_house import ROOT


def mutants() -> ModuleType:
    """Read the script as a module."""
    spec = spec_from_loader("mutants", SourceFileLoader("mutants", str(ROOT / "scripts" / "mutants")))
    assert spec is not None
    assert spec.loader is not None
    sys.modules["mutants"] = module = module_from_spec(spec)
    spec.loader.exec_module(module)
    return module


RULE = '''
"""A module whose words 1 < 2 are no rule."""
LEAST: int = 3
MOST_TRIED = 600

@dataclass(slots=True)
class Held:
    """A record: how it is kept is no rule."""

    width: int = 3

def fits(width: int = 4, *, wide: bool = False) -> bool:
    """Return whether 5 is enough."""
    if not wide:
        raise ValueError(f"{width + 6} is not enough")
    return min(width, LEAST) <= 7 and width + 8 > 9
'''


class Changes(TestCase):
    def setUp(self) -> None:
        self.found = list(mutants().mutants_of(RULE, "rule.py"))

    def test_a_rule_is_changed_and_words_types_and_refusals_are_not(self) -> None:
        changes = {(m.was, m.now) for m in self.found}
        self.assertEqual(
            changes,
            {
                ("3", "4"),  # LEAST, and the width of what is held
                ("not wide", "not not wide"),
                ("min(width, LEAST) <= 7 and width + 8 > 9", "min(width, LEAST) <= 7 or width + 8 > 9"),
                ("min(width, LEAST) <= 7", "min(width, LEAST) < 7"),
                ("min", "max(width, LEAST)"),
                ("7", "8"),
                ("width + 8 > 9", "width + 8 >= 9"),
                ("width + 8", "width - 8"),
                ("8", "9"),
                ("9", "10"),
            },
        )

    def test_each_is_made_alone_and_the_file_can_be_read(self) -> None:
        whole = ast.unparse(ast.parse(RULE))
        for m in self.found:
            changed = ast.unparse(ast.parse(m.source))
            self.assertNotEqual(changed, whole, m)
            other = [n for n, (a, b) in enumerate(zip(whole.split("\n"), changed.split("\n"), strict=True)) if a != b]
            self.assertEqual(len(other), 1, m)

    def test_a_sample_is_the_same_each_time_and_another_with_another_number(self) -> None:
        sampled = mutants().sampled
        first = [(m.file, m.line, m.was) for m in sampled("plc", 10, 1)]
        self.assertEqual(first, [(m.file, m.line, m.was) for m in sampled("plc", 10, 1)])
        self.assertNotEqual(first, [(m.file, m.line, m.was) for m in sampled("plc", 10, 2)])
        self.assertTrue(all(file.startswith("jolly_core/plc/") for file, *_ in first))
