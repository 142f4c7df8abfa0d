"""Feeding as a keeper uses it: the shelf, a week with hard days, what was left, a mix, cultures, the plan that takes it."""

import re

from playwright.sync_api import expect

from tests.e2e.acting import choose


def test_a_mixed_tank_gets_its_hard_days_from_what_is_at_hand(page, own, serious):
    plan = own.plan(2)
    groups = [("green_spotted_puffer", 1), ("bumblebee_goby", 9)]
    usual = plan["animals"][0]
    plan["animals"] = [{**usual, "species": key, "number": number, "males": None} for key, number in groups]
    own.http.put("/api/systems/2", json={"base": 1, "plan": plan})
    page.goto(f"{own.url}/round")
    page.get_by_role("button", name="More of the round").click()
    page.get_by_role("menuitem", name="Feeding: the week and what is at hand").click()
    week = page.get_by_role("region", name="Tidal Corner")
    puffer = week.get_by_role("list", name="Week of Green spotted puffer")
    expect(puffer.get_by_text("small water snails, hard")).to_have_count(2)
    expect(week).to_contain_text("Bumblebee goby feed at the bottom, below others")
    cultures = page.get_by_role("region", name="Cultures")
    expect(cultures).to_contain_text("tub of water snails")
    page.get_by_label("small water snails").click()
    expect(week).to_contain_text("their teeth want something hard on 2 days a week; nothing hard at hand suits.")
    expect(
        page.get_by_text("Everybody is fed from what is at hand; Green spotted puffer lack something.")
    ).to_be_visible()
    page.get_by_role("button", name="all 32 foods").click()
    page.get_by_label("mussel or prawn in its shell").click()
    expect(puffer.get_by_text("mussel or prawn in its shell, hard")).to_have_count(2)
    page.set_viewport_size({"width": 390, "height": 844})
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
    assert serious() == []


def test_what_is_left_on_the_round_moves_the_week_and_the_plan_takes_it(page, own):
    page.goto(f"{own.url}/round")
    stop = page.get_by_role("listitem").filter(has=page.get_by_role("heading", name="Old Copper"))
    with page.expect_response("**/api/round/ticks"):
        stop.get_by_role("button", name="much left").first.click()
    page.goto(f"{own.url}/round/feeding")
    week = page.get_by_role("region", name="Old Copper")
    expect(week).to_contain_text("Of 1 meals 0 were eaten up, 0 left some, 1 left much: the rota gives 75 %")
    week.get_by_role("button", name="Let the plan reckon with this food").click()
    expect(page.get_by_role("status")).to_contain_text("The plan of Old Copper reckons with this food now")
    expect(week.get_by_role("button", name="Let the plan reckon")).to_have_count(0)
    group = own.plan(4)["animals"][0]
    assert group["feed_by"] == "weighed"
    assert group["food_protein_frac"] is not None
    page.goto(f"{own.url}/systems/4/log")
    expect(page.get_by_role("checkbox", name=re.compile("^Mark fed.*much left"))).to_be_visible()


def test_a_mix_and_a_culture_of_ones_own(page, own):
    page.goto(f"{own.url}/round/feeding")
    mixes = page.get_by_role("region", name="Mixes of our own")
    expect(mixes).to_contain_text("18 % dry; of that 31 % protein, 88 % plant")
    page.get_by_role("button", name="Another mix").click()
    dialog = page.get_by_role("dialog")
    dialog.get_by_label("Called").fill("meat cake")
    dialog.get_by_role("button", name="Keep").click()
    expect(dialog.get_by_role("alert")).to_have_text("Nothing is in it yet.")
    choose(page, "Put in", "frozen chopped shrimp", dialog)
    dialog.get_by_role("button", name="Keep").click()
    # 100 g at a fifth dry in 200 g; all of it shrimp.
    expect(mixes).to_contain_text("10 % dry; of that 75 % protein, 0 % plant")
    mixes.get_by_role("button", name="Take out meat cake").click()
    expect(mixes).not_to_contain_text("meat cake")
    page.get_by_role("status").get_by_role("button", name="Undo").click()
    expect(mixes).to_contain_text("meat cake")
    cultures = page.get_by_role("region", name="Cultures")
    choose(page, "Keep a culture", "jar of fruit flies", cultures)
    expect(cultures).to_contain_text("3 g of fruit flies a week, 0 g wanted")
    count = cultures.get_by_label("How many: jar of fruit flies")
    count.fill("3")
    count.blur()
    expect(cultures).to_contain_text("9 g of fruit flies a week")
