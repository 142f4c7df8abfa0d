"""Known, told or guessed, as a person meets it: an unknown tap, a turtle's place to bask, a shop's brackish fish, a predator."""

import re

from playwright.sync_api import expect

from tests.e2e.acting import choose
from tests.e2e.test_planner import begin


def proposed(page):
    page.get_by_role("dialog").get_by_role("button", name="Propose plans").click()
    plans = page.get_by_role("list", name="Plans proposed")
    expect(plans).to_be_visible()
    return plans


def started(page):
    page.get_by_role("button", name="Start with this").first.click()
    expect(page.get_by_role("list", name="Sight glasses")).to_be_visible()


def stage(page, name):
    page.get_by_role("navigation", name="Stages").get_by_role("link", name=re.compile(f"^{name}")).click()
    expect(page.get_by_role("heading", level=2, name=name).first).to_be_visible()


def set_up(page, way):
    page.get_by_role("button", name="It is set up…").click()
    dialog = page.get_by_role("dialog", name="It is set up")
    dialog.get_by_label(way).check()
    with page.expect_response(lambda answer: answer.request.method == "PUT"):
        dialog.get_by_role("button", name="Begin its cycle").click()


def number(page):
    return int(re.search(r"/systems/(\d+)/", page.url)[1])


def test_an_unknown_tap_carries_its_millilitres_to_card_and_round(page, own, serious):
    begin(page, own, "Neon tetra", "Panda corydoras")
    expect(page.get_by_text("until you have asked the water company")).to_be_visible()
    expect(proposed(page)).to_contain_text("After this: Ask the water company")
    started(page)
    glasses = page.get_by_role("list", name="Sight glasses")
    expect(glasses.get_by_role("button", name="Tap")).to_contain_text("to ask")
    stage(page, "Source")
    card = page.get_by_role("region", name="Recipe card")
    # 25 mL for 100 L, twice for chloramine, 1.7 times for 2.5 mg/L: 0.85 mL a litre.
    litres = float(re.search(r"For ([\d.]+) L", card.inner_text())[1])
    dose = float(re.search(r"([\d.]+)\s*mL of conditioner", card.inner_text())[1])
    assert abs(dose - 0.85 * litres) <= 0.06 * dose
    expect(card).to_contain_text("nobody has asked yet what this tap carries")
    assert serious() == []
    page.set_viewport_size({"width": 1280, "height": 800})
    stage(page, "Filter")
    expect(page.get_by_text("It is planned: nothing wants care")).to_be_visible()
    set_up(page, "its animals are in it from today")
    expect(page.get_by_text("It is planned: nothing wants care")).to_have_count(0)
    page.goto(f"{own.url}/round")
    here = page.get_by_role("list", name="Neon tetra", exact=True)
    top_up = here.get_by_role("listitem").filter(has_text="Top up to the water line")
    expect(top_up).to_contain_text(re.compile(r"mL of conditioner in it first"))
    asks = here.get_by_role("listitem").filter(has_text="Ask the water company")
    asks.get_by_role("link", name="enter it").click()
    # Told at its water in the mix, the question is gone: from the glass, and from the round.
    choose(page, "Disinfectant of Tap", "none: a well, rain, or it was asked")
    expect(page.get_by_role("list", name="Sight glasses").get_by_role("button", name="Tap")).to_have_count(0)
    expect(page.get_by_text(re.compile("revision 3, saved"))).to_be_visible()
    page.goto(f"{own.url}/round")
    expect(page.get_by_role("list", name="Neon tetra", exact=True)).to_be_visible()
    expect(page.get_by_text("Ask the water company")).to_have_count(0)


def test_a_turtle_s_place_is_to_measure_until_it_is_read(page, own):
    begin(page, own, "Common musk")
    expect(proposed(page)).to_contain_text("After this: Measure the dry place")
    started(page)
    heat = page.get_by_role("list", name="Sight glasses").get_by_role("button", name="Heat")
    expect(heat).to_contain_text("to measure")
    page.goto(f"{own.url}/systems")
    expect(page.get_by_text(re.compile(r"\d to measure or ask\."))).to_be_visible()
    page.get_by_role("link", name=re.compile("Common musk turtle")).click()
    stage(page, "Heat and light")
    check = page.locator("#check-basks")
    expect(check).to_contain_text("Measure the dry place at its surface")
    field = page.get_by_label("Basking place, measured")
    expect(field).to_have_value("")
    field.fill("32")
    expect(check).to_contain_text("the dry place measures 32 °C")
    expect(check).not_to_contain_text("to measure")
    expect(page.get_by_text(re.compile("^read "))).to_be_visible()
    field.fill("24")
    expect(check).to_contain_text("short by")
    # What is read is never moved to make it right.
    expect(check.get_by_role("button", name=re.compile("Use: Basking"))).to_have_count(0)


def test_it_is_planned_then_set_up_on_every_page_alike(page, own):
    begin(page, own, "Zebra danio")
    proposed(page)
    started(page)
    at = number(page)
    stage(page, "Cycle")
    expect(page.get_by_text("It is planned: nothing wants care")).to_be_visible()
    expect(page.get_by_text("has long been running")).to_have_count(0)
    page.goto(f"{own.url}/round")
    here = page.get_by_role("list", name="Zebra danio", exact=True)
    expect(here).to_contain_text("say that it is set up")
    expect(here.get_by_role("button", name=re.compile("Feed"))).to_have_count(0)
    here.get_by_role("link", name="go there").click()
    set_up(page, "started empty: ammonia is dosed, the animals wait")
    expect(page.get_by_role("button", name="Enter readings")).to_be_visible()
    assert own.plan(at)["run_in"]["stands"] == "set_up"
    # The calendar's dose is the round's, with its amount, and its tick writes the dose.
    page.goto(f"{own.url}/round")
    line = (
        page.get_by_role("list", name="Zebra danio", exact=True)
        .get_by_role("listitem")
        .filter(has_text="of ammonium chloride")
    )
    amount = float(re.search(r"Dose ([\d.]+) g", line.inner_text())[1])
    with page.expect_response("**/api/round/ticks"):
        line.get_by_role("button", name=re.compile("^Done: Dose")).click()
    (entry,) = [
        row["entry"] for row in own.http.get(f"/api/systems/{at}/log").json() if row["entry"]["kind"] == "dose"
    ]
    assert (entry["what"], round(entry["amount"], 2)) == ("ammonia", round(amount, 2))


def test_what_a_plan_assumes_is_confirmed_by_one_press(page, own):
    begin(page, own, "Neon tetra")
    proposed(page)
    started(page)
    at = number(page)
    rows = page.get_by_role("region", name="What this plan assumes").first
    first = rows.get_by_role("button", name=re.compile("^So it is: ")).first
    name = first.get_attribute("aria-label")
    with page.expect_response(lambda answer: answer.request.method == "PUT"):
        first.click()
    expect(rows.get_by_role("button", name=name, exact=True)).to_have_count(0)
    (told,) = own.plan(at)["told"]["told_on"]
    assert re.fullmatch(r"[a-z_.0-9]+ \d{4}-\d{2}-\d{2}", told)
    page.get_by_role("button", name="Undo").first.click()
    expect(rows.get_by_role("button", name=name, exact=True)).to_be_visible()


def test_a_shops_fish_moves_up_over_days_and_the_button_starts_that(page, opened):
    opened(2, "arrivals")
    page.get_by_role("button", name="Add an arrival").click()
    card = page.get_by_role("region", name=re.compile("^Arrival ")).last
    expect(page.locator("#check-bag_step")).to_contain_text("to measure")
    card.get_by_label("Conductivity of its water").fill("400")
    expect(card).to_contain_text(re.compile(r"not into the tank today\. Into a tub of .* then \d+ days in it"))
    expect(page.locator("#check-bag_step")).to_contain_text("in a tub")
    expect(card.get_by_role("button", name=re.compile("Start dripping"))).to_have_count(0)
    days = re.search(r"then (\d+) days in it", card.inner_text())[1]
    link = card.get_by_role("link", name=re.compile("Start it in a tub"))
    expect(link).to_contain_text(days)
    link.press("Enter")  # what follows when the keys rest may move it
    expect(page).to_have_url(re.compile("/register/quarantine"))


def test_a_predator_s_plan_is_told_and_no_strong_advice(page, server):
    begin(page, server, "Oscar", "Guppy")
    plans = proposed(page)
    first = plans.get_by_role("listitem").first
    expect(first).to_contain_text("animals die of it: Oscar and Guppy, mouth")
    expect(plans.get_by_role("button", name="Start with this")).to_have_count(0)
    expect(plans.get_by_role("button", name="Start with it all the same").first).to_be_visible()


def test_on_a_phone_the_question_and_the_assumptions_are_there_too(page, own, serious):
    page.set_viewport_size({"width": 390, "height": 844})
    begin(page, own, "Guppy")
    choose(page, "Disinfectant in the tap", "chlorine")
    page.get_by_label("Its strength, mg/L as Cl₂").fill("0.8")
    proposed(page)
    started(page)
    at = number(page)
    (tap, *_) = own.plan(at)["sources"]
    assert (tap["src_disinfectant"], tap["src_chlorine_mg_l"]) == ("chlorine", 0.8)
    expect(page.get_by_role("region", name="What this plan assumes").last).to_be_visible()
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
    assert serious() == []
