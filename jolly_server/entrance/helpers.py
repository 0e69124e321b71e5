"""The stand-ins as processes beside the server: started with it, ended with it."""

from __future__ import annotations

import os
import subprocess
import sys
from collections.abc import Collection
from contextlib import suppress
from pathlib import Path

from jolly_server.config.options import BASE
from jolly_server.standins.listed import STANDINS, StandIn

from .arguments import HOST, is_free

PATIENCE_S = 5.0


def chosen_port(wanted: int, taken: Collection[int]) -> int:
    """Return a port nobody serves on: the one that is wanted, or the next that is free."""
    port = wanted
    while port in taken or not is_free(port):
        port += 1
    return port


class Helpers:
    """What was started beside the server."""

    def __init__(self) -> None:
        self.running: list[subprocess.Popen[bytes]] = []

    def start(self, port: int, data: Path, without: Collection[str]) -> list[str]:
        """Start the stand-ins and note their addresses in the environment.

        Args:
            port: that of the server; stand-ins take the ones after it, or others when those are in use.
            data: folder for what they remember.
            without: keys of those that are not wanted.

        Returns:
            A line of words for each.
        """
        told: list[str] = []
        taken = {port}
        for nth, standin in enumerate(STANDINS, 1):
            if standin.key in without or os.environ.get(standin.variable):
                continue
            own = chosen_port(port + nth, taken)
            taken.add(own)
            os.environ[standin.variable] = f"http://{HOST}:{own}"
            self.running.append(subprocess.Popen(_command(standin, own, data), cwd=BASE, start_new_session=True))
            told.append(f"Simulated {standin.name} on {os.environ[standin.variable]}")
        return told

    def end(self) -> None:
        """End all that was started, and wait until it is gone."""
        for process in self.running:
            process.terminate()
        for process in self.running:
            with suppress(subprocess.TimeoutExpired):
                process.wait(PATIENCE_S)
                continue
            process.kill()
            process.wait()
        self.running.clear()


def _command(standin: StandIn, port: int, data: Path) -> list[str]:
    module = f"jolly_server.standins.{standin.module}"
    command = [sys.executable, "-m", module, "--port", str(port), "--follow", str(os.getpid())]
    return [*command, "--state", str(data / standin.state)] if standin.state else command
