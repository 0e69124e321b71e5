"""A stand-in for the mechanical designer's space model: a small process of its own that answers over loopback HTTP.

    python -m jolly_server.standins.space_model --port 8004

It holds the turner carriage with its ports and the paths between them, takes a harness as docs/formats/space.md has it,
assigns its connectors to ports by designation, and answers with nodes, paths and lengths.
"""

from __future__ import annotations

import argparse
import json
import sys
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from math import dist
from typing import Any

from .door import JsonDoor
from .running import run

FORMAT, VERSION = "jolly-spool-space", 1
# The carriage: ports by the end of a connector's designation, and points on the way, mm.
PORTS: dict[str, list[float]] = {
    "XD1": [0.0, 0.0, 0.0],
    "XD2": [905.0, 20.0, 0.0],
    "XD3": [640.0, 185.0, 205.0],
    "XD4": [905.0, 120.0, 60.0],
}
POINTS: dict[str, tuple[str, list[float]]] = {
    "B1": ("branching", [550.0, 0.0, 0.0]),
    "C1": ("clip", [631.0, 62.0, 97.0]),
}
# Ways of the carriage: from, to, form, what lies between.
WAYS: tuple[tuple[str, str, str, list[float]], ...] = (
    ("XD1", "B1", "line", []),
    ("B1", "XD2", "polyline", [880.0, 0.0, 0.0]),
    ("B1", "C1", "curve", [585.0, 0.0, 0.0, 625.0, 20.0, 45.0]),
    ("C1", "XD3", "curve", [637.0, 104.0, 149.0, 640.0, 150.0, 175.0]),
)


class SpaceModel:
    """The carriage, and what was assigned to its ports last."""

    name = "Simulated space model, turner carriage"

    def __init__(self) -> None:
        self.harness = ""
        self.assigned: dict[str, str] = {}

    def status(self) -> dict[str, Any]:
        """Return what it holds: its ports, and what is assigned to them."""
        return {"name": self.name, "harness": self.harness, "ports": sorted(PORTS), "assigned": self.assigned}

    def take(self, content: dict[str, Any]) -> dict[str, Any]:
        """Assign the connectors of a harness to ports by designation, and return where all of it lies.

        Raises:
            ValueError: it is no harness of the format.
        """
        if content.get("format") != FORMAT or content.get("version") != VERSION:
            raise ValueError(f"it is no {FORMAT} of version {VERSION}")
        self.harness = str(content.get("harness", ""))
        tags = [str(c["designation"]) for c in content.get("connectors", ())]
        self.assigned = {port: tag for tag in tags for port in PORTS if tag.rsplit("-", 1)[-1] == port}
        called = {**{port: self.assigned.get(port, f"-{port}") for port in PORTS}, **{name: name for name in POINTS}}
        places = {**PORTS, **{name: at for name, (_, at) in POINTS.items()}}
        return {
            "format": FORMAT,
            "version": VERSION,
            "harness": self.harness,
            "nodes": [
                {"name": called[name], "sort": POINTS[name][0] if name in POINTS else "connector", "at": places[name]}
                for name in places
            ],
            "paths": [
                {"start": called[a], "end": called[b], "form": form, "points": points} for a, b, form, points in WAYS
            ],
            "unassigned": [tag for tag in tags if tag not in self.assigned.values()],
            "straight_mm": {f"{called[a]} {called[b]}": round(dist(places[a], places[b]), 2) for a, b, *_ in WAYS},
        }


def door(model: SpaceModel) -> type[BaseHTTPRequestHandler]:
    """Return the handler class through which a space model is reached."""

    class Door(JsonDoor):
        def do_GET(self) -> None:
            if self.path == "/status":
                self.say(200, model.status())
            else:
                self.say(404, {"message": "Ask for /status, or give a harness to /harness."})

        def do_POST(self) -> None:
            raw = self.taken("The harness is too large.")
            if raw is None:
                return
            if self.path != "/harness":
                self.say(404, {"message": "Give a harness to /harness."})
                return
            try:
                self.say(200, model.take(dict(json.loads(raw))))
            except (ValueError, KeyError, TypeError) as error:
                self.say(400, {"message": f"The harness cannot be read: {error}."})

    return Door


def serve(model: SpaceModel, port: int) -> ThreadingHTTPServer:
    """Open a space model's door on loopback; port 0 takes any free one. The caller runs and closes it."""
    return ThreadingHTTPServer(("127.0.0.1", port), door(model))


def main() -> None:
    """Run the space model until it is stopped, or until the process it follows is gone."""
    parser = argparse.ArgumentParser(description="A simulated space model of the turner carriage on loopback HTTP.")
    parser.add_argument("--port", type=int, default=8004)
    parser.add_argument("--follow", type=int, default=0, help="end when this process is gone")
    chosen = parser.parse_args()
    try:
        server = serve(SpaceModel(), chosen.port)
    except OSError as error:
        sys.exit(f"simulated space model: port {chosen.port} cannot be used: {error.strerror}")
    run(server, chosen.follow, 1.0)


if __name__ == "__main__":
    main()
