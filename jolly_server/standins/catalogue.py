"""A stand-in for a makers' catalogue: a small process of its own that answers over loopback HTTP.

    python -m jolly_server.standins.catalogue --port 8002

docs/formats/catalogue.md describes the requests.
"""

from __future__ import annotations

import argparse
import json
import sys
from collections import Counter
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from typing import Any
from urllib.parse import parse_qs, urlsplit

from .catalogue_parts import Offer, offers
from .catalogue_pictures import picture
from .running import run

MOST = 100


class CatalogueService:
    """The catalogue itself, without its HTTP door."""

    name = "Simulated makers' catalogue"

    def __init__(self) -> None:
        self.offers: dict[str, Offer] = {o["id"]: o for o in offers()}

    def find(self, words: str, part_class: str, maker: str, start: int, count: int) -> dict[str, Any]:
        """Return a page of the parts that have all words and are of a class and maker, with how many of each there are.

        The counts by class leave the class open, those by maker the maker, so that one sees where else to look.
        """
        tokens = words.lower().split()
        named = [o for o in self.offers.values() if all(t in _said(o) for t in tokens)]
        of_class = [o for o in named if part_class in ("", o["part_class"])]
        of_maker = [o for o in named if maker in ("", o["maker"])]
        found = [o for o in of_class if maker in ("", o["maker"])]
        return {
            "total": len(found),
            "makers": dict(sorted(Counter(o["maker"] for o in of_class).items())),
            "classes": dict(sorted(Counter(o["part_class"] for o in of_maker).items())),
            "parts": found[start : start + min(count, MOST)],
        }


def _said(offer: Offer) -> str:
    return " ".join((offer["maker"], offer["number"], offer["text"], *offer["ratings"].values())).lower()


def door(service: CatalogueService) -> type[BaseHTTPRequestHandler]:
    """Return the handler class through which the catalogue is reached."""

    class Door(BaseHTTPRequestHandler):
        def _say(self, status: int, value: Any, media_type: str = "application/json") -> None:
            body = value.encode() if isinstance(value, str) else json.dumps(value).encode()
            self.send_response(status)
            self.send_header("Content-Type", media_type)
            self.send_header("Content-Length", str(len(body)))
            self.end_headers()
            self.wfile.write(body)

        def do_GET(self) -> None:
            where = urlsplit(self.path)
            asked = {k: v[0] for k, v in parse_qs(where.query).items()}
            kind, _, id = where.path.strip("/").partition("/")
            offer = service.offers.get(id.removesuffix(".svg"))
            if kind == "status":
                self._say(200, {"name": service.name, "parts": len(service.offers)})
            elif kind == "parts" and not id:
                numbers = [asked.get(n, d) for n, d in (("from", "0"), ("count", "40"))]
                if not all(n.isdecimal() for n in numbers):
                    self._say(400, {"message": "from and count should be whole numbers."})
                    return
                words, part_class, maker = (asked.get(n, "") for n in ("q", "class", "maker"))
                self._say(200, service.find(words, part_class, maker, int(numbers[0]), int(numbers[1])))
            elif kind == "parts" and offer is not None:
                self._say(200, offer)
            elif kind == "pictures" and offer is not None:
                self._say(200, picture(offer), "image/svg+xml")
            else:
                self._say(404, {"message": "Ask for /status, /parts, /parts/ID or /pictures/ID.svg."})

        def log_message(self, format: str, *args: Any) -> None:
            return

    return Door


def serve(service: CatalogueService, port: int) -> ThreadingHTTPServer:
    """Open the catalogue's door on loopback; port 0 takes any free one. The caller runs and closes it."""
    return ThreadingHTTPServer(("127.0.0.1", port), door(service))


def main() -> None:
    """Run the catalogue until it is stopped, or until the process it follows is gone."""
    parser = argparse.ArgumentParser(description="A simulated makers' catalogue on loopback HTTP.")
    parser.add_argument("--port", type=int, default=8002)
    parser.add_argument("--follow", type=int, default=0, help="end when this process is gone")
    chosen = parser.parse_args()
    try:
        server = serve(CatalogueService(), chosen.port)
    except OSError as error:
        sys.exit(f"catalogue: port {chosen.port} cannot be used: {error.strerror}")
    run(server, chosen.follow, 1.0)


if __name__ == "__main__":
    main()
