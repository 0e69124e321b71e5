"""The Parts bench: a lamp from a page's table, placed, changed, stale, refreshed; cables and housings made."""

from __future__ import annotations

from playwright.sync_api import Page, expect

from e2e.test_benches import BenchStory
from jolly_core.reports import run_report

PAGE = (
    "Manufacturer\tTamwick\nArticle number\tTW-L99-G\nDescription\tIndicator lamp green 22 mm\n"
    "Operating voltage\t24 V DC\nPower dissipation\t0.4 W\nMounting diameter\t22 mm\nDepth\t54 mm\n"
    "Terminals\tX1, X2\nSupplier\tCobbold Supply"
)


class Parts(BenchStory):
    def choose(self, page: Page, label: str, option: str) -> None:
        page.get_by_label(label, exact=True).click()
        page.get_by_role("option", name=option, exact=True).click()

    def keep(self, page: Page) -> None:
        with page.expect_response(lambda r: r.url.endswith("/api/library/part") and r.status == 200):
            page.get_by_role("button", name="Keep", exact=True).or_(
                page.get_by_role("button", name="Save", exact=True)
            ).click()

    def test_a_lamp_from_a_page_placed_changed_stale_refreshed_and_undone(self) -> None:
        page = self.open("parts")
        page.get_by_role("button", name="New part").click()
        page.get_by_label("Text from a page or data sheet").fill(PAGE)
        page.get_by_role("button", name="Read the text").click()
        lacks = page.get_by_role("group", name="What is missing")
        for purpose in ("drawing", "layout", "ordering", "making"):
            expect(lacks).to_contain_text(f"{purpose} complete")
        expect(page.get_by_label("Pins of lamp 1")).to_have_value("X1 X2")
        self.keep(page)
        expect(page.get_by_role("complementary", name="TW-L99-G")).to_be_visible()

        # Placed on a new sheet by its number, at once with its pins.
        page.goto(f"{self.live_server_url}/p/kiln-2/draw")
        expect(self.symbols(page).first).to_be_visible()
        self.new_sheet(page, "60", "Lamp")
        self.place(page, 33, 25, "TW-L99-G", "TW-L99-G")
        lamp = next(d for d in self.project().devices.values() if d.part_id == "tamwick-tw-l99-g")
        bought = {row[4]: row[1] for row in run_report(self.project(), "parts").rows}
        self.assertEqual(bought["TW-L99-G"], 1)

        # Its description is changed in the library: the copy is stale, on the device and at the list's foot.
        page.goto(f"{self.live_server_url}/p/kiln-2/parts/library?part=tamwick-tw-l99-g")
        page.get_by_label("Description", exact=True).fill("Indicator lamp emerald 22 mm")
        self.keep(page)
        expect(page.get_by_role("region", name="History")).to_contain_text("emerald")
        page.goto(f"{self.live_server_url}/p/kiln-2/issue")
        page.get_by_role("button", name="Parts list", exact=True).click()
        foot = page.get_by_role("note")
        expect(foot).to_contain_text("TW-L99-G differs from the library: description")
        sheet = next(s.sheet_id for s in self.project().symbols.values() if s.device_id == lamp.id)
        page.goto(f"{self.live_server_url}/p/kiln-2/draw/{sheet}")
        self.symbols(page).first.click()
        panel = page.get_by_role("region", name="Part", exact=True)
        expect(panel).to_contain_text("stale")
        self.done(page, lambda: panel.get_by_role("button", name="refresh").click())
        expect(panel).not_to_contain_text("stale")
        expect(panel).to_contain_text("emerald")
        page.keyboard.press("Control+z")
        expect(panel).to_contain_text("stale")

    def test_a_signal_cable_and_a_housing_with_its_mate(self) -> None:
        page = self.open("parts")
        page.get_by_role("button", name="New part").click()
        form = page.get_by_role("complementary", name="New part")
        form.get_by_label("Class", exact=True).click()
        page.get_by_role("option", name="Cable", exact=True).click()
        form.get_by_role("button", name="Begin").click()
        cores = page.get_by_role("region", name="Cores anew")
        cores.get_by_label("with GNYE").uncheck()
        cores.get_by_label("mm² each").fill("0.5")
        cores.get_by_label("Shields").fill("1")
        cores.get_by_role("button", name="Fill").click()
        expect(page.get_by_label("Pins of shield 4")).to_have_value("SH")
        for label, value in (("Maker", "Quillon"), ("Number", "QL-SC3"), ("Description", "Signal cable 3 x 0.5")):
            form.get_by_label(label, exact=True).fill(value)
        form.get_by_label("Outer diameter, mm").fill("4")
        form.get_by_label("Least bend radius, mm").fill("30")
        form.get_by_label("Supplier", exact=True).fill("Cobbold Supply")
        expect(page.get_by_role("group", name="What is missing")).to_contain_text("making complete")
        self.keep(page)
        expect(page.get_by_role("gridcell", name="QL-SC3")).to_have_count(0)  # not among the first 200
        page.get_by_label("Words, part of a number, 2NO, 3P").fill("ql-sc3")
        expect(page.get_by_role("gridcell", name="QL-SC3")).to_be_visible()

        page.get_by_label("Words, part of a number, 2NO, 3P").fill("TW-H12S")
        page.get_by_role("gridcell", name="TW-H12S").click()
        housing = page.get_by_role("complementary", name="TW-H12S")
        expect(housing.get_by_label("Mates with")).to_have_value("TW-H12P")
        housing.get_by_role("button", name="Make one like it").click()
        made = page.get_by_role("complementary", name="Like TW-H12S")
        made.get_by_label("Number", exact=True).fill("TW-H12X")
        made.get_by_label("Crimp contacts allowed").fill("TW-CT1, TW-CT2")
        expect(made.get_by_label("Pins of cavity 12")).to_have_value("12")
        self.keep(page)
        expect(page.get_by_role("complementary", name="TW-H12X")).to_be_visible()

    def test_found_by_what_it_must_have_and_given_to_a_device_by_keys(self) -> None:
        page = self.open("parts")
        self.choose(page, "Class", "Contactor")
        conditions = page.get_by_role("group", name="Conditions")
        conditions.get_by_label("Coil voltage, V").fill("24")
        conditions.get_by_label("Motor load, AC-3, A").fill("60+")
        expect(page.get_by_role("gridcell", name="BW-C65-24D-11")).to_be_visible()
        expect(page.get_by_role("gridcell", name="BW-C65-230A-11")).to_have_count(0)
        expect(page.get_by_role("gridcell", name="BW-C50-24D-11")).to_have_count(0)

        # A coil without a part waits in the list; the likeliest is taken by Enter, and the reason stood beside it.
        page.goto(f"{self.live_server_url}/p/kiln-2/draw")
        expect(self.symbols(page).first).to_be_visible()
        self.new_sheet(page, "60", "Coil")
        self.place(page, 33, 25, "coil", "Coil")
        page.goto(f"{self.live_server_url}/p/kiln-2/parts/project")
        waiting = page.get_by_role("table", name="Devices without a part")
        waiting.get_by_role("row").nth(1).click()
        found = page.get_by_role("listbox", name="Parts found")
        expect(found.get_by_role("option").first).to_contain_text("has all units drawn")
        page.get_by_label("Find a part").fill("c09-24d-62")
        expect(found.get_by_role("option")).to_have_count(1)
        self.done(page, lambda: page.keyboard.press("Enter"))
        expect(waiting).to_have_count(0)
        expect(page.get_by_role("table", name="Copies in this project")).to_contain_text("BW-C09-24D-62")

    def test_a_part_replaced_everywhere_and_the_misfits_listed(self) -> None:
        page = self.open("parts/project")
        page.get_by_role("row", name="BW-C09-24D-31").click()
        page.get_by_label("Another part").fill("BW-C12-24D-11")
        self.done(page, lambda: page.get_by_role("option", name="BW-C12-24D-11").click())
        expect(page.get_by_role("table", name="Copies in this project")).to_contain_text("BW-C12-24D-11")
        numbers = {p.number for p in self.project().parts.values()}
        self.assertNotIn("BW-C09-24D-31", numbers)

    def test_a_class_of_ones_own_is_made_on_the_way_to_its_first_part(self) -> None:
        page = self.open("parts")
        page.get_by_role("button", name="New part").click()
        form = page.get_by_role("complementary", name="New part")
        form.get_by_role("combobox", name="Class").click()
        page.get_by_role("option", name="a new class").click()
        own = form.get_by_role("group", name="New class")
        own.get_by_label("Name of the class").fill("Air curtain")
        own.get_by_role("combobox", name="It is like").click()
        page.get_by_role("option", name="Enclosure fan", exact=True).click()
        own.get_by_label("Letters, IEC").fill("gx")
        form.get_by_role("button", name="Begin").click()
        expect(form.get_by_label("Pins of load 1")).to_have_value("1 2")
        for label, value in (("Maker", "Brindlework"), ("Number", "BW-AC1"), ("Description", "Air curtain 230 V")):
            form.get_by_label(label, exact=True).fill(value)
        self.keep(page)
        expect(page.get_by_role("complementary", name="BW-AC1")).to_contain_text("Air curtain")

        # It is found by its class, and a device of it has the letters of the class.
        self.choose(page, "Class", "Air curtain")
        expect(page.get_by_role("gridcell", name="BW-AC1")).to_be_visible()
        page.goto(f"{self.live_server_url}/p/kiln-2/draw")
        expect(self.symbols(page).first).to_be_visible()
        self.new_sheet(page, "60", "Curtain")
        self.place(page, 33, 25, "ac1", "BW-AC1")
        device = next(d for d in self.project().devices.values() if d.part_id == "brindlework-bw-ac1")
        self.assertEqual(device.letters, "GX")
