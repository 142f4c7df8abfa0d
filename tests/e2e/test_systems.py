"""The list: seeing, starting, copying and deleting systems."""

import re

from playwright.sync_api import expect


def test_the_demo_systems_with_sections_and_glasses(page, server):
    page.goto(server.url)
    expect(page).to_have_url(f"{server.url}/systems")
    line = page.get_by_role("listitem").filter(
        has=page.get_by_role("heading", name="Rope Walk B, tank 3", exact=True)
    )
    expect(line.get_by_role("img")).to_have_attribute(
        "aria-label",
        "Section of the tank: 60 cm long, 40 cm high inside, water 38 cm high. 8 Boeseman's rainbowfish, 10 Golden pencilfish.".replace(
            " cm", "\u2009cm"
        ),
    )
    expect(line.get_by_text("Nitrate: short")).to_be_attached()


def test_start_from_animals(page, server):
    page.goto(f"{server.url}/systems")
    page.get_by_role("button", name="New system").click()
    dialog = page.get_by_role("dialog")
    dialog.get_by_label("Name").fill("Show pair")
    dialog.get_by_role("combobox", name="Add an animal").fill("symphysodon")
    dialog.get_by_role("option", name=re.compile("^Discus")).click()
    expect(dialog.get_by_label("How many: Discus")).to_have_value("6")
    dialog.get_by_label("How many: Discus").fill("lots")
    dialog.get_by_role("button", name="Propose plans").click()
    expect(dialog.get_by_role("alert")).to_contain_text(
        "“lots” is not a number: 1 to 2 000".replace(" 000", "\u2009000")
    )
    dialog.get_by_label("How many: Discus").fill("7")
    dialog.get_by_role("button", name="Propose plans").click()
    page.get_by_role("button", name="Start with this").first.click()
    expect(page.get_by_label("Name of this system")).to_have_value("Show pair")
    # Seven lengths of 15 cm: the proposed tank is at least 105 cm, and nothing of space falls short.
    glasses = page.get_by_role("list", name="Sight glasses")
    expect(glasses.get_by_role("button", name="Space")).not_to_contain_text("short")
    page.get_by_role("link", name="Tank").click()
    assert float(page.get_by_label("Length", exact=True).input_value()) >= 105


def test_start_from_glass(page, server):
    page.goto(f"{server.url}/systems")
    page.get_by_role("button", name="New system").click()
    page.get_by_role("tab", name="From glass").click()
    page.get_by_label("Length, cm").fill("80")
    page.get_by_label("Width, front to back, cm").fill("35")
    page.get_by_label("Height, cm").fill("40,5")
    page.get_by_role("button", name="Start", exact=True).click()
    expect(page.get_by_role("heading", name="Tank", level=2)).to_be_visible()
    expect(page.get_by_label("Height", exact=True)).to_have_value("40.5")
    page.get_by_role("link", name="Animals").click()
    expect(page.get_by_text("Start with who is to live here")).to_be_visible()


def test_copy_and_delete_with_undo(page, server):
    plan = {**server.plan(2), "name": "Spare tank"}
    server.http.put(f"/api/systems/{server.copy_of(2)}", json={"base": 1, "plan": plan})
    page.goto(f"{server.url}/systems")
    page.get_by_label("Find systems").fill("spare")
    page.get_by_role("button", name="More for Spare tank").click()
    page.get_by_role("menuitem", name="Copy").click()
    expect(page.get_by_role("status").filter(has_text="There is a copy")).to_be_visible()
    copied = page.get_by_role("heading", name="Spare tank, copy")
    expect(copied).to_have_count(1)
    page.get_by_role("button", name="More for Spare tank, copy").click()
    page.get_by_role("menuitem", name="Delete").click()
    expect(copied).to_have_count(0)
    page.get_by_role("status").get_by_role("button", name="Undo").click()
    expect(copied).to_have_count(1)
    page.get_by_role("button", name="More for Spare tank, copy").click()
    page.get_by_role("menuitem", name="Delete").click()
    expect(copied).to_have_count(0)
    page.reload()
    # What was deleted has a place of its own, also for whoever comes back later.
    page.get_by_text("Deleted, and kept").click()
    page.get_by_role("button", name="Bring back Spare tank, copy").click()
    page.get_by_label("Find systems").fill("spare copy")
    expect(copied).to_have_count(1)


def test_commands_and_keys_without_a_mouse(page, server):
    page.goto(f"{server.url}/systems")
    page.get_by_role("heading", name="Long Hall", exact=True).wait_for()
    page.keyboard.press("Control+k")
    page.keyboard.type("rope")
    # Names are asked for: Enter takes what is found, and nothing while nothing is.
    page.get_by_role("option", name="Rope Walk B, tank 3", exact=True).wait_for()
    page.keyboard.press("Enter")
    expect(page.get_by_label("Name of this system")).to_have_value("Rope Walk B, tank 3")
    page.keyboard.press("7")
    expect(page.get_by_role("heading", name="Changes", level=2)).to_be_visible()
    page.keyboard.press("[")
    expect(page.get_by_label("Name of this system")).to_have_value("Tidal Corner")
    page.keyboard.press("?")
    expect(page.get_by_role("dialog", name="Keys")).to_be_visible()
