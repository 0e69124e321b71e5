"""Talking to the wire machine over loopback HTTP."""

from __future__ import annotations

import json
from http.client import HTTPException
from typing import Any
from urllib.error import HTTPError, URLError
from urllib.request import ProxyHandler, Request, build_opener

TIMEOUT_S = 3.0


class MachineAway(Exception):
    """The machine does not answer, or not as it should."""


class Machine:
    """The machine at an address."""

    def __init__(self, address: str) -> None:
        self.address = address
        self._open = build_opener(ProxyHandler({})).open

    def _ask(self, path: str, content: dict[str, Any] | None = None) -> dict[str, Any] | None:
        body = None if content is None else json.dumps(content).encode()
        request = Request(f"{self.address}{path}", data=body, headers={"Content-Type": "application/json"})
        try:
            with self._open(request, timeout=TIMEOUT_S) as answer:
                found: dict[str, Any] = json.loads(answer.read())
                return found
        except HTTPError as error:
            if error.code == 404:
                return None
            raise MachineAway(f"The machine answered {error.code}.") from error
        except (URLError, OSError, ValueError, HTTPException) as error:
            raise MachineAway("The machine does not answer.") from error

    def status(self) -> dict[str, Any]:
        """Return its name and limits.

        Raises:
            MachineAway: it does not answer.
        """
        found = self._ask("/status")
        if found is None:
            raise MachineAway("Something else answers at the machine's address.")
        return found

    def send(self, job: str, wires: list[dict[str, Any]]) -> dict[str, Any]:
        """Give it a job and return how it stands; a job it has already is not taken again.

        Raises:
            MachineAway: it does not answer.
        """
        found = self._ask("/jobs", {"job": job, "wires": wires})
        if found is None:
            raise MachineAway("Something else answers at the machine's address.")
        return found

    def job(self, job: str) -> dict[str, Any] | None:
        """Return how a job stands, None when the machine never had it.

        Raises:
            MachineAway: it does not answer.
        """
        return self._ask(f"/jobs/{job}")
