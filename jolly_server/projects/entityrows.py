"""What the rows of all entities of a project have, and columns they share."""

from django.db import models


class EntityRow(models.Model):
    """What all entity rows have: the project, and the entity's own id within it."""

    row = models.BigAutoField(primary_key=True)
    project = models.ForeignKey("projects.ProjectRow", on_delete=models.CASCADE, related_name="+")
    id = models.CharField(max_length=40)

    class Meta:
        abstract = True
        constraints = [models.UniqueConstraint(fields=["project", "id"], name="%(class)s_in_project")]


def text_column(length: int = 200) -> models.CharField:  # type: ignore[type-arg]  # the stubs' parameters are inferred
    """Return a column of a short text."""
    return models.CharField(max_length=length, blank=True, default="")


def ref_column() -> models.CharField:  # type: ignore[type-arg]  # the stubs' parameters are inferred
    """Return a column of the id of another entity."""
    return models.CharField(max_length=40, blank=True, default="")
