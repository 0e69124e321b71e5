"""What is to be done in the shop where a project changed after it was built: by place, in an order that can be done.

First wires come out, then devices and terminals; then what stands elsewhere is moved and what is new fitted, wires are
landed anew and put in, and last labels are exchanged.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator
from dataclasses import dataclass, replace
from hashlib import sha256

from jolly_core.cables import NO_CORE
from jolly_core.making import end_label
from jolly_core.tagging import natural

from .difference import Change, Difference
from .thing import Sight

OPEN = "open"  # what a wire runs in that runs in nothing yet
LABELLED = ("panel", "harness")  # what a wire runs in that is cut, and has a label at each end
# What is done, in the order in which it is.
ACTS = ("take out", "remove", "move", "fit", "exchange", "re-land", "put in", "relabel")


@dataclass(slots=True, frozen=True)
class Job:
    """A thing to be done at the bench.

    Attributes:
        act: one of ACTS.
        what: the wire, device or terminal.
        start, end: the pins of a wire, or what is there now.
        now_to: where it goes, what it is called then, or how long it is to be.
        kind: type of the wire, or number of the part.
        place: the panel, cable or harness it is in.
        nth: how many jobs before it say the same, such as labels of two wires at one pin.
    """

    act: str
    what: str
    start: str
    end: str
    now_to: str
    kind: str
    place: str
    nth: int = 0

    @property
    def key(self) -> str:
        """What names the job as long as it says the same."""
        words = (self.act, self.what, self.start, self.end, self.now_to, self.kind, self.place)
        return sha256(repr((*words, self.nth) if self.nth else words).encode()).hexdigest()[:16]


def work_list(difference: Difference) -> list[Job]:
    """Return what is to be done, place by place."""
    jobs = [job for change in (*difference.changes, *difference.called) for job in _jobs(change)]
    jobs.sort(key=lambda j: (natural(j.place), ACTS.index(j.act), natural(j.what), natural(j.start), natural(j.end)))
    alike: Counter[Job] = Counter()
    for n, job in enumerate(jobs):
        if alike[job]:
            jobs[n] = replace(job, nth=alike[job])
        alike[job] += 1
    return jobs


def _jobs(change: Change) -> Iterator[Job]:
    if change.kind == "wire":
        yield from _of_wire(change)
    elif change.kind in ("device", "terminal", "accessory", "bridge"):
        yield from _of_thing(change)
    elif change.kind in ("rail", "duct", "crossing", "fitting") or "length" in change.facts:
        yield from _of_run(change)
    elif change.kind == "harness" and change.before is not None and change.after is not None:
        yield from _of_harness(change.before, change.after)
    yield from _in_variants(change)


def _of_harness(was: Sight, now: Sight) -> Iterator[Job]:
    """Yield what is to be done with the labels of a harness that stays: its own, and those at its connectors."""
    if was.facts["labels"] != now.facts["labels"] and was.same_by["labels"] != now.same_by["labels"]:
        each = (thing.facts["labels"] for thing in (was, now))
        old, new = (f"{far} from the connectors" if far else "at the connectors" for far in each)
        yield Job("move", f"labels of harness {was.name}", old, "", new, "", now.name)
    if was.name != now.name:
        yield Job("relabel", f"harness {was.name}", "", "", now.name, "", now.name)


def _of_wire(change: Change) -> Iterator[Job]:
    was, now = change.before, change.after
    if was is not None and now is not None and _run(was) != _run(now):
        # Another harness or cable: what was never built, or is to run in nothing yet, is no job.
        if _run(was) != OPEN:
            yield Job("take out", was.name, *_ends(was), "", was.facts["type"], was.place)
        if _run(now) != OPEN:
            yield _put_in(now)
        return
    if was is None or now is None or _type(was) != _type(now) or _longer_or_shorter(was, now):
        alike = was is not None and now is not None and _called_alike(was, now)
        if was is not None:
            yield Job("take out", was.name, *_ends(was), "", _kind(was, alike), was.place)
        if now is not None:
            yield replace(_put_in(now), kind=_kind(now, alike))
        return
    if "led through" in change.facts:
        through = now.facts["led through"]
        yield Job("move", now.name, *_ends(now), f"through {through}" if through else "the shortest way", "", now.place)
    if change.act == "re-landed":
        kept, old, new = _moved(was, now)
        yield Job("re-land", was.name, kept, old, new, now.facts["type"], now.place)
    elif _core(was) != _core(now):  # another core of its cable, at both ends
        for pin in _ends(now):
            old, new = (core if core == NO_CORE else f"core {core}" for core in map(_core, (was, now)))
            yield Job("re-land", now.name, pin, old, new, now.facts["type"], now.place)
    for fact, alone in (("twisted", "untwisted"), ("shield", "in no shield")):
        if was.facts[fact] != now.facts[fact]:
            old, new = (f"{fact} {wire.facts[fact]}" if wire.facts[fact] else alone for wire in (was, now))
            yield Job("move", now.name, *_ends(now), f"{new}, was {old}", now.facts["type"], now.place)
    if was.facts["number"] != now.facts["number"]:
        yield Job("relabel", was.name, *_ends(now), now.facts["number"], now.facts["type"], now.place)
    elif _run(now).partition(" ")[0] in LABELLED:
        yield from _labels_of(was, now)


def _type(wire: Sight) -> tuple[str, ...]:
    """Return what a wire is made of; of one that runs in nothing yet only what it is called."""
    return tuple(wire.facts[name] for name in ("type", "colour", "size"))


def _called_alike(was: Sight, now: Sight) -> bool:
    """Return whether a wire is of another colour or size while its type is called as it was."""
    return _type(was) != _type(now) and was.facts["type"] == now.facts["type"]


def _kind(wire: Sight, alike: bool) -> str:
    """Return the type of a wire, with its colour and size where one of another colour or size is called alike."""
    name, colour, size = _type(wire)
    return f"{name}, {colour} {size}".strip(", ") if alike and colour + size else name


def _labels_of(was: Sight, now: Sight) -> Iterator[Job]:
    """Yield the labels of a wire's ends that say what the end is called no more; one that is re-landed is told so."""
    before, after = (dict(zip(wire.key.split("|"), _ends(wire), strict=True)) for wire in (was, now))
    for pin in before:
        if pin in after and before[pin] != after[pin]:
            old, new = (end_label(was.facts["number"], ends[pin]) for ends in (before, after))
            yield Job("relabel", now.name, old, "", new, now.facts["type"], now.place)


def _put_in(wire: Sight) -> Job:
    length = wire.facts["length"] and f"{wire.facts['length']} long"
    return Job("put in", wire.name, *_ends(wire), length, wire.facts["type"], wire.place)


def _longer_or_shorter(was: Sight, now: Sight) -> bool:
    """Return whether a thing is to have another length, and had one before."""
    return bool(was.facts["length"] and now.facts["length"]) and was.same_by["length"] != now.same_by["length"]


def _run(wire: Sight) -> str:
    """Return what a wire runs in, by kind and id."""
    return str(wire.same_by["runs in"][0])


def _core(wire: Sight) -> str:
    return str(wire.same_by["runs in"][1])


def _ends(wire: Sight) -> tuple[str, str]:
    return wire.facts["from"], wire.facts["to"]


def _moved(was: Sight, now: Sight) -> tuple[str, str, str]:
    """Return the end of a wire that stays, the one that was left, and the new one, as they are and were called."""
    before, after = was.key.split("|"), now.key.split("|")
    kept = next(key for key in before if key in after)
    here, there = before.index(kept), after.index(kept)
    return _ends(now)[there], _ends(was)[1 - here], _ends(now)[1 - there]


def _of_run(change: Change) -> Iterator[Job]:
    """Yield what is to be done of a rail, duct, crossing, segment or fitting; what gets another length is cut anew."""
    was, now, sight = change.before, change.after, change.sight
    if change.facts and {*change.facts} <= {"variants", "wires", "loop"}:  # it stays as it is
        return
    old, new = (", ".join(_measures(thing)) if thing else "" for thing in (was, now))
    act = "fit" if was is None else "remove" if now is None else "exchange"
    if act == "exchange" and (change.kind == "segment" or not {"part", "length"} & {*change.facts}):
        act = "move"
    name = sight.name if change.kind == "fitting" else f"{change.kind} {sight.name}"
    yield Job(act, name, old, "", new, sight.facts.get("part", ""), sight.place)


def _measures(thing: Sight) -> Iterator[str]:
    """Yield the part of a fitting, how long a thing is, and where it lies, as far as that is known."""
    if thing.kind == "fitting" and thing.facts["part"] not in thing.name:
        yield thing.facts["part"]
    if thing.fact("length"):
        yield f"{thing.facts['length']} long"
    if thing.facts.get("position"):
        yield thing.facts["position"]


def _in_variants(change: Change) -> Iterator[Job]:
    """Yield what comes into a variant of a harness, or out of one, that stays in another."""
    was, now = change.before, change.after
    if was is None or now is None or "variants" not in change.facts or change.kind == "segment":
        return
    acts = ("take out", "put in") if change.kind == "wire" else ("remove", "fit")
    for act, thing, other in ((acts[0], was, now), (acts[1], now, was)):
        ends = _ends(thing) if change.kind == "wire" else ("", "")
        kind = thing.facts["type" if change.kind == "wire" else "part"]
        for place in thing.same_by["variants"]:
            if place not in other.same_by["variants"]:
                yield Job(act, thing.name, *ends, "", kind, str(place))


def _turned(terminal: Sight) -> str:
    pin = terminal.facts["panel side"]
    return f"{pin} pin on panel side" if pin else "as its wires come"


def _what(thing: Sight) -> str:
    return f"bridge {thing.name}" if thing.kind == "bridge" else thing.name


def _stands(thing: Sight) -> str:
    """Return where a device or terminal stands, in words, "" for nowhere yet."""
    after = thing.facts.get("stands after", "")
    return f"after {after}" if after else thing.facts.get("position", "")


def _to(change: Change) -> str:
    """Return where a device, terminal or accessory is to stand."""
    return f"after {change.stands_after}" if change.stands_after else _stands(change.sight)


def _of_plate(was: Sight | None, now: Sight | None) -> Iterator[Job]:
    """Yield what is to be done with the nameplate of a device: another text on it, or another tag, is another plate."""
    old, new = (thing.fact("nameplate") if thing else "" for thing in (was, now))
    thing = was or now
    if thing is not None and old != new:
        act = "exchange" if old and new else "fit" if new else "remove"
        yield Job(act, f"nameplate of {thing.name}", old, "", new, "", thing.place)


def _of_further_parts(was: Sight | None, now: Sight | None) -> Iterator[Job]:
    """Yield what comes onto a device, or off it, beside its own part; what a device goes with goes with it."""
    if now is None:
        return
    old, new = (Counter(t.fact("further parts").split(", ")) if t else Counter[str]() for t in (was, now))
    for act, parts in (("remove", old - new), ("fit", new - old)):
        for number in parts.elements():
            if number:
                yield Job(act, f"{number} on {(was or now).name}", "", "", "", number, now.place)


def _of_thing(change: Change) -> Iterator[Job]:
    was, now = change.before, change.after
    yield from _of_plate(was, now)
    yield from _of_further_parts(was, now)
    if was is None and now is not None:
        yield Job("fit", _what(now), "", "", _to(change), now.facts["part"], now.place)
    elif now is None and was is not None:
        yield Job("remove", _what(was), "", "", "", was.facts["part"], was.place)
    elif was is not None and now is not None:
        if {"position", "stands after"} & set(change.facts) and _stands(was) and _to(change):
            # Labels are exchanged last: until then things are called what they were.
            yield Job("move", _what(was), _stands(was), "", _to(change), now.facts["part"], now.place)
        if "slot" in change.facts:
            old, new = (f"slot {thing.facts['slot']}" if thing.facts["slot"] else "no slot" for thing in (was, now))
            yield Job("move", _what(was), old, "", new, now.facts["part"], now.place)
        if "shield landed" in change.facts:
            old, new = (thing.facts["shield landed"] or "nowhere" for thing in (was, now))
            yield Job("re-land", f"shield of {was.name}", old, "", new, now.facts["part"], now.place)
        if "panel side" in change.facts:
            old, new = (_turned(thing) for thing in (was, now))
            yield Job("move", _what(was), old, "", new, now.facts["part"], now.place)
        if "part" in change.facts:
            yield Job("exchange", _what(now), was.facts["part"], "", now.facts["part"], now.facts["part"], now.place)
        elif change.kind == "device" and _longer_or_shorter(was, now):  # a cable
            lengths = (f"{s.facts['length']} long" for s in (was, now))
            yield Job("exchange", now.name, next(lengths), "", next(lengths), now.facts["part"], now.place)
        if was.name != now.name and {"tag", "number"} & set(change.facts):
            yield Job("relabel", was.name, "", "", now.name, now.facts["part"], now.place)
