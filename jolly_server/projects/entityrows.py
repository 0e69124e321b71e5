"""The rows of a project's entities: one table for each kind, made from what the kind declares.

A kind that is new, or a field, needs a migration (`manage.py makemigrations projects`) and nothing else here.
"""

from typing import Any

from django.db import models

from jolly_core.model import KINDS
from jolly_core.model.fields import MAX_TEXT, Field, Longest, Units
from jolly_core.model.kinds import Kind
from jolly_server.shapes.fields import FactsField, FloatsField, IntsField, NamesField, TextsField, UnitsField

Column = Any  # a column of Django, whose parameters nobody needs
LONGEST_COLUMN = 16_000  # of what is not put into a column of any length


class EntityRow(models.Model):
    """What all entity rows have: the project, and the entity's own id within it."""

    row = models.BigAutoField(primary_key=True)
    project = models.ForeignKey("projects.ProjectRow", on_delete=models.CASCADE, related_name="+")
    id = models.CharField(max_length=40)

    class Meta:
        abstract = True
        constraints = [models.UniqueConstraint(fields=["project", "id"], name="%(class)s_in_project")]


def _text(field: Field) -> Column:
    longest = field.mark(Longest)
    most = MAX_TEXT if longest is None else longest.most
    if most > LONGEST_COLUMN:
        return models.TextField(blank=True, default="")
    return models.CharField(max_length=most, blank=True, default="")


def _whole(field: Field) -> Column:
    return models.IntegerField(default=0 if field.required else field.default)


def _number(field: Field) -> Column:
    return models.FloatField(default=0 if field.required else field.default)


def _yes(field: Field) -> Column:
    return models.BooleanField(default=False if field.required else field.default)


# For each type a field is declared with, its column.
COLUMNS: dict[Any, Any] = {
    str: _text,
    int: _whole,
    float: _number,
    bool: _yes,
    tuple[int, ...]: lambda field: IntsField(max_length=2400, blank=True, default=""),
    tuple[float, ...]: lambda field: FloatsField(default="[]"),
    tuple[str, ...]: lambda field: NamesField(default="[]"),
    dict[str, str]: lambda field: TextsField(default=dict),
    tuple[dict[str, str], ...]: lambda field: FactsField(default="[]"),
    Units: lambda field: UnitsField(default="[]"),
}


def _row(spec: Kind) -> type[EntityRow]:
    """Return the model of the rows of a kind."""
    columns = {f.name: COLUMNS[f.type](f) for f in spec.fields.values() if f.name != "id"}
    facts = {"__module__": "jolly_server.projects.models", "__doc__": f"jolly_core.model: {spec.words}"}
    return type(f"{spec.entity.__name__}Row", (EntityRow,), {**columns, **facts})


# By kind; which columns a model has is not known before it is made.
ROWS: dict[str, Any] = {kind: _row(spec) for kind, spec in KINDS.items()}
