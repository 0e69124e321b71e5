"""PLC cards, channels, addresses and point lists."""

from .addresses import ANALOG, BITS, FIRST_ANALOG_WORD, PREFIX, WORD_BITS, address, parse_start
from .channels import (
    TYPES_OF_UNITS,
    UNIT_KINDS,
    ChannelRow,
    Spare,
    card_of,
    cards,
    channel_address,
    channel_spans,
    channels,
    needed_channels,
    point_at,
    spare_shares,
)
from .pointlist import Change, Fault, PointLine, PointList, change_of, gone_from, read_points

__all__ = [
    "ANALOG",
    "BITS",
    "FIRST_ANALOG_WORD",
    "PREFIX",
    "WORD_BITS",
    "channel_spans",
    "TYPES_OF_UNITS",
    "UNIT_KINDS",
    "ChannelRow",
    "Fault",
    "PointLine",
    "PointList",
    "Spare",
    "address",
    "card_of",
    "Change",
    "cards",
    "change_of",
    "gone_from",
    "channel_address",
    "channels",
    "needed_channels",
    "parse_start",
    "point_at",
    "read_points",
    "spare_shares",
]
