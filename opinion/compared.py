"""What the project says and what the second opinion says, side by side: the only place that knows both."""

from __future__ import annotations

from collections import Counter

from jolly_core.cabinet import routes
from jolly_core.cables import cable_cores, cable_drop
from jolly_core.exchange import write_project
from jolly_core.harness import pin_groups
from jolly_core.making import cut_list, not_cut, spool_plan
from jolly_core.model import Project
from jolly_core.plc import channels
from jolly_core.reports import needs, run_report
from jolly_core.tagging import contact_table, full_tag, lead_of, pin_name, pins_of
from jolly_core.wiring import all_conductors, all_nets, net_of, sheet_groups

from .addresses import channel_addresses
from .book import Book
from .cables import gathered, plan_wrongs
from .conductors import wrongs
from .making import Conductor, conducting, drop, metres, sizes, spools
from .names import end, tag
from .nets import nets, potentials
from .purchase import contacts, pieces
from .terminals import targets
from .ways import lengths

CONTACT_KINDS = ("NO", "NC", "NO delayed", "NC delayed")
NONE_FREE = "none free"


def differences(project: Project) -> list[str]:
    """Return what the two say differently of a project, in words."""
    book = Book(write_project(project))
    return [
        *(f"nets: {words}" for words in _nets(project, book)),
        *(f"potentials: {words}" for words in _potentials(project, book)),
        *(f"conductors: {words}" for words in _conductors(project, book)),
        *(f"wire list: {words}" for words in _wire_list(project, book)),
        *(f"names: {words}" for words in _names(project, book)),
        *(f"parts list: {words}" for words in _pieces(project, book)),
        *(f"contact table: {words}" for words in _contacts(project, book)),
        *(f"terminal plan: {words}" for words in _terminals(project, book)),
        *(f"core plan: {words}" for words in _cables(project, book)),
        *(f"addresses: {words}" for words in _addresses(project, book)),
        *(f"sizes: {words}" for words in _sizes(project, book)),
        *(f"lengths: {words}" for words in _lengths(project, book)),
        *(f"cut list: {words}" for words in _cut_list(project)),
        *(f"spools: {words}" for words in _spools(project)),
        *(f"metres: {words}" for words in _metres(project, book)),
        *(f"drop: {words}" for words in _drops(project, book)),
        *(f"continuity: {words}" for words in _continuity(project, book)),
    ]


def _apart(one: list[set[tuple[str, int]]], other: list[set[tuple[str, int]]]) -> list[str]:
    """Return what two ways to group pins do not agree on."""
    here, there = ({frozenset(group) for group in groups} for groups in (one, other))
    return [f"{'the project' if g in here else 'the file'} alone has {sorted(g)[:6]}" for g in here ^ there]


def _nets(project: Project, book: Book) -> list[str]:
    mine = [{pin for group in net for pin in group.pins} for net in all_nets(project)]
    return _apart([net for net in mine if net], nets(book))


def _potentials(project: Project, book: Book) -> list[str]:
    mine: dict[tuple[str, int], set[tuple[str, int]]] = {}
    for sheet in project.sheets_in_order():
        for group in sheet_groups(project, sheet.id).groups:
            found = net_of(project, group.key, potential=True)
            mine[found[0].key] = {pin for g in found for pin in g.pins}
    return _apart([pins for pins in mine.values() if pins], potentials(book))


def _conductors(project: Project, book: Book) -> list[str]:
    return wrongs(nets(book), [(c.start, c.end) for c in all_conductors(project).values()])


def _wire_list(project: Project, book: Book) -> list[str]:
    report = run_report(project, "wires")
    at = {column.key: n for n, column in enumerate(report.columns)}
    listed = Counter(frozenset((str(row[at["from"]]), str(row[at["to"]]))) for row in report.rows)
    known: Counter[frozenset[str]] = Counter()
    for c in all_conductors(project).values():
        ends = end(book, c.start), end(book, c.end)
        if all(ends):
            known[frozenset(ends)] += 1
    found = [f"{count - listed[ends]} rows too few for {sorted(ends)}" for ends, count in (known - listed).items()]
    if sum(listed.values()) != (expected := sum(len(net) - 1 for net in nets(book))):
        found.append(f"{sum(listed.values())} rows for {expected} conductors")
    return found


def _names(project: Project, book: Book) -> list[str]:
    found = []
    for device in project.devices.values():
        theirs = tag(book, book.kinds["device"][device.id])
        if theirs and theirs != full_tag(project, device):
            found.append(f"{full_tag(project, device)} is {theirs} by the file")
    for symbol in project.symbols.values():
        for pin in range(len(book.pins(book.kinds["symbol"][symbol.id]))):
            theirs = end(book, (symbol.id, pin)).rpartition(":")[2]
            if theirs and not (ours := pin_name(project, (symbol.id, pin), "")).endswith(theirs):
                found.append(f"{ours} is {theirs} by the file")
    return found


def _pieces(project: Project, book: Book) -> list[str]:
    report = run_report(project, "parts")
    at = {column.key: n for n, column in enumerate(report.columns)}
    listed = Counter[tuple[str, str]]()
    for row in report.rows:
        listed[str(row[at["maker"]]), str(row[at["number"]])] += int(float(row[at["quantity"]]))
    found = []
    for id, count in pieces(book).items():
        part = book.kinds["part"][id]
        if listed[part["maker"], part["number"]] != count:
            found.append(f"{listed[part['maker'], part['number']]} of {part['number']}, {count} devices are one")
    return found


def _contacts(project: Project, book: Book) -> list[str]:
    found = []
    for device_id, theirs in contacts(book).items():
        lead = lead_of(project, device_id)
        if lead is not None:
            rows = contact_table(project, lead)
            ours = Counter(row.pins for row in rows if row.kind in CONTACT_KINDS and row.pins != NONE_FREE)
            if ours != theirs and (rows or theirs):
                found.append(
                    f"{full_tag(project, project.devices[device_id])}: {dict(ours)}, by the file {dict(theirs)}"
                )
    return found


def _terminals(project: Project, book: Book) -> list[str]:
    report = run_report(project, "terminals")
    at = {column.key: n for n, column in enumerate(report.columns)}
    ours: dict[tuple[str, str], Counter[str]] = {}
    for row in report.rows:
        key = str(row[at["strip"]]), str(row[at["number"]])
        said = [str(row[at[side]]).replace(" (no location)", "") for side in ("field", "panel")]
        names = [name for words in said for name in words.split(", ") if name]
        ours.setdefault(key, Counter()).update(names)
    conductors = [(c.start, c.end) for c in all_conductors(project).values()]
    return [
        f"{':'.join(key)} has {dict(ours.get(key, {}))}, by the file {dict(theirs)}"
        for key, theirs in targets(book, conductors).items()
        if ours.get(key, Counter()) != theirs
    ]


def _cables(project: Project, book: Book) -> list[str]:
    conductors = [(c.start, c.end) for c in all_conductors(project).values()]
    found = []
    for device_id, (sure, maybe) in gathered(book, conductors).items():
        rows = cable_cores(project, device_id)
        ours = {(row.conductor.start, row.conductor.end) for row in rows if row.conductor is not None}
        name = full_tag(project, project.devices[device_id])
        found += [f"{name} lacks {c}" for c in sorted(sure - ours)]
        found += [f"{name} has {c}, which no band of it crosses" for c in sorted(ours - maybe)]
        plan = [(r.ordinal, (r.conductor.start, r.conductor.end) if r.conductor is not None else None) for r in rows]
        found += [f"{name}: {words}" for words in plan_wrongs(book, device_id, plan)]
    return found


def _addresses(project: Project, book: Book) -> list[str]:
    ours = {
        (row.device_id, row.io_type, row.channel): row.address
        for card in project.cards.values()
        for row in channels(project, card.device_id)
    }
    theirs = channel_addresses(book)
    found = [key for key in sorted(ours.keys() | theirs.keys()) if ours.get(key) != theirs.get(key)]
    return [f"{key[1]} {key[2]} is {ours.get(key, '')}, by the file {theirs.get(key, '')}" for key in found]


def _ends(project: Project) -> list[Conductor]:
    return [(c.start, c.end) for c in all_conductors(project).values()]


def _sizes(project: Project, book: Book) -> list[str]:
    conductors = _ends(project)
    lying: dict[Conductor, set[str]] = {}
    for device_id, (_, maybe) in gathered(book, conductors).items():
        for c in maybe:
            lying.setdefault(c, set()).add(device_id)
    cored = {}
    for device_id in {id for ids in lying.values() for id in ids}:
        for row in cable_cores(project, device_id):
            if row.conductor is not None:
                cored[row.conductor.start, row.conductor.end] = (device_id, row.ordinal)
    sure = [c for c in conductors if len(lying.get(c, ())) < 2]
    report = run_report(project, "wires")
    at = {column.key: n for n, column in enumerate(report.columns)}
    listed = Counter(
        (frozenset((str(row[at["from"]]), str(row[at["to"]]))), str(row[at["cross_section"]])) for row in report.rows
    )
    known: Counter[tuple[frozenset[str], str]] = Counter()
    for c, words in sizes(book, sure, cored).items():
        ends = end(book, c[0]), end(book, c[1])
        if all(ends):
            known[frozenset(ends), words] += 1
    return [f"{sorted(key[0])} is {key[1]} by the file" for key in known - listed]


def _lengths(project: Project, book: Book) -> list[str]:
    ours = {(r.conductor.start, r.conductor.end): r.length_mm for r in routes(project).values()}
    found = []
    for c, theirs in lengths(book, _ends(project)).items():
        length = ours.get(c)
        step = project.settings.length_step_mm or 0.1
        # Of ways that differ by less than a tenth of a millimetre the one with fewer turns is taken.
        if (length is None) != (theirs is None) or abs((length or 0.0) - (theirs or 0.0)) > step + 1e-6:
            found.append(f"{c} is {length} mm, by the file {theirs}")
        elif length is not None and theirs is not None and not theirs - 1e-6 <= length:
            found.append(f"{c} is {length} mm, less than the shortest way of {theirs}")
    return found


def _cut_list(project: Project) -> list[str]:
    """Each conductor is a core, joined without a wire, cut once, or named as not cut."""
    cores = Counter(
        row.conductor.key
        for cable in project.cables.values()
        for row in cable_cores(project, cable.device_id)
        if row.conductor is not None
    )
    counts = Counter([*(w.key for w in cut_list(project)), *(d.key for d in not_cut(project)), *cores.keys()])
    found = []
    for c in all_conductors(project).values():
        wanted = int(bool(c.wire_id or c.steps)) or counts[c.key]
        if counts[c.key] != wanted:
            found.append(f"{c.start} to {c.end} is {counts[c.key]} times cut, a core or named")
    return found + [f"{key} is no conductor" for key in counts if key not in all_conductors(project)]


def _spools(project: Project) -> list[str]:
    wires: dict[tuple[str, str, str], list[float]] = {}
    for wire in cut_list(project):
        wires.setdefault((wire.type_name, wire.colour, wire.size), []).append(wire.length_mm)
    ours = {(row.type_name, row.colour, row.size): row for row in spool_plan(project)}
    found = [f"{key} is in one of the lists only" for key in ours.keys() ^ wires.keys()]
    for key in ours.keys() & wires.keys():
        least, most = spools(wires[key], project.settings.spool_m * 1000)
        if not least <= ours[key].spools <= most:
            found.append(f"{key} takes {ours[key].spools} spools, by the file {least} to {most}")
        if abs(ours[key].metres - sum(wires[key]) / 1000) > 1e-3:
            found.append(f"{key} takes {ours[key].metres} m")
    return found


def _metres(project: Project, book: Book) -> list[str]:
    listed = {id: need.quantity for (id, unit), need in needs(project).items() if unit == "m"}
    return [
        f"{listed.get(id, 0)} m of {book.kinds['part'][id]['number']}, by the file {length}"
        for id, length in metres(book).items()
        if abs(listed.get(id, 0) - length) > 1e-6
    ]


def _drops(project: Project, book: Book) -> list[str]:
    """What a cable of one or two loaded cores drops by what is typed: there and back, and no phase angle."""
    found = []
    for cable in project.cables.values():
        cores = [row.conductor for row in cable_cores(project, cable.device_id) if row.conductor]
        part = book.find("part", book.kinds["device"][cable.device_id]["part_id"])
        typed = cable.length_m and cable.load_a and cable.voltage_v and cable.power_factor == 1
        if not typed or part is None or len(cores) not in (1, 2):
            continue
        sections = {d.get("section") or part["ratings"].get("cross_section_mm2") for d in part["details"] or [{}]}
        if len(sections) > 1:
            continue  # which of its cores lead the load is not known here
        area = float(sections.pop() or 0)
        values = {"current": cable.load_a, "metres": cable.length_m, "volts": cable.voltage_v}
        theirs = drop(**values, area=area, power_factor=1.0, phases=1)
        if theirs is not None and abs(cable_drop(project, cable).percent - theirs) > 1e-6:
            found.append(f"{full_tag(project, project.devices[cable.device_id])} by the file {theirs:.3f} %")
    return found


def _continuity(project: Project, book: Book) -> list[str]:
    found = []
    pins = {
        (full_tag(project, project.devices[s.device_id]), name): (s.id, n)
        for s in project.symbols.values()
        if s.device_id
        for n, name in enumerate(pins_of(project, s))
    }
    for harness_id, theirs in conducting(book, _ends(project)).items():
        groups = [[pins[pin] for pin in group if pin in pins] for group, _ in pin_groups(project, harness_id)]
        kept = ([p for p in group if project.symbols[p[0]].definition != "splice"] for group in groups)
        ours = {frozenset(group) for group in kept if len(group) > 1}
        found += [f"{'harness' if g in ours else 'file'} alone joins {sorted(g)}" for g in ours ^ theirs]
    return found
