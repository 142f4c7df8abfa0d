"""Accessible at a desk, on a phone and in the dark; nothing fetched from elsewhere."""

import pytest
from playwright.sync_api import expect

STAGES = ["animals", "tank", "filter", "flow", "heat", "source", "changes", "arrivals"]


@pytest.mark.parametrize("theme", ["light", "dark"])
@pytest.mark.parametrize("stage", STAGES)
def test_axe_finds_nothing_serious_on_a_stage(page, opened, serious, stage, theme):
    opened(3, stage)
    page.evaluate("theme => { document.documentElement.dataset.theme = theme }", theme)
    assert serious() == []


def test_axe_finds_nothing_serious_on_list_dialogs_and_slip(page, server, opened, serious):
    page.goto(f"{server.url}/systems")
    page.get_by_role("heading", name="Long Hall", exact=True).wait_for()
    assert serious() == []
    page.get_by_role("button", name="New system").click()
    page.get_by_role("dialog").wait_for()
    assert serious() == []
    opened(3, "changes")
    page.locator("[data-figure=peak_nitrate_mg_l]").first.click()
    page.get_by_role("region", name="What would it take?").wait_for()
    assert serious() == []


@pytest.mark.parametrize("stage", STAGES)
def test_a_phone_shows_everything_without_sideways_scrolling(page, opened, stage):
    page.set_viewport_size({"width": 390, "height": 844})
    opened(3, stage)
    expect(page.get_by_role("list", name="Sight glasses")).to_be_visible()
    wide = page.evaluate("document.documentElement.scrollWidth")
    assert wide <= 390


@pytest.mark.parametrize("path", ["systems/6/cycle", "systems/3/nitrate", "systems/3/log", "log"])
def test_the_pages_of_time_fit_a_phone(page, server, path):
    page.set_viewport_size({"width": 390, "height": 844})
    page.goto(f"{server.url}/{path}")
    page.get_by_role("img").or_(page.get_by_role("list", name="Latest entries")).first.wait_for()
    page.wait_for_load_state("networkidle")
    assert page.evaluate("document.documentElement.scrollWidth") <= 390


def test_the_list_on_a_phone(page, own, serious):
    for _ in range(30):
        own.copy_of(5)
    page.set_viewport_size({"width": 390, "height": 844})
    page.goto(f"{own.url}/systems")
    page.get_by_role("heading", name="Long Hall", exact=True).wait_for()
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
    assert serious() == []
    # All of the list was looked at, not its first part with the bar across a row of it.
    expect(page.get_by_role("button", name="Show more")).to_have_count(0)
    assert page.evaluate("document.documentElement.scrollHeight <= innerHeight")


def test_nothing_is_fetched_from_elsewhere(page, server):
    asked = []
    page.on("request", lambda request: asked.append(request.url))
    page.goto(f"{server.url}/systems/1/changes")
    page.get_by_role("heading", name="Changes", level=2).wait_for()
    assert asked
    assert all(url.startswith((server.url, "data:")) for url in asked)
