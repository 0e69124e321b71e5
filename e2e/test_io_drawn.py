"""The I/O bench: circuits drawn from the list in other patterns and for other cards, and the wiring check."""

from __future__ import annotations

import threading
from dataclasses import replace

from django.conf import settings
from django.test import override_settings
from playwright.sync_api import Page, Route, expect

from e2e.kept import apart
from e2e.test_io import MILL, PointStory
from jolly_core.plc import cards, channels
from jolly_core.scenes import sheet_scene
from jolly_core.scenes.base.primitives import Text
from jolly_core.tagging import full_tag
from jolly_server.standins.plc import Plc, serve


class Drawn(PointStory):
    def draw(self, page: Page, *, feed: str = "", way: str = "") -> None:
        """Draw what waits, in the form."""
        page.get_by_role("button", name="Draw…").click()
        form = page.get_by_role("dialog")
        if feed:
            form.get_by_label("Fed from").fill(feed)
        if way:
            form.get_by_label("Rows").click()
            page.get_by_role("option", name=way).click()
        expect(form.get_by_label("What would be drawn")).to_contain_text("sheet")
        self.done(page, form.get_by_role("button", name="Draw").click)

    def take_in(self, page: Page, *points: tuple[str, str, str]) -> None:
        """Take in points of the field and let channels be suggested."""
        field = next(loc.id for loc in self.project().locations.values() if loc.code == "KF2")
        rows = [{"tag": t, "io_type": k, "connected": c, "location_id": field, "terminals": True} for t, k, c in points]
        self.send(page, kind="take-in-points", points=rows)
        self.send(page, kind="suggest-channels", ids=[])

    def test_a_relay_contact_then_stamps_and_the_feed_is_chosen_once(self) -> None:
        page = self.open("io?page=allocate")
        card = self.card(page, "hollin-hr-di16")
        sheet = next(iter(self.project().sheets))
        self.send(page, kind="place-symbol", sheet_id=sheet, definition="coil", x=40, y=80, part_id="hollin-hr-k22")
        project = self.project()
        device = next(s.device_id for s in project.symbols.values() if s.definition == "coil")
        self.take_in(page, ("B1", "DI", f"contact of {full_tag(project, project.devices[device])}"))
        page.reload()
        self.draw(page, feed="24 V aux")
        contact = next(s for s in self.project().symbols.values() if s.definition == "contact-no")
        self.assertEqual(contact.device_id, device)

        # A piece of several elements is kept a minute later, and put down for what comes next.
        for x, key in ((30, "limit-no"), (40, "limit-nc")):
            self.send(page, kind="place-symbol", sheet_id=sheet, definition=key, x=x, y=100, rotation=0)
        wire_type = next(t.id for t in self.project().wire_types.values() if t.name == "Control")
        for a, b in ((34, 40), (44, 50)):
            self.send(page, kind="draw-wire", sheet_id=sheet, points=[[a, 100], [b, 100]], wire_type_id=wire_type)
        project = self.project()
        ids = [s.id for s in project.symbols_on(sheet) if s.y == 100]
        ids += [w.id for w in project.wires_on(sheet) if w.y1 == 100]
        self.send(page, kind="keep-stamp", ids=ids, name="Two in a row", anchor_x=50, anchor_y=100)
        self.take_in(
            page, ("B2", "DI", "stamp Two in a row"), ("B3", "DI", "Two in a row"), ("B4", "DI", "push button")
        )
        page.reload()
        self.draw(page)
        project = self.project()
        self.assertEqual(len(self.places(project)), 4)
        made = [c for c in project.channel_circuits.values() if len(c.made) >= 2]
        self.assertGreaterEqual(len(made), 2)
        (card_record,) = project.cards.values()
        self.assertEqual(card_record.device_id, card)
        marks = [c.name for c in project.continuations.values() if c.sheet_id in card_record.sheet_ids]
        self.assertEqual(set(marks), {"24 V aux", "0 V"}, "the feed that was chosen once is that of all later commons")
        self.assertEqual(self.untidy(), [])

    @apart
    def test_many_cards_are_drawn_one_by_one_and_one_can_stop(self) -> None:
        page = self.open("io?page=allocate")
        for _ in range(7):
            self.card(page, "hollin-reeve-hr-di32")
        self.take_in_waiting(page, [(f"B{n}", "DI", "limit switch") for n in range(210)])
        self.send(page, kind="suggest-channels", ids=[])
        page.reload()
        page.get_by_role("button", name="Draw…").click()
        form = page.get_by_role("dialog")
        expect(form).to_contain_text("The channels of 7 cards are drawn card by card.")
        held: list[Route] = []

        def hold(route: Route) -> None:
            held.append(route)

        page.route("**/edits", hold)
        form.get_by_role("button", name="Draw").click()
        expect(form).to_contain_text("Card 1 of 7.")
        form.get_by_role("button", name="Cancel").click()
        with page.expect_response(lambda r: r.url.endswith("/edits") and r.status == 200):
            held[0].continue_()
        page.unroute("**/edits")
        expect(page.get_by_text("1 of 7 cards are drawn.").first).to_be_visible()
        first = len(self.places(self.project()))
        self.assertTrue(0 < first < 210, first)
        expect(form).to_have_count(0)  # the one that was stopped has gone before the next one is opened
        # Gone on with, all the rest is drawn.
        page.get_by_role("button", name="Draw…").click()
        form.get_by_role("button", name="Draw").click()
        expect(form).to_have_count(0)
        self.assertEqual(len(self.places(self.project())), 210)

    def test_the_same_list_with_another_scheme_and_family_of_cards(self) -> None:
        page = self.open("io")
        kinds = [("B", "DI", "limit switch")] * 14 + [("Y", "DO", "valve")] * 10 + [("T", "AI", "transmitter")] * 4
        points = [(f"{letter}{n}", kind, words) for n, (letter, kind, words) in enumerate(kinds, 100)]
        self.take_in_waiting(page, points)
        page.reload()
        page.get_by_label("Cards of").click()
        page.get_by_role("option", name="Brindlework").click()
        for kind in ("DI", "DO", "AI"):
            need = page.get_by_role("region", name=f"Demand {kind}")
            self.done(page, need.get_by_role("button", name="Add").click)
        page.get_by_role("button", name="Address cards…").click()
        form = page.get_by_role("dialog")
        form.get_by_label("Addresses").click()
        page.get_by_role("option", name="octal numbers").click()
        self.done(page, form.get_by_role("button", name="Address").click)
        page.get_by_role("button", name="Allocate").click()
        self.done(page, page.get_by_role("button", name="Suggest").click)
        self.draw(page, way="upright, one beside the other")
        project = self.project()
        self.assertEqual(len(self.places(project)), 28)
        self.assertEqual(self.untidy(), [])
        inputs = next(c for c in cards(project) if project.devices[c.device_id].part_id == "brindlework-bw-p32i")
        self.assertEqual([r.address for r in channels(project, inputs.device_id)][6:10], ["I6", "I7", "I10", "I11"])
        # Each group of eight that is in use is fed over a fuse of its own.
        fuses = [s for s in project.symbols.values() if s.definition == "fuse"]
        self.assertEqual(len(fuses), 4)

        # Another scheme for all: what is drawn says the new addresses, and is as tidy.
        page.get_by_role("button", name="Address cards…").click()
        form.get_by_label("Addresses").click()
        page.get_by_role("option", name="whole numbers").click()
        self.done(page, form.get_by_role("button", name="Address").click)
        project = self.project()
        place = self.places(project)["B108"]
        words = [p.words for i in sheet_scene(project, place[0]).items.values() for p in i.prims if isinstance(p, Text)]
        self.assertIn("I8", words)
        self.assertEqual(self.untidy(), [])

    def take_in_waiting(self, page: Page, points: list[tuple[str, str, str]]) -> None:
        """Take in points that wait for channels."""
        rows = [{"tag": t, "io_type": k, "connected": c, "terminals": True} for t, k, c in points]
        self.send(page, kind="take-in-points", points=rows)


class Walk(PointStory):
    def setUp(self) -> None:
        super().setUp()
        server = serve(Plc(), 0)
        threading.Thread(target=server.serve_forever, daemon=True).start()
        self.addCleanup(server.server_close)
        self.addCleanup(server.shutdown)
        there = override_settings(JOLLY=replace(settings.JOLLY, plc=f"http://127.0.0.1:{server.server_port}"))
        there.enable()
        self.addCleanup(there.disable)

    def test_points_are_set_in_the_field_seen_at_the_card_ticked_and_signed(self) -> None:
        page = self.open("io")
        self.card(page, "hollin-hr-di8")
        self.send(page, kind="take-in-points", points=[{"tag": f"B{n}", "io_type": "DI"} for n in (1, 2, 3)])
        self.send(page, kind="suggest-channels", ids=[])
        page.reload()
        page.get_by_role("button", name="Check", exact=True).click()
        plc = page.get_by_label("PLC", exact=True)
        expect(plc).to_contain_text("has no list of this project yet")
        plc.get_by_role("button", name="Give it the list").click()
        expect(plc).to_contain_text("The PLC has the 3 channels of the project.")
        page.get_by_role("option", name="I0.0 B1").click()
        seen = page.get_by_label("Seen", exact=True)
        expect(seen).to_have_text("I0.0 B1 = 0")
        page.get_by_role("button", name="On", exact=True).click()
        expect(seen).to_have_text("I0.0 B1 = 1")
        self.done(page, lambda: page.keyboard.press("Enter"))
        expect(page.get_by_role("option", name="I0.0 B1, good")).to_be_visible()
        # It goes on to the next by itself; a fault wants words.
        expect(seen).to_have_text("I0.1 B2 = 0")
        expect(page.get_by_role("button", name="Fault, next")).to_be_disabled()
        page.get_by_label("Remark").fill("Nothing comes, wire off")
        self.done(page, page.get_by_role("button", name="Fault, next").click)
        page.get_by_role("button", name="Sign…").click()
        self.done(page, page.get_by_role("dialog").get_by_role("button", name="Sign", exact=True).click)
        signed = page.get_by_role("region", name="Signed")
        expect(signed).to_contain_text("as it stands")

        # Two points change places: what was ticked there is to be seen anew, the PLC has an older list, and it is told.
        card = next(iter(self.project().cards.values())).device_id
        swap = {"io_type": "DI", "device_id": card, "channel": 1, "other_id": card, "other": 3}
        self.send(page, kind="swap-channels", **swap)
        expect(page.get_by_role("option", name="I0.2 B1, see anew")).to_be_visible()
        expect(signed).to_contain_text("changed since")
        expect(plc).to_contain_text("an older list")
        page.get_by_role("option", name="I0.2 B1").click()
        expect(seen).to_have_text("I0.2 B3 = 0")
        plc.get_by_role("button", name="Give it the list").click()
        expect(seen).to_have_text("I0.2 B1 = 0")
        report = page.request.get(f"{self.live_server_url}/api/projects/{MILL}/reports/wiring-check/csv").text()
        self.assertIn("Nothing comes, wire off", report)
        self.assertIn("changed since", report)
