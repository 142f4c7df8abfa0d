"""The register as a keeper uses it: a card in the shop, an arrival, a measurement, a move, and the plan that follows."""

from playwright.sync_api import expect

from tests.e2e.acting import choose


def test_a_card_in_the_shop_on_a_phone(page, own, serious):
    page.set_viewport_size({"width": 390, "height": 844})
    page.goto(f"{own.url}/register")
    expect(page.get_by_text("222 animals of 10 kinds live in 9 systems")).to_be_visible()
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
    assert serious() == []
    page.set_viewport_size({"width": 390, "height": 844})
    page.get_by_role("button", name="More of the register").click()
    page.get_by_role("menuitem", name="Before you buy").click()
    dialog = page.get_by_role("dialog")
    dialog.get_by_label("Seen eating").check()
    expect(dialog.get_by_role("status")).to_contain_text("1 of 9 seen")
    choose(page, "Kind of animal", "Snails and mussels", dialog)
    for box in dialog.get_by_role("checkbox").all():
        box.check()
    expect(dialog.get_by_role("status")).to_have_text("All seen.")


def test_an_arrival_moves_the_plans_verdict_when_it_is_taken(page, own):
    page.goto(f"{own.url}/register")
    page.get_by_role("button", name="Somebody new").click()
    dialog = page.get_by_role("dialog")
    dialog.get_by_role("combobox", name="Which animal").fill("Boeseman")
    dialog.get_by_role("option", name="Boeseman").first.click()
    dialog.get_by_label("How many").fill("60")
    dialog.get_by_label("From", exact=True).fill("the club")
    dialog.get_by_label("Name, of one animal").fill("Otto")
    dialog.get_by_role("button", name="Write down").click()
    expect(dialog.get_by_role("alert").first).to_contain_text("A name is one animal's")
    dialog.get_by_label("Name, of one animal").fill("")
    dialog.get_by_role("button", name="Write down").click()
    hall = page.get_by_role("region", name="Long Hall")
    expect(hall).to_contain_text("96 live here, 36 are planned.")
    expect(hall).to_contain_text("Litres for their size: holds as planned, short as it lives.")
    page.goto(f"{own.url}/systems/1/animals")
    expect(page.get_by_role("region", name="To settle")).not_to_contain_text("Litres for their size")
    page.goto(f"{own.url}/register")
    hall.get_by_role("button", name="Take them into the plan").click()
    expect(page.get_by_role("status")).to_contain_text("one step back undoes it")
    expect(hall).not_to_contain_text("are planned")
    page.goto(f"{own.url}/systems/1/animals")
    expect(page.get_by_role("region", name="To settle")).to_contain_text("Litres for their size")
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_role("region", name="To settle")).not_to_contain_text("Litres for their size")


def test_measured_sold_moved_and_taken_back(page, own, serious):
    page.goto(f"{own.url}/register")
    walk = page.get_by_role("region", name="Rope Walk B, tank 3")
    walk.get_by_role("button", name="Note of Boeseman's rainbowfish, 6").click()
    dialog = page.get_by_role("dialog")
    dialog.get_by_role("button", name="Write down").click()
    expect(dialog.get_by_role("alert")).to_contain_text("How long it is")
    dialog.get_by_label("Length, one of them").fill("5.5")
    dialog.get_by_role("button", name="Write down").click()
    expect(walk).to_contain_text("5.5 cm of 10 cm")
    walk.get_by_role("button", name="Note of Boeseman's rainbowfish, 6").click()
    choose(page, "What happened", "moved", dialog)
    choose(page, "To", "Tidal Corner", dialog)
    dialog.get_by_label("How many").fill("9")
    dialog.get_by_role("button", name="Write down").click()
    expect(dialog.get_by_role("alert")).to_contain_text("6 of them live there on that day, not 9.")
    dialog.get_by_label("How many").fill("2")
    dialog.get_by_role("button", name="Write down").click()
    expect(page.get_by_role("status")).to_contain_text("Of Tidal Corner Loquen’s checks say")
    corner = page.get_by_role("region", name="Tidal Corner")
    corner.get_by_role("button", name="Boeseman").first.click()
    expect(dialog.get_by_role("img", name="Boeseman's rainbowfish: 5.5 cm today")).to_be_visible()
    dialog.get_by_role("button", name="Where could they go?").click()
    places = dialog.get_by_role("list", name="Where they could go")
    expect(places.get_by_role("listitem").first).to_contain_text("Long Hall")
    assert serious() == []
    page.set_viewport_size({"width": 1280, "height": 800})
    dialog.get_by_role("button", name="Take back: moved").click()
    expect(corner).not_to_contain_text("Boeseman")


def test_how_many_young_to_buy(page, own):
    page.goto(f"{own.url}/register")
    page.get_by_role("button", name="More of the register").click()
    page.get_by_role("menuitem", name="How many young").click()
    dialog = page.get_by_role("dialog")
    expect(dialog.get_by_role("status")).to_contain_text("Buy 12 young")
    dialog.get_by_label("Males among the young").fill("100")
    expect(dialog.get_by_role("alert")).to_contain_text("No number up to 400")
