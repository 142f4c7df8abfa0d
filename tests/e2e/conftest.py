"""Debian's Chromium on the running application with its demo room."""

import shutil
from pathlib import Path

import pytest
from playwright.sync_api import expect

from tests import noon
from tests.e2e.nursery import Nursery
from tests.e2e.server import ENVIRONMENT, Server

CHROMIUM = "/usr/bin/chromium"
FLAGS = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
]
# Waiting for a condition is done in the page itself: its content policy forbids conditions sent as text.
UNTIL_STILL = """height => new Promise((done) => {
  let before = 0;
  let still = 0;
  let left = 900;
  const look = () => {
    const now = document.documentElement.scrollHeight;
    const busy = document.querySelector('[aria-busy="true"]') !== null || innerHeight !== height;
    still = busy || now !== before ? 0 : still + 1;
    before = now;
    left -= 1;
    if (still > 20 || left === 0) done();
    else requestAnimationFrame(look);
  };
  look();
})"""
HIGHER = "document.documentElement.scrollHeight > innerHeight"
# A machine that is busy with something else is no fault of the page's.
expect.set_options(timeout=45_000)
AXE = Path(__file__).parents[2] / "web/node_modules/axe-core/axe.min.js"


@pytest.fixture(scope="session")
def browser_type_launch_args():
    return {"executable_path": CHROMIUM, "args": FLAGS}


@pytest.fixture(scope="session")
def browser_context_args():
    return {"viewport": {"width": 1280, "height": 800}, "locale": "en-GB"}


@pytest.fixture
def context(context):
    context.add_init_script(noon.PAGE)
    return context


@pytest.fixture(scope="session")
def nursery():
    nursery = Nursery(ENVIRONMENT)
    yield nursery
    nursery.end()


@pytest.fixture(scope="session")
def server(tmp_path_factory, nursery, demo_file):
    path = shutil.copy(demo_file, tmp_path_factory.mktemp("e2e") / "demo.db")
    server = Server(path, nursery).start()
    yield server
    server.kill()


@pytest.fixture
def own(tmp_path, nursery, demo_file):
    """A server of a test's own, for what it leaves changed: waters, prices, the library, a round."""
    server = Server(shutil.copy(demo_file, tmp_path / "own.db"), nursery).start()
    yield server
    server.kill()


@pytest.fixture
def opened(page, server):
    """Opens a copy of a demo system at a stage; gives the page and the copy's number."""
    troubles = []
    page.on("pageerror", lambda error: troubles.append(str(error)))

    def open_copy(system_id, stage):
        copy = server.copy_of(system_id)
        page.goto(f"{server.url}/systems/{copy}/{stage}")
        page.get_by_role("heading", level=2).first.wait_for()
        return copy

    yield open_copy
    assert troubles == []


@pytest.fixture
def serious(page):
    """Accessibility faults that axe calls serious or critical, on the whole page unrolled.

    Unrolled, because a control half scrolled under the glasses would count as too small.
    """

    def check():
        page.evaluate("document.fonts.ready")
        page.wait_for_load_state("networkidle")
        # A list is given part by part: the end of one, come into view, asks for the next.
        for _ in range(20):
            page.evaluate(UNTIL_STILL, page.viewport_size["height"])
            if not page.evaluate(HIGHER):
                break
            height = page.evaluate("document.documentElement.scrollHeight") + 800
            page.set_viewport_size({"width": page.viewport_size["width"], "height": height})
        page.evaluate(AXE.read_text(encoding="utf-8"))
        found = page.evaluate("() => axe.run({ runOnly: ['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa'] })")
        bad = [v for v in found["violations"] if v["impact"] in ("serious", "critical")]
        return [(v["id"], [(node["target"], node["failureSummary"]) for node in v["nodes"][:3]]) for v in bad]

    return check
