"""The keeper's work in time: a cycle forecast and read, nitrate held, a log kept by hand and as a table."""

import re
from datetime import date, timedelta

import pytest
from playwright.sync_api import expect

from tests.e2e.acting import choose
from tests.e2e.server import Server

PHONE = {"width": 390, "height": 844}


def begin(page, how, days_ago):
    """Say how the filter was started, and when."""
    choose(page, "The filter", how)
    page.get_by_label("Started on").fill((date.today() - timedelta(days=days_ago)).isoformat())
    expect(page.get_by_role("main")).to_contain_text(re.compile(f"today is day {days_ago}"), timeout=40_000)


def read(page, *steps):
    """Enter a step of the chart for one test after the other, as they follow."""
    page.get_by_role("button", name="Enter readings").click()
    dialog = page.get_by_role("dialog", name="Readings")
    for step in steps:
        dialog.get_by_role("button", name=step, exact=True).click()
        dialog.get_by_role("button", name=f"Keep {step}, then the next").click()
        expect(dialog.get_by_role("status")).to_contain_text(f" {step}")
    dialog.get_by_role("button", name="Done").click()


def test_a_cycle_is_started_read_on_a_phone_and_its_forecast_moves(page, opened):
    page.set_viewport_size(PHONE)
    opened(2, "cycle")
    expect(page.get_by_role("main")).to_contain_text("long been running")
    begin(page, "is started empty, with ammonia", 12)
    result = page.get_by_role("paragraph").filter(has_text=re.compile("Done about day")).first
    before = result.inner_text()
    done = page.get_by_role("region", name="Is it done?")
    expect(done).to_contain_text("nobody read ammonia and nitrite")
    read(page, "0.25", "2", "10", "4")
    expect(result).not_to_have_text(before, timeout=40_000)
    # A trace on the second step of its chart is something.
    expect(done).to_contain_text("No: there is still ammonia and nitrite")
    expect(page.get_by_text(re.compile("than usual|is what is usual"))).to_be_visible()
    assert page.evaluate("document.documentElement.scrollWidth") <= 390


def test_a_calendar_line_is_ticked_off_into_the_log(page, opened):
    opened(2, "cycle")
    begin(page, "is started empty, with ammonia", 0)
    calendar = page.get_by_role("region", name="Calendar")
    expect(calendar).to_contain_text(re.compile(r"Dose [\d.]+ g of ammonium chloride"))
    calendar.get_by_role("button", name="done").click()
    # What is done today is not due again today.
    expect(calendar.get_by_role("button", name="done")).to_have_count(0, timeout=40_000)
    page.get_by_role("link", name="Log", exact=True).last.click()
    expect(page.get_by_role("region", name="Entries")).to_contain_text("dosed ammonia")


def test_fish_are_in_day_six(page, opened):
    opened(1, "cycle")
    begin(page, "is started with animals in it", 6)
    today = page.get_by_role("region", name="Today")
    expect(today).to_contain_text("Read ammonia and nitrite")
    read(page, "2", "0.25")
    expect(today).to_contain_text(re.compile(r"Change \d+ % today|No single change"), timeout=40_000)
    ways = page.get_by_role("region", name="Ways side by side")
    expect(ways.get_by_role("row")).to_have_count(5)
    expect(ways.get_by_role("row", name=re.compile("never change"))).to_contain_text("Harm")
    ways.get_by_role("button", name="a detoxifier each day", exact=True).click()
    expect(today).to_contain_text("Detoxifier for all", timeout=40_000)


def test_nitrate_of_a_log_is_forecast_its_experiment_judged_and_two_levers_compared(page, server):
    page.goto(f"{server.url}/systems/3/nitrate")
    main = page.get_by_role("main")
    expect(main).to_contain_text(re.compile(r"About \d+ mg/L NO₃ now"), timeout=40_000)
    expect(page.get_by_role("img", name=re.compile("Nitrate: 1[67] readings"))).to_be_visible()
    tried = page.get_by_role("region", name="Experiments")
    expect(tried).to_contain_text(re.compile("Real: gutter of rooted house plants along the rack takes"))
    levers = page.get_by_role("region", name="Levers")
    levers.get_by_role("checkbox", name=re.compile("Feed a quarter less")).check()
    levers.get_by_role("checkbox", name=re.compile("Another change")).check()
    expect(levers.get_by_text(re.compile("^A: peak"))).to_be_visible()
    expect(levers.get_by_text(re.compile("^B: peak"))).to_be_visible()


def test_what_the_log_says_is_brought_into_a_plan_and_taken_back(page, server):
    copy = server.copy_of(3)
    rows = [(28, "80"), (21, "80"), (14, "80"), (7, "80"), (1, "80")]
    text = "date,NO3,change\n" + "\n".join(
        f"{(date.today() - timedelta(days=ago)).isoformat()},{value},50%" for ago, value in rows
    )
    body = {"text": text, "now": f"{date.today().isoformat()}T23:59:00Z"}
    assert server.http.post(f"/api/systems/{copy}/log/table", json=body).json()["new"] == 10
    page.goto(f"{server.url}/systems/{copy}/nitrate")
    goes_by = page.get_by_role("region", name="As reckoned or as logged")
    goes_by.get_by_role("radio", name=re.compile("as logged")).first.check(timeout=40_000)
    expect(page.get_by_text("revision 2, saved")).to_be_visible()
    expect(goes_by.get_by_role("radio", name=re.compile("as logged")).first).to_be_checked(timeout=40_000)
    goes_by.get_by_role("radio", name=re.compile("as reckoned")).check()
    expect(goes_by.get_by_role("radio", name=re.compile("as reckoned"))).to_be_checked(timeout=40_000)


def test_an_entry_is_put_right_taken_out_and_brought_back(page, opened):
    opened(2, "log")
    page.get_by_role("button", name="Something was done").click()
    page.get_by_label("Litres changed").fill("40")
    page.get_by_label("Note").fill("in the evening")
    page.get_by_role("button", name="Keep").click()
    entries = page.get_by_role("region", name="Entries")
    expect(entries).to_contain_text("water changed 40 L: in the evening")
    more = entries.get_by_role("button", name=re.compile("^More for"))
    more.click()
    page.get_by_role("menuitem", name="Put right").click()
    page.get_by_label("Litres changed").fill("4000")
    page.get_by_role("button", name="Keep").click()
    expect(page.get_by_role("alert")).to_contain_text("more than the system holds")
    page.get_by_label("Litres changed").fill("45")
    page.get_by_role("button", name="Keep").click()
    expect(entries).to_contain_text("water changed 45 L")
    more.click()
    page.get_by_role("menuitem", name="What it was").click()
    expect(page.get_by_role("dialog")).to_contain_text("water changed 40 L")
    page.keyboard.press("Escape")
    more.click()
    page.get_by_role("menuitem", name="Take out").click()
    expect(entries).to_contain_text("Nothing is written down yet")
    entries.get_by_role("button", name="Undo").click()
    expect(entries).to_contain_text("water changed 45 L")


def test_a_table_is_looked_at_kept_and_not_doubled(page, opened):
    opened(2, "log")
    day = date.today() - timedelta(days=40)
    lines = [f"{(day + timedelta(days=n)):%d.%m.%Y};{value};7,4;x" for n, value in enumerate(["20", "25", "lots"])]
    text = "\n".join(["date;NO3;pH;mood", *lines])
    for new, there in ((5, 0), (0, 5)):
        page.get_by_role("button", name="From a table").click()
        page.get_by_label("Table", exact=True).fill(text)
        page.get_by_role("button", name="Look at it").click()
        dialog = page.get_by_role("dialog")
        expect(dialog.get_by_role("status")).to_contain_text(
            f"{new} new, {there} there already, 1 that can not be read"
        )
        expect(dialog.get_by_role("list", name="Columns")).to_contain_text("Nitrate as the ion")
        expect(dialog.get_by_role("list", name="Not read")).to_contain_text("Line 4, nitrate")
        if new:
            dialog.get_by_role("button", name="Keep 5 entries").click()
            expect(dialog.get_by_role("status")).to_contain_text("5 kept")
            dialog.get_by_role("button", name="Done").click()
            page.get_by_role("combobox", name="Shown").wait_for()
    page.keyboard.press("Escape")
    with page.expect_download() as download:
        page.get_by_role("button", name="Leave it unsaved").click()
        page.get_by_role("link", name="As a table").click()
    assert download.value.path().read_text(encoding="utf-8").count("nitrate_drops") == 2


def test_readings_survive_a_server_that_dies_between_them(page, tmp_path):
    own = Server(tmp_path / "demo.db").start()
    try:
        page.goto(f"{own.url}/systems/2/log")
        page.get_by_role("button", name="Enter readings").click()
        dialog = page.get_by_role("dialog", name="Readings")
        dialog.get_by_role("button", name="0.5", exact=True).click()
        dialog.get_by_role("button", name="Keep 0.5, then the next").click()
        expect(dialog.get_by_role("status")).to_contain_text("0.5")
        own.kill()
        dialog.get_by_role("button", name="1", exact=True).click()
        dialog.get_by_role("button", name="Keep 1, then the next").click()
        expect(dialog.get_by_role("alert")).to_contain_text("does not answer")
        # What was pressed stays, and is kept once the server is back.
        own.start()
        dialog.get_by_role("button", name="Keep 1, then the next").click()
        expect(dialog.get_by_role("status")).to_contain_text("Nitrite 1")
        found = [row["entry"]["value"] for row in own.http.get("/api/systems/2/log").json()]
        assert found[-2:] == ["0.5", "1"]
    finally:
        own.kill()


def test_readings_of_all_systems_start_from_one_page(page, server):
    page.goto(f"{server.url}/log")
    latest = page.get_by_role("list", name="Latest entries")
    expect(latest).to_contain_text("Bottle Shelf, tank 1")
    page.keyboard.press("r")
    dialog = page.get_by_role("dialog", name="Readings")
    dialog.get_by_role("radio", name="pH").click()
    dialog.get_by_role("button", name="7.2", exact=True).click()
    dialog.get_by_role("button", name="7.4", exact=True).click()
    expect(dialog.get_by_role("button", name="Keep between 7.2 and 7.4, then the next")).to_be_enabled()
    dialog.get_by_role("button", name="7.4", exact=True).click()
    dialog.get_by_role("button", name="Keep 7.2, then the next").click()
    expect(dialog.get_by_role("status")).to_contain_text("pH 7.2")
    dialog.get_by_role("button", name="Done").click()
    expect(latest).to_contain_text("pH 7.2")


@pytest.mark.parametrize("path", ["systems/6/cycle", "systems/3/nitrate", "systems/3/log", "log"])
def test_the_pages_of_time_are_accessible(page, server, serious, path):
    page.goto(f"{server.url}/{path}")
    page.get_by_role("heading").first.wait_for()
    page.wait_for_load_state("networkidle")
    assert serious() == []
