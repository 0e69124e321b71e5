"""Tags of devices on a layout that is painted small: none lies on another text. All in mm of the paper."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import replace
from itertools import combinations

from jolly_core.drawing import BoxMm

from ..base.primitives import SMALLEST_MM, Item, Prim, Rect, RoleName, Text, text, texts_in
from .crowding import meet, text_box

TAG: RoleName = "tag"
GAP_MM = 0.8  # between a device and its tag above or below it
LINE = 1.15  # of its size, from a line to the next
MOST_LINES = 6  # by which words may move


def tags_apart(items: Mapping[str, Item], shown: Mapping[str, tuple[str, str]]) -> tuple[dict[str, Item], int]:
    """Return the items of a leaf with the tags of devices where they lie on no text, and how many have no room.

    A tag that is in the way or cut short stands level below its device, else upright on, below or above it, at last
    without what tells it from others of the same name.

    Args:
        items: of the leaf, by id.
        shown: by the id of a placed device, what tells it apart and its tag, as they stand on it.
    """
    tagged = {id: [t for t in texts_in(items[id]) if t.role == TAG] for id in shown if id in items}
    others = (t for id, item in items.items() for t in texts_in(item) if not (id in tagged and t.role == TAG))
    taken = [text_box(t) for t in others]
    found, lost = dict(items), 0
    for id, label in sorted(tagged.items(), key=lambda t: (items[t[0]].box[0], items[t[0]].box[1])):
        if _free(label, taken) and not any(t.words.endswith("…") for t in label):
            taken += [text_box(t) for t in label]
            continue
        item = items[id]
        placed = next((texts for texts in _elsewhere(item, *shown[id]) if _free(texts, taken)), None)
        if placed is None:
            lost += 1
        taken += [text_box(t) for t in placed or ()]
        found[id] = replace(item, prims=[*_without_label(item.prims), *(placed or ())])
    return found, lost


def words_apart(items: Mapping[str, Item], kind: str) -> tuple[dict[str, Item], int]:
    """Return the items of a leaf with words of a kind where they lie on no text, and how many have no room.

    What is in the way moves up or down, by as little as can be.
    """
    taken = [text_box(t) for item in items.values() if item.kind != kind for t in texts_in(item)]
    found, lost = dict(items), 0
    for id, item in items.items():
        texts = texts_in(item) if item.kind == kind else []
        if not texts:
            continue
        steps = (n * SMALLEST_MM * LINE for n in sorted(range(-MOST_LINES, MOST_LINES + 1), key=abs))
        tries = ([t.moved(0, step) for t in texts] for step in steps)
        placed = next((texts for texts in tries if _free(texts, taken)), None)
        lost += placed is None
        taken += [text_box(t) for t in placed or ()]
        found[id] = replace(item, prims=[*(p for p in item.prims if p not in texts), *(placed or ())])
    return found, lost


def _free(texts: Sequence[Text], taken: Sequence[BoxMm]) -> bool:
    boxes = [text_box(t) for t in texts]
    apart = not any(meet(one, other) for one, other in combinations(boxes, 2))
    return apart and not any(meet(box, other) for box in boxes for other in taken)


def _elsewhere(item: Item, aspects: str, product: str) -> Iterator[list[Text]]:
    """Yield where a tag may stand, the best place first."""
    left, top, right, foot = item.box
    middle, size = (left + right) / 2, SMALLEST_MM
    lines = [line for line in (product, aspects) if line]
    yield [
        text(middle, foot + size * (1 + LINE * n), size, line, anchor="middle", role=TAG)
        for n, line in enumerate(lines)
    ]
    x = middle + size * 0.3
    for words in dict.fromkeys((aspects + product, product)):
        yield [text(x, (top + foot) / 2, size, words, anchor="middle", role=TAG, upward=True)]
        yield [text(x, foot + GAP_MM, size, words, anchor="end", role=TAG, upward=True)]
        yield [text(x, top - GAP_MM, size, words, role=TAG, upward=True)]


def _without_label(prims: list[Prim]) -> list[Prim]:
    """Return the primitives of a device without its tag and what that lies on."""
    kept: list[Prim] = []
    for prim in prims:
        if isinstance(prim, Text) and prim.role == TAG:
            if kept and isinstance(kept[-1], Rect) and kept[-1].tone == "paper":
                kept.pop()
        else:
            kept.append(prim)
    return kept
