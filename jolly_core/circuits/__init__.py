"""One analysis of potentials for all that asks what a circuit would do: labels, ways through poles and contacts."""

from .labels import AC, DC, PHASES, Label, is_rail, labels_of, number_of, settled, volts_between
from .loads import Consumer, consumers_on, takes_a
from .motors import motor_beyond_a
from .supplyload import LIMIT_PERCENT, WARN_PERCENT, SupplyLoad, supply_load, supply_loads
from .ways import (
    DRIVEN,
    Circuit,
    Link,
    Potential,
    Way,
    circuit_at,
    label_in_words,
    links_at,
    links_of,
    potential_at,
    potential_of,
    potentials_on,
    reached,
    way_in_words,
    ways_from,
)

__all__ = [
    "LIMIT_PERCENT",
    "WARN_PERCENT",
    "SupplyLoad",
    "supply_load",
    "supply_loads",
    "AC",
    "DC",
    "Circuit",
    "Consumer",
    "consumers_on",
    "takes_a",
    "DRIVEN",
    "PHASES",
    "Label",
    "Link",
    "Potential",
    "Way",
    "circuit_at",
    "is_rail",
    "label_in_words",
    "labels_of",
    "links_at",
    "links_of",
    "motor_beyond_a",
    "number_of",
    "potential_at",
    "potential_of",
    "potentials_on",
    "reached",
    "settled",
    "volts_between",
    "way_in_words",
    "ways_from",
]
