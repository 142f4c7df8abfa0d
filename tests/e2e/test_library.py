"""Rows of one's own: copied, changed, chosen in a system, taken along and brought in."""

import re

from playwright.sync_api import expect

from tests.e2e.acting import choose


def figure(page, name):
    return page.locator(f"[data-figure='{name}']").first


def test_an_animal_of_ones_own_is_copied_changed_and_chosen(page, server, opened):
    page.goto(f"{server.url}/library")
    page.get_by_label("Find a row").fill("zebra danio")
    page.get_by_role("button", name="Copy Zebra danio").click()
    dialog = page.get_by_role("dialog")
    dialog.get_by_label("Common name").fill("Barn danio")
    dialog.get_by_label("Adult length").fill("nine")
    dialog.get_by_role("button", name="Save").click()
    # Faults stand at their fields, and nothing typed is lost.
    expect(dialog.get_by_text("is no number")).to_be_visible()
    dialog.get_by_label("Adult length").fill("9")
    dialog.get_by_role("button", name="Save").click()
    expect(dialog.get_by_text(re.compile("where are these values from"))).to_be_visible()
    dialog.get_by_label("Where these values are from").fill("measured here")
    # A copy breeds as what it was copied from, until that is said to be not known.
    breeds = dialog.get_by_role("combobox", name="Breeds as")
    expect(breeds).to_have_text("zebra danio")
    breeds.press("Enter")
    page.get_by_role("option", name="not known").press("Enter")
    dialog.get_by_role("button", name="Save").click()
    expect(dialog).to_have_count(0)
    page.get_by_label("Find a row").fill("barn")
    page.get_by_role("button", name="Change Barn danio").click()
    expect(dialog.get_by_role("combobox", name="Breeds as")).to_have_text("not known")
    page.keyboard.press("Escape")
    mine = page.get_by_role("listitem").filter(has_text="Barn danio")
    expect(mine).to_contain_text("yours · measured here")
    opened(2, "animals")
    page.get_by_role("combobox", name="Add an animal").fill("barn")
    page.get_by_role("option", name="Barn danio").click()
    aboard = page.get_by_role("list", name="Animals aboard").get_by_role("listitem", name="Barn danio")
    expect(aboard).to_contain_text("9 cm")
    expect(page.get_by_text("revision 2, saved")).to_be_visible()
    # While a system uses it, it stays.
    page.goto(f"{server.url}/library")
    page.get_by_label("Find a row").fill("barn")
    page.get_by_role("button", name="Take out Barn danio").click()
    expect(page.get_by_role("alert")).to_contain_text("uses it")


def test_a_row_that_nobody_uses_is_taken_out_and_brought_back(page, server, serious):
    page.goto(f"{server.url}/library")
    page.get_by_role("button", name=re.compile("^Media")).click()
    assert serious() == []
    # From nothing, what is missing is said at each column.
    page.get_by_role("button", name="Start one from nothing").click()
    dialog = page.get_by_role("dialog")
    dialog.get_by_label("Name", exact=True).fill("Attic mat")
    dialog.get_by_role("button", name="Save").click()
    expect(dialog.get_by_text("is empty").first).to_be_visible()
    page.keyboard.press("Escape")
    dialog.get_by_role("button", name="Leave it unsaved").click()
    page.get_by_role("button", name="Copy Open sponge 20 ppi").click()
    dialog.get_by_label("Name", exact=True).fill("Attic mat")
    assert serious() == []
    dialog.get_by_label("Where these values are from").fill("my own count")
    dialog.get_by_role("button", name="Save").click()
    page.get_by_role("button", name="Take out Attic mat").click()
    expect(page.get_by_role("status")).to_contain_text("Attic mat is taken out.")
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_role("listitem").filter(has_text="Attic mat")).to_be_visible()


def test_a_plan_is_taken_along_and_brought_in(page, server, opened, tmp_path):
    opened(2, "filter")
    choose(page, "Media kind", "Bio-balls", exact=False)
    expect(page.get_by_text("revision 2, saved")).to_be_visible()
    area = figure(page, "filters.0.media_area_m2").inner_text()
    page.get_by_role("button", name="Build: book, drawings, lists").click()
    with page.expect_download() as taken:
        page.get_by_role("menuitem", name="The plan itself, with your own rows").click()
    target = tmp_path / "plan.json"
    taken.value.save_as(target)
    page.goto(f"{server.url}/systems")
    page.get_by_label("A plan's file").set_input_files(target)
    page.wait_for_url(re.compile("/animals$"))
    page.get_by_role("link", name="Filter").click()
    expect(figure(page, "filters.0.media_area_m2")).to_have_text(area)
    page.goto(f"{server.url}/systems")
    bad = tmp_path / "bad.json"
    bad.write_text("no plan")
    page.get_by_label("A plan's file").set_input_files(bad)
    expect(page.get_by_role("alert")).to_contain_text("This file is no JSON.")
