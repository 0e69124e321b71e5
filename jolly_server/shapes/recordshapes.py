"""The shapes of entity records in answers, made from what the kinds declare, so that the typed client has them."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any, Literal

import typing_extensions

from jolly_core.model import KINDS
from jolly_core.model.fields import OneOf


def record_shape(kind: str, name: str = "", **more: Any) -> Any:
    """Return a shape with the fields of a kind's records, and further ones; where few words may stand, those."""
    spec = KINDS[kind]
    types: dict[str, Any] = {}
    for field in spec.fields.values():
        choice = field.mark(OneOf)
        types[field.name] = field.type if choice is None else Literal[choice.words]
    make: Any = typing_extensions.TypedDict
    return make(name or f"{spec.entity.__name__}Record", {**types, **more})


if TYPE_CHECKING:  # to the checker they are objects; what is in them is known when the kinds are
    from typing import TypeAlias

    SettingsRecord: TypeAlias = dict[str, Any]
    SheetRecord: TypeAlias = dict[str, Any]
    HabitRecord: TypeAlias = dict[str, Any]
    HabitLine: TypeAlias = dict[str, Any]
    WireTypeRecord: TypeAlias = dict[str, Any]
    WireTypeLine: TypeAlias = dict[str, Any]
    NumberRuleRecord: TypeAlias = dict[str, Any]
    TagRuleRecord: TypeAlias = dict[str, Any]
    TitleBlockRecord: TypeAlias = dict[str, Any]
    TitleCellRecord: TypeAlias = dict[str, Any]
    PartRecord: TypeAlias = dict[str, Any]
    RecipeRecord: TypeAlias = dict[str, Any]
    PackRecord: TypeAlias = dict[str, Any]
else:
    SettingsRecord = record_shape("settings", working_on=str)
    SheetRecord = record_shape("sheet")
    HabitRecord = record_shape("sheet_habit")
    HabitLine = record_shape("sheet_habit", "HabitLine", order=int)
    WireTypeRecord = record_shape("wire_type", used=int)
    WireTypeLine = record_shape("wire_type", "WireTypeLine", order=int)
    NumberRuleRecord = record_shape("number_rule")
    TagRuleRecord = record_shape("tag_rule")
    TitleBlockRecord = record_shape("title_block")
    TitleCellRecord = record_shape("title_cell")
    PartRecord = record_shape("part")
    RecipeRecord = record_shape("recipe")
    PackRecord = record_shape("pack")
