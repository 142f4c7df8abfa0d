"""The build book and its lists, read back by other programs' readers."""

import csv
import io
import math
import re
import xml.etree.ElementTree as ET
from dataclasses import replace

import ezdxf
import pytest
from openpyxl import load_workbook
from pypdf import PdfReader

from loquen.core.library.whole import shipped
from loquen.core.model.parts.animals import Group
from loquen.core.system import build
from loquen.core.system.book import sheet_of
from loquen.demo.sluice_street import long_hall, old_copper, tidal_corner
from loquen.exchange import build_book as bound
from loquen.exchange import drawing, tables


@pytest.fixture(scope="module")
def hall():
    return sheet_of(long_hall(), shipped())


def build_book(sheet, units, prices=None):
    return bound.build_book(sheet, build.system_quote(sheet, prices or {}), units)


def text_of(content):
    pages = PdfReader(io.BytesIO(content)).pages
    return " ".join(" ".join(page.extract_text() for page in pages).split())


def test_the_book_says_what_the_sheet_computes(hall):
    text = text_of(build_book(hall, {}))
    flow, off, down = (hall.value(key) for key in ("return_lph", "power_off_cm", "drain_down_l"))
    assert f"it moves {flow:.0f} L/h" in text
    assert f"the sump ends at {off:.1f} cm" in text
    assert f"{down:.1f} L come down" in text
    for part in (
        "Cutting list",
        "Parts, with spares",
        "Plumbing run",
        "What plugs in",
        "Cautions, and who decides",
        "Putting into service",
    ):
        assert part in text
    for who in ("licensed electrician", "structural engineer", "glazier", "licensed plumber"):
        assert who in text
    tests = ["Leak test", "Level marks", "Power-off test", "Blocked-drain test", "Flow by bucket", "Heater test"]
    places = [text.index(test) for test in tests]
    assert places == sorted(places)


def test_the_book_in_gallons_and_inches(hall):
    text = text_of(build_book(hall, {"length": "in", "volume": "gal", "flow": "gal/h"}))
    assert "163 US gal of real water" in text
    assert f"{hall.value('power_off_cm') / 2.54:.1f} in" in text


@pytest.mark.parametrize("plan", [long_hall(), old_copper(), tidal_corner()], ids=lambda plan: plan.name)
def test_every_demo_system_has_a_book(plan):
    assert plan.name in text_of(build_book(sheet_of(plan, shipped()), {}))


def test_the_book_lists_the_worst_checks_too():
    crowd = replace(old_copper(), animals=(Group("goldfish_common", 2000),))
    text = text_of(build_book(sheet_of(crowd, shipped()), {}))
    assert re.search(r"The media carry the waste short can not This media can not carry this load", text)
    assert re.search(r"Oxygen at dawn short can not The system can not breathe", text)


def test_panes_by_hand(hall):
    cut = {pane.label: pane for pane in build.panes(hall)}
    # 180 x 55 x 55 cm inside, 15 mm glass.
    assert (cut["Display, base"].width_mm, cut["Display, base"].height_mm) == (1830, 580)
    assert (cut["Display, front"].width_mm, cut["Display, front"].height_mm) == (1830, 550)
    assert (cut["Display, sides"].width_mm, cut["Display, sides"].count) == (550, 2)
    assert cut["Sump, baffle after chamber 1 (settling)"].height_mm == 300
    main, emergency = cut["Display, base"].holes
    # Two holes share a box of 400 mm, thirds apart, half its 200 mm from the back.
    assert (main.x_mm, emergency.x_mm) == pytest.approx((1415 + 400 / 3, 1415 + 800 / 3))
    assert main.y_mm == pytest.approx(15 + 550 - 100)
    assert main.bore_mm == 50


def test_holes_in_the_back_stand_at_the_crest():
    sheet = sheet_of(old_copper(), shipped())
    back = next(pane for pane in build.panes(sheet) if pane.label == "Display, back")
    assert len(back.holes) == 2
    assert back.count == 3
    for hole in back.holes:
        assert hole.y_mm - hole.bore_mm / 2 == pytest.approx(sheet.value("crest_cm") * 10)


def test_parts_count_every_tank(hall):
    parts = {row.label: row for row in build.parts(hall)}
    assert parts["90° elbow, 32 mm pressure pipe"].quantity == 3
    assert parts["Heater, 300 W"].quantity == 2
    assert parts["Heater, 300 W"].spare == 1
    assert any("Residual-current device" in label for label in parts)
    copper = {row.label: row.quantity for row in build.parts(sheet_of(old_copper(), shipped()))}
    # Two elbows on each of three tanks' returns, and two drains with two elbows on each.
    assert copper["90° elbow, 25 mm pressure pipe"] == 6
    assert copper["Bulkhead, 50 mm waste pipe"] == 2 * 3 + 3


def test_what_cools_is_bought_and_plugged_in(hall):
    cooled = replace(hall.root, heat=replace(hall.root.heat, fan_fitted=True, fan_draws_w=8.0, chiller_w=150.0))
    sheet = sheet_of(replace(cooled, tank=replace(cooled.tank, tank_count=1)), shipped())
    parts = {row.label: (row.quantity, row.spare) for row in build.parts(sheet)}
    assert parts["Fan over the water, with a thermostat"] == (1, 1)
    assert parts["Chiller that takes out 150 W"] == (1, 0)
    loads = {row.label: (row.count, row.each_w) for row in build.loads(sheet)}
    assert loads["Fan over the water"] == (1, 8.0)
    assert loads["Chiller"] == (1, 75.0)
    copper = old_copper()
    three = sheet_of(replace(copper, heat=replace(copper.heat, fan_fitted=True)), shipped())
    assert {row.label: row.quantity for row in build.parts(three)}["Fan over the water, with a thermostat"] == 3
    assert three.value("fans_w") == 3 * 6.0
    assert not [row for row in build.parts(hall) if "Fan" in row.label or "Chiller" in row.label]


def test_the_pipework_in_the_order_of_the_water(hall):
    lines = build.pipework(hall)
    assert [line.place for line in lines] == [
        "run, from the pump", "run", "run", "run", "return 1", "return 2", "drain", "emergency drain",
    ]  # fmt: skip
    flow = hall.value("planned_return_lph")
    # 32 mm pressure pipe has a bore of 27.2 mm; three elbows of K 0.9 lose 2.7 v^2/2g.
    speed = flow / 3.6e6 / (math.pi / 4 * 0.0272**2)
    assert lines[1].speed_m_s == pytest.approx(speed)
    assert lines[1].lost_head_m == pytest.approx(2.7 * speed**2 / 19.6133)
    # Returns that share a head and a level lose alike, and together pass what the run carries.
    assert lines[4].lost_head_m == pytest.approx(lines[5].lost_head_m, rel=1e-4)
    assert lines[4].flow_lph + lines[5].flow_lph == pytest.approx(flow)
    lost = sum(line.lost_head_m for line in lines[:5])
    assert hall.value("lift_head_m") + lost == pytest.approx(3.4 * (1 - (flow / 4000) ** 2), rel=1e-3)
    assert lines[6].lost_head_m is None
    assert build.pipework(sheet_of(tidal_corner(), shipped())) == ()


def test_lists_as_csv_and_spreadsheet(hall):
    rows = list(csv.DictReader(io.StringIO(tables.as_csv(tables.CUTS, tables.cut_rows(hall)))))
    assert rows[0]["width mm"] == "1830"
    book = load_workbook(io.BytesIO(tables.as_workbook(hall, build.system_quote(hall, {}))))
    assert book.sheetnames == ["Parts", "Cutting list"]
    assert book["Cutting list"].max_row == len(rows) + 1


@pytest.mark.parametrize("cell", ["=1+1", "+1", "-1", "@x", "\tx"])
def test_no_cell_runs_as_a_formula(cell):
    assert tables.harmless(cell) == "'" + cell


def test_cuts_as_dxf(hall):
    document = ezdxf.read(io.StringIO(tables.as_dxf(hall)))
    outlines = document.modelspace().query('LWPOLYLINE[layer=="PANES"]')
    assert len(outlines) == len(build.panes(hall))
    circles = document.modelspace().query("CIRCLE")
    assert sorted(circle.dxf.radius for circle in circles) == [25, 30]


def test_the_section_is_drawn_to_scale(hall):
    root = ET.fromstring(drawing.svg(drawing.section(hall, {})))
    text = [node.text for node in root.iter("{http://www.w3.org/2000/svg}text")]
    assert "180 cm" in text
    assert f"power off {hall.value('power_off_cm'):.1f} cm" in text
    assert f"holes clogged {hall.value('clogged_off_cm'):.1f} cm" in text
    water = next(root.iter("{http://www.w3.org/2000/svg}rect"))
    assert float(water.get("width")) == 180
    assert float(water.get("height")) == 52


def test_a_hostile_name_stays_words():
    from dataclasses import replace

    sheet = sheet_of(replace(long_hall(), name="<b>&=HYPERLINK()"), shipped())
    assert "<b>&=HYPERLINK()" in text_of(build_book(sheet, {}))


def test_prices_entered_for_the_house_stand_in_a_systems_book(hall):
    plan = replace(hall.root, building=replace(hall.root.building, build_h=10, hour_money=20, margin_frac=0.25))
    sheet = sheet_of(plan, shipped())
    (labelled, *_) = [line for line in build.parts(sheet) if line.spare == 1]
    quoted = build.system_quote(sheet, {labelled.label: 8.0})
    priced = 8 * (labelled.quantity + 1)
    assert quoted.parts_money == priced
    assert quoted.hours_money == 200
    assert quoted.whole_money == pytest.approx((priced + 200) * 1.25)
    text = text_of(build_book(sheet, {}, {labelled.label: 8.0}))
    assert f"({len(quoted.lines) - 1} without a price)" in text
    assert [row for row in tables.part_rows(quoted) if row[-1] != ""] == [
        (labelled.label, labelled.quantity, labelled.unit, 1, labelled.where, 8.0, priced)
    ]
