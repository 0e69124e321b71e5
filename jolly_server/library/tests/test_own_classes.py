"""A class is what it is like, everywhere: offered, found, assigned and counted as that."""

from __future__ import annotations

from typing import Any

from jolly_core.library import own_class_key
from jolly_server.library.search import classes_like, search
from jolly_server.testing import KILN, DemoCase

BEACON = own_class_key("Beacon", "lamp")
SIGNAL_CABLE = own_class_key("Signal cable", "cable")


class LikeIt(DemoCase):
    def setUp(self) -> None:
        super().setUp()
        self.anna = self.person("anna")
        self.beacon = self.made("tamwick-tw-l22-g", BEACON, "TW-BEACON")
        self.cable = self.made("quillon-ql-s4-0-5-s", SIGNAL_CABLE, "QL-SIGNAL")

    def made(self, like: str, class_key: str, number: str) -> str:
        record = self.anna.get(f"/api/library/part/{like}").json()["record"]
        record |= {"id": "", "number": number, "part_class": class_key, "maker": "House", "order_number": ""}
        answer = self.post(self.anna, "/library/part", {"shelf": "house", "record": record})
        self.assertEqual(answer.status_code, 200, answer.content)
        return str(answer.json()["record"]["id"])

    def candidates(self, device_id: str, words: str = "") -> list[dict[str, Any]]:
        answer = self.anna.get(f"/api/projects/{KILN}/devices/{device_id}/parts", {"q": words})
        self.assertEqual(answer.status_code, 200, answer.content)
        found: list[dict[str, Any]] = answer.json()
        return found

    def test_found_by_the_class_it_is_like_and_by_its_own(self) -> None:
        self.assertEqual(classes_like("lamp"), ["lamp", BEACON])
        self.assertEqual(classes_like(BEACON), [BEACON])
        self.assertIn(self.beacon, [m.part.id for m in search("beacon", part_class_key="lamp")])
        self.assertEqual([m.part.id for m in search(part_class_key=BEACON)], [self.beacon])
        makers = self.anna.get("/api/library/makers", {"part_class_key": "lamp"}).json()
        self.assertIn("House", makers)

    def test_offered_for_a_lamp_and_then_still_like_one(self) -> None:
        lamp = self.device("PF")
        self.assertIn(self.beacon, [c["id"] for c in self.candidates(lamp, "beacon")])
        self.accepted(self.anna, kind="assign-part", device_id=lamp, part_id=self.beacon)
        self.assertEqual(self.stored().devices[lamp].letters, "PF", "no letters of its own: those of a lamp")
        again = [c["id"] for c in self.candidates(lamp)]
        self.assertIn("tamwick-tw-l22-g", again, "what a lamp may have, a beacon may")

    def test_a_rule_for_lamps_holds_for_what_is_like_lamps(self) -> None:
        self.accepted(self.anna, kind="put-tag-rule", part_class="lamp", letters="PH")
        lamp = next(d.id for d in self.stored().devices.values() if d.letters in ("PF", "PH"))
        self.accepted(self.anna, kind="assign-part", device_id=lamp, part_id=self.beacon)
        self.assertEqual(self.stored().devices[lamp].letters, "PH")

    def test_a_cable_without_a_part_is_offered_cables_first_also_of_an_own_class(self) -> None:
        cable = next(c.device_id for c in self.stored().cables.values())
        self.accepted(self.anna, kind="assign-part", device_id=cable, part_id="")
        found = self.candidates(cable)
        self.assertTrue(found)
        self.assertEqual({c["class_name"] for c in found} - {"Cable", "Signal cable"}, set())
        self.assertIn(self.cable, [c["id"] for c in self.candidates(cable, "signal")])
        self.accepted(self.anna, kind="assign-part", device_id=cable, part_id=self.cable)
