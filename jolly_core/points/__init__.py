"""The list of I/O points: taken in from tables, the channels it needs, cards for them, and which point goes where."""

from .allocation import Allotted, block_from, machine_of, signal_key, suggested, why_not, why_not_here
from .demand import By, CardChoice, ChannelNeed, cards_for, channels_of, needed_channels, needs
from .drawnpoints import DrawnPoint, drawn_as, drawn_point, meeting, place_drawn, points_of_symbols, without_point
from .elements import Element, device_tagged, element_of, said_of, shown_as, stamp_called, switched_to
from .patterns import Pattern, pattern_for
from .pointfields import BY_KEY, FIELDS, NO_COLUMN, OWN_COLUMN, PointField, field_headed, io_type_of
from .pointlist import Fault, ListRow, PointLine, PointList, PointValues, place_named, read_points
from .racks import RackSum, free_slot, racks

__all__ = [
    "BY_KEY",
    "FIELDS",
    "NO_COLUMN",
    "OWN_COLUMN",
    "Allotted",
    "By",
    "CardChoice",
    "DrawnPoint",
    "Element",
    "Fault",
    "ListRow",
    "Pattern",
    "pattern_for",
    "said_of",
    "shown_as",
    "stamp_called",
    "ChannelNeed",
    "PointField",
    "PointLine",
    "PointList",
    "PointValues",
    "RackSum",
    "block_from",
    "device_tagged",
    "drawn_as",
    "drawn_point",
    "element_of",
    "cards_for",
    "channels_of",
    "field_headed",
    "free_slot",
    "io_type_of",
    "machine_of",
    "meeting",
    "place_drawn",
    "needed_channels",
    "needs",
    "place_named",
    "points_of_symbols",
    "racks",
    "read_points",
    "signal_key",
    "suggested",
    "switched_to",
    "why_not",
    "why_not_here",
    "without_point",
]
