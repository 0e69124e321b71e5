"""What ./start says of its arguments before anything is installed."""

from __future__ import annotations

import contextlib
import io
import os
import socket
import subprocess
import sys
import tempfile
from pathlib import Path
from unittest import TestCase
from unittest.mock import patch

from jolly_server.config.options import BASE
from jolly_server.entrance.arguments import NotPossible, check_data, check_port, is_free, main, read
from jolly_server.entrance.helpers import Helpers, chosen_port
from jolly_server.standins.listed import STANDINS


class Taken:
    """A port that somebody serves on."""

    def __enter__(self) -> int:
        self.socket = socket.create_server(("127.0.0.1", 0))
        return int(self.socket.getsockname()[1])

    def __exit__(self, *_: object) -> None:
        self.socket.close()


class Arguments(TestCase):
    def said(self, *given: str) -> tuple[int, str]:
        """Return the exit code and what was said as an error."""
        with contextlib.redirect_stderr(io.StringIO()) as said:
            try:
                return main(given), said.getvalue()
            except SystemExit as end:
                return int(end.code or 0), said.getvalue()

    def test_it_looks_with_nothing_but_python(self) -> None:
        command = [sys.executable, "-S", "-m", "jolly_server.entrance.arguments", "--help"]  # -S: no packages
        shown = subprocess.run(command, cwd=BASE, capture_output=True, text=True, check=True).stdout
        for standin in STANDINS:
            self.assertIn(f"--no-{standin.key} ", shown)

    def test_paths_begin_where_the_caller_stands(self) -> None:
        with patch.dict(os.environ):
            os.environ.pop("JOLLY_SPOOL_DATA", None)
            self.assertEqual(read(["--from", "/srv", "--data", "spool"]).data, Path("/srv/spool"))
            self.assertEqual(read(["--from", "/srv", "--data", "/var/spool"]).data, Path("/var/spool"))
            self.assertEqual(read(["--from", "/srv"]).data, BASE / "data")
            os.environ["JOLLY_SPOOL_DATA"] = "/elsewhere"
            self.assertEqual(read([]).data, Path("/elsewhere"))
        asked = read(["--no-plc", "--empty", "--port", "81"])
        self.assertEqual((asked.port, asked.demo, asked.without), (81, False, {"plc"}))

    def test_ports_that_are_none(self) -> None:
        for port in ("x", "", "0", "-1", "65536", "8000.5", "²"):
            code, said = self.said("--port", port)
            self.assertEqual(code, 2, port)
            self.assertIn("from 1 to 65535", said)

    def test_a_port_in_use_is_named_with_one_that_is_free(self) -> None:
        with Taken() as port, tempfile.TemporaryDirectory() as data:
            code, said = self.said("--port", str(port), "--data", data)
            self.assertEqual(code, 2)
            self.assertRegex(said, rf"^start: Port {port} is in use.*\./start --port \d+\n$")
            other = int(said.rpartition(" ")[2])
            self.assertTrue(is_free(other))
            self.assertNotIn(other, range(port, port + len(STANDINS) + 1))
        check_port(port)

    def test_stand_ins_take_another_port_when_theirs_is_in_use(self) -> None:
        with Taken() as port:
            self.assertGreater(chosen_port(port, ()), port)
            self.assertGreater(chosen_port(port - 1, (port - 1,)), port)

    def test_a_data_folder_that_cannot_be_written_is_named(self) -> None:
        with tempfile.TemporaryDirectory() as folder:
            file = Path(folder, "file")
            file.write_text("mine")
            for data, words in (
                (file, "is no folder"),
                (file / "below", "cannot be"),
                (Path("/proc/spool"), "/proc/spool"),
            ):
                code, said = self.said("--port", "65533", "--data", str(data))
                self.assertEqual(code, 2, data)
                self.assertIn(words, said)
                self.assertIn("--data DIR", said)
            self.assertEqual(file.read_text(), "mine")
            new = Path(folder, "a", "b")
            check_data(new)
            self.assertEqual(list(new.iterdir()), [])
            (new / "jolly-spool.sqlite3").mkdir()  # what should be a file cannot be opened to write
            with self.assertRaisesRegex(NotPossible, "jolly-spool.sqlite3"):
                check_data(new)


class StandIns(TestCase):
    def test_each_is_started_unless_it_is_not_wanted_or_another_is_named_and_ends(self) -> None:
        helpers = Helpers()
        self.addCleanup(helpers.end)
        with tempfile.TemporaryDirectory() as data, patch.dict(os.environ, {"JOLLY_SPOOL_PLC": "http://plc"}):
            for standin in STANDINS:
                if standin.key != "plc":
                    os.environ.pop(standin.variable, None)
            with Taken() as port:
                told = helpers.start(port, Path(data), {"space"})
                self.assertEqual(os.environ["JOLLY_SPOOL_PLC"], "http://plc")
                self.assertNotIn("JOLLY_SPOOL_SPACE", os.environ)
                addresses = {os.environ["JOLLY_SPOOL_MACHINE"], os.environ["JOLLY_SPOOL_CATALOGUE"]}
                self.assertEqual({line.rpartition(" ")[2] for line in told}, addresses)
            processes = list(helpers.running)
            self.assertEqual(len(processes), 2)
            helpers.end()
            self.assertEqual([p.returncode is None for p in processes], [False, False])
