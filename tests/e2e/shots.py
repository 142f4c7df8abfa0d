"""Retake docs/screenshots from the demo room: one picture of each main view at 1280x800."""

import re
import tempfile
from pathlib import Path

from playwright.sync_api import sync_playwright
from pypdfium2 import PdfDocument

from tests import noon
from tests.e2e.conftest import CHROMIUM, FLAGS
from tests.e2e.server import Server

TARGET = Path(__file__).parents[2] / "docs/screenshots"


def last_read(page):
    page.get_by_role("button", name="Last readings").click()
    page.get_by_role("table").wait_for()


def forecast(page):
    page.get_by_text(re.compile("today is day")).first.wait_for()


def ahead(page):
    page.get_by_role("region", name="Levers").wait_for()


def far_tank(page):
    page.get_by_role("button", name=re.compile("^A12: ")).click()


def reckoned(page):
    page.get_by_role("list", name="Checks").or_(page.get_by_role("region", name="Checks")).first.wait_for()


def sided(page):
    page.get_by_role("region", name="Compared").wait_for()


def capped(page):
    """One kind with two tanks at most."""
    page.get_by_label("Threadfin rainbowfish", exact=True).fill("2")
    page.get_by_text("6 of 12 tanks").wait_for()


def proposals(page):
    page.get_by_role("button", name="New system").click()
    dialog = page.get_by_role("dialog")
    dialog.get_by_role("combobox", name="Add an animal").fill("Discus")
    dialog.get_by_role("option", name=re.compile("^Discus")).first.click()
    dialog.get_by_role("button", name="Propose plans").click()
    page.get_by_role("list", name="Plans proposed").wait_for()


def settled(page):
    page.get_by_role("button", name="Settle it").first.click()
    page.get_by_text("With all of them nothing falls short.").wait_for()


def walked(page):
    page.get_by_role("list", name="The round").get_by_role("listitem").first.wait_for()
    page.get_by_role("button", name=re.compile("^Done: Feed")).first.click()
    page.get_by_role("button", name="1 ticked").wait_for()
    page.get_by_role("button", name="how, and why").first.click()


def asked_why(page):
    page.get_by_role("list", name="The round").get_by_role("listitem").first.wait_for()
    page.get_by_role("button", name="how, and why").first.click()


def young_ones(page):
    walk = page.get_by_role("region", name="Rope Walk B, tank 3")
    walk.wait_for()
    page.evaluate("window.scrollTo(0, document.querySelectorAll('section')[2].offsetTop - 60)")
    walk.get_by_role("figure").first.wait_for()


def book_page(server):
    """The first page of Long Hall's build book."""
    plan = server.plan(1)
    book = server.http.post("/api/build/book.pdf", json={"plan": plan}, timeout=60).content
    for number, page in enumerate(PdfDocument(book)):
        if number == 0:
            page.render(scale=1.1).to_pil().save(TARGET / "book.png")


VIEWS = [
    ("animals", "/systems/1/animals", None, "Animals"),
    ("flow", "/systems/1/flow", None, "Flow"),
    ("cycle", "/systems/6/cycle", forecast, "Cycle"),
    ("nitrate", "/systems/3/nitrate", ahead, "Nitrate"),
    ("round", "/round", walked, "Round"),
    ("register", "/register", young_ones, "Register"),
    ("quarantine", "/register/quarantine", None, "Register, quarantine"),
    ("feeding", "/round/feeding", None, "Round, feeding"),
    ("colony", "/breeding/13/colony", reckoned, "Colony"),
    ("worth", "/breeding", sided, "Breeding"),
    ("rack", "/breeding/rack", capped, "Rack plan"),
    ("network", "/rooms/7/changer", far_tank, "Changer"),
    ("timetable", "/rooms/7/timetable", None, "Timetable"),
    ("waters", "/waters", None, "Waters"),
    ("proposals", "/systems", proposals, "Systems"),
    ("settle", "/systems/3/tank", settled, "Tank"),
    ("log", "/log", last_read, "Log"),
]


def shoot(page, server, name, path, act, heading):
    page.goto(server.url + path)
    page.get_by_role("heading", name=heading, exact=True).wait_for()
    page.wait_for_load_state("networkidle")
    if act:
        act(page)
    page.evaluate("document.fonts.ready")
    page.screenshot(path=TARGET / f"{name}.png", animations="disabled")


def main():
    TARGET.mkdir(parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory() as folder, sync_playwright() as playwright:
        server = Server(Path(folder) / "demo.db").start()
        browser = playwright.chromium.launch(executable_path=CHROMIUM, args=FLAGS)
        try:
            page = browser.new_page(viewport={"width": 1280, "height": 800}, locale="en-GB")
            page.add_init_script(noon.PAGE)  # the server's day is the page's too
            for view in VIEWS:
                shoot(page, server, *view)
            book_page(server)
            page = browser.new_page(viewport={"width": 390, "height": 844}, locale="en-GB")
            page.add_init_script(noon.PAGE)
            page.add_init_script("localStorage.setItem('loquen.theme', 'dark')")
            shoot(page, server, "round-phone", "/round", asked_why, "Round")
        finally:
            browser.close()
            server.kill()


if __name__ == "__main__":
    main()
