"""Talking to the wire machine over loopback HTTP."""

from __future__ import annotations

from typing import Any

from jolly_server.config.outside import Away as MachineAway
from jolly_server.config.outside import ask_json

__all__ = ["Machine", "MachineAway"]


class Machine:
    """The machine at an address."""

    def __init__(self, address: str) -> None:
        self.address = address

    def _ask(self, path: str, content: dict[str, Any] | None = None) -> dict[str, Any] | None:
        return ask_json(f"{self.address}{path}", "The machine", content)

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

    def withdraw(self, wires: list[str]) -> dict[str, str]:
        """Ask it to cut no more of some wires and return how each stands: withdrawn, done, refused or unknown.

        Raises:
            MachineAway: it does not answer, or cannot withdraw.
        """
        found = self._ask("/withdraw", {"wires": wires})
        if found is None:
            raise MachineAway("The machine cannot withdraw what it was given.")
        return {str(w["id"]): str(w["state"]) for w in found.get("wires", ())}

    def job(self, job: str) -> dict[str, Any] | None:
        """Return how a job stands, None when the machine never had it.

        Raises:
            MachineAway: it does not answer.
        """
        return self._ask(f"/jobs/{job}")
