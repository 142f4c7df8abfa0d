"""What may go wrong around a keeper: a foreign page, a browser that keeps nothing, a row that is damaged, a very long table."""

import os
import socket
import sqlite3
import subprocess
import sys
import threading
import time
from contextlib import closing, contextmanager
from http.server import BaseHTTPRequestHandler, HTTPServer

import httpx
import pytest
from playwright.sync_api import expect

from tests.e2e.acting import until
from tests.e2e.test_round import at_work, stop

PAGES = ("round", "round/stock", "round/feeding", "round/away", "systems", "rooms", "waters", "register", "register/quarantine",
         "breeding", "breeding/rack", "log", "library", "systems/1/tank", "systems/1/log", "systems/3/nitrate",
         "rooms/7/racks")  # fmt: skip
KEEPS_NOTHING = """
Object.defineProperty(window, "localStorage", {
  get() { throw new DOMException("The operation is insecure.", "SecurityError"); },
});
"""
IS_FULL = """
Storage.prototype.setItem = () => { throw new DOMException("full", "QuotaExceededError"); };
"""


# The controller's port, from a page of another origin -------------------------------------------


@pytest.fixture
def device(tmp_path):
    """A simulated controller as a process of its own, its token, and what it says to who has that."""
    token = tmp_path / "token"
    token.write_text("only for this test")
    with closing(socket.socket()) as free:
        free.bind(("127.0.0.1", 0))
        port = free.getsockname()[1]
    command = [sys.executable, "-m", "loquen.cli", "controller", "--port", str(port), "--token", str(token)]
    process = subprocess.Popen(command, env={**os.environ, "PYTHONPATH": "src"})

    def ask(method="GET", path="/state", body=None):
        headers = {"Authorization": "Bearer only for this test"}
        with httpx.Client(trust_env=False) as ours:
            return ours.request(method, f"http://127.0.0.1:{port}{path}", json=body, headers=headers).json()

    deadline = time.monotonic() + 30
    while time.monotonic() < deadline:
        try:
            ask()
            break
        except httpx.TransportError:
            time.sleep(0.1)
    ask("POST", "/master", {"open": False})
    yield port, ask
    process.terminate()
    process.wait(10)


@contextmanager
def foreign_page(script):
    """A page of another origin of this machine."""

    class Page(BaseHTTPRequestHandler):
        def log_message(self, *_):
            return

        def do_GET(self):
            self.send_response(200)
            self.send_header("Content-Type", "text/html")
            self.end_headers()
            self.wfile.write(f"<title>elsewhere</title><script>{script}</script>".encode())

    server = HTTPServer(("127.0.0.1", 0), Page)
    threading.Thread(target=server.serve_forever, daemon=True).start()
    yield f"http://127.0.0.1:{server.server_address[1]}/"
    server.shutdown()
    server.server_close()


def test_no_page_of_another_origin_reaches_the_valves(page, device):
    port, ask = device
    script = f"""
    const tries = [
      [{{method: "POST", mode: "no-cors", body: '{{"open": true}}'}}],
      [{{method: "POST", mode: "no-cors", headers: {{"Content-Type": "text/plain"}}, body: '{{"open": true}}'}}],
      [{{method: "POST", headers: {{"Content-Type": "application/json"}}, body: '{{"open": true}}'}}],
      [{{method: "POST", headers: {{Authorization: "Bearer guessed", "Content-Type": "application/json"}}, body: '{{"open": true}}'}}],
      [{{method: "GET"}}],
    ];
    Promise.allSettled(tries.map(([how]) => fetch("http://127.0.0.1:{port}/master", how).then((answer) => answer.text())))
      .then((all) => {{ document.title = "tried " + all.filter((one) => one.status === "fulfilled" && one.value).length; }});
    navigator.sendBeacon("http://localhost:{port}/master", '{{"open": true}}');
    """
    with foreign_page(script) as url:
        page.goto(url)
        # Not one of them let the page read a word, and none opened anything.
        expect(page).to_have_title("tried 0")
        page.evaluate(f"""() => {{
          const form = document.createElement("form");
          form.method = "POST"; form.enctype = "text/plain"; form.action = "http://127.0.0.1:{port}/master";
          const field = document.createElement("input");
          field.name = '{{"open": true, "x": "'; field.value = '"}}';
          form.append(field); document.body.append(form); form.submit();
        }}""")
        page.wait_for_url(f"http://127.0.0.1:{port}/master")
        expect(page.get_by_text("no web page may ask")).to_be_visible()
    assert ask()["master_open"] is False
    assert ask("POST", "/master", {"open": True})["master_open"] is True


# The page's own store ---------------------------------------------------------------------------


def test_every_page_works_in_a_browser_that_keeps_nothing(page, server):
    page.add_init_script(KEEPS_NOTHING)
    troubles = []
    page.on("pageerror", lambda error: troubles.append(str(error)))
    for path in PAGES:
        page.goto(f"{server.url}/{path}")
        expect(page.get_by_role("heading").first).to_be_visible()
    assert troubles == []


@pytest.mark.parametrize("browser_is", [KEEPS_NOTHING, IS_FULL])
def test_a_tick_is_told_and_sent_by_a_browser_that_keeps_nothing(page, own, browser_is):
    page.add_init_script(browser_is)
    at_work(page, own)
    hall = stop(page, "Long Hall")
    page.route("**/api/round/ticks", lambda route: route.abort())
    hall.get_by_role("button", name="Done: Feed").click()
    told = page.get_by_text("1 tick waits in this page")
    expect(told).to_contain_text("leave the page open")
    page.unroute("**/api/round/ticks")
    expect(told).to_have_count(0, timeout=40_000)
    expect(hall.get_by_role("button", name="Done: Feed")).to_have_count(0)


def test_one_tick_that_is_refused_is_set_aside_and_the_rest_goes_on(page, own):
    at_work(page, own)
    expect(stop(page, "Long Hall")).to_be_visible()
    page.evaluate("""() => {
      const tick = { system_id: 1, duty: "change", due: "2026-02-30", at: new Date().toISOString(), day: "2026-02-30" };
      localStorage.setItem("loquen.ticks", JSON.stringify([{ ...tick, id: "a-bad-tick-1" }]));
    }""")
    page.reload()
    hall = stop(page, "Long Hall")
    hall.get_by_role("button", name="Done: Feed").click()
    refused = page.get_by_role("alert")
    expect(refused).to_contain_text("Long Hall: Change 185 L")
    expect(refused).to_contain_text("is no day of the calendar")
    page.get_by_role("button", name="3 ticked").or_(page.get_by_role("button", name="1 ticked")).first.wait_for()
    until(lambda: page.evaluate("localStorage.getItem('loquen.ticks')") == "[]", page)
    page.get_by_role("button", name="Seen; the others go on").click()
    expect(refused).to_have_count(0)


def test_what_is_taken_back_while_away_waits_like_a_tick(page, own):
    at_work(page, own)
    hall = stop(page, "Long Hall")
    with page.expect_response("**/api/round/ticks"):
        hall.get_by_role("button", name="Done: Feed").click()
    expect(page.get_by_role("status")).to_have_count(0)
    page.get_by_role("button", name="1 ticked").click()
    own.kill()
    page.get_by_role("button", name="Take back: Feed").first.click()
    expect(hall.get_by_role("button", name="Done: Feed")).to_be_visible()
    expect(page.get_by_role("status")).to_contain_text("in this browser")
    own.start()
    expect(page.get_by_role("status")).to_have_count(0, timeout=40_000)
    page.reload()
    expect(stop(page, "Long Hall").get_by_role("button", name="Done: Feed")).to_be_visible()


# What can not be read ---------------------------------------------------------------------------


def damage(server, sql, *values):
    with closing(sqlite3.connect(server.database)) as file, file:
        assert file.execute(sql, values).rowcount == 1


def test_a_damaged_row_is_shown_in_its_place_put_right_and_set_aside(page, own, serious):
    log = own.http.get("/api/systems/1/log").json()
    first, second = [row["id"] for row in log if not row["who"]][:2]
    damage(own, "UPDATE event SET document = ? WHERE id = ?", '{"kind": "chan', first)
    damage(own, "UPDATE event SET at = ? WHERE id = ?", "the other day", second)
    page.goto(f"{own.url}/systems/1/log")
    unread = page.get_by_role("region", name="What can not be read")
    expect(unread).to_contain_text("2 rows here can not be read.")
    expect(unread).to_contain_text('{"kind": "chan')
    assert serious() == []
    unread.get_by_role("listitem").filter(has_text="the other day").get_by_role(
        "button", name="Put it right"
    ).click()
    dialog = page.get_by_role("dialog")
    dialog.get_by_label("When", exact=True).fill("still no day")
    dialog.get_by_role("button", name="Keep it so").click()
    expect(dialog.get_by_role("alert")).to_be_visible()
    dialog.get_by_label("When", exact=True).fill("2026-05-01 18:00")
    dialog.get_by_role("button", name="Keep it so").click()
    expect(unread).to_contain_text("One row here can not be read.")
    unread.get_by_role("button", name="Set it aside").click()
    expect(unread).to_contain_text("Set aside, whole.")
    expect(unread).not_to_contain_text("can not be read.")
    unread.get_by_role("button", name="Undo").click()
    expect(unread).to_contain_text("One row here can not be read.")
    page.set_viewport_size({"width": 390, "height": 844})
    assert page.evaluate("document.documentElement.scrollWidth") <= 390


# A long table -----------------------------------------------------------------------------------


def test_a_long_table_shows_how_far_it_is_and_can_be_left(page, own):
    before = len(own.http.get("/api/systems/2/log").json())
    lines = "".join(
        f"2019-{1 + n % 12:02}-{1 + n % 28:02};{n % 24:02}:{n % 60:02};20;7,2;6\n" for n in range(40_000)
    )
    page.goto(f"{own.url}/systems/2/log")
    page.get_by_role("button", name="A table").first.click()
    table = {"name": "log.csv", "mimeType": "text/csv", "buffer": f"date;time;NO3;pH;KH\n{lines}".encode()}
    page.get_by_label("Table file").set_input_files(table)
    page.get_by_role("button", name="Look at it").click()
    expect(page.get_by_role("progressbar", name="Read so far")).to_be_visible()
    page.get_by_role("button", name="Stop; nothing is kept").click()
    expect(page.get_by_role("progressbar")).to_have_count(0)
    expect(page.get_by_role("button", name="Look at it")).to_be_enabled()
    assert len(own.http.get("/api/systems/2/log").json()) == before


def test_changes_of_one_are_asked_about(page, own):
    page.goto(f"{own.url}/systems/2/log")
    page.get_by_role("button", name="A table").first.click()
    page.get_by_label("Table", exact=True).fill("Datum;Wasserwechsel\n01.02.2026;1\n08.02.2026;1")
    page.get_by_role("button", name="Look at it").click()
    expect(page.get_by_text("Every change is 1: taken as one per cent.")).to_be_visible()
    page.get_by_role("button", name="It is all of the water").click()
    expect(page.get_by_text("change, 1 is all of the water")).to_be_visible()
