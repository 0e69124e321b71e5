"""Stored projects: one row for each project, member and journal entry, one model for each kind of entity."""

from django.conf import settings
from django.db import models

from .builtrows import (
    BandRow,
    BridgeRow,
    CableRow,
    CardRow,
    CoreChoiceRow,
    DuctRow,
    EnclosureRow,
    HarnessRow,
    IoPointRow,
    NetOrderRow,
    NodeRow,
    PlacingRow,
    RailRow,
    SegmentRow,
    StripItemRow,
    StripRow,
)
from .entityrows import EntityRow, ref_column, text_column
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


class SettingsRow(EntityRow):
    """jolly_core.model.Settings"""

    number = text_column()
    name = text_column()
    customer = text_column()
    site = text_column()
    drawn_by = text_column()
    revision = text_column()
    standard = text_column(10)
    tag_habit = text_column(10)
    tag_scope = text_column(10)
    wire_pattern = text_column(10)
    wire_width = models.IntegerField()
    end_allowance_mm = models.FloatField(default=60)
    door_allowance_mm = models.FloatField(default=450)
    free_run_mm = models.FloatField(default=150)
    part_language = models.CharField(max_length=8, default="")
    harness_allowance_mm = models.FloatField(default=20)
    length_step_mm = models.FloatField(default=5)
    spool_m = models.FloatField(default=100)
    spare_share_percent = models.FloatField(default=20)
    supply = text_column()
    supply_system = text_column()
    control_voltages = text_column()
    protection = text_column()
    standards = text_column()
    drawn_on = text_column()
    checked_by = text_column()
    checked_on = text_column()
    issued_on = text_column()
    length_unit = models.CharField(max_length=4, default="mm")
    conductor_order = models.CharField(max_length=12, default="drawing")
    title_block_id = ref_column()
    own_fields = TextsField(default=dict)


class PictureRow(EntityRow):
    """jolly_core.model.Picture"""

    name = text_column()
    media_type = text_column(20)
    width_px = models.IntegerField()
    height_px = models.IntegerField()
    data = models.TextField()


class TitleBlockRow(EntityRow):
    """jolly_core.model.TitleBlock"""

    name = text_column()
    width_mm = models.FloatField()
    height_mm = models.FloatField()


class TitleCellRow(EntityRow):
    """jolly_core.model.TitleCell"""

    block_id = ref_column()
    x = models.FloatField()
    y = models.FloatField()
    width = models.FloatField()
    height = models.FloatField()
    heading = text_column()
    content = text_column()
    size_mm = models.FloatField()
    anchor = text_column(10)
    border = models.BooleanField()
    picture_id = ref_column()


class SheetHabitRow(EntityRow):
    """jolly_core.model.SheetHabit"""

    kind = text_column(20)
    size = text_column(10)
    frame = text_column(10)
    line_count = models.IntegerField()
    line_spacing = models.IntegerField()
    ladders = models.IntegerField()
    columns = models.IntegerField()
    rows = models.IntegerField()
    title_block_id = ref_column()
    left_rail_type_id = ref_column()
    right_rail_type_id = ref_column()


class FunctionRow(EntityRow):
    """jolly_core.model.Function"""

    code = text_column()
    text = text_column()
    parent_id = ref_column()


class LocationRow(EntityRow):
    """jolly_core.model.Location"""

    code = text_column()
    text = text_column()
    parent_id = ref_column()
    side = text_column(10)


class SheetRow(EntityRow):
    """jolly_core.model.Sheet"""

    number = text_column()
    title = text_column()
    order = models.IntegerField()
    kind = text_column(20)
    size = text_column(10)
    frame = text_column(10)
    function_id = ref_column()
    location_id = ref_column()
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
    subtitle = text_column()
    fields = TextsField(default=dict)
    title_block_id = ref_column()
    device_id = ref_column()
    enclosure_id = ref_column()
    harness_id = ref_column()
    report = text_column(40)


class WireTypeRow(EntityRow):
    """jolly_core.model.WireType"""

    name = text_column()
    colour = text_column(8)
    cross_section_mm2 = models.FloatField()
    awg = text_column(8)
    category = text_column(20)
    numbered = models.BooleanField()
    outside = models.BooleanField(default=False)
    number_at = models.CharField(max_length=10, default="middle")


class PartRow(EntityRow):
    """jolly_core.model.Part"""

    maker = text_column()
    number = text_column()
    part_class = text_column(100)
    text = text_column()
    units = UnitsField()
    ratings = TextsField()
    width_mm = models.FloatField()
    height_mm = models.FloatField()
    depth_mm = models.FloatField()
    mounting = text_column(20)
    supplier = text_column()
    version = models.IntegerField()
    details = FactsField(default="[]")
    texts = TextsField(default=dict)
    symbols = TextsField(default=dict)
    diameter_mm = models.FloatField(default=0)
    weight_kg = models.FloatField(default=0)
    order_number = text_column()
    price = models.FloatField(default=0)
    currency = text_column(10)
    link = text_column(2000)
    datasheet = text_column()
    picture = text_column()
    members = NamesField(default="[]")
    accessories = NamesField(default="[]")
    alternatives = NamesField(default="[]")


class DeviceRow(EntityRow):
    """jolly_core.model.Device"""

    letters = text_column(10)
    number = models.IntegerField()
    fixed_tag = text_column()
    text = text_column()
    function_id = ref_column()
    location_id = ref_column()
    part_id = ref_column()


class AddOnRow(EntityRow):
    """jolly_core.model.AddOn"""

    device_id = ref_column()
    part_id = ref_column()


class SymbolRow(EntityRow):
    """jolly_core.model.Symbol"""

    sheet_id = ref_column()
    x = models.IntegerField()
    y = models.IntegerField()
    definition = text_column(16_000)
    rotation = models.IntegerField()
    mirror = models.BooleanField()
    device_id = ref_column()
    units = IntsField(max_length=60)
    locked = models.BooleanField(default=False)
    texts = TextsField(default=dict)


class WireRow(EntityRow):
    """jolly_core.model.Wire"""

    sheet_id = ref_column()
    x1 = models.IntegerField()
    y1 = models.IntegerField()
    x2 = models.IntegerField()
    y2 = models.IntegerField()
    type_id = ref_column()
    number = text_column(30)


class ContinuationRow(EntityRow):
    """jolly_core.model.Continuation"""

    sheet_id = ref_column()
    x = models.IntegerField()
    y = models.IntegerField()
    name = text_column()
    toward = text_column(10)
    locked = models.BooleanField(default=False)


class NoteRow(EntityRow):
    """jolly_core.model.Note"""

    sheet_id = ref_column()
    x = models.IntegerField()
    y = models.IntegerField()
    text = text_column(2000)
    locked = models.BooleanField(default=False)


class FigureRow(EntityRow):
    """jolly_core.model.Figure"""

    sheet_id = ref_column()
    x1 = models.IntegerField()
    y1 = models.IntegerField()
    x2 = models.IntegerField()
    y2 = models.IntegerField()
    kind = text_column(10)
    text = text_column()
    location_id = ref_column()
    picture_id = ref_column()
    dashed = models.BooleanField()
    locked = models.BooleanField()


class NumberRuleRow(EntityRow):
    """jolly_core.model.NumberRule"""

    order = models.IntegerField()
    name = text_column()
    pieces = UnitsField()
    category = text_column(20)
    type_id = ref_column()
    at_channel = models.BooleanField()
    potential = text_column()
    function_id = ref_column()
    location_id = ref_column()
    scope = text_column(10)


class TagRuleRow(EntityRow):
    """jolly_core.model.TagRule"""

    part_class = text_column(100)
    function_id = ref_column()
    location_id = ref_column()
    letters = text_column(10)
    start = models.IntegerField()


class MuteRow(EntityRow):
    """jolly_core.model.Mute"""

    key = text_column(2000)
    reason = text_column()


class StampRow(EntityRow):
    """jolly_core.model.Stamp"""

    name = text_column()
    body = models.TextField()
    text = text_column()


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
