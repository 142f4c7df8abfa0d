"""What can not be read, computed or kept: said in words, nothing lost, and every field in reach."""

import json
import re
import sqlite3

from playwright.sync_api import expect

from loquen.core.model.roots.documents import document
from loquen.demo import sluice_street


def store(server, system_id, text):
    """Write what is stored for a system's first revision, as damage would; what was looked at before is forgotten."""
    server.kill()
    with sqlite3.connect(server.database) as file:
        file.execute("UPDATE revision SET plan = ? WHERE system_id = ? AND number = 1", (text, system_id))
    server.start()


def test_an_unreadable_plan_hides_no_other_and_can_be_put_back(page, own, serious):
    store(own, 2, '{"name": "Tidal Corner", "tank": {')
    page.goto(f"{own.url}/systems")
    line = page.get_by_role("listitem").filter(has=page.get_by_role("heading", name="Tidal Corner"))
    expect(line).to_contain_text("It can not be read: What is stored is no JSON")
    expect(page.get_by_role("heading", name="Long Hall")).to_be_visible()
    own.http.put("/api/systems/1", json={"base": 1, "plan": {**own.plan(1), "name": "Longer Hall"}})
    with sqlite3.connect(own.database) as file:
        file.execute("UPDATE revision SET plan = '[]' WHERE system_id = 1 AND number = 2")
    page.goto(f"{own.url}/systems/1/tank")
    expect(page.get_by_text("This plan can not be read.")).to_be_visible()
    assert serious() == []
    with page.expect_download() as download:
        page.get_by_role("link", name="Take away what is stored").click()
    assert download.value.path().read_text() == "[]"
    page.get_by_role("button", name="Put back revision 1").click()
    expect(page.get_by_label("Name of this system")).to_have_value("Long Hall")
    expect(page.get_by_text("revision 3, saved")).to_be_visible()


def test_a_plan_that_can_not_be_computed_has_its_fields_in_reach(page, own):
    plan = json.loads(document(sluice_street.tidal_corner()))
    plan["animals"][0]["species"] = "gone_fish"
    store(own, 2, json.dumps(plan))
    page.goto(f"{own.url}/systems/2/animals")
    expect(page.get_by_text("There are no figures yet")).to_be_visible()
    expect(page.get_by_role("alert")).to_contain_text("“gone_fish” is not in the library")
    page.get_by_role("button", name="Take out gone_fish").click()
    expect(page.get_by_text("revision 2, saved")).to_be_visible()
    expect(page.get_by_role("list", name="Sight glasses")).to_be_visible()


def test_a_servers_fault_is_told_from_a_server_that_is_away(page, opened, server):
    copy = opened(2, "tank")
    fault = {"code": "server_fault", "sentence": {"text": "Loquen failed at this.", "terms": {}}, "fields": []}
    saves = []

    def refuse(route):
        saves.append(route.request.method)
        route.fulfill(status=500, json=fault)

    page.route(
        re.compile(rf"/api/systems/{copy}$"), lambda r: refuse(r) if r.request.method == "PUT" else r.continue_()
    )
    page.get_by_label("Length", exact=True).fill("95")
    expect(page.get_by_role("alert")).to_contain_text("Loquen failed at this.")
    expect(page.get_by_text("not saved", exact=True)).to_be_visible()
    # It is not asked again and again: only when somebody says so.
    assert saves == ["PUT"]
    page.unroute(re.compile(rf"/api/systems/{copy}$"))
    page.get_by_role("button", name="Try again").click()
    expect(page.get_by_text("revision 2, saved")).to_be_visible()
    assert server.plan(copy)["tank"]["tank_length_cm"] == 95


def test_edits_survive_leaving_with_a_wrong_field(page, own):
    page.goto(f"{own.url}/systems/2/tank")
    page.get_by_label("Pane", exact=True).fill("thick")
    page.get_by_label("Width, front to back", exact=True).fill("47")
    expect(page.get_by_text("not saved: something to mend")).to_be_visible()
    page.get_by_role("link", name="Systems").click()
    expect(page.get_by_text("Edits of it that are not saved are kept in this browser.")).to_be_visible()
    page.goto(f"{own.url}/systems/2/tank")
    expect(page.get_by_label("Width, front to back", exact=True)).to_have_value("45")
    page.get_by_role("button", name="Take them up").click()
    expect(page.get_by_label("Width, front to back", exact=True)).to_have_value("47")
    page.get_by_label("Pane", exact=True).fill("8")
    expect(page.get_by_text("revision 2, saved")).to_be_visible()
    assert own.plan(2)["tank"]["tank_width_cm"] == 47
    page.reload()
    expect(page.get_by_role("button", name="Undo")).to_be_enabled()
    expect(page.get_by_role("button", name="Take them up")).to_have_count(0)


def test_edits_survive_a_crash_while_the_server_is_away(page, context, own):
    page.goto(f"{own.url}/systems/2/tank")
    length = page.get_by_label("Length", exact=True)
    expect(length).to_have_value("90")
    own.kill()
    length.fill("97")
    expect(page.get_by_text("not saved: no server")).to_be_visible()
    page.close(run_before_unload=False)
    own.start()
    again = context.new_page()
    again.goto(f"{own.url}/systems/2/tank")
    expect(again.get_by_label("Length", exact=True)).to_have_value("90")
    again.get_by_role("button", name="Take them up").click()
    expect(again.get_by_text("revision 2, saved")).to_be_visible()
    assert own.plan(2)["tank"]["tank_length_cm"] == 97


def test_two_tabs_on_one_water(page, context, own):
    page.goto(f"{own.url}/waters")
    other = context.new_page()
    other.goto(f"{own.url}/waters")
    for tab in (page, other):
        tab.get_by_role("button", name="Rain tank", exact=True).click()
    other.get_by_role("dialog").get_by_label("GH").fill("1")
    other.get_by_role("button", name="Save").click()
    expect(other.get_by_role("dialog")).to_have_count(0)
    dialog = page.get_by_role("dialog")
    dialog.get_by_label("KH").fill("0,7")
    page.keyboard.press("Escape")
    expect(dialog.get_by_role("alert")).to_contain_text("What is typed here is not saved")
    dialog.get_by_role("button", name="Go on typing").click()
    dialog.get_by_role("button", name="Save").click()
    expect(dialog.get_by_role("alert")).to_contain_text("changed in another tab")
    dialog.get_by_role("button", name="Keep mine, on top of it").click()
    expect(dialog).to_have_count(0)
    (rain,) = [row for row in own.http.get("/api/waters").json() if row["water"]["src_name"] == "Rain tank"]
    assert (rain["water"]["src_kh_dkh"], rain["water"]["src_gh_dgh"]) == (0.7, 0.5)


def test_many_systems_are_found_ordered_and_read_part_by_part(page, own, serious):
    for n in range(24):
        plan = {**own.plan(3), "name": f"Rack {'AB'[n % 2]}, tank {n}"}
        own.http.put(f"/api/systems/{own.copy_of(3)}", json={"base": 1, "plan": plan})
    page.goto(f"{own.url}/systems")
    rows = page.get_by_role("list", name="Systems").get_by_role("heading", level=2)
    expect(rows).to_have_count(24)
    assert page.locator("svg").count() < 24 * 10
    page.get_by_role("button", name="Show more").scroll_into_view_if_needed()
    expect(rows).to_have_count(35)
    expect(page.get_by_text("35 systems: 26 fall short.")).to_be_visible()
    page.get_by_label("Find systems").fill("rack b nitrate")
    expect(page.get_by_text("12 of 35 systems: 12 fall short.")).to_be_visible()
    page.get_by_label("Find systems").fill("chromide")
    expect(rows).to_have_text(["Tidal Corner"])
    page.get_by_label("Find systems").fill("")
    page.get_by_role("combobox", name="Order").click()
    page.get_by_role("option", name="by row or rack").press("Enter")
    expect(rows.first).to_have_text("Bottle Shelf")
    expect(rows.nth(3)).to_have_text("Rack A")
    assert serious() == []
