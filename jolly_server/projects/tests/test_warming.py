"""Projects that are worked out when the server starts."""

from __future__ import annotations

import subprocess
import sys
from dataclasses import replace
from unittest.mock import patch

from django.conf import settings
from django.test import override_settings

from jolly_core.making import dossiers_from
from jolly_core.model import GoneError
from jolly_core.reports import run_report
from jolly_server.projects import store, warming
from jolly_server.projects.models import ProjectRow
from jolly_server.projects.store import loaded
from jolly_server.testing import KILN, DemoCase


class Warming(DemoCase):
    def setUp(self) -> None:
        super().setUp()
        self.others = list(ProjectRow.objects.exclude(pk=KILN).values_list("pk", flat=True))
        self.accepted(self.person("anna"), kind="add-sheet", number="97", title="Spare")
        store.forget()

    def test_the_one_edited_last_comes_first_and_its_lists_find_all_worked_out(self) -> None:
        self.assertEqual(warming.warm(), [KILN, *self.others])
        self.assertEqual(list(store._loaded), [*reversed(self.others), KILN], "the first to go is the one edited first")
        project = loaded(KILN).project
        known = len(project.memo)
        with patch("jolly_core.making.dossiers._dossier", side_effect=AssertionError("worked out anew")):
            for sheet in project.sheets_in_order():
                dossiers_from(project, sheet.id)
            run_report(project, "wires")
        self.assertLess(len(project.memo) - known, 200, "the rows of the list alone")

    def test_a_server_that_nobody_has_asked_yet_knows_all_checks(self) -> None:
        alone = (
            "import django; django.setup()\n"
            "from jolly_server.projects import warming\n"
            "from jolly_core.checks import BUILT_CHECKS, CHECKS, PROJECT_CHECKS\n"
            "known = [*CHECKS, *PROJECT_CHECKS, *BUILT_CHECKS]\n"
            "from django.urls import get_resolver\n"
            "get_resolver().url_patterns\n"
            "print({*CHECKS, *PROJECT_CHECKS, *BUILT_CHECKS} - set(known), len(known))"
        )
        said = subprocess.run([sys.executable, "-c", alone], check=True, capture_output=True, text=True).stdout
        added, _, count = said.strip().rpartition(" ")
        self.assertEqual(added, "set()", "it is known only once the first request is there")
        self.assertGreater(int(count), 80)

    def test_half_of_the_memory_is_left_to_what_people_open(self) -> None:
        warming.warm()
        room = int(1.5 * store.taken_bytes() / 1_000_000)
        store.forget()
        with override_settings(JOLLY=replace(settings.JOLLY, memory_mb=room)):
            self.assertEqual(warming.warm(), [KILN])

    def test_what_is_put_away_is_left_and_what_is_deleted_meanwhile_passed_over(self) -> None:
        ProjectRow.objects.filter(pk=self.others[0]).update(state="archived")
        self.assertEqual(warming.warm(), [KILN, *self.others[1:]])
        store.forget()
        with patch.object(warming, "loaded", side_effect=GoneError("gone", ids=(KILN,))):
            self.assertEqual(warming.warm(), [])
