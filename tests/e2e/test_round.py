"""The round as it is walked: on a phone, with the server away half-way, taken over by a stand-in."""

import re
from datetime import datetime, timedelta

from playwright.sync_api import expect

from tests.e2e.acting import choose

TODAY = datetime.now().replace(hour=18, minute=0, second=0, microsecond=0)
SATURDAY = TODAY + timedelta(days=(5 - TODAY.weekday()) % 7 or 7)


def at_work(page, server, path="/round"):
    page.clock.set_fixed_time(SATURDAY)
    page.goto(f"{server.url}{path}")


def stop(page, name):
    return page.get_by_role("list", name=name, exact=True)


def changes(server):
    return [row for row in server.http.get("/api/systems/1/log").json() if row["entry"]["kind"] == "change"]


def test_a_saturday_round_on_a_phone_outlives_the_server(page, own, serious):
    page.set_viewport_size({"width": 390, "height": 844})
    before = len(changes(own))
    at_work(page, own)
    expect(page.get_by_text("things to do in")).to_be_visible()
    expect(page.get_by_text("Here today: Noor, Emil")).to_be_visible()
    assert serious() == []
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
    choose(page, "Done by", "Noor")
    hall = stop(page, "Long Hall")
    hall.get_by_role("button", name="how, and why").nth(1).click()
    expect(hall.get_by_text("102 mL of conditioner")).to_be_visible()
    with page.expect_response("**/api/round/ticks"):
        hall.get_by_role("button", name="Done: Feed").click()
    expect(page.get_by_role("status")).to_have_count(0)
    own.kill()
    hall.get_by_role("button", name="Done: Change 185 L").click()
    hall.get_by_role("button", name="Done: Siphon").click()
    expect(page.get_by_text("2 ticks wait in this browser")).to_be_visible()
    own.start()
    expect(page.get_by_role("status")).to_have_count(0, timeout=40_000)
    expect(page.get_by_role("button", name="Done: Change 185 L")).to_have_count(0)
    assert len(changes(own)) == before + 1
    assert changes(own)[-1]["entry"]["note"] == "by Noor"
    page.reload()
    page.get_by_role("button", name="3 ticked").click()
    expect(page.get_by_text("Done by Noor: Change 185 L")).to_be_visible()


def test_skipped_with_a_reason_and_taken_back(page, own):
    at_work(page, own)
    walk = stop(page, "Rope Walk B, tank 3")
    line = walk.get_by_role("listitem").filter(has_text="Change 41 L")
    # By its last reading, 40 a week ago before a change of 45 %: past the limit, where the plan alone would say not yet.
    expect(line).to_contain_text(re.compile("nitrate (is past|passes) 40"))
    line.get_by_role("button", name="how, and why").click()
    line.get_by_role("button", name="Skip it").click()
    page.get_by_role("button", name="no time today").click()
    expect(line).to_have_count(0)
    page.get_by_role("button", name="1 ticked").click()
    expect(page.get_by_text("Change 41 L, 45 % of the water. (no time today)")).to_be_visible()
    page.get_by_role("button", name="Take back: Change 41 L").click()
    expect(walk.get_by_role("button", name="Done: Change 41 L")).to_be_visible()


def test_a_reading_is_entered_from_its_line(page, own):
    at_work(page, own)
    walk = stop(page, "Rope Walk B, tank 3")
    walk.get_by_role("button", name="Enter: Read nitrate").click()
    dialog = page.get_by_role("dialog")
    dialog.get_by_role("button", name="20", exact=True).click()
    dialog.get_by_role("button", name="Keep").first.click()
    dialog.get_by_role("button", name="Close").click()
    expect(walk.get_by_role("button", name="Enter: Read nitrate")).to_have_count(0)


def test_the_walk_is_put_in_order_and_helpers_are_named(page, own):
    at_work(page, own)
    expect(page.get_by_role("heading", level=2).first).to_have_text("Long Hall")
    page.get_by_role("button", name="More of the round").click()
    page.get_by_role("menuitem", name="Order of the walk").click()
    page.get_by_role("button", name="Long Hall later").click()
    page.get_by_role("button", name="Keep this order").click()
    expect(page.get_by_role("heading", level=2).first).to_have_text("Tidal Corner")
    page.get_by_role("button", name="More of the round").click()
    page.get_by_role("menuitem", name="Who does it").click()
    page.get_by_role("button", name="Another one").click()
    page.get_by_label("Name 7").fill("ida")
    page.get_by_role("button", name="Keep", exact=True).click()
    expect(page.get_by_role("alert")).to_contain_text("called the same")
    page.get_by_label("Name 7").fill("Wim")
    page.get_by_role("button", name="Keep", exact=True).click()
    expect(page.get_by_text("Here today: Noor, Emil, Wim")).to_be_visible()


def test_care_is_set_otherwise_and_the_calendar_taken_along(page, own, serious):
    at_work(page, own, "/systems/1/care")
    care = page.get_by_role("list", name="Care")
    line = care.get_by_role("listitem").filter(has_text="Wipe the front pane")
    expect(line).to_contain_text("every week")
    assert serious() == []
    page.set_viewport_size({"width": 1280, "height": 800})
    line.get_by_role("button", name="Set").click()
    page.get_by_label("Days", exact=True).fill("0")
    expect(page.get_by_text("A whole number, 1 or more.")).to_be_visible()
    page.get_by_label("Days", exact=True).fill("3")
    page.get_by_role("button", name="Keep", exact=True).click()
    expect(line).to_contain_text("every 3 days (set by you)")
    page.get_by_role("button", name="Something of your own").click()
    page.get_by_label("What is done").fill("Turn the leaves")
    page.get_by_role("button", name="Keep", exact=True).click()
    expect(care).to_contain_text("Turn the leaves")
    at_work(page, own)
    page.get_by_role("button", name="More of the round").click()
    with page.expect_download() as download:
        page.get_by_role("menuitem", name="Calendar file").click()
    assert "Turn the leaves" in download.value.path().read_text().replace("\r\n ", "")


def test_a_fortnight_away_is_one_printed_sheet(page, own, serious):
    at_work(page, own, "/round/away")
    expect(page.get_by_text("14 days away: a stand-in comes on 7 of them.")).to_be_visible()
    assert serious() == []
    hall = page.locator("section").filter(has=page.get_by_role("heading", name="Long Hall"))
    expect(hall).to_contain_text("Change 185 L, 30 % of the water.")
    expect(hall).to_contain_text("Boeseman's rainbowfish: ")
    # One meal of the week's for the stand-in, not all of them.
    expect(hall.get_by_text("Feed ")).to_have_count(1)
    page.get_by_label("to", exact=True).fill((SATURDAY + timedelta(days=1)).date().isoformat())
    expect(page.get_by_text("A day away: nobody needs to come")).to_be_visible()
    page.get_by_label("to", exact=True).fill((SATURDAY - timedelta(days=2)).date().isoformat())
    expect(page.get_by_role("alert")).to_contain_text("A holiday ends on or after its first day")
    page.emulate_media(media="print")
    expect(page.get_by_role("navigation", name="Main")).to_be_hidden()


def test_stock_is_counted_and_says_when_to_order(page, own, serious):
    at_work(page, own)
    page.get_by_role("button", name="More of the round").click()
    page.get_by_role("menuitem", name="Stock and spares").click()
    stock = page.get_by_role("list", name="Stock")
    line = stock.get_by_role("listitem").filter(has_text="Flakes")
    expect(line).to_contain_text("order by")
    assert serious() == []
    line.get_by_label("Flakes, there are").fill("2")
    line.get_by_label("Flakes, there are").press("Enter")
    expect(line).to_contain_text("order now")
    expect(page.get_by_text("should have been ordered")).to_be_visible()
    expect(page.get_by_role("list", name="Spares")).to_contain_text("Heater, 300 W")
