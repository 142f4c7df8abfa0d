"""Joining as a keeper sees it: batches of a new system, the day's list, the way out, and who is home already."""

from playwright.sync_api import expect


def test_a_new_system_takes_its_animals_in_batches_and_out_again(page, own, serious):
    copy = own.copy_of(2)
    page.goto(f"{own.url}/systems/{copy}/arrivals")
    order = page.get_by_role("region", name="In what order they join")
    expect(order).to_contain_text("9 Bumblebee goby join first, today; in 2 batches all are in it")
    expect(order).to_contain_text("Nobody is written down in the register here")
    batch = order.get_by_role("list", name="Batches").locator("> li")
    expect(batch).to_have_count(2)
    # Gobies of 4 cm hold ground: 85 to 115 % of that for all alike, over 125 % for the larger.
    sizes = batch.nth(1).get_by_role("list", name="Sizes of Orange chromide")
    expect(sizes).to_contain_text("beside Bumblebee goby of today")
    expect(sizes).to_contain_text("larger: from")
    batch.nth(1).get_by_text("On the day").click()
    expect(batch.nth(1)).to_contain_text("A place for one that is hunted: Tub 2 is empty")
    expect(batch.nth(1)).to_contain_text("Set the rocks and wood anew before they go in: Bumblebee goby")
    batch.nth(1).get_by_role("button", name="If one Orange chromide is hunted: where to?").click()
    out = batch.nth(1).get_by_role("list", name="Where a Orange chromide could go")
    expect(out).to_contain_text("Tidal Corner: ")
    assert serious() == []


def test_from_the_tub_to_the_batch_to_the_tank(page, own):
    plan = own.plan(1)
    plan["animals"][0]["number"] = 22
    own.http.put("/api/systems/1", json={"base": 1, "plan": plan})
    page.goto(f"{own.url}/systems/1/arrivals")
    order = page.get_by_role("region", name="In what order they join")
    expect(order).to_contain_text("8 Threadfin rainbowfish join today.")
    order.get_by_role("link", name="quarantine").click()
    tub = page.get_by_role("region", name="Tub 1")
    tub.get_by_role("button", name="Bring across").click()
    page.get_by_role("dialog").get_by_role("button", name="Bring across").click()
    expect(page.get_by_role("status")).to_contain_text("8 Threadfin rainbowfish are in Long Hall now.")
    page.goto(f"{own.url}/systems/1/arrivals")
    expect(order).to_contain_text("All who are planned live there.")
