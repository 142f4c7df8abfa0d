"""What is written on one page stands on the others: a death, a rinse, a dose."""

from playwright.sync_api import expect

from tests.e2e.acting import choose

TUB_1, TUB_3, WALK_B = 8, 10, 3


def happened(page, kind, **chosen):
    page.get_by_role("button", name="Something was done").click()
    choose(page, "What happened", kind)
    for label, option in chosen.items():
        choose(page, label, option, exact=False)


def lines(page):
    return page.get_by_role("region", name="Entries")


def test_a_death_in_the_log_is_one_in_the_register_and_its_tub_waits_anew(page, own, serious):
    page.goto(f"{own.url}/systems/{TUB_1}/log")
    happened(page, "an animal died")
    # Nobody counts heads without knowing whose: it is said at once, and nothing is lost.
    page.get_by_label("Signs seen").fill("white grains")
    page.get_by_role("button", name="Keep").click()
    assert serious() == []
    expect(page.get_by_role("alert")).to_contain_text("Whose? By the register Threadfin rainbowfish live here")
    choose(page, "Whose", "Threadfin rainbowfish, 8 here")
    expect(page.get_by_label("Signs seen")).to_have_value("white grains")
    page.get_by_role("button", name="Keep").click()
    expect(lines(page)).to_contain_text("1 Threadfin rainbowfish died: white grains")
    page.goto(f"{own.url}/register/quarantine")
    expect(page.get_by_text("28 days from the last death in it, today")).to_be_visible()
    expect(page.get_by_text("7 Threadfin rainbowfish").first).to_be_visible()
    # Taken out of the log it never was, and that can be undone.
    page.goto(f"{own.url}/systems/{TUB_1}/log")
    page.get_by_role("button", name="More for 1 Threadfin rainbowfish died").click()
    page.get_by_role("menuitem", name="Take out").click()
    expect(page.get_by_role("status").filter(has_text="taken out")).to_be_visible()
    page.goto(f"{own.url}/register/quarantine")
    expect(page.get_by_text("8 Threadfin rainbowfish").first).to_be_visible()
    expect(page.get_by_text("from the last death in it")).to_have_count(0)


def test_an_arrival_that_a_death_hangs_on_says_why_it_stays(page, own):
    page.goto(f"{own.url}/systems/{TUB_1}/log")
    happened(page, "an animal died", Whose="Threadfin rainbowfish, 8 here")
    page.get_by_role("button", name="Keep").click()
    expect(lines(page)).to_contain_text("1 Threadfin rainbowfish died")
    page.get_by_role("button", name="More for 8 Threadfin rainbowfish arrived").click()
    page.get_by_role("menuitem", name="Take out").click()
    expect(page.get_by_role("alert")).to_contain_text("What came later hangs on this")
    expect(lines(page)).to_contain_text("8 Threadfin rainbowfish arrived")


def test_one_filter_is_rinsed_and_a_dose_says_what_it_was(page, own):
    before = rinses(page, own)
    page.goto(f"{own.url}/systems/{WALK_B}/log")
    happened(page, "filter cleaned", **{"How": "in tank water", "Which filter": "second"})
    page.get_by_label("Note").fill("smelled")
    page.get_by_role("button", name="Keep").click()
    expect(lines(page)).to_contain_text("filter cleaned in tank water, 50 %, filter 2: smelled")
    happened(page, "dosed", **{"Of what": "ammonia"})
    expect(page.get_by_label("Which product")).to_have_value("ammonium chloride")
    page.get_by_label("How much").fill("2")
    page.get_by_role("button", name="Keep").click()
    expect(lines(page)).to_contain_text("dosed ammonia, 2 g, ammonium chloride")
    # The round spreads them on purpose: the other filter still comes when it did.
    after = rinses(page, own)
    assert [now == was for now, was in zip(after, before, strict=True)].count(False) == 1


def rinses(page, own):
    """What the care calendar says of each rinse."""
    page.goto(f"{own.url}/systems/{WALK_B}/care")
    rows = page.get_by_role("list", name="Care").get_by_role("listitem").filter(has_text="Rinse")
    expect(rows).to_have_count(2)
    return sorted(rows.all_inner_texts())
