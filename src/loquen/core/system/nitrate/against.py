"""One tank against another: which keeps less of the nitrate that its feed makes, whatever is changed in them."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime

import numpy as np

from loquen.core.errors import NamedCase
from loquen.core.events.ledger import Logged
from loquen.core.graph.asking import number
from loquen.core.graph.sheet import Sheet
from loquen.core.model.inputs.quantity import Sentence, Term, say
from loquen.core.model.roots.plan import Plan
from loquen.core.physics.elementwise import Array
from loquen.core.physics.nitrogen import NITRATE_PER_N
from loquen.core.system.nitrate.course import known
from loquen.core.system.nitrate.entries import entries_of, readings_in
from loquen.core.system.nitrate.forecast import ENOUGH

SURE = 0.95


@dataclass(frozen=True, slots=True)
class Against:
    """Parts of what feed makes that stay as nitrate, here and there, each 5, 50 and 95 %, and the odds that there fewer do."""

    here: tuple[float, ...]
    there: tuple[float, ...]
    odds_there_less: float
    sentence: Sentence


def stays(sheet: Sheet[Plan], log: Sequence[Logged], now: datetime) -> Array:
    """Samples of the part of what feed makes that stays as nitrate; raise NamedCase "nothing_read" for too short a log."""
    past = [row for row in log if row.at <= now]
    entries = entries_of(past, float(sheet.value("real_volume_l")), now, sheet.library)
    made = (number(sheet, "made_nitrate_mg_l_d") or 0.0) * NITRATE_PER_N
    if readings_in(entries) < ENOUGH or made <= 0:
        raise NamedCase("nothing_read")
    return known(sheet, entries, past, now).made / made


def against(
    here: tuple[Sheet[Plan], Sequence[Logged]], there: tuple[Sheet[Plan], Sequence[Logged]], now: datetime
) -> Against:
    """This tank and another, normalised by what is fed and what is changed."""
    # Both are drawn in one order: what is uncertain here has nothing to do with what is uncertain there.
    first, second = stays(*here, now), np.random.default_rng(5).permutation(stays(*there, now))
    odds = float((second < first).mean())
    quantiles = [tuple(float(q) for q in np.quantile(part, [0.05, 0.5, 0.95])) for part in (first, second)]
    terms = {
        "here": Term(quantiles[0][1], "share"),
        "there": Term(quantiles[1][1], "share"),
        "name": Term(there[0].root.name),
        "odds": Term(max(odds, 1 - odds), "share"),
    }
    if odds > SURE:
        text = "{name} keeps {there} of what its feed makes, this tank {here}: it loses more of it, {odds} sure."
    elif odds < 1 - SURE:
        text = (
            "This tank keeps {here} of what its feed makes, {name} {there}: this one loses more of it, {odds} sure."
        )
    else:
        text = "Can not tell them apart: this tank keeps about {here} of what its feed makes, {name} about {there}."
    return Against(quantiles[0], quantiles[1], odds, say(text, **terms))
