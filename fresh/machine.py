"""A machine with nothing of this project: a clone of the checked-out commit with a home and a path of its own."""

from __future__ import annotations

import http.client
import json
import os
import re
import signal
import socket
import subprocess
import sys
import tempfile
from pathlib import Path
from typing import Any

ROOT = Path(__file__).resolve().parents[1]
SYSTEM = ("/usr/local/bin", "/usr/bin", "/bin", "/usr/sbin", "/sbin")
NODE = ("node", "nodejs", "npm", "npx", "corepack")
# How a machine reaches the network is not of this project.
NETWORK = re.compile(r"(?i)(http|https|no|all)_proxy|PIP_.*|SSL_CERT_.*|NODE_EXTRA_CA_CERTS|npm_config_registry")


def free_ports(count: int) -> int:
    """Return the first of so many ports in a row that nobody serves on."""
    while True:
        with socket.socket() as found:
            found.bind(("127.0.0.1", 0))
            first = int(found.getsockname()[1])
        try:
            for port in range(first, first + count):
                with socket.socket() as tried:
                    tried.bind(("127.0.0.1", port))
        except OSError:
            continue
        return first


class Machine:
    """A clone, and what runs in it.

    Attributes:
        clone: the folder of the clone.
        env: the environment of all that runs there.
    """

    def __init__(self, node: str) -> None:
        """Make the clone, with a path on which Node.js is of a version, or "" for none."""
        self._folder = tempfile.TemporaryDirectory(prefix="spool-fresh-")
        self.folder = Path(self._folder.name)
        self.clone = self.folder / "clone"
        subprocess.run(["git", "clone", "--quiet", "--no-hardlinks", str(ROOT), str(self.clone)], check=True)
        for name in ("home", "tmp"):
            (self.folder / name).mkdir()
        self.env = {name: value for name, value in os.environ.items() if NETWORK.fullmatch(name)}
        self.env |= {
            "HOME": str(self.folder / "home"),
            "TMPDIR": str(self.folder / "tmp"),
            "PATH": str(self.path(node)),
            "LANG": "C.UTF-8",
        }

    def path(self, node: str) -> Path:
        """Return a folder with the programs of the system, but Node.js of a version, or "" for none."""
        folder = self.folder / f"bin{node}"
        folder.mkdir()
        for place in map(Path, SYSTEM):
            for program in place.iterdir() if place.is_dir() else ():
                link = folder / program.name
                if program.name not in NODE and not link.is_symlink():
                    link.symlink_to(program)
        python = folder / "python{}.{}".format(*sys.version_info)
        if not python.is_symlink():
            python.symlink_to(Path(sys.base_prefix) / "bin" / python.name)
        for name in NODE[:3] if node else ():
            (folder / name).write_text(f"#!/bin/sh\necho {node}\n")
            (folder / name).chmod(0o755)
        return folder

    def run(self, *command: str) -> str:
        """Run a command in the clone to its end, and return all that it said."""
        done = subprocess.run(
            command,
            cwd=self.clone,
            env=self.env,
            stdout=subprocess.PIPE,
            stderr=subprocess.STDOUT,
            text=True,
            check=False,
        )
        if done.returncode:
            raise AssertionError(f"{' '.join(command)} ended with {done.returncode}:\n{done.stdout}")
        return done.stdout

    def running(self) -> list[str]:
        """Return the command lines of all processes whose folder is the clone or in it."""
        found = []
        for process in Path("/proc").glob("[0-9]*"):
            try:
                if (process / "cwd").resolve().is_relative_to(self.clone):
                    found.append((process / "cmdline").read_bytes().replace(b"\0", b" ").decode())
            except OSError:  # it has ended, or is another's
                continue
        return found

    def remove(self) -> None:
        """Remove the clone and all that came with it."""
        self._folder.cleanup()


class Server:
    """What ./start runs, asked as a browser would.

    Attributes:
        said: all lines up to the one that says it is ready.
    """

    def __init__(self, machine: Machine, data: str, *more: str) -> None:
        """Start it and read what it says until it is ready, or until it has ended.

        Raises:
            AssertionError: it ended.
        """
        self.port = free_ports(5)
        command = ["./start", "--port", str(self.port), "--data", str(machine.folder / data), *more]
        self.process = subprocess.Popen(
            command,
            cwd=machine.clone,
            env=machine.env,
            stdout=subprocess.PIPE,
            stderr=subprocess.STDOUT,
            text=True,
            start_new_session=True,  # as in a terminal: Ctrl+C goes to all of it
        )
        self.cookies: dict[str, str] = {}
        self.said = ""
        assert self.process.stdout is not None
        for line in self.process.stdout:
            self.said += line
            if "is ready: " in line:
                return
        raise AssertionError(f"./start ended with {self.process.wait()}:\n{self.said}")

    def ask(self, path: str, body: Any = None, port: int = 0) -> bytes:
        """Ask for a page, by POST where there is a body, and return what is answered."""
        connection = http.client.HTTPConnection("127.0.0.1", port or self.port)
        headers = {"Cookie": "; ".join(f"{k}={v}" for k, v in self.cookies.items()), "Content-Type": "application/json"}
        headers["X-CSRFToken"] = self.cookies.get("spool_csrf", "")
        connection.request("GET" if body is None else "POST", path, None if body is None else json.dumps(body), headers)
        answer = connection.getresponse()
        content = answer.read()
        for name, value in re.findall(r"(spool_\w+)=([^;,]*);", str(answer.headers)):
            self.cookies[name] = value
        connection.close()
        if answer.status != 200:
            raise AssertionError(f"{path}: {answer.status} {content[:500]!r}")
        return content

    def json(self, path: str, body: Any = None, port: int = 0) -> Any:
        """Ask as above and return the JSON that is answered."""
        return json.loads(self.ask(path, body, port))

    def sign_in(self) -> None:
        """Come in by the demo's button."""
        self.ask("/")
        self.json("/api/demo-sign-in", {})

    def interrupt(self) -> tuple[int, str]:
        """Press Ctrl+C, and return the exit code and what was said at last."""
        os.killpg(self.process.pid, signal.SIGINT)
        last, _ = self.process.communicate()
        return self.process.returncode, last
