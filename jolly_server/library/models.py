"""The part library, shared by all projects, with a full-text index kept by triggers."""

from django.conf import settings
from django.db import models

from jolly_server.shapes.fields import FactsField, NamesField, TextsField, UnitsField


class LibraryTitleBlock(models.Model):
    """A title block kept for other projects; `data` as jolly_core.library.pattern_to_json gives it."""

    id = models.CharField(max_length=40, primary_key=True)
    name = models.CharField(max_length=200, unique=True)
    data = models.TextField()


class LibraryStamp(models.Model):
    """A stamp kept for other projects; `body` as in jolly_core.model.Stamp."""

    id = models.CharField(max_length=40, primary_key=True)
    name = models.CharField(max_length=200, unique=True)
    text = models.CharField(max_length=200, blank=True, default="")
    body = models.TextField()


class LibrarySymbol(models.Model):
    """A symbol that somebody drew; `key` as jolly_core.library.drawn_key gives it."""

    id = models.CharField(max_length=40, primary_key=True)
    name = models.CharField(max_length=200, unique=True)
    key = models.TextField()
    by = models.CharField(max_length=150)
    at = models.DateTimeField(auto_now=True)


class Shelf(models.Model):
    """A library: parts kept together. A company's has no owner and may be read only; one's own is seen by its owner.

    Parts are looked for shelf by shelf in `order`: where two have a number, the first one's is taken.
    """

    id = models.CharField(max_length=40, primary_key=True)
    name = models.CharField(max_length=200, unique=True)
    text = models.CharField(max_length=200, blank=True, default="")
    order = models.IntegerField(default=0)
    read_only = models.BooleanField(default=False)
    owner = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, blank=True, on_delete=models.CASCADE)


class LibraryPart(models.Model):
    """A part as the library has it; field names as in jolly_core.model.Part."""

    id = models.CharField(max_length=40, primary_key=True)
    shelf = models.ForeignKey(Shelf, on_delete=models.CASCADE, related_name="parts")
    maker = models.CharField(max_length=200, db_index=True)
    number = models.CharField(max_length=200, db_index=True)
    part_class = models.CharField(max_length=100, db_index=True)
    text = models.CharField(max_length=200, blank=True)
    units = UnitsField()
    ratings = TextsField()
    width_mm = models.FloatField(default=0)
    height_mm = models.FloatField(default=0)
    depth_mm = models.FloatField(default=0)
    mounting = models.CharField(max_length=20, default="rail", blank=True)
    supplier = models.CharField(max_length=200, blank=True)
    version = models.IntegerField(default=1)
    details = FactsField(default="[]")
    texts = TextsField(default=dict)
    symbols = TextsField(default=dict)
    diameter_mm = models.FloatField(default=0)
    weight_kg = models.FloatField(default=0)
    order_number = models.CharField(max_length=200, blank=True, default="")
    price = models.FloatField(default=0)
    currency = models.CharField(max_length=10, blank=True, default="")
    link = models.CharField(max_length=2000, blank=True, default="")
    datasheet = models.CharField(max_length=200, blank=True, default="")
    picture = models.CharField(max_length=200, blank=True, default="")
    solid = models.CharField(max_length=200, blank=True, default="")
    solid_front = models.CharField(max_length=2, default="+z")
    solid_up = models.CharField(max_length=2, default="+y")
    members = NamesField(default="[]")
    accessories = NamesField(default="[]")
    alternatives = NamesField(default="[]")

    class Meta:
        constraints = [models.UniqueConstraint(fields=["shelf", "maker", "number"], name="one_number_a_maker")]


class PartValue(models.Model):
    """What a part is looked up by: a field with its value, or "units.no" with how many units of a kind it has."""

    part = models.ForeignKey(LibraryPart, on_delete=models.CASCADE, related_name="values_of", db_index=False)
    field = models.CharField(max_length=60)
    text = models.CharField(max_length=200)
    number = models.FloatField(null=True)

    class Meta:
        indexes = [
            models.Index(fields=["field", "number", "part"], name="part_by_number"),
            models.Index(fields=["field", "text", "part"], name="part_by_text"),
            models.Index(fields=["part", "field", "number", "text"], name="value_of_part"),
        ]


class PartVersion(models.Model):
    """A part as it was after somebody changed it; `record` is the part's record, {} when it was taken away."""

    part_id = models.CharField(max_length=40, db_index=True)
    shelf_name = models.CharField(max_length=200)
    version = models.IntegerField()
    act = models.CharField(max_length=200)
    by = models.CharField(max_length=150)
    at = models.DateTimeField(auto_now_add=True)
    record = models.TextField()


class OwnField(models.Model):
    """A field that people added to a part class; `data` as in jolly_core.library.FieldSpec."""

    part_class = models.CharField(max_length=100)
    key = models.CharField(max_length=60)
    name = models.CharField(max_length=100)
    unit = models.CharField(max_length=20, blank=True, default="")
    kind = models.CharField(max_length=10, default="text")
    choices = NamesField(default="[]")

    class Meta:
        constraints = [models.UniqueConstraint(fields=["part_class", "key"], name="one_field_a_class")]


class LibraryFile(models.Model):
    """A picture or data sheet of parts, by its name."""

    name = models.CharField(max_length=200, primary_key=True)
    media_type = models.CharField(max_length=60)
    data = models.BinaryField()


class ColumnMapping(models.Model):
    """How the columns of a table were read last: the headings, and for each the field it fills."""

    headings = models.CharField(max_length=64, primary_key=True)
    mapping = TextsField(default=dict)
