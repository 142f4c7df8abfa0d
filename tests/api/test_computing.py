"""Work in lanes: what a hand waits for stands behind nothing long, and what nobody waits for ends."""

import asyncio
import time
from datetime import UTC, datetime
from threading import Event

import pytest
from fastapi import Request

from loquen.api import computing
from loquen.api.computing import ASIDE_S, DEVICE, LONG, PAGE, QUICK, computed, stood_aside
from loquen.core.graph.giving_up import GivenUp, nobody_waits
from loquen.core.timeline.nitrogen import simulate

TODAY = datetime.now(UTC).date().isoformat()


@pytest.mark.parametrize("lane", [LONG, PAGE, DEVICE])
def test_quick_work_stands_behind_no_long_work(lane):
    go_on = Event()

    async def both():
        long = [asyncio.ensure_future(computed(lambda: go_on.wait(30), lane)) for _ in range(6)]
        await asyncio.sleep(0.05)
        try:
            return await asyncio.wait_for(computed(lambda: "at once", QUICK), 20)
        finally:
            go_on.set()
            await asyncio.gather(*long)

    assert asyncio.run(both()) == "at once"


def test_long_work_stands_aside_for_quick_work_and_for_no_longer_than_a_moment():
    assert stood_aside() is False
    place = object()
    QUICK.waiting.add(place)
    try:
        began = time.monotonic()
        assert stood_aside() is False
        assert time.monotonic() - began >= ASIDE_S
        gone = Event()
        gone.set()
        assert stood_aside(gone) is True
    finally:
        QUICK.waiting.discard(place)


def test_a_run_through_time_ends_when_nobody_waits_for_it():
    token = nobody_waits.set(lambda: True)
    try:
        with pytest.raises(GivenUp):
            simulate(mode="with_animals", load_mg_l_d_n=0.25)
    finally:
        nobody_waits.reset(token)


@pytest.mark.parametrize("path", ["/api/round", "/api/register", "/api/feeding", "nitrate"])
def test_a_page_that_is_gone_is_not_worked_for(client, monkeypatch, path):
    plan = client.get("/api/systems/1").json()["plan"]

    async def gone(_):
        return True

    def slow(*_):
        time.sleep(5 * computing.ASKED_EVERY_S)

    monkeypatch.setattr(Request, "is_disconnected", gone)
    # The first thing that each of them does takes a while, as in a large house.
    monkeypatch.setattr(
        "loquen.store.documents.systems.with_plans", lambda *a, real=real_with_plans(): (slow(), real(*a))[1]
    )
    monkeypatch.setattr(
        "loquen.house.log.reading.readable", lambda rows, real=real_readable(): (slow(), real(rows))[1]
    )
    if path == "nitrate":
        now = datetime.now(UTC).isoformat()
        answer = client.post("/api/systems/1/nitrate", json={"plan": plan, "now": now})
    else:
        answer = client.get(path, params={"today": TODAY})
    assert answer.status_code == computing.NOBODY_THERE


def real_with_plans():
    from loquen.store.documents.systems import with_plans

    return with_plans


def real_readable():
    from loquen.house.log.reading import readable

    return readable
