"""Who is kept with whom: what a keeper is told of a rough company, and of a first plan for lake fish."""

import re

from playwright.sync_api import expect

from tests.e2e.test_log_wins import system_with
from tests.e2e.test_planner import begin

CROWD = [
    {"species": "kenyi_mbuna", "number": 6, "males": 2},
    {"species": "yellow_lab", "number": 8, "males": 1},
]


def test_two_males_of_a_fierce_kind_are_told_and_one_is_borne_in_a_crowd(page, server):
    system = system_with(server, "Lake", CROWD)
    page.goto(f"{server.url}/systems/{system}/animals")
    main = page.get_by_role("main")
    expect(main).to_contain_text("Nobody is driven", timeout=40_000)
    expect(main).to_contain_text("2 males: one drives the others; one, or six and more")
    males = page.get_by_label("Males: Kenyi mbuna")
    males.fill("1")
    males.press("Enter")
    expect(main).to_contain_text("borne in a crowd alone: it comes last, and goes first")
    expect(main).not_to_contain_text("one drives the others")
    expect(page.get_by_label("They grew up together")).to_be_visible()


def test_a_first_plan_for_lake_fish_has_rock_and_coral(page, server):
    dialog = begin(page, server, "Electric yellow cichlid", "Rusty cichlid")
    dialog.get_by_role("button", name="Propose plans").click()
    page.get_by_role("button", name="Start with this").first.click(timeout=60_000)
    page.get_by_role("link", name="Tank").click()
    for label in ("Rock", "Coral or shell in the flow"):
        field = page.get_by_role("textbox", name=re.compile(f"^{label}"))
        expect(field).to_have_value(re.compile("[1-9]"))


def test_a_turtle_s_first_plan_has_its_land_in_the_section(page, server):
    dialog = begin(page, server, "Red-eared slider")
    dialog.get_by_role("button", name="Propose plans").click()
    page.get_by_role("button", name="Start with this").first.click(timeout=60_000)
    section = page.get_by_role("group", name=re.compile("^Section of the tank"))
    # One and a half of a shell of 27 cm.
    expect(section).to_have_accessible_name(
        re.compile("A box over the rim of 41 cm × 41 cm lies 9 cm over the water")
    )
    section.get_by_role("button", name="Dry place: open its stage").press("Enter")
    main = page.get_by_role("main")
    expect(main).to_contain_text("Land for those who leave the water")
    side = page.get_by_role("textbox", name=re.compile("^Each is wide"))
    side.fill("20")
    side.press("Enter")
    check = page.locator("#check-land_suits")
    expect(check).to_contain_text("the dry place is 20 cm at its narrow side")
    expect(section).to_have_accessible_name(re.compile("41 cm × 20 cm"))


def test_a_first_plan_for_soft_water_shrimps_has_soil_and_pure_water(page, server):
    dialog = begin(page, server, "Crystal red shrimp")
    dialog.get_by_role("button", name="Propose plans").click()
    page.get_by_role("button", name="Start with this").first.click(timeout=60_000)
    page.get_by_role("link", name="Tank").click()
    expect(page.get_by_role("combobox", name=re.compile("^Bed"))).to_contain_text("Active soil")
    page.get_by_role("link", name="Changes").click()
    expect(page.locator("#check-reserve_lasts")).to_contain_text("holds pH")
    expect(page.locator("#check-no_shock")).not_to_contain_text("short by")
    page.get_by_role("link", name="Source").click()
    # Minerals are weighed; no baking soda.
    card = page.get_by_role("region", name="Recipe card")
    expect(card).to_contain_text(re.compile("gypsum", re.IGNORECASE))
    expect(card).not_to_contain_text(re.compile("bicarbonate|soda", re.IGNORECASE))


def test_a_puffer_is_moved_towards_salt_and_lives_better_for_it(page, server):
    system = system_with(server, "Puffers", [{"species": "figure_eight_puffer", "number": 1}])
    page.goto(f"{server.url}/systems/{system}/source")
    page.get_by_label("Move to a salinity of").fill("6")
    table = page.get_by_role("table", name=re.compile("The move, day by day"))
    expect(table.get_by_role("row")).not_to_have_count(0)
    expect(table).to_contain_text("of salt")
    page.get_by_role("link", name="Animals").click()
    expect(page.locator("#check-water_suits")).to_contain_text("salinity")
