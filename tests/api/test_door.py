"""What stands before every answer: who may ask, how much, which headers go out, and what becomes of a fault."""

import pytest

from loquen.house.sheet import view
from loquen.serving.guard import GUARDING, MOST_BYTES

HERE = "http://127.0.0.1:8640"


@pytest.mark.parametrize(
    "headers",
    [
        {"host": "evil.example"},
        {"origin": "https://evil.example"},
        {"origin": "http://127.0.0.1:3000"},
        {"origin": "http://localhost:8640"},
        {"origin": "https://127.0.0.1:8640"},
        {"origin": "null"},
        {"sec-fetch-site": "cross-site"},
        {"sec-fetch-site": "same-site"},
        {"sec-fetch-site": "cross-site", "sec-fetch-mode": "navigate"},
    ],
)
def test_only_this_servers_own_pages_may_ask(client, headers):
    refused = client.get("/api/systems", headers=headers)
    assert (refused.status_code, refused.json()["code"]) == (403, "from_elsewhere")


@pytest.mark.parametrize(
    "headers", [{}, {"origin": HERE}, {"sec-fetch-site": "same-origin"}, {"sec-fetch-site": "none"}]
)
def test_its_own_pages_may(client, headers):
    assert client.get("/api/systems", headers=headers).status_code == 200


def test_a_link_from_elsewhere_may_be_followed_and_a_picture_not_be_taken(client):
    link = {"sec-fetch-site": "cross-site", "sec-fetch-mode": "navigate"}
    assert client.get("/systems/1/tank", headers=link).status_code == 200
    assert client.get("/systems/1/tank", headers={**link, "sec-fetch-mode": "no-cors"}).status_code == 403


@pytest.mark.parametrize(
    ("path", "headers"),
    [
        ("/", {}),
        ("/api/systems", {}),
        ("/api/nothing", {}),
        ("/api/systems/99", {}),
        ("/", {"host": "evil.example"}),
    ],
)
def test_every_answer_carries_the_policy(client, path, headers):
    answer = client.get(path, headers=headers)
    assert {name: answer.headers.get(name) for name in GUARDING} == GUARDING


def test_data_is_never_kept_by_the_browser(client):
    for path in ("/api/systems", "/api/library", "/api/waters", "/api/systems/1/history"):
        assert client.get(path).headers["cache-control"] == "no-store"
    assert client.get("/").headers["cache-control"] == "no-cache"


def test_a_head_is_answered_without_a_body(client):
    for path in ("/", "/api/systems", "/api/systems/1"):
        head = client.head(path)
        assert (head.status_code, head.content) == (200, b"")
        assert head.headers["content-type"] == client.get(path).headers["content-type"]
    assert client.head("/api/systems/99").status_code == 404


def test_oversized_requests_are_refused(client):
    assert client.post("/api/sheet", content=b"x" * (MOST_BYTES + 1)).status_code == 413
    assert client.post("/api/sheet", content=iter([b"{}"])).status_code == 413
    for odd in ("-1", "1e9", "9" * 400):
        assert client.post("/api/sheet", headers={"content-length": odd}).status_code in (400, 413)


def test_a_fault_of_the_server_is_told_as_one_with_the_policy(client, monkeypatch, caplog):
    monkeypatch.setattr(view, "view", lambda *_: 1 / 0)
    plan = client.get("/api/systems/1").json()["plan"]
    answer = client.post("/api/sheet", json={"plan": plan})
    assert (answer.status_code, answer.json()["code"]) == (500, "server_fault")
    assert "Nothing was changed" in answer.json()["sentence"]["text"]
    assert answer.headers["content-security-policy"] == GUARDING["Content-Security-Policy"]
    assert "ZeroDivisionError" in caplog.text


def test_every_path_is_the_page_and_none_leads_out(client, tmp_path):
    (tmp_path / "secret.txt").write_text("secret")
    odd = ["/", "/systems/1/tank", "/../secret.txt", "/%2e%2e/secret.txt", "/a%00b", "/" + "x" * 300, "/%ff"]
    for path in odd:
        page = client.get(path)
        assert page.status_code == 200, path
        assert "<title>Loquen" in page.text
    assert client.get("/assets/nothing.js").status_code == 404
    assert client.post("/systems").status_code == 405


def test_an_unknown_route_of_the_api_is_not_a_page(client):
    for method in ("GET", "POST", "PUT", "DELETE", "PATCH"):
        answer = client.request(method, "/api/nothing")
        assert (answer.status_code, answer.json()["code"]) == (404, "no_such_route")
    assert client.patch("/api/systems/1").status_code == 404
