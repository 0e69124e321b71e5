"""Faults that people make, planted in a project on trial: which would be told, and which nobody would notice."""

from . import cabling, control, earthing, power, records
from .trials import FAULTS, HARMS, FaultKind, FaultPlace, PlantedFault, Trial, Unseen, plant, told_of, unseen, unseen_of

__all__ = [
    "FAULTS",
    "HARMS",
    "PlantedFault",
    "FaultKind",
    "FaultPlace",
    "Trial",
    "Unseen",
    "cabling",
    "control",
    "earthing",
    "plant",
    "power",
    "records",
    "told_of",
    "unseen",
    "unseen_of",
]
