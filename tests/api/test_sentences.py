"""Every sentence that is sent has a term for each of its places: none reaches a reader with a hole in it."""

import re
from datetime import UTC, datetime

PLACE = re.compile(r"{(\w+)}")


def sentences(answer):
    """All sentences of an answer, however deep."""
    if isinstance(answer, dict):
        if isinstance(answer.get("text"), str) and isinstance(answer.get("terms"), dict):
            yield answer
        for value in answer.values():
            yield from sentences(value)
    elif isinstance(answer, list):
        for value in answer:
            yield from sentences(value)


def holes(answer):
    return [one["text"] for one in sentences(answer) if set(PLACE.findall(one["text"])) - one["terms"].keys()]


def test_no_page_of_the_demo_sends_a_sentence_with_a_hole(client):
    now = datetime.now(UTC)
    plans = {number: client.get(f"/api/systems/{number}").json()["plan"] for number in (1, 3, 6)}
    hall = plans[1]
    begun = {**hall["cycle"], "begun_by": "animals", "begun_on": now.date().isoformat(), "camp": "rescue"}
    stocked = {**hall["run_in"], "stands": "set_up", "stocked": "now"}
    asked = [
        (1, "cycle", {**hall, "cycle": begun, "run_in": stocked}),
        (6, "cycle", plans[6]),
        (3, "nitrate", plans[3]),
    ]
    answers = [
        client.post(f"/api/systems/{number}/{page}", json={"plan": plan, "now": now.isoformat()}).json()
        for number, page, plan in asked
    ]
    answers += [
        client.post("/api/sheet", json={"plan": plan, "months_ahead": None, "known": None}).json()
        for plan in plans.values()
    ]
    today = {"today": now.date().isoformat(), "zone": "UTC"}
    answers += [client.get(path, params=today).json() for path in ("/api/round", "/api/register")]
    assert [hole for answer in answers for hole in holes(answer)] == []
    assert all(any(True for _ in sentences(answer)) for answer in answers)
