"""A stand-in for a PLC with its cards: a small process of its own that takes an address list over loopback HTTP.

    python -m jolly_server.standins.plc --port 8003

It knows the channels of each list it was given, shows the state of each, and lets one be set as the field or the
program would set it. docs/formats/plc.md describes the requests.
"""

from __future__ import annotations

import argparse
import json
import sys
import threading
from dataclasses import asdict, dataclass
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from typing import Any

from .door import JsonDoor
from .running import run

RANGES = {"BOOL": (0, 1), "INT": (-32768, 32767)}  # of the data types of IEC 61131-3 that it knows


class Refused(ValueError):
    """A request that cannot be done, with the reason."""


@dataclass(slots=True)
class Channel:
    """A channel as the program knows it."""

    name: str
    address: str
    type: str
    comment: str = ""
    value: int = 0


class Plc:
    """The PLC itself, without its HTTP door; it keeps a list for each project until it is switched off."""

    name = "Simulated PLC"

    def __init__(self) -> None:
        self.lock = threading.Lock()
        self.lists: dict[str, dict[str, Channel]] = {}

    def status(self) -> dict[str, Any]:
        """Return name, and how many channels it has of each project."""
        with self.lock:
            return {"name": self.name, "lists": {project: len(rows) for project, rows in self.lists.items()}}

    def take(self, project: str, rows: list[dict[str, Any]]) -> dict[str, Any]:
        """Take an address list in place of the one before; a row it cannot use is named and left out.

        A channel that is at its address again keeps its state.
        """
        taken: dict[str, Channel] = {}
        refused: list[dict[str, str]] = []
        with self.lock:
            before = self.lists.get(project, {})
            for row in rows:
                name, address, kind, comment = (str(row.get(k, "")) for k in ("name", "address", "type", "comment"))
                fresh = Channel(name, address, kind, comment)
                why = _why_not(fresh, taken)
                if why:
                    refused.append({"address": fresh.address, "name": fresh.name, "why": why})
                    continue
                old = before.get(fresh.address)
                fresh.value = old.value if old is not None and old.type == fresh.type else 0
                taken[fresh.address] = fresh
            self.lists[project] = taken
        return {"taken": len(taken), "refused": refused}

    def channels(self, project: str) -> list[dict[str, Any]]:
        """Return the channels of a project with their states, as the list had them."""
        with self.lock:
            return [asdict(c) for c in self.lists.get(project, {}).values()]

    def set(self, project: str, address: str, value: int) -> dict[str, Any]:
        """Set a channel and return it as it is seen at the card.

        Raises:
            Refused: there is no such channel, or the value is none of its type.
        """
        with self.lock:
            channel = self.lists.get(project, {}).get(address)
            if channel is None:
                raise Refused(f"The list it was given has no channel {address}.")
            low, high = RANGES[channel.type]
            if not low <= value <= high:
                raise Refused(f"{value} is no {channel.type}: it is outside {low} to {high}.")
            channel.value = value
            return asdict(channel)


def _why_not(channel: Channel, taken: dict[str, Channel]) -> str:
    if not channel.address:
        return "It has no address."
    if channel.type not in RANGES:
        return f"“{channel.type}” is none of {', '.join(RANGES)}."
    if channel.address in taken:
        return f"{taken[channel.address].name} has this address already."
    return ""


def door(plc: Plc) -> type[BaseHTTPRequestHandler]:
    """Return the handler class through which a PLC is reached."""

    class Door(JsonDoor):
        def do_GET(self) -> None:
            if self.path == "/status":
                self.say(200, plc.status())
            elif self.path.startswith("/channels/"):
                self.say(200, {"channels": plc.channels(self.path.removeprefix("/channels/"))})
            else:
                self.say(404, {"message": "Ask for /status or /channels/PROJECT."})

        def do_POST(self) -> None:
            raw = self.taken("The list is too large.")
            if raw is None:
                return
            try:
                content = json.loads(raw)
                project = str(content["project"])
                if self.path == "/list":
                    self.say(200, plc.take(project, [dict(row) for row in content["rows"]]))
                elif self.path == "/set":
                    self.say(200, plc.set(project, str(content["address"]), int(content["value"])))
                else:
                    self.say(404, {"message": "Give it a /list or /set a channel."})
            except Refused as error:
                self.say(200, {"message": str(error)})
            except (ValueError, KeyError, TypeError) as error:
                self.say(400, {"message": f"The request cannot be read: {error}."})

    return Door


def serve(plc: Plc, port: int) -> ThreadingHTTPServer:
    """Open a PLC's door on loopback; port 0 takes any free one. The caller runs and closes it."""
    return ThreadingHTTPServer(("127.0.0.1", port), door(plc))


def main() -> None:
    """Run the PLC until it is stopped, or until the process it follows is gone."""
    parser = argparse.ArgumentParser(description="A simulated PLC with its cards on loopback HTTP.")
    parser.add_argument("--port", type=int, default=8003)
    parser.add_argument("--follow", type=int, default=0, help="end when this process is gone")
    chosen = parser.parse_args()
    try:
        server = serve(Plc(), chosen.port)
    except OSError as error:
        sys.exit(f"simulated PLC: port {chosen.port} cannot be used: {error.strerror}")
    run(server, chosen.follow, 1.0)


if __name__ == "__main__":
    main()
