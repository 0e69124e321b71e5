"""How long segments are: typed or by their path in space, with what is added. All in mm."""

from __future__ import annotations

from dataclasses import dataclass

from jolly_core.model import Project, RuleError, Segment, derived, shown_in

from .paths import Path, path_of


@dataclass(slots=True, frozen=True)
class Span:
    """The length of a segment.

    Attributes:
        base_mm: typed, or along its path.
        extra_mm: added to it: the segment's own, and its shares and the harness's.
        path: where it runs in space, None while its length is typed or that is unknown.
        missing: why it has no length or no path though it should, "" when it has.
    """

    base_mm: float
    extra_mm: float
    path: Path | None
    missing: str = ""

    @property
    def length_mm(self) -> float:
        """What it is cut and drawn at."""
        return round(self.base_mm + self.extra_mm, 2)

    @property
    def words(self) -> str:
        """Its length as a dimension says it: "350 + 10" where something is added."""
        return self.words_in("mm")

    def words_in(self, unit: str) -> str:
        """Return the same in a unit of length of a project, "mm" or "in"."""
        base, extra = (shown_in(unit, v) for v in (self.base_mm, abs(self.extra_mm)))
        if not self.extra_mm:
            return base
        return f"{base} {'+' if self.extra_mm > 0 else '−'} {extra}"


@derived
def span_of(project: Project, segment_id: str) -> Span:
    """Return how long a segment is."""
    segment: Segment = project.segments[segment_id]
    harness = project.harnesses[segment.harness_id]
    path, missing = None, ""
    if segment.form != "typed":
        try:
            path = path_of(project, segment)
        except RuleError as error:
            missing = error.message
        else:
            missing = "" if path else "one of its ends has no place in space"
    base = path.length_mm if path else segment.length_mm
    share = base * (segment.extra_percent + harness.extra_percent) / 100
    extra = round(segment.extra_mm + share, 2)
    if base + extra <= 0:
        return Span(base, -base, path, missing or "what is taken off is more than its length")
    return Span(base, extra, path, missing or ("" if base else "its length is 0"))
