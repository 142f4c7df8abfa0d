"""Nothing shown as saved is lost: units, undo, reload, a killed server, a second tab."""

import re

import pytest
from playwright.sync_api import expect

from tests.e2e.acting import choose
from tests.e2e.server import Server


def volume(page):
    return page.locator("dd [data-figure=real_volume_l]")


def test_units_are_switched_mixed_and_kept(page, opened):
    opened(1, "tank")
    page.keyboard.press("u")
    page.get_by_role("button", name="US gallons, °F, inches").click()
    page.keyboard.press("Escape")
    expect(volume(page)).to_have_text(re.compile("163 US gal"))  # 617.7 L
    expect(page.get_by_label("Length", exact=True)).to_have_value("70.8661")
    page.get_by_role("button", name="Units").click()
    choose(page, "Unit of Length", "cm")
    page.keyboard.press("Escape")
    page.reload()
    expect(page.get_by_label("Length", exact=True)).to_have_value("180")
    expect(volume(page)).to_have_text(re.compile("US gal"))


def test_what_is_typed_in_inches_is_kept_in_centimetres(page, opened, server):
    copy = opened(2, "tank")
    page.evaluate("localStorage.setItem('loquen.units', JSON.stringify({ length: 'in' }))")
    page.reload()
    page.get_by_label("Length", exact=True).fill("40")
    expect(page.get_by_text("revision 2, saved")).to_be_visible()
    assert server.plan(copy)["tank"]["tank_length_cm"] == pytest.approx(101.6)


def test_undo_and_redo_also_after_a_reload(page, opened):
    opened(2, "tank")
    length = page.get_by_label("Length", exact=True)
    for typed, revision in (("100", 2), ("110", 3)):
        length.fill(typed)
        expect(page.get_by_text(f"revision {revision}, saved")).to_be_visible()
    page.reload()
    page.get_by_role("button", name="Undo").click()
    expect(length).to_have_value("100")
    page.get_by_role("heading", name="Tank", level=2).click()
    page.keyboard.press("z")
    expect(length).to_have_value("90")
    page.keyboard.press("Shift+Z")
    expect(length).to_have_value("100")
    page.get_by_role("button", name="Redo").click()
    expect(length).to_have_value("110")
    expect(page.get_by_role("button", name="Redo")).to_be_disabled()


def test_edits_outlive_a_server_that_is_gone(page, tmp_path):
    server = Server(tmp_path / "own.db").start()
    try:
        page.goto(f"{server.url}/systems/2/tank")
        length = page.get_by_label("Length", exact=True)
        length.fill("101")
        expect(page.get_by_text("revision 2, saved")).to_be_visible()
        server.kill()
        length.fill("102")
        expect(page.get_by_role("alert")).to_contain_text("Your edits are kept here")
        expect(page.get_by_text("not saved: no server")).to_be_visible()
        server.start()
        # The killed server's answer "saved" was true, and the edit made meanwhile follows by itself.
        expect(page.get_by_text("revision 3, saved")).to_be_visible(timeout=15_000)
        assert server.plan(2)["tank"]["tank_length_cm"] == 102
    finally:
        server.kill()


@pytest.mark.parametrize(
    ("button", "kept"), [("Keep mine, on top of it", "95"), ("Discard mine, show the other", "99")]
)
def test_a_second_tab_is_told_and_decides(page, context, opened, button, kept):
    opened(2, "tank")
    other = context.new_page()
    other.goto(page.url)
    other.get_by_label("Length", exact=True).fill("99")
    expect(other.get_by_text("revision 2, saved")).to_be_visible()
    length = page.get_by_label("Length", exact=True)
    length.fill("95")
    expect(page.get_by_role("alert")).to_contain_text("changed in another tab")
    page.get_by_role("button", name=button).click()
    expect(length).to_have_value(kept)
    expect(page.get_by_text(", saved")).to_be_visible()


def test_a_deleted_system_says_so(page, server):
    page.goto(f"{server.url}/systems/999/tank")
    expect(page.get_by_role("alert")).to_contain_text("There is no such system")
