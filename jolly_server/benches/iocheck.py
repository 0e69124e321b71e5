"""The wiring check of the I/O bench: the walk point by point, and what the PLC shows of each channel."""

from __future__ import annotations

from typing import Any

from django.conf import settings
from typing_extensions import TypedDict

from jolly_core.model import Project, RuleError
from jolly_core.points.checkwalk import CheckRow, check_rows, signatures
from jolly_core.reports import run_report
from jolly_server.config.outside import Away, ask_json

from .shapes import Place, symbol_place


class CheckValue(Place):
    """A point of the walk.

    Attributes:
        result: "" while nobody looked, else "good" or "fault"; `anew` when it was seen at another address.
        seen: name that the PLC has for its address, "" for none.
        value: what the PLC shows there, None while it has no such channel.
    """

    point_id: str
    tag: str
    text: str
    io_type: str
    address: str
    card: str
    device_id: str
    pins: str
    symbol_id: str
    place: str
    result: str
    remark: str
    by: str
    on: str
    anew: bool
    seen: str
    value: int | None


class SignatureValue(TypedDict):
    """A signature, and whether the check still says what was signed."""

    id: str
    by: str
    on: str
    remark: str
    current: bool


class PlcValue(TypedDict):
    """The PLC: whether it answers, how many channels it has of this project, and whether its list is the project's."""

    name: str
    away: str
    channels: int
    stale: bool
    refused: list[str]


class CheckView(TypedDict):
    """What the wiring check shows."""

    rows: list[CheckValue]
    signatures: list[SignatureValue]
    plc: PlcValue


class Plc:
    """The PLC at the address of the settings, for one project."""

    def __init__(self, project_id: str) -> None:
        self.address = settings.JOLLY.plc
        self.project_id = project_id

    def look(self) -> tuple[dict[str, dict[str, Any]], str]:
        """Return the channels it has by address, and why it has none: "" while it answers."""
        try:
            found = ask_json(f"{self.address}/channels/{self.project_id}", "The PLC")
        except Away as error:
            return {}, str(error)
        if found is None:
            return {}, "Something else answers at the PLC's address."
        return {str(c["address"]): c for c in found.get("channels", ()) if isinstance(c, dict)}, ""

    def take(self, rows: list[dict[str, str]]) -> list[str]:
        """Give it the address list and return what it refused, in words; nothing while it is away."""
        found = self._ask("list", {"project": self.project_id, "rows": rows})
        refused = found.get("refused", ())
        return [f"{r.get('address') or 'no address'} {r.get('name', '')}: {r.get('why', '')}" for r in refused]

    def _ask(self, path: str, content: dict[str, Any]) -> dict[str, Any]:
        try:
            return ask_json(f"{self.address}/{path}", "The PLC", content) or {}
        except Away:
            return {}  # the look that follows says so

    def set(self, address: str, value: int) -> None:
        """Set a channel; nothing happens while it is away.

        Raises:
            RuleError: it has no such channel, or the value is none for it.
        """
        found = self._ask("set", {"project": self.project_id, "address": address, "value": value})
        if "message" in found:
            raise RuleError(str(found["message"]), field="value")


def address_rows(project: Project) -> list[dict[str, str]]:
    """Return the rows of the address list as a PLC takes them."""
    return [
        {"name": str(r[0]), "address": str(r[1]), "type": str(r[2]), "comment": str(r[3])}
        for r in run_report(project, "addresses").rows
    ]


Look = tuple[dict[str, dict[str, Any]], str]


def io_check(project: Project, look: Look, refused: list[str] | None = None) -> CheckView:
    """Return the walk with what the PLC shows, as it was looked at; without it the walk alone."""
    shown, away = look
    wanted = [(r["name"], r["address"], r["type"]) for r in address_rows(project)]
    there = [(str(c["name"]), str(a), str(c["type"])) for a, c in shown.items()]
    return {
        "rows": [_row(project, r, shown.get(r.address)) for r in check_rows(project)],
        "signatures": [
            {"id": s.id, "by": s.by, "on": s.on, "remark": s.remark, "current": current}
            for s, current in signatures(project)
        ],
        "plc": {
            "name": "PLC",
            "away": away,
            "channels": len(shown),
            "stale": bool(shown) and sorted(wanted) != sorted(there),
            "refused": refused or [],
        },
    }


def _row(project: Project, r: CheckRow, channel: dict[str, Any] | None) -> CheckValue:
    check = r.check
    return {
        "point_id": r.point_id,
        "tag": r.tag,
        "text": r.text,
        "io_type": r.io_type,
        "address": r.address,
        "card": r.card,
        "device_id": r.device_id,
        "pins": r.pins,
        "symbol_id": r.symbol_id,
        **symbol_place(project, r.symbol_id),
        "result": check.result if check else "",
        "remark": check.remark if check else "",
        "by": check.by if check else "",
        "on": check.on if check else "",
        "anew": r.anew,
        "seen": str(channel["name"]) if channel else "",
        "value": int(channel["value"]) if channel else None,
    }
