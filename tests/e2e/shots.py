"""Retake docs/screenshots from the demo room: one picture of each main view at 1280x800."""

import tempfile
from pathlib import Path

from playwright.sync_api import sync_playwright
from pypdfium2 import PdfDocument

from tests.e2e.conftest import CHROMIUM, FLAGS
from tests.e2e.server import Server

TARGET = Path(__file__).parents[2] / "docs/screenshots"


def opened_slip(page):
    page.locator("[data-figure=peak_nitrate_mg_l]").first.click()
    page.get_by_role("region", name="What would it take?").wait_for()


def at_the_sump(page):
    page.get_by_role("heading", name="Sump", exact=True).evaluate("sump => sump.scrollIntoView({ block: 'start' })")


def at_the_regimes(page):
    heading = page.get_by_role("heading", name="Regimes side by side")
    heading.evaluate("heading => heading.scrollIntoView({ block: 'start' })")


def book_pages(server):
    """The first two pages of Long Hall's build book."""
    plan = server.plan(1)
    book = server.http.post("/api/build/book.pdf", json={"plan": plan}, timeout=60).content
    for number, page in enumerate(PdfDocument(book)):
        if number < 2:
            page.render(scale=1.1).to_pil().save(TARGET / f"book-{number + 1}.png")


VIEWS = [
    ("systems", "/systems", None, "Long Hall"),
    ("animals", "/systems/1/animals", None, "Animals"),
    ("tank", "/systems/2/tank", None, "Tank"),
    ("filter", "/systems/1/filter", None, "Filter"),
    ("flow", "/systems/1/flow", None, "Flow"),
    ("sump", "/systems/4/flow", at_the_sump, "Flow"),
    ("heat", "/systems/2/heat", None, "Heat and light"),
    ("source", "/systems/5/source", None, "Source"),
    ("changes", "/systems/3/changes", None, "Changes"),
    ("regimes", "/systems/3/changes", at_the_regimes, "Changes"),
    ("arrivals", "/systems/5/arrivals", None, "Arrivals"),
    ("waters", "/waters", None, "Waters"),
    ("working", "/systems/3/changes", opened_slip, "Changes"),
]


def shoot(page, server, name, path, act, heading):
    page.goto(server.url + path)
    page.get_by_role("heading", name=heading, exact=True).wait_for()
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
            page = browser.new_page(viewport={"width": 1280, "height": 800})
            for view in VIEWS:
                shoot(page, server, *view)
            book_pages(server)
            page = browser.new_page(viewport={"width": 390, "height": 844})
            shoot(page, server, "phone", "/systems/3/changes", None, "Changes")
            page = browser.new_page(viewport={"width": 1280, "height": 800})
            page.add_init_script("localStorage.setItem('loquen.theme', 'dark')")
            shoot(page, server, "lights-out", "/systems/1/animals", None, "Animals")
        finally:
            browser.close()
            server.kill()


if __name__ == "__main__":
    main()
