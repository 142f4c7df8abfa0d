"""Waters, recipes, regimes and arrivals, as keepers do them."""

import re

from playwright.sync_api import expect

from tests.e2e.acting import choose


def figure(page, name):
    return page.locator(f"dd [data-figure={name}]").first


def glass(page, label):
    return page.get_by_role("list", name="Sight glasses").get_by_role("button", name=label)


def test_waters_are_entered_read_and_asked_for(page, server, serious):
    page.goto(f"{server.url}/waters")
    waters = page.get_by_role("list", name="Waters")
    expect(waters.get_by_role("listitem", name="Rain tank")).to_be_visible()
    page.get_by_role("button", name="New water").click()
    dialog = page.get_by_role("dialog")
    dialog.get_by_label("Name").fill("Courtyard well")
    dialog.get_by_label("GH").fill("999")
    dialog.get_by_role("button", name="Save").click()
    expect(dialog.get_by_role("alert")).to_contain_text("GH is above what is possible here")
    dialog.get_by_label("GH").fill("14")
    dialog.get_by_label("pH of the test").fill("9,6")
    assert serious() == []
    dialog.get_by_role("button", name="Save").click()
    well = waters.get_by_role("listitem", name="Courtyard well")
    expect(well).to_contain_text("more than KH")
    page.get_by_role("button", name="From a report").click()
    dialog.get_by_role("textbox", name="Report").fill("name,Upland\nnitrate,lots,mg/L N")
    dialog.get_by_role("button", name="Read it").click()
    expect(dialog.get_by_role("alert")).to_contain_text("Line 2, column 9: “lots” is not a number")
    dialog.get_by_role("textbox", name="Report").fill("name,Upland\nnitrate,2,mg/L N")
    dialog.get_by_role("button", name="Read it").click()
    expect(waters.get_by_role("listitem", name="Upland")).to_be_visible()
    choose(page, "Ask the report service", "Fell End, upland reservoir")
    expect(waters.get_by_role("listitem", name="Fell End tap")).to_be_visible()
    for name in ("Courtyard well", "Upland", "Fell End tap"):
        page.get_by_role("button", name=f"More for {name}").click()
        page.get_by_role("menuitem", name="Delete").click()
        expect(waters.get_by_role("listitem", name=name)).to_have_count(0)
    page.get_by_role("button", name="Undo").click()
    expect(waters.get_by_role("listitem", name="Fell End tap")).to_be_visible()
    page.get_by_role("button", name="More for Fell End tap").click()
    page.get_by_role("menuitem", name="Delete").click()
    assert serious() == []


def test_a_shrimp_keepers_osmosis_recipe(page, opened):
    opened(5, "source")
    card = page.get_by_role("region", name="Recipe card")
    expect(card).to_contain_text("of Reverse osmosis")
    expect(card).to_contain_text("g of calcium chloride dihydrate")
    before = figure(page, "calcium_g").inner_text()
    page.get_by_label("GH wanted").fill("6")
    expect(figure(page, "calcium_g")).not_to_have_text(before)
    page.get_by_label("GH wanted").fill("0")
    expect(page.locator("#check-hardness_reached")).to_contain_text("reached")


def test_a_hard_water_keepers_buffer(page, opened):
    opened(2, "source")
    choose(page, "Add a water", "Rain tank")
    page.get_by_label("KH wanted").fill("10")
    expect(figure(page, "new_kh_dkh")).to_have_text(re.compile("^10"))
    expect(page.get_by_role("region", name="Recipe card")).to_contain_text("g of sodium bicarbonate")
    # Rain is soft: coral sand is the slow way, and its ceiling is told.
    expect(figure(page, "coral_dkh")).to_be_visible()
    page.get_by_label("KH wanted").fill("0.2")
    expect(figure(page, "new_kh_dkh")).to_have_text(re.compile("^0.3"))
    expect(page.locator("#check-hardness_reached")).to_contain_text("reached")


def test_a_blend_to_a_target(page, opened):
    opened(2, "source")
    choose(page, "Add a water", "Marrow Bridge tap")
    choose(page, "Add a water", "Rain tank")
    page.get_by_label("GH wanted").fill("3")
    check = page.locator("#check-hardness_reached")
    expect(check).to_contain_text("too hard")
    # Softened so far, too little carbonate would be left: other parts are offered once that is weighed in.
    expect(check.get_by_role("button", name=re.compile("^Use: GH wanted"))).to_be_visible()
    expect(check.get_by_role("button", name=re.compile("^Use: Parts in the mix"))).to_have_count(0)
    page.get_by_label("KH wanted").fill("5")
    check.get_by_role("button", name=re.compile("^Use: Parts in the mix")).first.click()
    expect(check).to_contain_text("reached")


def test_the_recipe_card_prints_alone(page, opened):
    opened(5, "source")
    page.emulate_media(media="print")
    card = page.get_by_role("region", name="Recipe card")
    expect(card).to_contain_text("Bottle Shelf, tank 2")
    expect(card.get_by_text("Bottle Shelf, tank 2")).to_be_visible()
    for hidden in (page.get_by_role("heading", name="Source"), page.get_by_role("button", name="print")):
        expect(hidden).not_to_be_visible()
    assert len(page.pdf()) > 5_000


def test_a_move_to_low_salinity_day_by_day(page, opened):
    opened(2, "source")
    page.get_by_label("Move to a salinity of").fill("6")
    table = page.get_by_role("table", name=re.compile("The move, day by day"))
    expect(table.get_by_role("row")).to_have_count(3)
    expect(table).to_contain_text("of salt")


def test_a_chloraminated_tap_by_every_way(page, opened):
    opened(1, "source")
    # 30 % of 618 L at 25 mL for 100 L, twice for chloramine, 1.1 times for 1.6 mg/L at 1.5 a dose.
    expect(figure(page, "dose_ml")).to_have_text(re.compile("102"))
    choose(page, "Treated", "conditioner in the tank, then refilled")
    expect(figure(page, "dose_ml")).to_have_text(re.compile("309"))
    treated = page.locator("#check-treated")
    choose(page, "Treated", "aged in a barrel")
    expect(treated).to_contain_text("Chloramine does not leave by standing")
    choose(page, "Treated", "run through carbon")
    expect(page.locator("#check-carbon_enough")).to_contain_text("short by")
    page.get_by_role("textbox", name="Flow through it").fill("30")
    expect(page.locator("#check-carbon_enough")).to_contain_text("to spare")
    choose(page, "Treated", "not at all")
    expect(treated).to_contain_text("Dilution is not treatment.")


def test_regimes_side_by_side(page, opened):
    opened(3, "changes")
    table = page.get_by_role("table")
    expect(table.get_by_role("row")).to_have_count(11)
    expect(table.get_by_role("row", name=re.compile("^As planned"))).to_be_visible()
    expect(glass(page, "Nitrate")).to_contain_text("short")
    table.get_by_role("button", name="Use Pulses, 16 % a day").click()
    expect(page.get_by_role("combobox", name="Changed")).to_contain_text("flow-through pulses")
    expect(figure(page, "swapped_frac")).to_have_text(re.compile("13|14"))
    choose(page, "Changed", "when nitrate reads your limit")
    expect(glass(page, "Nitrate")).not_to_contain_text("over")
    page.get_by_label("Nitrate read today").fill("80")
    expect(table.get_by_role("columnheader", name="there in")).to_be_visible()


def test_the_search_keeps_to_the_days_the_keeper_is_there(page, opened):
    opened(1, "changes")
    there = page.get_by_role("group", name="Days you are there")
    for day in ("Mon", "Tue", "Wed", "Thu", "Fri", "Sat"):
        there.get_by_role("button", name=day).click()
        expect(there.get_by_role("button", name=day)).to_have_attribute("aria-pressed", "false")
    expect(page.get_by_text(re.compile(r"Least work that holds: \d+\s% on Sun,"))).to_be_visible()


def test_an_arrival_is_floated_dripped_or_netted(page, opened):
    opened(1, "arrivals")
    expect(page.get_by_text("Nobody is on the way.")).to_be_visible()
    page.get_by_role("button", name="Add an arrival").click()
    page.get_by_role("button", name="Add an arrival").click()
    first, second = (page.get_by_role("region", name=f"Arrival {n}", exact=True) for n in (1, 2))
    second.get_by_label("Who comes").fill("Six loaches")
    second.get_by_label("On the way for").fill("1")
    # A shop's usual 450 would be as the tank's.
    second.get_by_label("Conductivity of its water").fill("380")
    expect(second).to_contain_text(re.compile("Six loaches: float the closed bag for .* then (drip|pour)"))
    first.get_by_label("On the way for").fill("40")
    expect(first).to_contain_text("net them across at once")
    expect(page.locator("#check-bag_opens")).to_contain_text("Newcomers: sealed")
    second.get_by_role("button", name=re.compile("^Start dripping")).click()
    expect(second.get_by_role("timer")).to_contain_text(re.compile(r"Drip (40:00|39:\d\d)"))
    order = page.get_by_role("list", name="Order of arrivals").get_by_role("listitem")
    expect(order).to_contain_text(["Newcomers, tub 1now to week 4", "Six loaches, tub 1week 4 to week 8"])
    first.get_by_role("button", name="Take out Newcomers").click()
    expect(order).to_have_count(1)
    page.get_by_role("switch", name="Treated with copper").click()
    expect(page.locator("#check-copper_borne")).to_contain_text("copper")
