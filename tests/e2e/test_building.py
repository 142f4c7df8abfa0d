"""From nothing to a sump system and its printed book, in the browser."""

import io
import re

import pytest
from playwright.sync_api import expect
from pypdf import PdfReader

from tests.e2e.acting import choose


def figure(page, name):
    return page.locator(f"dd [data-figure={name}]")


def glass(page, label):
    return page.get_by_role("list", name="Sight glasses").get_by_role("button", name=label)


def drawn(page, title):
    """Parts of the section by their title."""
    return page.locator("svg title").filter(has_text=re.compile(f"^{title}, "))


def test_a_sump_system_from_nothing_to_a_printed_book(page, opened, tmp_path):
    opened(2, "flow")
    expect(page.get_by_text("No overflow and no sump")).to_be_visible()
    page.get_by_role("button", name="A weir box and a sump").click()
    expect(figure(page, "return_lph")).to_be_visible()
    # A first sump holds as it is proposed, and its run is drawn part by part.
    expect(glass(page, "Drain-down")).to_contain_text("holds")
    expect(drawn(page, "3 × 90° elbow")).to_have_count(1)
    expect(page.get_by_role("img", name=re.compile("^The pump moves"))).to_be_visible()
    before = figure(page, "return_lph").inner_text()
    # Parts along the run: one more pipe, and the flow falls.
    run = page.get_by_role("region", name="Along the run")
    run.get_by_role("button", name="add a part").click()
    run.get_by_label("How many of part 4").fill("9")
    expect(drawn(page, "9 × 90° elbow")).to_have_count(1)
    expect(figure(page, "return_lph")).not_to_have_text(before)
    # A pump from the library, and a second return.
    choose(page, "Pump from the library", "Return pump, 1000 L/h", exact=False)
    page.get_by_role("region", name="Returns").get_by_role("button", name="add a return").click()
    expect(page.get_by_label("Depth of return 2")).to_have_value("2")
    table = page.get_by_role("table", name="The overflow when the flow changes")
    expect(table.get_by_role("row", name=re.compile("^double"))).to_be_visible()
    expect(glass(page, "Drain-down")).to_be_visible()
    expect(page.get_by_text(", saved")).to_be_visible()
    # The book.
    level = figure(page, "power_off_cm").inner_text()
    page.get_by_role("button", name="Build: book, drawings, lists").click()
    with page.expect_download() as started:
        page.get_by_role("menuitem", name="Build book, PDF").click()
    target = tmp_path / "book.pdf"
    started.value.save_as(target)
    text = " ".join(" ".join(p.extract_text() for p in PdfReader(io.BytesIO(target.read_bytes())).pages).split())
    number = re.search(r"[\d.]+", level).group()
    assert f"the sump ends at {number} cm" in text
    assert "Tidal Corner" in text


def test_a_baffle_is_moved_by_keys_and_by_dragging(page, opened, server):
    copy = opened(1, "flow")
    slider = page.get_by_role("slider", name="Baffle after chamber 2")
    expect(slider).to_have_attribute("aria-valuenow", "28")
    slider.focus()
    page.keyboard.press("ArrowUp")
    expect(page.get_by_label("Baffle of chamber 2")).to_have_value("28.5")
    box = slider.bounding_box()
    page.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] * 0.36)
    page.mouse.down()
    page.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] * 0.5, steps=5)
    page.mouse.up()
    expect(page.get_by_label("Baffle of chamber 2")).to_have_value(re.compile(r"^2[12](\.5)?$"))
    expect(page.get_by_text(", saved")).to_be_visible()
    assert server.plan(copy)["chambers"][1]["baffle_cm"] == pytest.approx(22, abs=0.6)


def test_drain_down_falls_short_and_the_remedy_mends_it(page, opened):
    opened(4, "flow")
    expect(glass(page, "Drain-down")).to_contain_text("short")
    check = page.locator("#check-drain_down_fits")
    expect(check).to_contain_text("come down")
    check.get_by_role("button", name=re.compile("^Use: Length inside")).click()
    expect(glass(page, "Drain-down")).not_to_contain_text("short")


def test_what_can_not_be_built_is_told_where_it_is(page, opened):
    opened(1, "flow")
    page.get_by_label("Baffle of chamber 1").fill("60")
    expect(page.get_by_role("alert")).to_contain_text("This baffle is as high as the sump: at most 43")
    expect(page.locator("[data-wrong='chambers.0.baffle_cm']")).to_be_visible()
    page.get_by_role("button", name="Set Baffle to 43 cm").click()
    expect(page.get_by_label("Baffle of chamber 1")).to_have_value("43")
    expect(page.get_by_role("alert")).to_have_count(0)
    expect(page.locator("[data-wrong]")).to_have_count(0)
    page.get_by_label("Lifts at most").fill("0.9")
    expect(page.locator("#check-pump_reaches")).to_contain_text("short by")


def test_what_is_wrong_on_another_stage_is_told_with_its_way_out(page, opened):
    opened(1, "tank")
    page.get_by_role("switch", name="Toughened").click()
    expect(page.get_by_text(", saved")).to_be_visible()
    page.get_by_role("link", name="Flow").click()
    choose(page, "Water leaves by", "drilled holes to a sump")
    expect(page.get_by_text("A toughened pane can not be drilled")).to_be_visible()
    expect(page.locator("[data-wrong='tank.toughened']")).to_be_visible()
    page.get_by_role("button", name=re.compile("^Set .* to .*: no$")).click()
    expect(page.get_by_text("The figures are the last good ones.")).to_have_count(0)
    expect(page.get_by_label("Holes in a row")).to_have_value("2")


def test_a_sump_is_asked_how_small_it_may_be_and_how_deep_its_returns_reach(page, opened):
    opened(1, "flow")
    page.get_by_role("button", name="Smallest sump that holds?").click()
    use = page.get_by_role("button", name=re.compile("^Use: .* of sump hold"))
    length = re.search(r"\d+", use.get_attribute("aria-label")).group()
    use.click()
    expect(page.get_by_label("Length inside").last).to_have_value(length)
    expect(glass(page, "Drain-down")).not_to_contain_text("short")
    expect(use).to_have_count(0)
    page.get_by_role("button", name="How deep may the returns reach?").click()
    page.get_by_role("button", name=re.compile("^Use: Returns at most")).click()
    expect(page.get_by_label("Depth of return 1")).not_to_have_value("2")
    depths = [page.get_by_label(f"Depth of return {n}").input_value() for n in (1, 2)]
    assert depths[0] == depths[1]
    expect(glass(page, "Drain-down")).not_to_contain_text("short")


def test_a_pump_by_the_points_of_its_curve(page, opened):
    opened(1, "flow")
    before = figure(page, "return_lph").first.inner_text()
    choose(page, "Pump curve by", "points of its curve")
    expect(page.get_by_label("Lift at point 1")).to_have_value("3.4")
    page.get_by_role("button", name="add a point").click()
    expect(page.get_by_label("Flow at point 4")).to_be_visible()
    page.get_by_label("Lift at point 2").fill("1.9")
    expect(figure(page, "return_lph").first).not_to_have_text(before)
    page.get_by_role("button", name="Take out point 4").click()
    expect(page.get_by_label("Flow at point 4")).to_have_count(0)
    page.get_by_label("Lift at point 3").fill("3")
    expect(page.get_by_role("alert")).to_contain_text("A pump's curve starts at no flow and falls")
    expect(page.locator("[data-wrong='flow.curve_lph']")).to_be_visible()
    page.get_by_label("Lift at point 3").fill("1")
    expect(page.get_by_role("alert")).to_have_count(0)
    choose(page, "Kind of chamber 5", "media")
    expect(page.get_by_role("alert").first).to_contain_text("A sump has one return chamber, last in the flow.")


def test_without_a_sump_the_filters_move_the_water(page, opened):
    opened(2, "flow")
    before = figure(page, "turnover_per_h").inner_text()
    choose(page, "Add a filter", "Hang-on, 900 L/h", exact=False)
    expect(page.get_by_role("combobox", name="Kind of filter 2")).to_have_text("Hang-on")
    expect(figure(page, "turnover_per_h")).not_to_have_text(before)


def test_measured_against_planned(page, opened):
    opened(1, "flow")
    planned = figure(page, "planned_return_lph").inner_text()
    page.get_by_label("Measured flow of the return").fill("2400")
    expect(figure(page, "return_lph").first).to_have_text(re.compile(r"2\s400"))
    expect(figure(page, "planned_return_lph")).to_have_text(planned)


def test_parts_of_the_section_open_their_stage_by_keyboard(page, opened):
    opened(1, "flow")
    page.get_by_role("button", name="Animals, full grown, to scale: open its stage").focus()
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", name="Animals", level=2)).to_be_visible()


def test_a_failure_is_drawn_hour_by_hour(page, opened):
    opened(3, "heat")
    expect(page.get_by_role("img", name=re.compile("one stuck on, hottest day: .* after two days"))).to_be_visible()
    page.get_by_label("Others on the circuit").fill("5000")
    expect(page.locator("#check-circuit_carries")).to_contain_text("over")
