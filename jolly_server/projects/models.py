"""Stored projects: one row for each project, member and journal entry, one model for each kind of entity."""

from django.conf import settings
from django.db import models

from .fields import FactsField, IntsField, NamesField, TextsField, UnitsField


class ProjectRow(models.Model):
    """A stored project; its facts are entities, only what lists need is repeated by the mapper."""

    class State(models.TextChoices):
        OPEN = "open"
        ARCHIVED = "archived"
        BINNED = "binned"

    id = models.CharField(max_length=40, primary_key=True)
    revision = models.PositiveIntegerField(default=0)
    edited_at = models.DateTimeField(auto_now=True)
    edited_by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+")
    state = models.CharField(max_length=8, choices=State.choices, default=State.OPEN)
    starter = models.BooleanField(default=False)  # offered to its members as the start of new projects


class Membership(models.Model):
    """What a person may do in a project."""

    class Role(models.TextChoices):
        OWNER = "owner"
        EDITOR = "editor"
        VIEWER = "viewer"

    project = models.ForeignKey(ProjectRow, on_delete=models.CASCADE, related_name="members")
    user = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="memberships")
    role = models.CharField(max_length=10, choices=Role.choices)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["project", "user"], name="one_role_each")]


class Invitation(models.Model):
    """An owner's offer of a role to somebody with an account; it waits until they take or decline it."""

    project = models.ForeignKey(ProjectRow, on_delete=models.CASCADE, related_name="invitations")
    user = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="invitations")
    role = models.CharField(max_length=10, choices=Membership.Role.choices)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+")

    class Meta:
        constraints = [models.UniqueConstraint(fields=["project", "user"], name="one_invitation_each")]


class JournalEntry(models.Model):
    """One edit as it was stored.

    `live` is true until the entry is taken back (an edit or redo by an undo, an undo by a redo). `key` is the
    browser's name for the request, so that one sent twice by the network is done once.
    """

    project = models.ForeignKey(ProjectRow, on_delete=models.CASCADE, related_name="journal")
    revision = models.PositiveIntegerField()
    user = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.SET_NULL, related_name="+")
    at = models.DateTimeField(auto_now_add=True)
    act = models.CharField(max_length=6, choices=[("edit", "edit"), ("undo", "undo"), ("redo", "redo")])
    label = models.CharField(max_length=250)
    payload_kind = models.CharField(max_length=40, blank=True)
    key = models.CharField(max_length=40, blank=True, default="")
    changes = models.TextField()
    live = models.BooleanField(default=True)
    target = models.ForeignKey("self", null=True, on_delete=models.SET_NULL, related_name="+")

    class Meta:
        constraints = [
            models.UniqueConstraint(fields=["project", "revision"], name="one_entry_a_revision"),
            models.UniqueConstraint(fields=["project", "key"], condition=~models.Q(key=""), name="each_request_once"),
        ]
        indexes = [models.Index(fields=["project", "user", "live", "act", "revision"], name="journal_undo")]


class Presence(models.Model):
    """Who is in a project, on which sheet ("" for none), and which they saw last."""

    project = models.ForeignKey(ProjectRow, on_delete=models.CASCADE, related_name="present")
    user = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="+")
    sheet_id = models.CharField(max_length=40, blank=True)
    last_sheet_id = models.CharField(max_length=40, blank=True, default="")
    seen_at = models.DateTimeField()

    class Meta:
        constraints = [models.UniqueConstraint(fields=["project", "user"], name="one_presence_each")]


class EntityRow(models.Model):
    """What all entity rows have: the project, and the entity's own id within it."""

    row = models.BigAutoField(primary_key=True)
    project = models.ForeignKey(ProjectRow, on_delete=models.CASCADE, related_name="+")
    id = models.CharField(max_length=40)

    class Meta:
        abstract = True
        constraints = [models.UniqueConstraint(fields=["project", "id"], name="%(class)s_in_project")]


def _text(length: int = 200) -> models.CharField:  # type: ignore[type-arg]  # the stubs' parameters are inferred
    return models.CharField(max_length=length, blank=True, default="")


def _ref() -> models.CharField:  # type: ignore[type-arg]  # the stubs' parameters are inferred
    return models.CharField(max_length=40, blank=True, default="")


class SettingsRow(EntityRow):
    """jolly_core.model.Settings"""

    number = _text()
    name = _text()
    customer = _text()
    site = _text()
    drawn_by = _text()
    revision = _text()
    standard = _text(10)
    tag_habit = _text(10)
    tag_scope = _text(10)
    wire_pattern = _text(10)
    wire_width = models.IntegerField()
    end_allowance_mm = models.FloatField(default=60)
    door_allowance_mm = models.FloatField(default=450)
    free_run_mm = models.FloatField(default=150)
    part_language = models.CharField(max_length=8, default="")
    harness_allowance_mm = models.FloatField(default=20)
    length_step_mm = models.FloatField(default=5)
    spool_m = models.FloatField(default=100)
    spare_share_percent = models.FloatField(default=20)
    supply = _text()
    supply_system = _text()
    control_voltages = _text()
    protection = _text()
    standards = _text()
    drawn_on = _text()
    checked_by = _text()
    checked_on = _text()
    issued_on = _text()
    length_unit = models.CharField(max_length=4, default="mm")
    conductor_order = models.CharField(max_length=12, default="drawing")
    title_block_id = _ref()
    own_fields = TextsField(default=dict)


class PictureRow(EntityRow):
    """jolly_core.model.Picture"""

    name = _text()
    media_type = _text(20)
    width_px = models.IntegerField()
    height_px = models.IntegerField()
    data = models.TextField()


class TitleBlockRow(EntityRow):
    """jolly_core.model.TitleBlock"""

    name = _text()
    width_mm = models.FloatField()
    height_mm = models.FloatField()


class TitleCellRow(EntityRow):
    """jolly_core.model.TitleCell"""

    block_id = _ref()
    x = models.FloatField()
    y = models.FloatField()
    width = models.FloatField()
    height = models.FloatField()
    heading = _text()
    content = _text()
    size_mm = models.FloatField()
    anchor = _text(10)
    border = models.BooleanField()
    picture_id = _ref()


class SheetHabitRow(EntityRow):
    """jolly_core.model.SheetHabit"""

    kind = _text(20)
    size = _text(10)
    frame = _text(10)
    line_count = models.IntegerField()
    line_spacing = models.IntegerField()
    ladders = models.IntegerField()
    columns = models.IntegerField()
    rows = models.IntegerField()
    title_block_id = _ref()
    left_rail_type_id = _ref()
    right_rail_type_id = _ref()


class FunctionRow(EntityRow):
    """jolly_core.model.Function"""

    code = _text()
    text = _text()
    parent_id = _ref()


class LocationRow(EntityRow):
    """jolly_core.model.Location"""

    code = _text()
    text = _text()
    parent_id = _ref()
    side = _text(10)


class SheetRow(EntityRow):
    """jolly_core.model.Sheet"""

    number = _text()
    title = _text()
    order = models.IntegerField()
    kind = _text(20)
    size = _text(10)
    frame = _text(10)
    function_id = _ref()
    location_id = _ref()
    first_line = models.IntegerField()
    line_count = models.IntegerField()
    line_top = models.IntegerField()
    line_spacing = models.IntegerField()
    rail_left = models.IntegerField()
    rail_right = models.IntegerField()
    columns = models.IntegerField()
    rows = models.IntegerField()
    ladders = models.IntegerField(default=1)
    ladder_pitch = models.IntegerField(default=0)
    subtitle = _text()
    fields = TextsField(default=dict)
    title_block_id = _ref()
    device_id = _ref()
    enclosure_id = _ref()
    harness_id = _ref()
    report = _text(40)


class WireTypeRow(EntityRow):
    """jolly_core.model.WireType"""

    name = _text()
    colour = _text(8)
    cross_section_mm2 = models.FloatField()
    awg = _text(8)
    category = _text(20)
    numbered = models.BooleanField()
    outside = models.BooleanField(default=False)
    number_at = models.CharField(max_length=10, default="middle")


class PartRow(EntityRow):
    """jolly_core.model.Part"""

    maker = _text()
    number = _text()
    part_class = _text(100)
    text = _text()
    units = UnitsField()
    ratings = TextsField()
    width_mm = models.FloatField()
    height_mm = models.FloatField()
    depth_mm = models.FloatField()
    mounting = _text(20)
    supplier = _text()
    version = models.IntegerField()
    details = FactsField(default="[]")
    texts = TextsField(default=dict)
    symbols = TextsField(default=dict)
    diameter_mm = models.FloatField(default=0)
    weight_kg = models.FloatField(default=0)
    order_number = _text()
    price = models.FloatField(default=0)
    currency = _text(10)
    link = _text(2000)
    datasheet = _text()
    picture = _text()
    members = NamesField(default="[]")
    accessories = NamesField(default="[]")
    alternatives = NamesField(default="[]")


class DeviceRow(EntityRow):
    """jolly_core.model.Device"""

    letters = _text(10)
    number = models.IntegerField()
    fixed_tag = _text()
    text = _text()
    function_id = _ref()
    location_id = _ref()
    part_id = _ref()


class AddOnRow(EntityRow):
    """jolly_core.model.AddOn"""

    device_id = _ref()
    part_id = _ref()


class SymbolRow(EntityRow):
    """jolly_core.model.Symbol"""

    sheet_id = _ref()
    x = models.IntegerField()
    y = models.IntegerField()
    definition = _text(16_000)
    rotation = models.IntegerField()
    mirror = models.BooleanField()
    device_id = _ref()
    units = IntsField(max_length=60)
    locked = models.BooleanField(default=False)
    texts = TextsField(default=dict)


class WireRow(EntityRow):
    """jolly_core.model.Wire"""

    sheet_id = _ref()
    x1 = models.IntegerField()
    y1 = models.IntegerField()
    x2 = models.IntegerField()
    y2 = models.IntegerField()
    type_id = _ref()
    number = _text(30)


class ContinuationRow(EntityRow):
    """jolly_core.model.Continuation"""

    sheet_id = _ref()
    x = models.IntegerField()
    y = models.IntegerField()
    name = _text()
    toward = _text(10)
    locked = models.BooleanField(default=False)


class NoteRow(EntityRow):
    """jolly_core.model.Note"""

    sheet_id = _ref()
    x = models.IntegerField()
    y = models.IntegerField()
    text = _text(2000)
    locked = models.BooleanField(default=False)


class FigureRow(EntityRow):
    """jolly_core.model.Figure"""

    sheet_id = _ref()
    x1 = models.IntegerField()
    y1 = models.IntegerField()
    x2 = models.IntegerField()
    y2 = models.IntegerField()
    kind = _text(10)
    text = _text()
    location_id = _ref()
    picture_id = _ref()
    dashed = models.BooleanField()
    locked = models.BooleanField()


class NumberRuleRow(EntityRow):
    """jolly_core.model.NumberRule"""

    order = models.IntegerField()
    name = _text()
    pieces = UnitsField()
    category = _text(20)
    type_id = _ref()
    at_channel = models.BooleanField()
    potential = _text()
    function_id = _ref()
    location_id = _ref()
    scope = _text(10)


class TagRuleRow(EntityRow):
    """jolly_core.model.TagRule"""

    part_class = _text(100)
    function_id = _ref()
    location_id = _ref()
    letters = _text(10)
    start = models.IntegerField()


class MuteRow(EntityRow):
    """jolly_core.model.Mute"""

    key = _text(2000)
    reason = _text()


class StampRow(EntityRow):
    """jolly_core.model.Stamp"""

    name = _text()
    body = models.TextField()
    text = _text()


class StripRow(EntityRow):
    """jolly_core.model.Strip"""

    device_id = _ref()
    numbering = _text(10)


class BandRow(EntityRow):
    """jolly_core.model.Band"""

    sheet_id = _ref()
    x1 = models.IntegerField()
    y1 = models.IntegerField()
    x2 = models.IntegerField()
    y2 = models.IntegerField()
    device_id = _ref()


class StripItemRow(EntityRow):
    """jolly_core.model.StripItem"""

    strip_id = _ref()
    kind = _text(20)
    order = models.IntegerField()
    unit = models.IntegerField()
    number = _text()
    part_id = _ref()


class BridgeRow(EntityRow):
    """jolly_core.model.Bridge"""

    strip_id = _ref()
    units = IntsField(max_length=400)


class CableRow(EntityRow):
    """jolly_core.model.Cable"""

    device_id = _ref()
    length_m = models.FloatField()
    load_a = models.FloatField()
    voltage_v = models.FloatField()
    power_factor = models.FloatField()


class CoreChoiceRow(EntityRow):
    """jolly_core.model.CoreChoice"""

    device_id = _ref()
    ordinal = models.IntegerField()
    conductor = _text()


class NetOrderRow(EntityRow):
    """jolly_core.model.NetOrder"""

    pairs = NamesField(default="[]")


class CardRow(EntityRow):
    """jolly_core.model.Card"""

    device_id = _ref()
    scheme = _text(20)
    start = _text()
    order = models.IntegerField()


class IoPointRow(EntityRow):
    """jolly_core.model.IoPoint"""

    tag = _text()
    text = _text()
    io_type = _text(20)
    connected = _text()
    order = models.IntegerField()
    device_id = _ref()
    channel = models.IntegerField()


class EnclosureRow(EntityRow):
    """jolly_core.model.Enclosure"""

    device_id = _ref()
    ambient_c = models.FloatField()
    hinge = _text(20)
    left_id = models.CharField(max_length=40, default="")
    opening_mm = models.FloatField(default=0)


class RailRow(EntityRow):
    """jolly_core.model.Rail"""

    enclosure_id = _ref()
    x1 = models.FloatField()
    y1 = models.FloatField()
    x2 = models.FloatField()
    y2 = models.FloatField()
    part_id = _ref()


class DuctRow(EntityRow):
    """jolly_core.model.Duct"""

    enclosure_id = _ref()
    x1 = models.FloatField()
    y1 = models.FloatField()
    x2 = models.FloatField()
    y2 = models.FloatField()
    part_id = _ref()


class PlacingRow(EntityRow):
    """jolly_core.model.Placing"""

    enclosure_id = _ref()
    device_id = _ref()
    surface = _text(20)
    x = models.FloatField()
    y = models.FloatField()
    rail_id = _ref()


class HarnessRow(EntityRow):
    """jolly_core.model.Harness"""

    code = _text()
    text = _text()
    order = models.IntegerField()


class NodeRow(EntityRow):
    """jolly_core.model.Node"""

    harness_id = _ref()
    device_id = _ref()
    name = _text()


class SegmentRow(EntityRow):
    """jolly_core.model.Segment"""

    harness_id = _ref()
    a_id = _ref()
    b_id = _ref()
    length_mm = models.FloatField()


ROWS: dict[str, type[EntityRow]] = {
    "settings": SettingsRow,
    "picture": PictureRow,
    "title_block": TitleBlockRow,
    "title_cell": TitleCellRow,
    "sheet_habit": SheetHabitRow,
    "function": FunctionRow,
    "location": LocationRow,
    "sheet": SheetRow,
    "wire_type": WireTypeRow,
    "part": PartRow,
    "device": DeviceRow,
    "add_on": AddOnRow,
    "symbol": SymbolRow,
    "wire": WireRow,
    "continuation": ContinuationRow,
    "note": NoteRow,
    "figure": FigureRow,
    "number_rule": NumberRuleRow,
    "tag_rule": TagRuleRow,
    "band": BandRow,
    "strip": StripRow,
    "strip_item": StripItemRow,
    "bridge": BridgeRow,
    "cable": CableRow,
    "core_choice": CoreChoiceRow,
    "net_order": NetOrderRow,
    "card": CardRow,
    "io_point": IoPointRow,
    "enclosure": EnclosureRow,
    "rail": RailRow,
    "duct": DuctRow,
    "placing": PlacingRow,
    "harness": HarnessRow,
    "node": NodeRow,
    "segment": SegmentRow,
    "mute": MuteRow,
    "stamp": StampRow,
}
