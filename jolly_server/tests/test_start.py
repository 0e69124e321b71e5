"""The start command's arguments, and the demo loaded once only."""

from __future__ import annotations

import subprocess
from pathlib import Path
from unittest import TestCase

from django.conf import settings

from jolly_server.config.options import read_options, secret_key
from jolly_server.demo.services import PROJECTS, seed
from jolly_server.testing import KILN, DemoCase

ROOT = Path(__file__).resolve().parents[2]


class Arguments(TestCase):
    def run_script(self, *args: str) -> subprocess.CompletedProcess[str]:
        return subprocess.run([str(ROOT / args[0]), *args[1:]], capture_output=True, text=True, check=False)

    def test_help_and_faults(self) -> None:
        for script in ("start", "test"):
            shown = self.run_script(script, "--help")
            self.assertEqual((shown.returncode, shown.stdout.splitlines()[0].split(" ")[1]), (0, f"./{script}"))
        for wrong in (("--port", "x"), ("--frobnicate",), ("--port", "")):
            self.assertNotEqual(self.run_script("start", *wrong).returncode, 0)

    def test_the_data_folder_keeps_its_secret(self) -> None:
        data = read_options().data
        self.assertEqual(secret_key(data), secret_key(data))
        self.assertGreater(len(secret_key(data)), 40)
        self.assertEqual((data / "secret-key").stat().st_mode & 0o077, 0)


class Demo(DemoCase):
    def test_seeding_again_changes_nothing_that_was_edited(self) -> None:
        self.accepted(self.person("anna"), kind="set-text", device_id=self.device("QA"), text="Edited")
        done = seed(settings.JOLLY.demo_files)
        self.assertEqual(done, [], "nothing is loaded again, neither projects nor the library")
        self.assertEqual(self.stored().devices[self.device("QA")].text, "Edited")
        self.assertEqual(set(PROJECTS), {KILN, "dehumidifier"})

    def test_people_have_their_roles(self) -> None:
        roles = {
            name: self.person(name).get(f"/api/projects/{KILN}").json()["role"] for name in ("anna", "jory", "vera")
        }
        self.assertEqual(roles, {"anna": "owner", "jory": "editor", "vera": "viewer"})
