"""Speed of breeding: a venture at a keystroke, a comparison, a rack of sixty tanks and twelve kinds."""

from dataclasses import replace

import pytest

from loquen.core.growout.assign import Bounds
from loquen.core.growout.homes import home_of
from loquen.core.growout.rack import rack_plan
from loquen.core.library.whole import shipped
from loquen.core.model.roots.venture import Broods, Colony, Sale, Stand, Venture
from loquen.demo.sluice_street import rope_walk_b


def kinds(count):
    """Ventures of the first kinds of the library."""
    found = {}
    for key, species in enumerate(list(shipped().breeding)[:count], 1):
        breeds = shipped().breeding[species]
        found[key] = Venture(
            species,
            Colony(species, females=4, males=2),
            Stand(1, all_tanks=6),
            Broods(taken_month=1, move_cm=breeds.start_cm + 0.3),
            sales=(Sale("All", "any", "shop", 1.0, breeds.sale_cm, breeds.colour_d, 8.0, 0.9, buyers_wk=10.0),),
        )
    return found


def tanks(count, different):
    """Long warm tanks, alike or each a little other than the next."""
    one = replace(home_of(1, rope_walk_b(), shipped()), length_cm=120.0)
    if not different:
        return [replace(one, name=f"T{i}") for i in range(count)]
    return [
        replace(one, name=f"T{i}", change_l_wk=one.change_l_wk * (0.3 + i / count), water_c=25 + i / 100)
        for i in range(count)
    ]


@pytest.mark.parametrize("different", [False, True])
def test_rack_of_60_tanks_and_12_kinds_budget_1000_ms(benchmark, different):
    ventures, homes = kinds(12), tanks(60, different)
    benchmark.pedantic(lambda: rack_plan(ventures, homes, {}, Bounds(20.0), None, shipped()), rounds=3)


def test_a_venture_at_a_keystroke_budget_100_ms(benchmark, client):
    venture = client.get("/api/ventures/14").json()["venture"]
    turn = iter(range(10_000))

    def asked():
        venture["costs"]["hour_money"] = 3 + next(turn) / 1000
        body = {"venture": venture, "today": "2026-11-26"}
        assert client.post("/api/breeding/sheet", json=body).status_code == 200

    benchmark(asked)


def test_four_kinds_compared_budget_300_ms(benchmark, client):
    benchmark(lambda: client.get("/api/breeding", params={"today": "2026-11-26", "system": 3}))
