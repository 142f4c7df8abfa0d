"""The working slip: down to the inputs, what moves it, what it would take, and applying that."""

import re

from playwright.sync_api import expect

from tests.e2e.acting import choose


def test_a_working_opens_down_to_what_was_entered(page, opened):
    opened(3, "changes")
    page.locator("[data-figure=peak_nitrate_mg_l]").first.focus()
    page.keyboard.press("w")
    slip = page.get_by_role("complementary", name="Working")
    expect(slip.get_by_role("heading", name="Nitrate just before a change")).to_be_focused()
    expect(slip).to_contain_text("nitrate of the change water + nitrate rises a day × days of rise standing")
    expect(slip).to_contain_text("= 11 +")
    expect(slip).to_contain_text("Source: Mass balance")
    expect(slip).to_contain_text(re.compile(r"likely; \d+ to \d+"))
    for part in ("Nitrate rises a day", "Waste nitrogen at full load", "Waste nitrogen at that size"):
        slip.get_by_role("button", name=re.compile(f"^{part}")).first.click()
    expect(slip).to_contain_text("Timmons & Ebeling")
    expect(slip.get_by_role("region", name="What moves it most").get_by_role("listitem")).to_have_count(5)
    page.keyboard.press("Escape")
    expect(slip).to_have_count(0)
    expect(page.locator("[data-figure=peak_nitrate_mg_l]").first).to_be_focused()


def test_what_it_would_take_is_solved_and_applied(page, opened, server):
    copy = opened(2, "filter")
    page.locator("dd [data-figure=turnover_per_h]").click()
    slip = page.get_by_role("complementary", name="Working")
    slip.get_by_label("What would it take to bring it to").fill("6")
    choose(page, "Input to solve for", "Rated flow", within=slip, exact=False)
    # 159.6 L six times an hour, over 0.65.
    use = slip.get_by_role("button", name=re.compile(r"^Use Rated flow 1\s48\d"))
    use.click()
    expect(slip).to_contain_text("6 turns an hour")
    expect(page.get_by_text("revision 2, saved")).to_be_visible()
    assert 1465 < server.plan(copy)["filters"][0]["rated_lph"] < 1490


def test_a_case_without_a_number_says_why(page, opened):
    opened(2, "filter")
    page.get_by_label("Media", exact=True).fill("0")
    page.get_by_role("link", name="Animals").click()
    page.get_by_label("How many: Orange chromide").fill("900")
    page.get_by_role("link", name="Filter").click()
    expect(page.get_by_text("This media can not carry this load at any ammonia level").first).to_be_visible()
