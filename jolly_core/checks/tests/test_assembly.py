"""A program that read half of the core is told so, and does not go on with lists that are short of something."""

from __future__ import annotations

import subprocess
import sys
from unittest import TestCase

from jolly_core.checks import CHECKS

BEGIN = """
from jolly_core.model import ChangeSet, Project, Settings
project, changes = Project(), ChangeSet()
settings = Settings(name="P", conductor_order="layout")
changes.record("settings", settings.id, None, settings)
project.apply(changes)
"""
CHECKED = "from jolly_core.checks import all_snags; print(len(all_snags(project)))"
ORDERED = "from jolly_core.wiring import by_layout; print(by_layout(project))"


def said(code: str) -> str:
    ended = subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, check=False)
    return ended.stdout + ended.stderr.strip().rpartition("\n")[2]


class HalfOfTheCore(TestCase):
    def test_checks_and_orders_by_layout_ask_for_all_of_it(self) -> None:
        for what in (CHECKED, ORDERED):
            self.assertIn("import jolly_core.assembly", said(BEGIN + what))

    def test_with_all_of_it_they_go_on(self) -> None:
        self.assertEqual(said(f"import jolly_core.assembly\n{BEGIN}{CHECKED}"), "0\n")
        self.assertEqual(said(f"import jolly_core.assembly\n{BEGIN}{ORDERED}"), "True\n")

    def test_a_check_of_a_package_above_is_among_them(self) -> None:
        self.assertIn("text-outside", CHECKS)
