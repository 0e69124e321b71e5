"""The part library, shared by all projects, with a full-text index kept by triggers."""

from django.db import models

from jolly_server.projects.fields import TextsField, UnitsField


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


class LibraryPart(models.Model):
    """A part as the library has it; field names as in jolly_core.model.Part."""

    id = models.CharField(max_length=40, primary_key=True)
    maker = models.CharField(max_length=200)
    number = models.CharField(max_length=200, db_index=True)
    part_class = models.CharField(max_length=40, db_index=True)
    text = models.CharField(max_length=200, blank=True)
    units = UnitsField()
    ratings = TextsField()
    width_mm = models.FloatField(default=0)
    height_mm = models.FloatField(default=0)
    depth_mm = models.FloatField(default=0)
    mounting = models.CharField(max_length=20, default="rail")
    supplier = models.CharField(max_length=200, blank=True)
    version = models.IntegerField(default=1)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["maker", "number"], name="one_number_a_maker")]
