"""What leaves the office: recipes of lists, packs of files, and the revisions that were frozen."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated

from ..fields import Id, Longest, LongText, OneOf, Since, Text
from ..kinds import kind

MOST_COLUMNS = 60
MOST_FILTERS = 20
MOST_FILES = 200
HEADS = ("none", "first", "all")
SEPARATORS = (",", ";", "tab")
DECIMALS = (".", ",")
ENCODINGS = ("utf-8", "utf-8 with mark", "windows-1252")

Facts = tuple[dict[str, str], ...]
Strings = tuple[str, ...]


@kind("recipe", since=14, seen="nowhere")
@dataclass(slots=True)
class Recipe:
    """A list as somebody wants it: rows of a report, chosen, gathered, ordered and headed.

    Attributes:
        report: key of the report whose rows it has.
        columns: in order; each has "key", a column of the report, and "heading" where that is another; or, of an own
            column, "join": text with columns in braces, such as "{maker} {number}".
        filters: all of them hold for a row: "column", "test" and "value" each.
        groups: columns by which rows stand together, each group with a heading.
        sums: columns that are summed for each group and in all.
        sort: columns that rows are ordered by within groups; "-" in front turns one round.
        merged: rows that differ in nothing but their sums are one row.
        breaks: each group begins on a new page.
        head: project's text with fields in braces above the table; head_on says on which pages.
        separator, decimal, encoding: how it is written as CSV.
    """

    id: Id
    name: Text
    report: Text
    columns: Annotated[Facts, Longest(MOST_COLUMNS)] = ()
    filters: Annotated[Facts, Longest(MOST_FILTERS)] = ()
    groups: Annotated[Strings, Longest(4)] = ()
    sums: Annotated[Strings, Longest(MOST_COLUMNS)] = ()
    sort: Annotated[Strings, Longest(8)] = ()
    merged: bool = False
    breaks: bool = False
    head: LongText = "{project number} {project}, revision {project revision}"
    head_on: Annotated[str, OneOf(HEADS)] = "all"
    separator: Annotated[str, OneOf(SEPARATORS)] = ","
    decimal: Annotated[str, OneOf(DECIMALS)] = "."
    encoding: Annotated[str, OneOf(ENCODINGS)] = "utf-8 with mark"


@kind("pack", since=14, seen="nowhere")
@dataclass(slots=True)
class Pack:
    """Files that are issued together.

    Attributes:
        files: each has "what", what is written (docs/formats/packs.md), and "format" where there are several.
        pattern: name of each file made of pieces in braces, without its ending; see PIECES in `exchange/pack.py`.
        language: code of the language its papers and lists are in, "" for that of the house.
    """

    id: Id
    name: Text
    files: Annotated[Facts, Longest(MOST_FILES)] = ()
    pattern: LongText = "{project number}-{project revision}-{kind}"
    language: Annotated[Text, Since(15)] = ""


@kind("revision", since=14, seen="nowhere")
@dataclass(slots=True)
class Revision:
    """A revision that was frozen: what the revision table says of it.

    Attributes:
        index: as it stands on paper, "A" or "2".
        text: what changed, in words.
        issued_on: the day it was frozen, as the revision table shows it.
        sheet_ids: sheets that changed since the revision before, so that they have its index.
        reason: why it was frozen although checks found errors, "" when they found none.
    """

    id: Id
    index: Text
    text: LongText = ""
    issued_on: Text = ""
    drawn_by: Text = ""
    checked_by: Text = ""
    released_by: Text = ""
    sheet_ids: Strings = ()
    reason: LongText = ""
