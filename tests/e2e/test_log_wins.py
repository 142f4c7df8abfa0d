"""What a keeper reads is believed: logs entered through the pages, and what the pages then say."""

import re
from datetime import date, timedelta

import pytest
from playwright.sync_api import expect

from tests.e2e.acting import choose


def logged(server, system, columns, rows):
    """Enter a table of a log: days ago, then a cell a column."""
    lines = [",".join(("date", *columns))]
    lines += [",".join(((date.today() - timedelta(days=ago)).isoformat(), *cells)) for ago, *cells in rows]
    body = {"text": "\n".join(lines), "now": f"{date.today().isoformat()}T23:59:00Z"}
    answer = server.http.post(f"/api/systems/{system}/log/table", json=body)
    assert answer.status_code == 200, answer.text


def system_with(server, name, animals, **parts):
    """A system of its own on the long tank's plan, with other animals."""
    plan = server.plan(1)
    plan |= {"name": name, "animals": animals, "bags": [], **parts}
    answer = server.http.post("/api/systems", json={"plan": plan})
    assert answer.status_code < 300, answer.text
    return answer.json()["id"]


def weekly(values, share="50%"):
    return [(7 * place + 1, value, share) for place, value in enumerate(reversed(values))]


TURTLES = [{"species": "yellow_bellied_slider", "number": 2, "size_by": "length", "length_cm": 6.0}]
FEW = [{"species": "boeseman_rainbowfish", "number": 60}]
PLANTED = [{"species": "neon_tetra", "number": 3}]


@pytest.mark.parametrize(
    ("name", "animals", "values", "low", "high"),
    [
        ("Young sliders", TURTLES, ["10", "between 10 and 15", "15", "10", "between 10 and 15", "10"], 5, 20),
        ("Large and light", FEW, ["20", "between 15 and 30", "20", "between 15 and 30", "20", "20"], 10, 35),
        ("Planted", PLANTED, ["40"] * 6, 18, 50),
    ],
)
def test_nitrate_stands_where_it_was_read(page, server, name, animals, values, low, high):
    system = system_with(server, name, animals)
    logged(server, system, ("NO3", "change"), weekly(values))
    page.goto(f"{server.url}/systems/{system}/nitrate")
    main = page.get_by_role("main")
    expect(main).to_contain_text(re.compile(r"About [\d.]+ mg/L NO₃ now"), timeout=40_000)
    level = float(re.search(r"About ([\d.]+) mg/L NO₃ now", main.inner_text())[1])
    assert low <= level <= high
    expect(main).not_to_contain_text("than this water can have come to")


def test_a_rescue_tells_its_detoxifier_its_changes_and_when_it_stops(page, server):
    plan = server.plan(1)
    system = system_with(
        server,
        "Stocked too soon",
        plan["animals"],
        run_in={**plan["run_in"], "stands": "set_up", "stocked": "now"},
        cycle={**plan["cycle"], "begun_by": "animals", "begun_on": (date.today() - timedelta(days=8)).isoformat()},
    )
    logged(server, system, ("NH4", "NO2"), [(0, "2", "1")])
    page.goto(f"{server.url}/systems/{system}/cycle")
    choose(page, "With animals in it", "a detoxifier each day, and changes by the readings")
    page.get_by_label("Detoxifier for 100 L, by its label").fill("5")
    today = page.get_by_role("region", name="Today")
    expect(today).to_contain_text(re.compile(r"[\d.]+ mL of detoxifier, for all"), timeout=40_000)
    expect(today).to_contain_text("go on showing the ammonia that it holds bound")
    calendar = page.get_by_role("region", name="Calendar")
    expect(calendar).to_contain_text(re.compile(r"[\d.]+ mL of detoxifier for all"))
    expect(calendar).to_contain_text("stop the detoxifier on that day")
    ways = page.get_by_role("region", name="Ways side by side")
    expect(ways.get_by_role("row", name=re.compile("and changes by the readings"))).to_be_visible()


def test_a_stay_is_kept_over_a_reload_and_judged_inside(page, server):
    system = system_with(server, "For a school year", TURTLES)
    page.goto(f"{server.url}/systems/{system}/animals")
    grown = page.get_by_text("27 cm grown")
    expect(grown.first).to_be_visible()
    before = page.locator("[data-figure=load_full_mg_d]").first.inner_text()
    choose(page, "They stay", "until one measures")
    expect(page.get_by_label("Length at which they leave")).to_have_value("8")
    expect(page.locator("[data-figure=load_full_mg_d]").first).not_to_have_text(before)
    within = page.locator("[data-figure=load_full_mg_d]").first.inner_text()
    page.keyboard.press("Control+s")
    expect(page.get_by_text("revision 2, saved")).to_be_visible()
    page.reload()
    expect(page.get_by_label("Length at which they leave")).to_have_value("8")
    expect(page.locator("[data-figure=load_full_mg_d]").first).to_have_text(within)


def test_the_demos_cycle_goes_through_its_bars(page, server):
    page.goto(f"{server.url}/systems/6/cycle")
    expect(page.get_by_role("main")).to_contain_text("By its readings this soil gives", timeout=40_000)
    expect(page.get_by_role("main")).not_to_contain_text("do not fit this story")


def test_the_whole_rooms_last_readings_and_any_of_them_through_time(page, server):
    page.goto(f"{server.url}/log")
    page.get_by_role("button", name="Last readings").click()
    row = page.get_by_role("row", name=re.compile("Bottle Shelf, tank 1"))
    expect(row).to_contain_text("over its limit")
    page.get_by_label("Find a system").fill("walk b")
    expect(page.get_by_role("row", name=re.compile("Rope Walk B"))).to_be_visible()
    expect(row).to_have_count(0)
    page.get_by_role("button", name="Through time").click()
    chart = page.get_by_role("img", name=re.compile("Nitrate of .*Rope Walk B, tank 3"))
    expect(chart).to_be_visible()
    page.get_by_role("checkbox", name="Rope Walk B, tank 3").uncheck()
    expect(chart).to_have_count(0)
    page.get_by_role("button", name="What happened").click()
    page.get_by_label("Find in the log").fill("gutter")
    latest = page.get_by_role("list", name="Latest entries")
    expect(latest.get_by_role("listitem")).to_have_count(1)
    choose(page, "Of which kind", "reading")
    expect(page.get_by_text("Nothing of that is written down.")).to_be_visible()


def test_the_whole_rooms_log_is_accessible_and_fits_a_phone(page, server, serious):
    for view in ("Last readings", "Through time"):
        page.goto(f"{server.url}/log")
        page.get_by_role("button", name=view).click()
        page.wait_for_load_state("networkidle")
        assert serious() == []
    page.set_viewport_size({"width": 390, "height": 844})
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
