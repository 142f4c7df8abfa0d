"""Breeding as a breeder uses it: a venture begun, births that move it, kinds compared, a rack capped by demand."""

import re

from playwright.sync_api import expect

from tests.e2e.acting import choose

THREADFIN, LINE, WALK_B = 14, 13, 3


def one_fifty(own):
    """A tank of 150 litres, bare, warm and covered."""
    plan = own.plan(WALK_B)
    plan["name"] = "One fifty"
    plan["animals"] = []
    plan["tank"] |= {"tank_length_cm": 100, "tank_width_cm": 40, "tank_height_cm": 41}
    plan["heat"] |= {"lid": "tight", "target_c": 25}
    return own.http.post("/api/systems", json={"plan": plan}).json()["id"]


def begin(page, own, kind, price):
    page.goto(f"{own.url}/breeding")
    page.get_by_role("button", name="Breed another").click()
    dialog = page.get_by_role("dialog")
    dialog.get_by_role("combobox", name="Animal").fill(kind)
    dialog.get_by_role("option", name=kind).first.click()
    choose(page, "In tanks like", "One fifty", dialog)
    dialog.get_by_role("button", name="Begin").click()
    page.wait_for_url(re.compile("/colony$"))
    expect(page.get_by_role("heading", name="Colony", exact=True)).to_be_visible()
    page.get_by_role("link", name="Sale").click()
    page.get_by_label("for", exact=True).first.fill(price)
    expect(page.get_by_text("revision 2, saved")).to_be_visible()


def margin_on(page):
    return page.get_by_role("region", name="A steady week").get_by_role("listitem").last.inner_text()


def test_two_kinds_are_compared_for_one_tank_of_150_litres(page, own, serious):
    one_fifty(own)
    begin(page, own, "Southern platy", "24")
    begin(page, own, "Green swordtail", "25")
    page.goto(f"{own.url}/breeding")
    choose(page, "Compared in tanks like", "One fifty")
    side = page.get_by_role("region", name="Compared")
    expect(side.get_by_text("In One fifty")).to_be_visible()
    rows = side.get_by_role("listitem")
    both = [rows.filter(has_text=name).first for name in ("Southern platy", "Green swordtail")]
    for row in both:
        expect(row.get_by_role("img")).to_have_attribute("aria-label", re.compile("likely .* a tank and week"))
        expect(row).to_contain_text("moved most by")
        expect(row).to_contain_text("undecided")
    expect(side).to_contain_text("One fifty, left as it is")
    expect(side.get_by_text("This tank’s own sheet refuses these.")).to_be_visible()
    assert serious() == []
    # Twice the price decides it.
    both[1].get_by_role("link").press("Enter")  # a list that is laid out anew meanwhile does not move the aim
    page.get_by_role("link", name="Sale").press("Enter")
    page.get_by_label("for", exact=True).first.fill("400")
    expect(page.get_by_text("revision 3, saved")).to_be_visible()
    page.goto(f"{own.url}/breeding")
    choose(page, "Compared in tanks like", "One fifty")
    expect(side.get_by_text("Green swordtail bring")).to_be_visible()
    expect(rows.first).to_contain_text("Green swordtail")


def test_births_that_are_written_down_move_the_forecast(page, own):
    page.goto(f"{own.url}/breeding/{THREADFIN}/worth")
    before = margin_on(page)
    page.get_by_role("link", name="Broods").click()
    for day in ("2026-01-05", "2026-02-05", "2026-03-05"):
        page.get_by_role("button", name="A brood was born").click()
        dialog = page.get_by_role("dialog")
        dialog.get_by_label("How many young").fill("9")
        dialog.get_by_label("On", exact=True).fill(day)
        dialog.get_by_role("button", name="Write down").click()
        expect(dialog).to_have_count(0)
    checks = page.get_by_role("region", name="Checks")
    expect(checks).to_contain_text("3 broods of 27 young")
    expect(checks).to_contain_text("take the guess's place")
    page.get_by_role("link", name=re.compile("^Worth :|^Worth$")).click()
    expect(page.get_by_role("region", name="A steady week")).to_be_visible()
    assert margin_on(page) != before
    page.goto(f"{own.url}/register")
    expect(page.get_by_role("region", name="Rope Walk B, tank 3")).to_contain_text("Threadfin rainbowfish")


def test_the_rack_gives_tanks_to_the_next_kind_where_demand_caps_the_first(page, own, serious):
    page.goto(f"{own.url}/breeding/rack")
    tanks = page.get_by_role("region", name="Tanks")
    filled = tanks.get_by_role("button", name=re.compile("Threadfin"))
    expect(filled).to_have_count(4)
    expect(page.get_by_text("8 of 12 tanks are used")).to_be_visible()
    filled.first.click()
    expect(tanks.get_by_role("status")).to_contain_text("Rope Walk B, tank 3 (1 of 4)")
    page.get_by_label("Threadfin rainbowfish", exact=True).fill("2")
    expect(filled).to_have_count(2)
    page.get_by_role("button", name="Undo").click()
    expect(filled).to_have_count(4)
    page.set_viewport_size({"width": 390, "height": 844})
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
    assert serious() == []
    # One buyer a week for each way: two tanks meet them, and the others are told so.
    page.set_viewport_size({"width": 1280, "height": 800})
    page.goto(f"{own.url}/breeding/{THREADFIN}/sale")
    for way in range(3):
        page.get_by_label("buyers a week").nth(way).fill("1")
    expect(page.get_by_text(re.compile(r"revision \d+, saved"))).to_be_visible()
    expect(page.get_by_role("region", name="Checks")).to_contain_text("stay until they are given away")
    page.goto(f"{own.url}/breeding/rack")
    expect(page.get_by_role("list", name="Kinds on the rack")).to_contain_text("its buyers are met")
    expect(filled).to_have_count(2)
    tanks.get_by_role("button", name="empty").last.click()
    expect(tanks.get_by_role("status")).to_contain_text("but its buyers are met")


def test_what_can_not_be_is_said_and_nothing_is_lost(page, own):
    page.goto(f"{own.url}/breeding/{THREADFIN}/colony")
    females = page.get_by_label("Females", exact=True)
    expect(females).to_have_value("6")
    females.fill("0")
    expect(page.get_by_role("alert").first).to_contain_text("Without a female there are no broods")
    expect(page.get_by_text("The figures are the last good ones.")).to_be_visible()
    females.fill("6")
    page.get_by_role("link", name="Broods").click()
    lives = page.get_by_label("of them live").first
    lives.fill("120")
    expect(page.get_by_role("alert").first).to_contain_text("above what is possible")
    lives.fill("60")
    expect(page.get_by_role("alert")).to_have_count(0)
    page.get_by_role("link", name="Sale").click()
    size = page.get_by_label("at", exact=True).first
    size.fill("9")
    expect(page.get_by_role("alert").first).to_contain_text("only ever near it")
    size.fill("")
    expect(page.get_by_role("alert").first).to_contain_text("A price is entered, and no size")
    size.fill("3.4")
    expect(page.get_by_role("alert")).to_have_count(0)


def test_a_figure_opens_a_stage_has_a_key_and_a_step_is_undone(page, own, serious):
    page.goto(f"{own.url}/breeding/{LINE}/worth")
    expect(page.get_by_text("Keeping this line of Golden skiffia costs")).to_be_visible()
    page.locator("[data-figure=tank_margin_money]").first.click()
    slip = page.get_by_role("complementary")
    expect(slip.or_(page.get_by_role("region", name="What would it take?")).first).to_be_visible()
    page.keyboard.press("Escape")
    page.keyboard.press("1")
    expect(page).to_have_url(re.compile("/colony$"))
    expect(page.get_by_role("region", name="Lines in the register")).to_contain_text("Marrow Bridge")
    page.get_by_label("Males", exact=True).fill("4")
    expect(page.get_by_text("revision 2, saved")).to_be_visible()
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_label("Males", exact=True)).to_have_value("3")
    for stage in ("colony", "broods", "sale", "worth"):
        page.goto(f"{own.url}/breeding/{LINE}/{stage}")
        expect(page.get_by_role("button", name="Undo")).to_be_visible()
        expect(page.get_by_text("Reckoning…")).to_have_count(0)
        assert serious() == [], stage
    page.set_viewport_size({"width": 390, "height": 844})
    for stage in ("colony", "broods", "sale", "worth"):
        page.goto(f"{own.url}/breeding/{THREADFIN}/{stage}")
        expect(page.get_by_text("revision 1, saved")).to_be_visible()
        assert page.evaluate("document.documentElement.scrollWidth") <= 390, stage


def test_put_away_and_brought_back(page, own):
    page.goto(f"{own.url}/breeding")
    page.get_by_role("button", name="More about Crystal red shrimp").click()
    page.get_by_role("menuitem", name="Put away").click()
    told = page.get_by_role("status").filter(has_text="put away")
    expect(told).to_be_visible()
    expect(page.get_by_role("region", name="Compared")).not_to_contain_text("Crystal red shrimp")
    told.get_by_role("button", name="Undo").click()
    expect(page.get_by_role("region", name="Compared")).to_contain_text("Crystal red shrimp")


def test_money_is_written_as_the_house_says(page, own):
    page.goto(f"{own.url}/breeding")
    page.get_by_role("button", name="Units").click()
    dialog = page.get_by_role("dialog")
    dialog.get_by_label("Its sign").fill("¤")
    dialog.get_by_role("switch", name="The sign stands before the number").click()
    dialog.get_by_role("button", name="Write money so").click()
    expect(dialog.get_by_text("Kept.")).to_be_visible()
    page.keyboard.press("Escape")
    expect(page.get_by_role("region", name="Compared")).to_contain_text(re.compile("bring ¤"))
