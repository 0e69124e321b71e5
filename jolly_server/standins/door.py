"""The HTTP door of a stand-in that speaks JSON: how it answers and reads, whatever it is asked for."""

from __future__ import annotations

import json
from http.server import BaseHTTPRequestHandler
from typing import Any

LARGEST_REQUEST = 5_000_000


class JsonDoor(BaseHTTPRequestHandler):
    """A handler that says and takes JSON and writes no log."""

    def say(self, status: int, value: dict[str, Any]) -> None:
        """Answer with a JSON object."""
        body = json.dumps(value).encode()
        self.send_response(status)
        self.send_header("Content-Type", "application/json")
        self.send_header("Content-Length", str(len(body)))
        self.end_headers()
        self.wfile.write(body)

    def taken(self, too_large: str) -> bytes | None:
        """Return what was sent; None when it is too large, which is then answered in these words."""
        length = int(self.headers.get("Content-Length") or 0)
        if length > LARGEST_REQUEST:
            self.say(413, {"message": too_large})
            return None
        return self.rfile.read(length)

    def log_message(self, format: str, *args: Any) -> None:
        """Write nothing."""
