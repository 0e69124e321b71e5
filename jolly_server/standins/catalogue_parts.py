"""What the simulated catalogue sells: made-up series of made-up makers, each part in the format of library files."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

Offer = dict[str, Any]
POLES = [["pole", ["1", "2"]], ["pole", ["3", "4"]], ["pole", ["5", "6"]]]
COLOURS = {"GN": "green", "RD": "red", "YE": "yellow", "BU": "blue", "WH": "white", "BK": "black"}
SUPPLIER = "Cobbold Supply"


def _offer(maker: str, number: str, part_class: str, text: str, **more: Any) -> Offer:
    slug = "".join(c if c.isalnum() else "-" for c in f"{maker} {number}".lower()).strip("-")[:38]
    ratings = {k: str(v) for k, v in more.pop("ratings", {}).items()}
    size = dict(zip(("width_mm", "height_mm", "depth_mm"), more.pop("size", ()), strict=False))
    return {
        "id": slug,
        "maker": maker,
        "number": number,
        "part_class": part_class,
        "text": text,
        "units": more.pop("units", []),
        "ratings": ratings,
        "supplier": SUPPLIER,
        "order_number": f"CS-{sum(map(ord, number)) * 7 % 90000 + 10000}",
        "currency": "EUR",
        "picture": f"{slug}.svg",
        **{k: float(v) for k, v in size.items()},
        **more,
    }


def _corners(width: float, height: float) -> str:
    """Return four screw holes near the corners of a housing, as the data sheets of these makers give them."""
    return "; ".join(f"{x:g},{y:g},5.5" for y in (7, height - 7) for x in (10, width - 10))


def _contactors() -> Iterator[Offer]:
    coils = (("24", "DC"), ("24", "AC"), ("110", "AC"), ("230", "AC"))
    for size, (amps, width) in enumerate(
        ((9, 45), (12, 45), (18, 45), (25, 45), (32, 54), (40, 54), (50, 64), (65, 64))
    ):
        for volts, kind in coils:
            yield _offer(
                "Fenwold",
                f"FK{amps:02d}-{volts}{kind[0]}",
                "contactor",
                f"Contactor {amps} A, coil {volts} V {kind}, 1 NO + 1 NC",
                units=[["coil", ["A1", "A2"]], *POLES, ["no", ["13", "14"]], ["nc", ["21", "22"]]],
                ratings={
                    "coil_voltage_v": volts,
                    "coil_kind": kind,
                    "ac3_a": amps,
                    "loss_w": round(1.8 + amps / 20, 1),
                },
                size=(width, 82, 86 + 4 * size),
                weight_kg=round(0.3 + amps / 90, 2),
                price=round(21 + 1.9 * amps, 2),
            )


def _motor_breakers() -> Iterator[Offer]:
    steps = (0.16, 0.25, 0.4, 0.63, 1, 1.6, 2.5, 4, 6.3, 10, 14, 18, 23, 25, 32)
    for low, high in zip(steps, steps[1:], strict=False):
        yield _offer(
            "Fenwold",
            f"FM-{high:g}".replace(".", "V"),
            "motor-breaker",
            f"Motor protective breaker {low:g} to {high:g} A",
            units=POLES,
            ratings={"setting_min_a": f"{low:g}", "setting_max_a": f"{high:g}", "breaking_ka": 50, "loss_w": 6},
            size=(45, 90, 78),
            weight_kg=0.32,
            price=round(38 + high, 2),
        )


def _breakers() -> Iterator[Offer]:
    for curve in ("B", "C"):
        for poles in (1, 2, 3):
            for amps in (2, 4, 6, 10, 13, 16, 20, 25, 32):
                yield _offer(
                    "Fenwold",
                    f"FB{poles}{curve}{amps:02d}",
                    "breaker",
                    f"Circuit breaker {poles}-pole {curve}{amps}",
                    units=POLES[:poles],
                    ratings={
                        "rated_a": amps,
                        "characteristic": curve,
                        "breaking_ka": 10,
                        "loss_w": round(0.9 * poles + amps / 20, 1),
                    },
                    size=(17.5 * poles, 88, 70),
                    weight_kg=round(0.12 * poles, 2),
                    price=round(6.4 * poles + amps / 8, 2),
                )


def _operators() -> Iterator[Offer]:
    hole = {"mounting": "door hole", "diameter_mm": 30.0, "depth_mm": 58.0, "weight_kg": 0.06}
    for code, colour in COLOURS.items():
        for kind, pins in (("no", ["13", "14"]), ("nc", ["21", "22"])):
            yield _offer(
                "Tamwick",
                f"TX30-P{code}-{kind.upper()}",
                "push-button",
                f"Push button {colour}, 1 {kind.upper()}, 30 mm",
                units=[[kind, pins]],
                ratings={"colour": colour, "contact_a": 6, "hole_mm": 30.5},
                price=14.6,
                **hole,
            )
        for volts in (24, 110, 230):
            if code != "BK":
                yield _offer(
                    "Tamwick",
                    f"TX30-L{code}-{volts}",
                    "lamp",
                    f"Indicator light {colour}, {volts} V, 30 mm",
                    units=[["lamp", ["X1", "X2"]]],
                    ratings={"colour": colour, "voltage_v": volts, "loss_w": 0.5, "hole_mm": 30.5},
                    price=17.2,
                    **hole,
                )
    for positions, contacts in (("0, I", 1), ("I, 0, II", 2), ("0, I, II, III", 4)):
        yield _offer(
            "Tamwick",
            f"TX30-S{contacts}",
            "selector",
            f"Selector switch {positions}, {contacts} NO, 30 mm",
            units=[["no", [f"{n}3", f"{n}4"]] for n in range(1, contacts + 1)],
            ratings={"positions": positions, "contact_a": 6, "hole_mm": 30.5},
            price=26.0 + contacts,
            **hole,
        )


def _cables() -> Iterator[Offer]:
    for section in (0.5, 0.75, 1.0, 1.5, 2.5):
        for cores in (3, 4, 5, 7, 12, 18, 25):
            names = [str(n) for n in range(1, cores)]
            across = round(2.4 * (section**0.5 + 1.1) * cores**0.5, 1)
            yield _offer(
                "Quillon",
                f"QD{cores}G{section:g}".replace(".", "V"),
                "cable",
                f"Drag-chain cable {cores} G {section:g} mm²",
                units=[["core", [n]] for n in (*names, "GNYE")],
                details=[{"role": "conductor", "section": f"{section:g}"}] * (cores - 1)
                + [{"role": "protective", "colour": "GNYE", "section": f"{section:g}"}],
                ratings={
                    "cross_section_mm2": f"{section:g}",
                    "outer_diameter_mm": across,
                    "bend_radius_mm": round(7.5 * across),
                    "screened": "no",
                },
                mounting="cable",
                price=round(0.5 + 0.22 * cores * section, 2),
            )


def _terminals() -> Iterator[Offer]:
    kinds = (
        ("T", "terminal", "Feed-through terminal"),
        ("E", "terminal", "Earth terminal"),
        ("F", "terminal", "Fuse terminal"),
    )
    for section, width in ((1.5, 4.2), (2.5, 5.2), (4, 6.2), (6, 8.2), (10, 10.2), (16, 12.2)):
        for letter, part_class, words in kinds:
            own = {"F": {"fuse_size": "5 x 20", "terminal_kind": "fuse"}, "E": {"terminal_kind": "earth"}}.get(
                letter, {}
            )
            most = {
                "cross_section_min_mm2": 0.2,
                "cross_section_max_mm2": section,
                "levels": 1,
                "bridge_slots": 2,
                "conductors_per_point": 1,
            }
            yield _offer(
                "Quillon",
                f"QR{letter}{section:g}".replace(".", "V"),
                part_class,
                f"{words} {section:g} mm², push-in",
                units=[["terminal", ["", ""]]],
                ratings={**most, **own},
                size=(width, 48, 36),
                price=round(0.9 + section / 9 + (letter == "F"), 2),
            )


def _drives() -> Iterator[Offer]:
    for kw in (0.37, 0.55, 0.75, 1.1, 1.5, 2.2, 3, 4, 5.5, 7.5, 11, 15, 18.5, 22):
        amps = round(2.35 * kw + 0.4, 1)
        yield _offer(
            "Orrery Drives",
            f"OV4-{kw:g}".replace(".", "V"),
            "drive",
            f"Frequency converter {kw:g} kW, 400 V",
            units=[
                ["pins", ["L1", "L2", "L3", "PE"]],
                ["pins", ["U", "V", "W"]],
                ["pins", ["24V", "DI1", "DI2", "DI3", "COM", "AI1", "GND"]],
                ["co", ["11", "14", "12"]],
            ],
            ratings={
                "power_kw": f"{kw:g}",
                "rated_a": amps,
                "supply_v": 400,
                "loss_w": round(18 + 28 * kw),
                "screws_mm": _corners(90 + 3 * kw, 200 + 6 * kw),
            },
            size=(90 + 3 * kw, 200 + 6 * kw, 165),
            mounting="plate",
            weight_kg=round(1.6 + kw / 4, 1),
            price=round(190 + 62 * kw, 2),
        )


def _relays() -> Iterator[Offer]:
    for volts, kind in (("12", "DC"), ("24", "DC"), ("48", "DC"), ("24", "AC"), ("110", "AC"), ("230", "AC")):
        for contacts in (1, 2, 4):
            yield _offer(
                "Brindlework",
                f"BY{contacts}-{volts}{kind[0]}",
                "relay",
                f"Plug-in relay {contacts} CO, coil {volts} V {kind}",
                units=[["coil", ["A1", "A2"]], *(["co", [f"{n}1", f"{n}4", f"{n}2"]] for n in range(1, contacts + 1))],
                ratings={
                    "coil_voltage_v": volts,
                    "coil_kind": kind,
                    "contact_a": 10 if contacts < 4 else 6,
                    "loss_w": 0.9,
                },
                size=(27 if contacts == 4 else 15.8, 76, 66),
                weight_kg=0.06,
                price=round(7.5 + 2.2 * contacts, 2),
            )
    for seconds in ("0.1 to 10", "1 to 100", "6 to 600"):
        for kind, pins in (("tno", ["17", "18"]), ("tnc", ["15", "16"])):
            yield _offer(
                "Brindlework",
                f"BT-{kind[1:].upper()}-{seconds.split()[-1]}",
                "timer",
                f"Timing relay {seconds} s, on-delay",
                units=[["coil", ["A1", "A2"]], [kind, pins]],
                ratings={"coil_voltage_v": 24, "coil_kind": "DC", "range_s": seconds, "loss_w": 1.1},
                size=(17.5, 90, 62),
                price=33.5,
            )


def _supplies() -> Iterator[Offer]:
    for volts in (12, 24, 48):
        for amps in (1.3, 2.5, 5, 10, 20, 40):
            watts = volts * amps
            yield _offer(
                "Brindlework",
                f"BP{volts}-{amps:g}".replace(".", "V"),
                "power-supply",
                f"Power supply {volts} V DC, {amps:g} A",
                units=[["supply", ["L", "N", "+", "-"]]],
                ratings={"output_v": volts, "output_a": f"{amps:g}", "loss_w": round(watts * 0.09 + 2, 1)},
                size=(30 + watts / 12, 124, 117),
                weight_kg=round(0.3 + watts / 500, 2),
                price=round(28 + watts / 4, 2),
            )


def _sensors() -> Iterator[Offer]:
    for thread in (8, 12, 18, 30):
        for reach in (1, 2, 3):
            for make, words in (("NO", "makes"), ("NC", "breaks")):
                yield _offer(
                    "Tamwick",
                    f"TI{thread}-{reach * thread // 4}-{make}",
                    "proximity-sensor",
                    f"Inductive sensor M{thread}, {reach * thread // 4} mm, PNP, {words}",
                    units=[["pins", ["1", "3", "4"]]],
                    ratings={"supply_v": 24, "range": f"{reach * thread // 4} mm"},
                    diameter_mm=float(thread),
                    depth_mm=60.0,
                    mounting="free",
                    price=round(19 + thread / 2 + reach, 2),
                )


def _screened() -> Iterator[Offer]:
    for section in (0.34, 0.5, 0.75):
        for pairs in (1, 2, 3, 4, 6):
            names = [str(n) for n in range(1, 2 * pairs + 1)]
            across = round(2.2 * (section**0.5 + 0.9) * (2 * pairs) ** 0.5, 1)
            facts = [
                {"role": "conductor", "section": f"{section:g}", "pair": str(n // 2 + 1)} for n in range(2 * pairs)
            ]
            yield _offer(
                "Quillon",
                f"QS{pairs}X2-{section:g}".replace(".", "V"),
                "cable",
                f"Screened cable {pairs} x 2 x {section:g} mm²",
                units=[*(["core", [n]] for n in names), ["shield", ["SH"]]],
                details=facts,
                ratings={"outer_diameter_mm": across, "bend_radius_mm": round(8 * across), "screened": "yes"},
                mounting="cable",
                price=round(0.9 + 0.7 * pairs * section, 2),
            )


def _soft_starters() -> Iterator[Offer]:
    for kw in (1.5, 3, 5.5, 7.5, 11, 15, 22, 30):
        yield _offer(
            "Orrery Drives",
            f"OS2-{kw:g}".replace(".", "V"),
            "soft-starter",
            f"Soft starter {kw:g} kW, 400 V",
            units=[
                ["pins", ["L1", "L2", "L3"]],
                ["pins", ["T1", "T2", "T3"]],
                ["pins", ["A1", "A2"]],
                ["no", ["13", "14"]],
            ],
            ratings={
                "power_kw": f"{kw:g}",
                "rated_a": round(2.1 * kw + 0.5, 1),
                "supply_v": 400,
                "loss_w": round(4 + kw),
                "screws_mm": _corners(45 + 2 * kw, 110 + 2 * kw),
            },
            size=(45 + 2 * kw, 110 + 2 * kw, 120),
            mounting="plate",
            price=round(96 + 21 * kw, 2),
        )


def _switches() -> Iterator[Offer]:
    for head in ("roller", "plunger", "lever"):
        for contacts in (2, 3):
            extra = [["nc", ["31", "32"]]] if contacts == 3 else []
            yield _offer(
                "Tamwick",
                f"TE-{head[0].upper()}{contacts}",
                "limit-switch",
                f"Limit switch with {head}, {contacts} contacts",
                units=[["no", ["13", "14"]], ["nc", ["21", "22"]], *extra],
                ratings={"contact_a": 6},
                mounting="free",
                price=22.5 + contacts,
            )
    for no, nc in ((2, 0), (1, 1), (0, 2), (4, 0), (2, 2)):
        units = [["no", [f"{5 + n}3", f"{5 + n}4"]] for n in range(no)]
        units += [["nc", [f"{5 + no + n}1", f"{5 + no + n}2"]] for n in range(nc)]
        yield _offer(
            "Fenwold",
            f"FX-{no}{nc}",
            "auxiliary-block",
            f"Auxiliary contact block {no} NO + {nc} NC",
            units=units,
            ratings={"contact_a": 6},
            size=(36, 40, 42),
            price=5.0 + no + nc,
        )


def offers() -> list[Offer]:
    """Return all parts of the catalogue, series by series."""
    series = (
        _contactors, _motor_breakers, _breakers, _operators, _cables, _terminals, _drives, _relays, _supplies, _sensors,
        _screened, _soft_starters, _switches,
    )  # fmt: skip
    return [offer for make in series for offer in make()]
