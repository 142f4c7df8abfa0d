"""The server as a process: starting, being told to stop, sockets that hold it up, and what the command line says."""

import os
import signal
import socket
import sqlite3
import subprocess
import sys
import time

import httpx
import pytest

from loquen.serving import protocol
from tests.e2e.server import Server

COMMAND = [sys.executable, "-m", "loquen.cli"]
ENVIRONMENT = {**os.environ, "PYTHONPATH": os.path.abspath("src")}


def run(*arguments, cwd=None):
    """What the command line said and its exit code."""
    done = subprocess.run(
        [*COMMAND, *map(str, arguments)], capture_output=True, text=True, check=False, cwd=cwd, env=ENVIRONMENT
    )
    return done.returncode, done.stdout.strip(), done.stderr.strip()


@pytest.fixture
def server(tmp_path):
    server = Server(tmp_path / "own.db").start()
    yield server
    server.kill()


def half_sent(port, content):
    """A socket on which a request was begun and not ended."""
    ours = socket.create_connection(("127.0.0.1", port))
    ours.sendall(content)
    return ours


BODY = b"POST /api/sheet HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Length: 100\r\n\r\nhalf"
HEAD = b"GET /api/systems HTTP/1.1\r\nHost: 127"


def test_it_stops_with_a_half_sent_body_and_leaves_one_whole_file(server, tmp_path):
    server.http.put("/api/systems/2", json={"base": 1, "plan": {**server.plan(2), "name": "Kept"}})
    with half_sent(server.port, BODY), half_sent(server.port, HEAD):
        began = time.monotonic()
        server.process.send_signal(signal.SIGTERM)
        assert server.process.wait(timeout=20) == 0
        assert time.monotonic() - began < 12  # five seconds of grace, and a machine that is busy
    assert [file.name for file in tmp_path.iterdir()] == ["own.db"]
    with sqlite3.connect(tmp_path / "own.db") as file:
        assert file.execute("SELECT count(*) FROM revision WHERE plan GLOB '*Kept*'").fetchone() == (1,)


def test_the_port_is_taken_before_anything_else_and_told_when_it_is_not_free(tmp_path):
    with socket.socket() as other:
        other.bind(("127.0.0.1", 0))
        other.listen()
        port = other.getsockname()[1]
        code, said, fault = run("serve", "--db", tmp_path / "new.db", "--port", port)
    assert (code, said) == (1, "")
    assert fault == f"Port {port} is in use, perhaps by another Loquen. Give another one with --port, or stop that."
    assert list(tmp_path.iterdir()) == []


def test_pages_go_out_while_the_api_is_being_loaded(tmp_path):
    server = Server(tmp_path / "own.db")
    process = server.begin()
    try:
        while True:
            try:
                page = httpx.get(server.url, trust_env=False)
                break
            except httpx.TransportError:
                assert process.poll() is None
                time.sleep(0.01)
        assert "<title>Loquen" in page.text
        assert server.http.get("/api/library", timeout=60).status_code == 200
    finally:
        server.kill()


@pytest.mark.parametrize("content", [BODY, HEAD, b""])
def test_a_socket_that_does_not_end_its_request_is_closed(content, tmp_path):
    code = (
        "from loquen.serving import protocol; protocol.SLOWEST_REQUEST_S = 0.5; from loquen.cli import app; app()"
    )
    server = Server(tmp_path / "own.db")
    server.command = [sys.executable, "-c", code]
    server.start()
    try:
        with half_sent(server.port, content) as ours:
            ours.settimeout(10)
            assert ours.recv(1000) == b""
        assert server.http.get("/api/library").status_code == 200
    finally:
        server.kill()
    assert protocol.SLOWEST_REQUEST_S <= 15


def test_a_kept_alive_connection_asks_again_and_again(server):
    with httpx.Client(base_url=server.url, trust_env=False) as client:
        assert [client.get("/api/systems/1").status_code for _ in range(5)] == [200] * 5


# The command line -------------------------------------------------------------------------------


@pytest.mark.parametrize("verb", ["serve", "demo"])
@pytest.mark.parametrize(
    ("content", "words"),
    [(b"Dear keeper,", "was not written by Loquen"), (b"SQLite format 3\0 cut", "is damaged and can not be read")],
)
def test_a_file_that_can_not_be_opened_is_one_sentence(tmp_path, verb, content, words):
    path = tmp_path / "odd.db"
    path.write_bytes(content)
    code, said, fault = run(verb, "--db", path, "--port", 9)
    assert (code, said, len(fault.splitlines())) == (1, "", 1)
    assert words in fault
    assert path.read_bytes() == content


def test_backup_and_restore_from_where_the_person_stands(server, tmp_path):
    here = tmp_path / "here"
    here.mkdir()
    code, said, _ = run("backup", "copy.db", "--db", server.database, cwd=here)
    assert (code, said, (here / "copy.db").exists()) == (0, "Copied to copy.db", True)
    code, _, fault = run("backup", server.database, "--db", server.database)
    assert (code, fault) == (1, f"{server.database} is the file in use itself: name another place for the copy.")
    code, _, fault = run("restore", "copy.db", "--db", server.database, cwd=here)
    assert (code, fault) == (1, f"{server.database} is in use: stop the Loquen that serves it, then restore.")
    server.http.put("/api/systems/2", json={"base": 1, "plan": {**server.plan(2), "name": "Later"}})
    server.kill()
    code, said, _ = run("restore", "copy.db", "--db", server.database, cwd=here)
    assert (code, "What was there lies in" in said) == (0, True)
    server.start()
    # Read it is as long as a connection to what was there is free: what is made behind may hold it for a moment.
    read = next(read for _ in range(100) if (read := server.http.get("/api/systems/2")).status_code == 200)
    assert read.json()["plan"]["name"] == "Tidal Corner"


def test_a_book_of_what_is_not_there(server, tmp_path):
    target = tmp_path / "book.pdf"
    assert run("book", 99, target, "--db", server.database)[2] == f"There is no system 99 in {server.database}."
    assert run("book", 1, target, "--db", tmp_path / "none.db")[2] == f"There is no {tmp_path / 'none.db'}."
    code, said, _ = run("book", 1, target, "--db", server.database)
    assert (code, said, target.read_bytes()[:5]) == (0, f"Long Hall: {target}", b"%PDF-")


def test_the_file_removed_while_serving_is_told(server):
    server.database.unlink()
    plan = {**server.http.get("/api/systems/2").json()["plan"], "name": "Wider"}
    answer = server.http.put("/api/systems/2", json={"base": 1, "plan": plan})
    assert (answer.status_code, answer.json()["code"]) == (507, "gone")
    # Read it is as long as a connection to what was there is free: what is made behind may hold it for a moment.
    read = next(read for _ in range(100) if (read := server.http.get("/api/systems/2")).status_code == 200)
    assert read.json()["plan"]["name"] == "Tidal Corner"
