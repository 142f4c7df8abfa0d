"""The five stages: what is entered, and what follows from it on the page."""

import re

import pytest
from playwright.sync_api import expect

from tests.e2e.acting import choose


def figure(page, name):
    return page.locator(f"dd [data-figure={name}]")


def glass(page, label):
    return page.get_by_role("list", name="Sight glasses").get_by_role("button", name=label)


def test_animals_are_picked_counted_fed_and_checked(page, opened):
    opened(2, "animals")
    page.get_by_role("combobox", name="Add an animal").fill("neocaridina")
    page.get_by_role("option", name="Cherry shrimp").click()
    shrimp = page.get_by_role("listitem", name="Cherry shrimp")
    expect(shrimp.get_by_label("How many: Cherry shrimp")).to_have_value("10")
    # Shrimp want nearly no salt: it is said at the check, and animal by animal.
    checks = page.get_by_role("region", name="Checks")
    expect(checks.get_by_role("listitem").filter(has_text="This water suits them")).to_contain_text("to settle")
    page.get_by_text("Each in this water").click()
    expect(page.get_by_text("Cherry shrimp, salinity: 4").last).to_be_visible()
    # Feeding by weight overrides the estimate.
    choose(page, "Feeding: Cherry shrimp", "weighed", within=shrimp, exact=False)
    before = figure(page, "load_full_mg_d").inner_text()
    shrimp.get_by_label("Food: Cherry shrimp", exact=True).fill("5")
    expect(figure(page, "load_full_mg_d")).not_to_have_text(before)
    shrimp.get_by_role("button", name="Take out Cherry shrimp").click()
    expect(shrimp).to_have_count(0)


def test_the_schools_stand_side_by_side(page, opened):
    opened(1, "animals")
    table = page.get_by_role("table")
    for school in ("Balance", "Volume", "Length", "Surface", "Crowd", "Group"):
        expect(table.get_by_role("rowheader", name=re.compile(f"^{school}"))).to_be_visible()
    expect(table.get_by_role("row", name=re.compile("Balance"))).to_contain_text("decides")
    # A keeper who crowds on purpose goes by another school; balance stays shown.
    choose(page, "The school that decides", "volume")
    expect(table.get_by_role("row", name=re.compile("^Volume"))).to_contain_text("decides")
    # One that does not apply to these animals decides nothing.
    choose(page, "The school that decides", "crowd")
    expect(table.get_by_role("row", name=re.compile("^Balance"))).to_contain_text("decides")
    expect(table.get_by_role("row", name=re.compile("^Balance"))).to_contain_text("50")


def test_what_fits_here_is_asked_and_taken(page, opened):
    opened(2, "animals")
    fits = page.get_by_role("region", name="What fits here")
    fits.get_by_role("button", name="What fits here?").click()
    expect(fits).to_contain_text(re.compile(r"\d+ kinds fit\."), timeout=60_000)
    # Low-salinity water keeps most of the library out.
    expect(fits).to_contain_text(re.compile(r"this water suits them \d{3}"))
    fits.get_by_text(re.compile("^Fish of the bottom")).click()
    first = fits.get_by_role("button", name=re.compile("^Add ")).first
    name = first.get_attribute("aria-label").split(" ", 2)[2]
    first.click()
    expect(page.get_by_role("list", name="Animals aboard").get_by_role("listitem", name=name)).to_be_visible()
    expect(fits).to_contain_text("The plan has changed since")
    # What is proposed itself holds.
    expect(page.get_by_role("region", name="Checks")).to_be_visible()
    expect(glass(page, "Waste")).not_to_contain_text("short")


def test_plants_and_other_beds_are_rows(page, opened):
    opened(2, "tank")
    page.get_by_role("button", name="add a plant").click()
    plants = page.get_by_role("region", name="Plants")
    choose(page, "Plant 1", "Red sword")
    # What does not bear the salt says so at its row.
    expect(plants).to_contain_text(re.compile("salt: 4"))
    choose(page, "Plant 1", "Red mangrove")
    expect(plants).not_to_contain_text("salt:")
    before = figure(page, "bed_volume_l").inner_text()
    page.get_by_role("button", name="add another bed on a part of the floor").click()
    page.get_by_label("Back of part 1").fill("12")
    expect(figure(page, "bed_volume_l")).not_to_have_text(before)
    page.get_by_label("Part 1 of the floor", exact=True).fill("50")
    page.get_by_role("button", name="Take out part 1 of the floor").click()
    expect(figure(page, "bed_volume_l")).to_have_text(before)


def test_lamps_are_rows_and_a_glass_lid_stops_ultraviolet_b(page, opened):
    opened(1, "animals")
    page.get_by_role("combobox", name="Add an animal").fill("painted turtle")
    page.get_by_role("option", name="Painted turtle", exact=False).first.click()
    page.get_by_role("link", name="Heat and light").click()
    checks = page.get_by_role("region", name="Checks")
    light = checks.get_by_role("listitem").filter(has_text="Ultraviolet-B reaches them")
    expect(light).to_contain_text("no ultraviolet-B lamp")
    page.get_by_role("button", name="add a lamp").click()
    choose(page, "Lamp 2 is for", "ultraviolet-B")
    expect(light).to_contain_text("glass")
    choose(page, "Lid", "Mesh")
    expect(light).not_to_contain_text("through glass")
    page.get_by_label("Height of lamp 2 above the back").fill("20")
    # The maker's 5 at 20 cm, of which mesh passes 65 %.
    expect(figure(page, "given_uvi").first).to_have_text(re.compile("3.2|3.3"))


def test_the_tank_follows_every_keystroke(page, opened):
    opened(1, "tank")
    box = page.get_by_label("Length", exact=True)
    volume = figure(page, "real_volume_l")
    expect(volume).to_have_text(re.compile("618"))
    section = page.get_by_role("group", name=re.compile("^Section of the tank"))
    box.fill("200")
    # 20 cm more of 55 x 52 cm water, less 0.6 of 55 x 4.5 cm of sand: 54.2 L.
    expect(volume).to_have_text(re.compile("672"))
    expect(section).to_have_attribute("aria-label", re.compile("200"))
    expect(page.get_by_text("revision 2, saved")).to_be_visible()


def test_a_shape_asks_for_its_own_measures(page, opened):
    opened(2, "tank")
    choose(page, "Shape", "cylinder", exact=False)
    expect(page.get_by_label("Diameter")).to_have_value("90")
    # A cylinder of 90 cm: pi/4 x 0.81 m2.
    expect(figure(page, "footprint_m2")).to_have_text(re.compile(r"0\.64"))
    expect(page.get_by_text("A curved pane carries its load as a hoop").first).to_be_visible()


def test_the_filter_is_what_it_really_moves(page, opened):
    opened(2, "filter")
    expect(figure(page, "total_flow_lph")).to_have_text(re.compile("650"))
    page.get_by_label("Measured flow").fill("400")
    expect(figure(page, "total_flow_lph")).to_have_text(re.compile("400"))
    # Two and a half turns where four are usual leave no corner still; one and a half do.
    expect(glass(page, "Flow")).to_contain_text("tight")
    page.get_by_label("Measured flow").fill("240")
    expect(glass(page, "Flow")).to_contain_text("short")
    page.get_by_label("Measured flow").fill("400")
    choose(page, "Add a filter", "Air-driven sponge, 300 L/h", exact=False)
    expect(figure(page, "total_flow_lph")).to_have_text(re.compile("640"))
    page.get_by_role("button", name="Take out filter 1").click()
    expect(figure(page, "total_flow_lph")).to_have_text(re.compile("240"))


def test_heat_plans_two_heaters_and_tries_their_failures(page, opened):
    opened(3, "heat")
    expect(figure(page, "heater_count")).to_have_text("2")
    held = (
        page.get_by_role("region", name="Checks")
        .get_by_role("listitem")
        .filter(has_text="All heaters hold the coldest night")
    )
    expect(held).to_contain_text("residual-current device")
    page.get_by_label("Heaters fitted").fill("2")
    page.get_by_label("Each fitted heater").fill("10")
    expect(glass(page, "Heat")).to_contain_text("short")
    held.get_by_role("button", name=re.compile("^Use: Each fitted heater")).click()
    expect(held).not_to_contain_text("short by")
    page.get_by_role("switch", name="Room by month").click()
    before = figure(page, "heating_kwh").inner_text()
    page.get_by_label("Room in Jan").fill("8")
    expect(figure(page, "heating_kwh")).not_to_have_text(before)


def test_changes_settle_and_the_least_regime_holds(page, opened):
    opened(3, "changes")
    expect(page.get_by_role("img", name=re.compile("Nitrate over eight settled weeks"))).to_be_visible()
    expect(glass(page, "Nitrate")).to_contain_text("short")
    page.get_by_role("button", name="Use the least regime").click()
    expect(glass(page, "Nitrate")).not_to_contain_text("short")
    page.get_by_role("link", name="Source").click()
    page.get_by_label("Nitrate of the change water").fill("45")
    page.get_by_role("link", name="Changes").click()
    expect(page.get_by_text("No regime holds this limit with this water")).to_be_visible()
    days = page.get_by_role("group", name="Days of change").get_by_role("button", pressed=True)
    for left in reversed(range(days.count())):
        days.first.click()
        expect(days).to_have_count(left)
    expect(page.get_by_text("No day is chosen").first).to_be_visible()


def test_animals_are_looked_at_young_and_the_tank_is_outgrown(page, opened):
    opened(2, "animals")
    page.get_by_role("combobox", name="Add an animal").fill("frontosa")
    page.get_by_role("option", name=re.compile("^Frontosa")).click()
    row = page.get_by_role("listitem", name="Frontosa", exact=True)
    choose(page, "Size today: Frontosa", "measured", within=row, exact=False)
    row.get_by_label("Length today: Frontosa").fill("5")
    expect(page.get_by_text(re.compile("^Outgrown in"))).to_be_visible()
    # 5 frontosa of 30 cm want 350 L at least; at 5 cm they want far less, and figures follow.
    expect(glass(page, "Space")).to_contain_text("short")
    page.get_by_role("button", name="at today’s size").click()
    expect(glass(page, "Space")).not_to_contain_text("short")
    expect(page.get_by_role("status").first).to_contain_text("animals at today’s size")
    page.get_by_role("textbox", name="Months ahead").fill("60")
    expect(glass(page, "Space")).to_contain_text("short")
    expect(page.get_by_text(re.compile("animals in 60"))).to_be_visible()


def test_oxygen_follows_air_and_power(page, opened):
    opened(1, "heat")
    # A range is shown where the truth is one.
    dawn = page.locator("dd", has=page.locator("[data-figure=hot_dawn_oxygen_mg_l]"))
    expect(dawn).to_contain_text(re.compile(r"\(\d.* to \d.*\)"))
    expect(page.get_by_text(re.compile("With all power off oxygen sinks to"))).to_be_visible()
    choose(page, "Surface", "still")
    page.get_by_label("Returning water falls").fill("0")
    expect(glass(page, "Oxygen")).to_contain_text("short")
    check = page.get_by_role("listitem").filter(has_text="At night")
    check.get_by_role("button", name=re.compile("^Use: Air through stones")).click()
    expect(glass(page, "Oxygen")).not_to_contain_text("short")


def test_the_reserve_of_soft_change_water_is_told(page, opened):
    opened(1, "source")
    page.get_by_label("KH of the change water").fill("0,6")
    expect(glass(page, "Buffer")).to_contain_text("short")


def test_a_slip_of_the_hydrometer_is_asked_about(page, opened):
    opened(2, "source")
    choose(page, "Salinity", "by hydrometer", exact=False)
    page.get_by_label("Hydrometer reads").fill("1.06")
    expect(page.get_by_role("alert")).to_contain_text("a slip of the decimal, 1.006 perhaps?")
    page.get_by_role("button", name="Set Hydrometer reads to 1.006").click()
    expect(page.get_by_role("textbox", name="Hydrometer reads")).to_have_value("1.006")
    expect(page.get_by_role("alert")).to_have_count(0)


@pytest.mark.parametrize(
    ("stage", "label", "typed", "told"),
    [
        ("tank", "Length", "1e9", "Length is above what is possible here: 10 cm to 1 000 cm."),
        ("tank", "Pane", "abc", "“abc” is not a number: 2 mm to 60 mm."),
        ("tank", "Height", "", "Height is empty: 10 cm to 200 cm."),
        ("heat", "Kept at", "80", "Kept at is above what is possible here: 4 °C to 36 °C."),
        ("tank", "Bed at the back", "50", "The bed would rise above the water, which stands 42 cm high. set 41 cm"),
    ],
)
def test_bad_input_is_told_beside_the_field(page, opened, stage, label, typed, told):
    copy = opened(2, stage)
    field = page.get_by_label(label, exact=True)
    good = field.input_value()
    shown = page.get_by_role("main").locator("dd").first.inner_text()
    field.fill(typed)
    alert = page.get_by_role("alert")
    expect(alert).to_be_visible()
    assert re.sub(r"\s", " ", alert.inner_text()) == told
    expect(field).to_have_attribute("aria-invalid", "true")
    expect(page.get_by_text("not saved: something to mend")).to_be_visible()
    expect(page.get_by_text("The figures are the last good ones.")).to_be_visible()
    assert page.get_by_role("main").locator("dd").first.inner_text() == shown
    assert field.input_value() == typed
    field.fill(good.replace(".", ","))
    expect(page.get_by_text(", saved")).to_be_visible()
    expect(alert).to_have_count(0)
    assert copy
