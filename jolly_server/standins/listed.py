"""The stand-ins for outside devices and services, which ./start runs beside the application: the one list of them."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(slots=True, frozen=True)
class StandIn:
    """A stand-in: a module that is run with `--port` and `--follow`.

    Attributes:
        key: what it is called in `--no-KEY`.
        name: what it is called in messages.
        variable: the environment variable with its address; where it is set, another one is meant and none started.
        module: last name of its module.
        state: name of the file in the data folder that it remembers things in, "" for none.
    """

    key: str
    name: str
    variable: str
    module: str
    state: str = ""


STANDINS = (
    StandIn("machine", "wire-processing machine", "JOLLY_SPOOL_MACHINE", "wire_machine", "wire-machine.json"),
    StandIn("catalogue", "makers' catalogue", "JOLLY_SPOOL_CATALOGUE", "catalogue"),
    StandIn("plc", "PLC of the wiring check", "JOLLY_SPOOL_PLC", "plc"),
    StandIn("space", "space model", "JOLLY_SPOOL_SPACE", "space_model"),
)
