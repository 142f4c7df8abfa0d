"""Quarantine as a keeper uses it: from the card in the shop to the tub, a course, and home."""

from datetime import date, timedelta

from playwright.sync_api import expect

from tests.e2e.acting import choose


def test_from_the_card_in_the_shop_to_the_tub_and_home(page, own, serious):
    page.goto(f"{own.url}/register")
    page.get_by_role("button", name="More of the register").click()
    page.get_by_role("menuitem", name="Before you buy").click()
    page.get_by_role("link", name="They are to come: find them a tub").click()
    dialog = page.get_by_role("dialog")
    dialog.get_by_role("combobox", name="Which animal").fill("Neon tetra")
    dialog.get_by_role("option", name="Neon tetra").first.click()
    dialog.get_by_label("How many").fill("8")
    dialog.get_by_label("Length, one of them").fill("2")
    dialog.get_by_label("Comes from").fill("the card in the shop")
    dialog.get_by_role("button", name="Put on the list").click()
    expect(page.get_by_role("status")).to_contain_text("Neon tetra: on the list.")
    line = page.get_by_role("list", name="To come").get_by_role("listitem").filter(has_text="card in the shop")
    expect(line).to_contain_text("Tub")
    line.get_by_role("button", name="They are here").click()
    dialog = page.get_by_role("dialog")
    choose(page, "Into which tub", "Tub 1", dialog)
    expect(dialog).to_contain_text("the wait of all in it begins anew")
    dialog.get_by_role("button", name="Write down").click()
    tub = page.get_by_role("region", name="Tub 1")
    expect(tub).to_contain_text("8 Neon tetra")
    expect(tub).to_contain_text("28 days from the last who was put in, today.")
    page.set_viewport_size({"width": 390, "height": 844})
    expect(tub).to_be_visible()
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
    assert serious() == []
    tub.get_by_role("button", name="Bring across").click()
    dialog = page.get_by_role("dialog")
    expect(dialog).to_contain_text("Their wait ends")
    dialog.get_by_role("button", name="Bring across").click()
    expect(page.get_by_role("status")).to_contain_text("8 Neon tetra are in Long Hall now.")
    expect(tub).to_contain_text("Empty")
    page.get_by_role("status").get_by_role("button", name="Undo").click()
    expect(tub).to_contain_text("8 Neon tetra")


def test_a_course_by_its_label_is_dosed_in_the_round(page, own):
    page.goto(f"{own.url}/register/quarantine")
    tub = page.get_by_role("region", name="Tub 3")
    tub.get_by_role("button", name="Begin a course").click()
    dialog = page.get_by_role("dialog")
    dialog.get_by_role("button", name="Begin", exact=True).click()
    expect(dialog.get_by_role("alert").first).to_contain_text("What the label is called.")
    dialog.get_by_label("Called on its label").fill("White spot drops")
    dialog.get_by_label("A dose", exact=True).fill("2")
    dialog.get_by_label("Dosed on days").fill("1, 3, 9")
    dialog.get_by_role("switch", name="Holds copper").click()
    dialog.get_by_role("button", name="Begin", exact=True).click()
    expect(dialog).to_contain_text("The course lasts 7 days: no dose falls after it.")
    dialog.get_by_label("Dosed on days").fill("1, 3")
    dialog.get_by_role("button", name="Begin", exact=True).click()
    course = tub.get_by_role("region", name="White spot drops")
    # 2 mL to 10 L, in 18 L of real water.
    expect(course).to_contain_text("a whole dose here is 3.6 mL")
    expect(course.get_by_role("alert")).to_contain_text("Crystal red shrimp die of it")
    expect(tub).to_contain_text("no invertebrates in it until")
    page.goto(f"{own.url}/round")
    stop = page.get_by_role("listitem").filter(has=page.get_by_role("heading", name="Tub 3"))
    expect(stop).to_contain_text("Dose 3.6 mL of White spot drops, day 1 of its course.")


def test_a_waiver_says_who_is_exposed_and_an_arrival_can_be_taken_off(page, own):
    page.goto(f"{own.url}/register/quarantine")
    waived = page.get_by_role("region", name="Without quarantine")
    expect(waived).to_contain_text("Exposed: Threadfin rainbowfish, Boeseman's rainbowfish, Hillstream loach.")
    to_come = page.get_by_role("list", name="To come")
    expect(to_come.locator("> li")).to_have_count(4)
    page.get_by_role("button", name="Hillstream loach for Long Hall do not come").click()
    expect(to_come.locator("> li")).to_have_count(3)
    page.get_by_role("status").get_by_role("button", name="Undo").click()
    expect(to_come.locator("> li")).to_have_count(4)
    page.get_by_role("button", name="Change Hillstream loach for Long Hall").click()
    dialog = page.get_by_role("dialog")
    dialog.get_by_role("switch", name="No quarantine").click()
    dialog.get_by_role("button", name="Keep").click()
    expect(dialog.get_by_role("alert")).to_contain_text("Why none is needed")
    dialog.get_by_label("Because").fill("from our own stream tank")
    dialog.get_by_role("button", name="Keep").click()
    expect(waived).to_contain_text("Because: from our own stream tank")


def test_a_tub_is_set_up_and_its_wait_is_over_in_time(page, own):
    page.goto(f"{own.url}/register/quarantine")
    page.get_by_role("button", name="More of quarantine").click()
    page.get_by_role("menuitem", name="Set up a tub").click()
    dialog = page.get_by_role("dialog")
    dialog.get_by_label("Called").fill("Bucket")
    dialog.get_by_label("Water in it").fill("30")
    dialog.get_by_role("button", name="Set up").click()
    expect(page.get_by_role("region", name="Bucket")).to_contain_text("30 L of water, each waits 28 days")
    page.clock.set_fixed_time(f"{date.today() + timedelta(days=9)}T12:00")
    page.reload()
    tub = page.get_by_role("region", name="Tub 1")
    expect(tub).to_contain_text("The wait is over.")
    expect(page.get_by_text("The wait in Tub 1 is over")).to_be_visible()
