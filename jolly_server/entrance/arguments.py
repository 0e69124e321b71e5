"""The arguments of ./start, looked at before anything is installed: this needs nothing but Python itself.

Run as a program it only looks: it ends with 0 when all is well, else with a sentence that says what is not and 2.
"""

from __future__ import annotations

import argparse
import errno
import os
import socket
import sys
import tempfile
from collections.abc import Sequence
from dataclasses import dataclass
from pathlib import Path

from jolly_server.config.options import BASE, DATABASE
from jolly_server.standins.listed import STANDINS

HOST = "127.0.0.1"
USUAL_PORT, LAST_PORT = 8000, 65535


class NotPossible(Exception):
    """What was asked for cannot be, said in a sentence that tells what to do."""


@dataclass(slots=True, frozen=True)
class Arguments:
    """What ./start was asked for.

    Attributes:
        port: where it serves.
        data: folder of database and files.
        demo: whether the demo is loaded and its sign-in offered.
        without: keys of the stand-ins that are not started.
    """

    port: int
    data: Path
    demo: bool
    without: frozenset[str]


def _port(text: str) -> int:
    if not text.isdecimal() or not 1 <= int(text) <= LAST_PORT:
        raise argparse.ArgumentTypeError(f"the port should be a number from 1 to {LAST_PORT}")
    return int(text)


def parser() -> argparse.ArgumentParser:
    """Return what reads the arguments."""
    made = argparse.ArgumentParser(
        prog="./start",
        description="Install what is missing, build, migrate, load the demo, serve on loopback and print the address.",
    )
    made.add_argument("--port", type=_port, default=USUAL_PORT, metavar="N", help="serve on this port (default: 8000)")
    made.add_argument(
        "--data", metavar="DIR", help="data folder with database and files (default: $JOLLY_SPOOL_DATA or ./data)"
    )
    made.add_argument("--empty", action="store_true", help="do not load the demo and do not offer its sign-in")
    for nth, standin in enumerate(STANDINS, 1):
        words = f"do not start the simulated {standin.name} beside it (port N+{nth}, or another if that is in use)"
        made.add_argument(f"--no-{standin.key}", action="store_true", help=words)
    made.add_argument(
        "--from", dest="start", type=Path, default=BASE, help=argparse.SUPPRESS
    )  # relative paths begin here
    return made


def read(given: Sequence[str] | None = None) -> Arguments:
    """Return what was asked for; a word that is not known ends the program with the usage, as `argparse` does."""
    found = parser().parse_args(given)
    data = Path(found.data or os.environ.get("JOLLY_SPOOL_DATA") or BASE / "data").expanduser()
    without = frozenset(s.key for s in STANDINS if getattr(found, f"no_{s.key}"))
    return Arguments(found.port, (found.start / data).resolve(), not found.empty, without)


def is_free(port: int) -> bool:
    """Tell whether nobody serves on a port.

    Raises:
        NotPossible: this account may not use it.
    """
    with socket.socket() as tried:
        tried.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            tried.bind((HOST, port))
        except OSError as error:
            if error.errno == errno.EADDRINUSE:
                return False
            raise NotPossible(f"Port {port} cannot be used: {error.strerror}. Choose one from 1024 on.") from error
    return True


def check_port(port: int) -> None:
    """Refuse a port that is in use.

    Raises:
        NotPossible: it is, or may not be used.
    """
    if not is_free(port):
        others = (p for p in range(port + 10, LAST_PORT, 10) if is_free(p))
        other = next(others, USUAL_PORT)
        raise NotPossible(
            f"Port {port} is in use, perhaps by a Jolly Spool that runs already. Choose another: ./start --port {other}"
        )


def check_data(data: Path) -> None:
    """Refuse a data folder that cannot be written, making it where it is not there.

    Raises:
        NotPossible: it cannot.
    """
    if data.exists() and not data.is_dir():
        raise NotPossible(f"{data} is no folder. Name one for the data: ./start --data DIR")
    try:
        data.mkdir(parents=True, exist_ok=True)
        with tempfile.TemporaryFile(dir=data) as tried:
            tried.write(b" ")
        for file in (data / DATABASE, data / "secret-key"):
            if file.exists():
                file.open("r+b").close()
    except OSError as error:
        what = error.filename or data
        raise NotPossible(
            f"The data folder {data} cannot be written ({what}: {error.strerror}). Name another: ./start --data DIR"
        ) from error


def main(given: Sequence[str] | None = None) -> int:
    """Look at the arguments, the port and the data folder."""
    asked = read(given)
    try:
        check_port(asked.port)
        check_data(asked.data)
    except NotPossible as error:
        print(f"start: {error}", file=sys.stderr)
        return 2
    return 0


if __name__ == "__main__":
    sys.exit(main())
