"""Plans that are designed: three to choose from, one that is settled, and variants beside it."""

import re

from playwright.sync_api import expect


def begin(page, server, *animals):
    page.goto(f"{server.url}/systems")
    page.get_by_role("button", name="New system").click()
    dialog = page.get_by_role("dialog")
    for found in animals:
        dialog.get_by_role("combobox", name="Add an animal").fill(found)
        dialog.get_by_role("option", name=re.compile(f"^{found}")).first.click()
    return dialog


def all_hold(page):
    for glass in page.get_by_role("list", name="Sight glasses").get_by_role("button").all():
        expect(glass).not_to_contain_text("short")


def test_six_discus_get_whole_plans_and_what_is_not_taken_stays(page, server):
    dialog = begin(page, server, "Discus")
    dialog.get_by_text("The room, the water, and what you want least of").click()
    dialog.get_by_label("Hottest day in the room, °C").fill("29")
    dialog.get_by_role("button", name="Propose plans").click()
    plans = (
        page.get_by_role("list", name="Plans proposed")
        .get_by_role("listitem")
        .filter(has=page.get_by_role("button", name="Start with this"))
    )
    expect(plans.first).to_contain_text("Nothing falls short.")
    count = plans.count()
    assert 2 <= count <= 3
    for words in ("Floor", "Work", "Power a year", "parts to buy", "else short: Litres for their size"):
        expect(plans.first).to_contain_text(words)
    expect(plans.first).to_contain_text(re.compile("Least room", re.IGNORECASE))
    plans.first.get_by_role("button", name="Start with this").click()
    expect(page.get_by_label("Name of this system")).to_have_value("Discus")
    all_hold(page)
    page.get_by_role("link", name="Variants").click()
    variants = page.get_by_role("list", name="Variants").get_by_role("listitem")
    expect(variants).to_have_count(count - 1)
    expect(variants.first).to_contain_text("Discus, least work")
    page.get_by_role("link", name="Heat").click()
    expect(page.get_by_label("Hottest day in the room")).to_have_value("29")


def test_a_slow_answer_is_said_and_can_be_stopped(page, server):
    dialog = begin(page, server, "Axolotl")
    page.route("**/api/plan/first", lambda route: page.wait_for_timeout(1) or None)
    dialog.get_by_role("button", name="Propose plans").click()
    expect(dialog.get_by_text("Trying tanks, filters and changes…")).to_be_visible()
    dialog.get_by_role("button", name="Stop").click()
    expect(dialog.get_by_role("button", name="Propose plans")).to_be_enabled()
    page.unroute("**/api/plan/first")
    dialog.get_by_role("button", name="Propose plans").click()
    expect(page.get_by_text(re.compile("a chiller of .* is in this plan")).first).to_be_visible()
    page.get_by_role("button", name="Back").click()
    expect(page.get_by_label("How many: Axolotl")).to_be_visible()


def test_what_no_water_suits_and_counts_of_none_are_said_and_nothing_is_lost(page, server):
    dialog = begin(page, server, "White cloud", "Discus")
    dialog.get_by_role("button", name="Propose plans").click()
    expect(dialog.get_by_role("alert")).to_contain_text(
        "No one water suits White cloud minnow and Discus: in temperature"
    )
    dialog.get_by_label("How many: Discus").fill("0")
    dialog.get_by_role("button", name="Propose plans").click()
    expect(dialog.get_by_role("alert").last).to_contain_text("1 to")
    expect(dialog.get_by_label(re.compile("How many: White cloud"))).to_be_visible()


def test_glass_that_is_there_is_fitted_out(page, server):
    dialog = begin(page, server)
    dialog.get_by_role("tab", name="From glass").click()
    for label, value in (("Length, cm", "150"), ("Width, front to back, cm", "60"), ("Height, cm", "55")):
        dialog.get_by_label(label).fill(value)
    dialog.get_by_role("combobox", name="Add an animal").fill("Angelfish")
    dialog.get_by_role("option", name=re.compile("^Angelfish")).first.click()
    dialog.get_by_role("button", name="Propose plans").click()
    page.get_by_role("button", name="Start with this").first.click()
    page.get_by_role("link", name="Tank").click()
    expect(page.get_by_label("Length", exact=True)).to_have_value("150")
    all_hold(page)


def settle(page):
    page.get_by_role("button", name="Settle it").first.click()
    dialog = page.get_by_role("dialog", name="Settle it")
    dialog.get_by_role("region", name="Changes").wait_for()
    return dialog


def test_rope_walk_is_settled_with_its_tank_pinned_and_undone_in_one_step(page, server, opened):
    opened(server.copy_of(3), "tank")
    dialog = settle(page)
    dialog.get_by_role("button", name="the tank stays").click()
    expect(dialog).to_contain_text("were it not for: these animals stay, or the tank stays")
    dialog.get_by_role("button", name="these animals stay").click()
    expect(dialog).to_contain_text("10 Golden pencilfish")
    expect(dialog).to_contain_text("With all of them nothing falls short.")
    # One of them off: what falls short without it is said.
    dialog.get_by_role("switch", name=re.compile("Lid")).click()
    expect(dialog.get_by_role("status").last).to_contain_text("None can leave")
    dialog.get_by_role("switch", name=re.compile("Lid")).click()
    dialog.get_by_role("button", name="Use all").click()
    all_hold(page)
    expect(page.get_by_role("button", name="Settle it")).to_have_count(0)
    expect(page.get_by_role("status").first).to_contain_text("revision 2, saved")
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_role("button", name="Settle it").first).to_be_visible()


def test_old_copper_is_settled_with_its_tank_pinned(page, server, opened):
    opened(server.copy_of(4), "flow")
    dialog = settle(page)
    dialog.get_by_role("button", name="the tank stays").click()
    expect(dialog).to_contain_text("Sump, length inside")
    expect(dialog).to_contain_text("mends Drain-down fits the sump")
    dialog.get_by_role("button", name="Use all").click()
    all_hold(page)


def test_hard_tap_water_is_settled_with_purified_water(page, server):
    """Discus changed with a tap of 18 degrees: three parts of purified water to one bring everything back."""
    wanted = {"name": "Discus", "animals": [{"species": "discus", "number": 6}]}
    plan = server.http.post("/api/plan/first", json=wanted).json()["proposals"][0]["plan"]
    tap = {"src_name": "Tap", "src_gh_dgh": 18, "src_kh_dkh": 12, "src_us_cm": 720, "src_nitrate_mg_l": 7.9}
    kept = server.http.post("/api/systems", json={"plan": {**plan, "sources": [tap]}})
    page.goto(f"{server.url}/systems/{kept.json()['id']}/animals")
    expect(page.get_by_role("region", name="Checks")).to_contain_text("It settles there from 9 dGH")
    dialog = settle(page)
    dialog.get_by_role("button", name="the waters and their mix stay").click()
    expect(dialog).to_contain_text("were it not for: the waters and their mix stay")
    dialog.get_by_role("button", name="the waters and their mix stay").click()
    changes = dialog.get_by_role("region", name="Changes")
    expect(changes).to_contain_text(re.compile("1 of Tap → 1 of Tap and 3 of Reverse osmosis"))
    expect(changes).to_contain_text("mends This water suits them")
    expect(dialog).to_contain_text("With all of them nothing falls short.")
    dialog.get_by_role("button", name="Use all").click()
    all_hold(page)
    page.get_by_role("link", name="Source").click()
    settles = page.locator("dd").filter(has=page.locator("[data-figure=settled_gh_dgh]"))
    expect(settles).to_contain_text("dGH")


def test_another_lid_on_hot_days_and_aired_change_water_are_counted(page, server):
    wanted = {"name": "Angels", "animals": [{"species": "angelfish", "number": 5}]}
    plan = server.http.post("/api/plan/first", json=wanted).json()["proposals"][0]["plan"]
    heat, water = {**plan["heat"], "lid": "glass", "hot_day_lid": "same"}, {**plan["water"], "aired": False}
    kept = server.http.post("/api/systems", json={"plan": {**plan, "heat": heat, "water": water}})
    page.goto(f"{server.url}/systems/{kept.json()['id']}/heat")
    page.get_by_role("textbox", name="Hottest day in the room").fill("29")
    check = page.locator("#check-summer_borne")
    expect(check).to_contain_text("With mesh for a lid on such days it would be")
    page.get_by_role("combobox", name="On hot days").click()
    page.get_by_role("option", name="mesh in its place").click()
    expect(check).to_contain_text("That is with mesh for the lid; with nobody there to put it on, it would be")
    page.get_by_role("link", name="Source").click()
    gas = page.locator("#check-gas_borne")
    expect(gas).to_contain_text("air it first")
    page.get_by_role("switch", name="Aired, or splashed over a column, before it goes in").click()
    expect(gas).to_contain_text("it leaves the tank at 100 % of the gas it holds")
    expect(page.get_by_role("region", name="Recipe card")).to_contain_text("air it before it goes in")


def test_a_fan_is_hung_where_the_hottest_day_asks_for_it(page, opened):
    opened(2, "heat")
    page.get_by_role("textbox", name="Hottest day in the room").fill("31")
    check = page.locator("#check-summer_borne")
    expect(check).to_contain_text("over")
    check.get_by_role("button", name="Use: Lid: Mesh, Fan over the surface: yes").click()
    expect(page.get_by_role("switch", name="Fan over the surface")).to_be_checked()
    expect(check).to_contain_text("neither it nor its cable can fall into the water")
    expect(check).to_contain_text("tight")
    page.get_by_role("textbox", name="Hottest day in the room").fill("32")
    expect(check).to_contain_text("With the cooling dead it would reach")
    expect(page.locator("dd [data-figure=fanned_w]")).to_contain_text("W")
    expect(page.get_by_role("img", name=re.compile("cooling dead, hottest day"))).to_be_visible()
    page.get_by_role("textbox", name="A fan moves air at").fill("0,4")
    expect(check).to_contain_text("A fan does little in sticky air")
    page.get_by_role("button", name="Undo").click()
    expect(check).not_to_contain_text("A fan does little in sticky air")


def test_any_input_can_be_pinned(page, server, opened):
    opened(server.copy_of(3), "tank")
    dialog = settle(page)
    dialog.get_by_role("combobox", name="Pin another input").click()
    page.get_by_role("option", name="Lid (heat)").click()
    expect(dialog.get_by_role("button", name="Lid", exact=True)).to_have_attribute("aria-pressed", "true")
    expect(dialog).to_contain_text("None can leave")
    expect(dialog).to_contain_text("were it not for: heat, lid")


def test_variants_side_by_side_and_either_adopted(page, server, opened):
    opened(server.copy_of(3), "variants")
    page.get_by_label("Name of the variant").fill("As built")
    page.get_by_role("button", name="Keep", exact=True).click()
    expect(page.get_by_text("Nothing: both are the same.")).to_be_visible()
    page.get_by_role("link", name="Tank").click()
    page.get_by_label("Length", exact=True).fill("120")
    page.get_by_role("link", name="Variants").click()
    beside = page.get_by_role("region", name="Beside As built")
    expect(beside).to_contain_text(re.compile("Tank, length: 120.cm"))
    expect(beside.get_by_role("table", name=re.compile("Glasses"))).to_contain_text("A: as it is")
    figures = beside.get_by_role("table", name=re.compile("Figures"))
    litres = figures.get_by_role("row", name=re.compile("^Real water"))
    cells = litres.get_by_role("cell").all_inner_texts()
    assert cells[0] != cells[1]
    assert cells[1].startswith("91.2")
    expect(figures.get_by_role("row", name=re.compile("^Kept at"))).to_have_count(0)
    beside.get_by_role("switch", name="Show all figures").click()
    assert figures.get_by_role("row").count() > 60
    page.get_by_role("button", name="Rename As built").click()
    page.get_by_label("New name of As built").fill("The old one")
    page.keyboard.press("Enter")
    page.get_by_role("button", name="Adopt The old one").click()
    expect(page.get_by_role("list", name="Variants").get_by_role("listitem")).to_have_count(2)
    page.get_by_role("link", name="Tank").click()
    expect(page.get_by_label("Length", exact=True)).to_have_value("60")
    page.get_by_role("link", name="Variants").click()
    # The page is laid out: what differs is told.
    expect(page.get_by_text("Nothing: both are the same.")).to_be_visible()
    page.wait_for_load_state("networkidle")
    with page.expect_response(lambda answer: answer.request.method == "DELETE"):
        page.get_by_role("button", name="Let The old one go").click()
    expect(page.get_by_role("list", name="Variants").get_by_role("listitem")).to_have_count(1)


def test_axe_finds_nothing_serious_in_proposals_settling_and_variants(page, server, opened, serious):
    dialog = begin(page, server, "Discus")
    dialog.get_by_role("button", name="Propose plans").click()
    page.get_by_role("button", name="Start with this").first.wait_for()
    assert serious() == []
    opened(3, "tank")
    settle(page)
    assert serious() == []
    page.keyboard.press("Escape")
    opened(3, "variants")
    assert serious() == []


def test_a_phone_shows_proposals_and_variants_without_sideways_scrolling(page, server, opened):
    page.set_viewport_size({"width": 390, "height": 844})
    dialog = begin(page, server, "Discus")
    dialog.get_by_role("button", name="Propose plans").click()
    page.get_by_role("button", name="Start with this").first.wait_for()
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
    opened(server.copy_of(3), "variants")
    page.get_by_role("button", name="Keep", exact=True).click()
    page.get_by_role("region", name=re.compile("Beside")).wait_for()
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
