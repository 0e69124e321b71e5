"""Starting on databases that are not as they should be: plain words, nothing touched, nothing left running."""

from __future__ import annotations

import os
import signal
import socket
import sqlite3
import subprocess
import sys
import tempfile
from pathlib import Path
from unittest import TestCase

from jolly_server.config.options import BASE, DATABASE


def free_port() -> int:
    """Return a port nobody serves on."""
    with socket.socket() as found:
        found.bind(("127.0.0.1", 0))
        return int(found.getsockname()[1])


class Launch(TestCase):
    long = True

    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.data = Path(folder.name)
        self.env = {name: value for name, value in os.environ.items() if not name.startswith("JOLLY_SPOOL_")}

    def launched(self, *more: str, helpers: bool = False) -> subprocess.Popen[str]:
        command = [sys.executable, "-m", "jolly_server.entrance.launch", "--port", str(free_port())]
        without = () if helpers else ("--no-machine", "--no-catalogue", "--no-plc", "--no-space")
        return subprocess.Popen(
            [*command, "--data", str(self.data), *without, *more],
            cwd=BASE,
            env=self.env,
            stdout=subprocess.PIPE,
            stderr=subprocess.STDOUT,
            text=True,
        )

    def refused(self, *words: str) -> None:
        """Check that a start ends with these words, none of them of a traceback, and leaves the database as it was."""
        before = (self.data / DATABASE).read_bytes()
        process = self.launched(helpers=True)
        said, _ = process.communicate()
        self.assertEqual(process.returncode, 2, said)
        for each in words:
            self.assertIn(each, said)
        self.assertNotIn("Traceback", said)
        self.assertEqual((self.data / DATABASE).read_bytes(), before)

    def test_a_database_newer_than_the_code_is_refused_untouched(self) -> None:
        with sqlite3.connect(self.data / DATABASE) as made:
            made.execute("PRAGMA journal_mode=WAL")
            made.execute("CREATE TABLE django_migrations (id INTEGER PRIMARY KEY, app TEXT, name TEXT, applied TEXT)")
            made.execute("INSERT INTO django_migrations VALUES (1, 'projects', '0999_tomorrow', '2027-01-01')")
        made.close()
        self.refused("was made by a newer Jolly Spool", "0999_tomorrow", "Nothing was changed")

    def test_a_file_that_is_no_database_is_named(self) -> None:
        (self.data / DATABASE).write_text("shopping list\n" * 100)
        self.refused(DATABASE, "file is not a database")

    def test_it_serves_until_it_is_ended_and_an_older_database_is_brought_up_to_date(self) -> None:
        for end, nth in ((signal.SIGINT, "Making the database"), (signal.SIGTERM, "Bringing the database up to date")):
            process = self.launched("--empty", helpers=True)
            assert process.stdout is not None
            said = ""
            for line in process.stdout:
                said += line
                if "is ready" in line:
                    break
            self.assertIn(nth, said)
            children = subprocess.run(
                ["pgrep", "--parent", str(process.pid)], capture_output=True, text=True, check=False
            ).stdout.split()
            self.assertEqual(len(children), 4)
            process.send_signal(end)
            last, _ = process.communicate()
            self.assertEqual((process.returncode, last), (0, "Stopped.\n"))
            self.assertEqual([c for c in children if Path("/proc", c).exists()], [])
            back = [sys.executable, "manage.py", "migrate", "issuing", "zero", "--verbosity", "0"]
            subprocess.run(back, cwd=BASE, env={**self.env, "JOLLY_SPOOL_DATA": str(self.data)}, check=True)
