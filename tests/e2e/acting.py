"""What tests do on pages over and over."""


def choose(page, name, option, within=None, exact=True):
    """Choose from a list by key: a page that is laid out anew meanwhile does not move the aim."""
    (within or page).get_by_role("combobox", name=name).click()
    page.get_by_role("option", name=option, exact=exact).press("Enter")


def until(found, page, seconds=15):
    """Wait for a condition that no page shows."""
    for _ in range(seconds * 20):
        if found():
            return
        page.wait_for_timeout(50)
    raise AssertionError("it did not come about")
