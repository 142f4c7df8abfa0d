"""A room from the first rack to the first night: laid out, evened, timed, sent, broken, and found out."""

import re

import pytest
from playwright.sync_api import expect

from tests.e2e.acting import choose

STAGES = ["racks", "changer", "timetable", "tanks", "purified", "drain", "air", "hours", "parts", "controller"]


@pytest.fixture
def new_room(page, server):
    """An empty room's page."""
    troubles = []
    page.on("pageerror", lambda error: troubles.append(str(error)))
    page.goto(f"{server.url}/rooms")
    page.get_by_role("button", name="New room", exact=True).click()
    page.get_by_role("button", name="A rack of tanks").wait_for()
    yield page
    assert troubles == []


def stage(page, name):
    page.get_by_role("navigation", name="Stages").get_by_role("link", name=re.compile(f"^{name}")).click()
    page.get_by_role("heading", level=2, name=name, exact=True).wait_for()


def put_rack(page, name, like=None):
    page.get_by_role("button", name="A rack of tanks").click()
    dialog = page.get_by_role("dialog")
    dialog.get_by_label("Name").fill(name)
    if like:
        choose(page, "Each is one like", like, dialog)
    dialog.get_by_role("button", name="Put it on the wall").click()
    page.get_by_role("button", name=re.compile("^[A-Z]12: ")).wait_for()


def take_zones(page):
    stage(page, "Changer")
    page.get_by_role("button", name="Propose zones").click()
    page.get_by_role("button", name="Take these zones").click()
    page.get_by_role("navigation", name="Zones").wait_for()


def check(page, name):
    return page.get_by_role("region", name="Checks").get_by_role("listitem").filter(has_text=name)


def test_twelve_tanks_from_rack_to_parts(new_room):
    page = new_room
    put_rack(page, "Rope Walk C", "Rope Walk B, tank 3")
    expect(page.get_by_role("button", name="C12: by hand")).to_be_visible()
    take_zones(page)
    far = page.get_by_role("button", name=re.compile(r"^C12: [\d.]+ L.h, \d+ % exchanged"))
    expect(far).to_be_visible()
    even = check(page, "Even along each zone")
    expect(even).to_contain_text("holds")
    # A header no wider than its drops: the far tank falls short, and the ways out mend it.
    page.get_by_label("Its bore").first.fill("4")
    expect(even).to_contain_text("short by")
    trials = page.get_by_role("region", name=re.compile("What else it could be"))
    expect(trials.get_by_role("row", name=re.compile("header of 9 mm"))).to_be_visible()
    even.get_by_role("button", name=re.compile("Use: Its bore.*: 9 mm|Use: Its bore.*: 13 mm")).first.click()
    expect(even).not_to_contain_text("short by")
    page.keyboard.press("Escape")
    stage(page, "Timetable")
    expect(page.get_by_role("img", name=re.compile(r"A winter day: \d+ starts"))).to_be_visible()
    stage(page, "Tanks")
    expect(page.get_by_role("table").get_by_role("row")).to_have_count(13)
    stage(page, "Parts")
    expect(page.get_by_role("row", name=re.compile("Emitter, 40 L.h at 100 kPa"))).to_contain_text("12")
    expect(page.get_by_role("region", name="Taking it into use")).to_contain_text("licensed person")
    expect(page.get_by_role("button", name="Print")).to_be_visible()
    page.get_by_label("Price of one: Strainer").fill("12.5")
    expect(page.get_by_role("row", name=re.compile("^Strainer")).get_by_role("cell").last).to_have_text("25")
    with page.expect_download() as download:
        page.get_by_role("button", name="Room book, PDF").click()
    assert download.value.suggested_filename == "New room, book.pdf"


def test_a_fault_is_switched_on_found_and_in_the_log(new_room):
    page = new_room
    put_rack(page, "Rope Walk C", "Rope Walk B, tank 3")
    take_zones(page)
    expect(page.get_by_role("status").first).to_contain_text(re.compile("revision [2-9], saved"))
    stage(page, "Controller")
    page.get_by_role("button", name="Send the winter day").click()
    expect(page.get_by_role("main")).to_contain_text("read back and the same")
    page.get_by_role("switch", name="a zone valve does not open").click()
    page.get_by_role("button", name="Let a day pass").click()
    speaks = page.get_by_role("region", name="What the last day’s litres speak for")
    expect(speaks).to_contain_text("does not open")
    expect(page.get_by_role("table", name=re.compile("Runs"))).to_contain_text("0 L")
    page.get_by_role("switch", name="a zone valve does not open").click()
    page.get_by_role("button", name="Let a day pass").click()
    expect(speaks).to_contain_text("Nothing is wrong")
    page.goto(re.sub(r"/rooms/.*", "/systems/3/log", page.url))
    expect(page.get_by_role("region", name="Entries")).to_contain_text("changer, Rope Walk C")


def test_a_zone_is_fed_from_a_pumped_reservoir(new_room):
    page = new_room
    put_rack(page, "Wall")
    take_zones(page)
    choose(page, "Fed from", "the reservoir")
    # It holds nothing yet: said where it is typed, with a value that works.
    expect(page.get_by_text("Zone 1 is fed from it: it holds nothing.").first).to_be_visible()
    page.get_by_role("button", name=re.compile("Set Reservoir to 100")).first.click()
    expect(check(page, "The pump lifts it")).to_contain_text("holds")
    stage(page, "Timetable")
    expect(page.get_by_role("img", name=re.compile("A winter day: .*the reservoir store falls to"))).to_be_visible()
    lasts = check(page, "The reservoir lasts the day")
    expect(lasts).to_contain_text("holds")
    page.get_by_label("Refilled at most with").fill("1")
    expect(lasts).to_contain_text("no such day")
    page.keyboard.press("Control+z")
    stage(page, "Parts")
    expect(page.get_by_role("row", name=re.compile("Low-level switch"))).to_be_visible()


def test_prices_entered_in_a_room_stand_in_a_systems_quote(new_room):
    page = new_room
    put_rack(page, "Wall")
    take_zones(page)
    stage(page, "Parts")
    guard = "Price of one: Residual-current device, 30 mA, in front of everything"
    page.get_by_label(guard).fill("35")
    whole = page.get_by_role("row", name=re.compile("^Residual-current")).get_by_role("cell").last
    expect(whole).to_have_text("35")
    page.goto(re.sub(r"/rooms/.*", "/systems/3/tank", page.url))
    page.get_by_role("button", name="Build: book, drawings, lists").click()
    page.get_by_role("menuitem", name="Parts, prices and a quote").click()
    dialog = page.get_by_role("dialog")
    expect(dialog.get_by_label(guard)).to_have_value("35")
    expect(dialog.get_by_role("status")).to_contain_text("without a price")
    dialog.get_by_label("Hours to build it").fill("10")
    expect(dialog.get_by_role("status")).to_contain_text("hours 120")
    dialog.get_by_label(guard).fill("nothing")
    expect(dialog.get_by_label(guard)).to_have_attribute("aria-invalid", "true")


def test_a_tank_is_picked_by_keyboard_and_moved_by_hand(new_room):
    page = new_room
    put_rack(page, "Wall")
    tank = page.get_by_role("button", name=re.compile("^W3: "))
    tank.focus()
    page.keyboard.press("Enter")
    picked = page.get_by_role("region", name="Tank W3")
    picked.get_by_role("textbox", name="Place, from the left").fill("1")
    # Somebody stands there already: the nearest free place is offered.
    offer = page.get_by_role("button", name=re.compile("Set Place, from the left to 3"))
    expect(offer.first).to_be_visible()
    offer.first.click()
    expect(picked.get_by_role("textbox", name="Place, from the left")).to_have_value("3")
    expect(page.get_by_text("to mend before this can be computed")).to_have_count(0)


def test_what_is_wrong_keeps_the_last_figures_and_undo_brings_back(new_room):
    page = new_room
    put_rack(page, "Wall")
    stage(page, "Timetable")
    page.get_by_label("to", exact=True).first.fill("0")
    expect(page.get_by_text("The figures are the last good ones.")).to_be_visible()
    page.get_by_label("to", exact=True).first.fill("6")
    expect(page.get_by_text("The figures are the last good ones.")).to_have_count(0)
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_label("to", exact=True).first).to_have_value("7")


def test_a_figure_opens_to_its_working(page, server):
    page.goto(f"{server.url}/rooms/7/timetable")
    page.locator("[data-figure=winter_recovery_lph]").first.click()
    slip = page.get_by_role("complementary")
    expect(slip).to_contain_text("4186")


@pytest.mark.parametrize("theme", ["light", "dark"])
@pytest.mark.parametrize("name", STAGES)
def test_axe_finds_nothing_serious_in_a_room(page, server, serious, name, theme):
    page.goto(f"{server.url}/rooms/7/{name}")
    page.get_by_role("heading", level=2).first.wait_for()
    page.evaluate("theme => { document.documentElement.dataset.theme = theme }", theme)
    assert serious() == []


@pytest.mark.parametrize("name", STAGES)
def test_a_room_fits_a_phone(page, server, name):
    page.set_viewport_size({"width": 390, "height": 844})
    page.goto(f"{server.url}/rooms/7/{name}")
    page.get_by_role("list", name="Sight glasses").wait_for()
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
