"""Both commands on a machine that has nothing of this project: all comes by itself, works, and ends."""

from __future__ import annotations

import io
import re
from unittest import TestCase
from zipfile import ZipFile

from .machine import Machine, Server

# All modules but tests, in a process that has only what ./start installed; then the help of each command.
LOOK = """
import importlib, io, os, pkgutil, contextlib
os.environ["DJANGO_SETTINGS_MODULE"] = "jolly_server.config.settings"
import django
django.setup()
import jolly_core, jolly_server
from django.core.management import get_commands, load_command_class
count = 0
for package in (jolly_core, jolly_server):
    for module in pkgutil.walk_packages(package.__path__, package.__name__ + "."):
        if ".tests" not in module.name and not module.name.startswith(("jolly_server.testing", "jolly_core.testing")):
            importlib.import_module(module.name)
            count += 1
print(count, "modules")
for name, app in get_commands().items():
    command = app if hasattr(app, "create_parser") else load_command_class(app, name)
    with contextlib.redirect_stdout(io.StringIO()) as shown:
        command.print_help("manage.py", name)
    assert "usage" in shown.getvalue(), name
print(len(get_commands()), "commands")
"""
STANDINS = 4
SHEET = "11"
PACK = {
    "kind": "keep-pack",
    "files": [{"what": "report:wires", "format": "pdf"}, {"what": "report:parts", "format": "xlsx"}],
}


class Fresh(TestCase):
    """One machine for all of it, on which Node.js is too old."""

    long = True
    machine: Machine
    server: Server

    @classmethod
    def setUpClass(cls) -> None:
        cls.machine = Machine("v18.19.0")
        cls.addClassCleanup(cls.machine.remove)
        cls.server = Server(cls.machine, "data")
        cls.addClassCleanup(cls.server.process.wait)
        cls.addClassCleanup(cls.server.process.kill)

    def small_pack(self, server: Server, name: str) -> list[str]:
        """Have the process in the background write a small pack, and return the kinds of its files."""
        answer = server.json("/api/projects/kiln-2/edits", {"edit": {**PACK, "name": name}})
        run = server.json("/api/projects/kiln-2/pack-runs", {"pack_id": answer["placed"][0]})
        while run["state"] == "running":  # it ends by itself, done or failed
            run = server.json(f"/api/projects/kiln-2/pack-runs/{run['id']}")
        self.assertEqual(run["state"], "done", run["why"])
        content = server.ask(f"/api/projects/kiln-2/pack-runs/{run['id']}/pack.zip")
        with ZipFile(io.BytesIO(content)) as pack:
            self.assertIsNone(pack.testzip())
            return sorted(name.rpartition(".")[2] for name in pack.namelist())

    def test_1_it_says_what_it_does_with_the_seconds_each_took(self) -> None:
        for words in (
            r"Making the Python environment \(Python 3\.\d+\.\d+\)",
            "Installing Python packages",
            r"Bringing Node\.js \(here is v18\.19\.0\)",
            "Installing front-end packages",
            "Building the front end",
            "Making the database",
            "Loading the demo",
        ):
            self.assertRegex(self.server.said, rf"(?m)^{words} \.\.\. \d+ s$")
        self.assertIn(f"Jolly Spool is ready: http://127.0.0.1:{self.server.port}/", self.server.said)

    def test_2_first_page_demo_drawing_and_a_pack(self) -> None:
        page = self.server.ask("/").decode()
        for script in re.findall(r'(?:src|href)="(/assets/[^"]+)"', page):
            self.assertTrue(self.server.ask(script))
        self.server.sign_in()
        names = {p["number"]: p["id"] for p in self.server.json("/api/projects")}
        self.assertEqual(set(names.values()), {"kiln-2", "dehumidifier"})
        for project in names.values():
            sheets = self.server.json(f"/api/projects/{project}")["sheets"]
            view = self.server.json(f"/api/projects/{project}/sheets/{sheets[2]['id']}/view")
            self.assertTrue(view)
        self.assertEqual(self.small_pack(self.server, "First"), ["pdf", "pdf", "xlsx"])

    def test_3_the_stand_ins_answer(self) -> None:
        ports = [int(port) for port in re.findall(r"Simulated .* on http://127\.0\.0\.1:(\d+)", self.server.said)]
        self.assertEqual(ports, [self.server.port + nth for nth in range(1, STANDINS + 1)])
        for port in ports:
            self.assertTrue(self.server.json("/status", port=port))

    def test_4_every_module_is_imported_and_every_command_shows_its_help(self) -> None:
        said = self.machine.run(".venv/bin/python", "-c", LOOK)
        modules, commands = (int(n) for n in re.findall(r"(\d+) (?:modules|commands)", said))
        self.assertGreater(modules, 500)
        self.assertGreater(commands, 30)

    def test_5_ctrl_c_ends_all_that_was_started(self) -> None:
        self.assertEqual(len(self.machine.running()), 1 + STANDINS, self.machine.running())
        code, last = self.server.interrupt()
        self.assertEqual((code, last), (0, "Stopped.\n"))
        self.assertEqual(self.machine.running(), [])

    def test_6_a_second_start_does_nothing_again_and_needs_no_packages_of_the_front_end(self) -> None:
        (self.machine.clone / "web" / "node_modules").rename(self.machine.folder / "node_modules")
        server = Server(self.machine, "data", "--no-plc")
        try:
            self.assertEqual(re.findall(r"(?m)^(.*) \.\.\. \d+ s$", server.said), ["Starting"])
            server.sign_in()
            self.assertEqual(self.small_pack(server, "Second"), ["pdf", "pdf", "xlsx"])
        finally:
            server.interrupt()
            (self.machine.folder / "node_modules").rename(self.machine.clone / "web" / "node_modules")

    def test_7_without_any_node_it_is_brought_too(self) -> None:
        for name in ("node", "npm", "npx"):
            (self.machine.clone / ".venv" / "bin" / name).unlink()
        (self.machine.clone / "web" / "dist" / "index.html").unlink()
        self.machine.env["PATH"] = str(self.machine.path(""))
        said = self.machine.run("scripts/prepare")
        self.assertRegex(said, r"(?m)^Bringing Node\.js \(here is none\) \.\.\. \d+ s$")
        self.assertRegex(said, r"(?m)^Building the front end \.\.\. \d+ s$")
        self.assertTrue((self.machine.clone / "web" / "dist" / "index.html").is_file())
