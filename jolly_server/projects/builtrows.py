"""Rows of what is built from the drawing: strips, cables, cards, enclosures, harnesses."""

from django.db import models

from .entityrows import EntityRow, ref_column, text_column
from .fields import IntsField, NamesField


class StripRow(EntityRow):
    """jolly_core.model.Strip"""

    device_id = ref_column()
    numbering = text_column(10)


class BandRow(EntityRow):
    """jolly_core.model.Band"""

    sheet_id = ref_column()
    x1 = models.IntegerField()
    y1 = models.IntegerField()
    x2 = models.IntegerField()
    y2 = models.IntegerField()
    device_id = ref_column()


class StripItemRow(EntityRow):
    """jolly_core.model.StripItem"""

    strip_id = ref_column()
    kind = text_column(20)
    order = models.IntegerField()
    unit = models.IntegerField()
    number = text_column()
    part_id = ref_column()


class BridgeRow(EntityRow):
    """jolly_core.model.Bridge"""

    strip_id = ref_column()
    units = IntsField(max_length=400)


class CableRow(EntityRow):
    """jolly_core.model.Cable"""

    device_id = ref_column()
    length_m = models.FloatField()
    load_a = models.FloatField()
    voltage_v = models.FloatField()
    power_factor = models.FloatField()


class CoreChoiceRow(EntityRow):
    """jolly_core.model.CoreChoice"""

    device_id = ref_column()
    ordinal = models.IntegerField()
    conductor = text_column()


class NetOrderRow(EntityRow):
    """jolly_core.model.NetOrder"""

    pairs = NamesField(default="[]")


class CardRow(EntityRow):
    """jolly_core.model.Card"""

    device_id = ref_column()
    scheme = text_column(20)
    start = text_column()
    order = models.IntegerField()


class IoPointRow(EntityRow):
    """jolly_core.model.IoPoint"""

    tag = text_column()
    text = text_column()
    io_type = text_column(20)
    connected = text_column()
    order = models.IntegerField()
    device_id = ref_column()
    channel = models.IntegerField()


class EnclosureRow(EntityRow):
    """jolly_core.model.Enclosure"""

    device_id = ref_column()
    ambient_c = models.FloatField()
    hinge = text_column(20)
    left_id = models.CharField(max_length=40, default="")
    opening_mm = models.FloatField(default=0)


class RailRow(EntityRow):
    """jolly_core.model.Rail"""

    enclosure_id = ref_column()
    x1 = models.FloatField()
    y1 = models.FloatField()
    x2 = models.FloatField()
    y2 = models.FloatField()
    part_id = ref_column()


class DuctRow(EntityRow):
    """jolly_core.model.Duct"""

    enclosure_id = ref_column()
    x1 = models.FloatField()
    y1 = models.FloatField()
    x2 = models.FloatField()
    y2 = models.FloatField()
    part_id = ref_column()


class PlacingRow(EntityRow):
    """jolly_core.model.Placing"""

    enclosure_id = ref_column()
    device_id = ref_column()
    surface = text_column(20)
    x = models.FloatField()
    y = models.FloatField()
    rail_id = ref_column()


class HarnessRow(EntityRow):
    """jolly_core.model.Harness"""

    code = text_column()
    text = text_column()
    order = models.IntegerField()


class NodeRow(EntityRow):
    """jolly_core.model.Node"""

    harness_id = ref_column()
    device_id = ref_column()
    name = text_column()


class SegmentRow(EntityRow):
    """jolly_core.model.Segment"""

    harness_id = ref_column()
    a_id = ref_column()
    b_id = ref_column()
    length_mm = models.FloatField()
