"""What stops a cycle or slows it, each with its cure; what would hasten it; what is not sure or can hurt."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np

from loquen.core.events.kinds.water import Dosed
from loquen.core.events.ledger import Logged
from loquen.core.model.inputs.quantity import Sentence, Term, say
from loquen.core.physics.elementwise import Array
from loquen.core.system.cycle import replay
from loquen.core.system.cycle.setup import Begun, bicarbonate_g
from loquen.core.timeline.nitrogen import Inputs
from loquen.core.timeline.process.constants import table
from loquen.core.timeline.rates import hydrogen
from loquen.core.timeline.run import HOURS
from loquen.core.timeline.tending.keeper import Tended, tend

UNSURE_PH = 6.2
HALF = 0.5


@dataclass(frozen=True, slots=True)
class Hastens:
    """Something that would bring the day nearer, and by how many days."""

    words: Sentence
    days: float


def stalls(cycle: Begun, tended: Tended[Array], log: Sequence[Logged], today: float) -> tuple[Sentence, ...]:
    """What stops it, or will, each with its cure."""
    found, tally = [], tended.tally
    kh = np.median(tended.hours["kh"], axis=1)
    runs_out = first_under(tended.hours["kh"], table().lift_under_dkh)
    stalled = tally.stalled_day
    if cycle.fishless and runs_out is not None:
        found.append(lifted(cycle, runs_out))
    elif np.isfinite(stalled).mean() > 0.5:
        grams = Term(bicarbonate_g(cycle, table().bicarbonate_lifts_dkh), "small_mass")
        text = (
            "Carbonate hardness is used up about day {day}: pH falls and the bacteria stop. Half a change, or {grams} of "
            "sodium bicarbonate for {lifts}, before that."
        )
        day = Term(round(float(np.nanmedian(stalled))), "count")
        found.append(say(text, day=day, grams=grams, lifts=Term(table().bicarbonate_lifts_dkh, "carbonate")))
    hour = min(int(today * HOURS), len(kh) - 1)
    if cycle.asked.temp_c < 18:
        text = "At {temp} bacteria grow slowly: warmed to 26 °C while it is empty it takes little more than half the time."
        found.append(say(text, temp=Term(cycle.asked.temp_c, "temperature")))
    if float(kh[hour]) < 0.3 and not found:
        found.append(
            say("Hardly any carbonate hardness is left: under pH 6 the bacteria stand still. Change water.")
        )
    if cycle.asked.mode == "with_animals" and cycle.asked.load_mg_l_d_n <= 0:
        found.append(
            say("Nothing in it makes ammonia, so nothing grows: dose ammonia, or feed what will live in it.")
        )
    if cycle.asked.x_max_mg_l_d is not None:
        most = table().too_small_of_capacity * cycle.asked.x_max_mg_l_d
        load = max(cycle.asked.load_mg_l_d_n, cycle.load_full_mg_l_d)
        if load > most:
            text = (
                "The filter is too small for these animals: {load} are made, {most} are the most it settles with."
            )
            terms = {
                "load": Term(load * cycle.litres, "nitrogen_load"),
                "most": Term(most * cycle.litres, "nitrogen_load"),
            }
            found.append(say(text, **terms))
    if not found and cycle.animals_in and np.isnan(tally.clear_from_day).mean() > 0.5:
        made = cycle.asked.load_mg_l_d_n
        text = (
            "{made} of ammonia is made in each litre a day: more than daily changes carry while bacteria grow. Fewer animals, "
            "more water, or media of a running filter."
        )
        found.append(say(text, made=Term(made, "ammonia")))
    if cycle.untreated:
        text = (
            "The change water is not treated as planned: its chlorine kills bacteria with every change. See Source."
        )
        found.append(say(text))
    copper = [
        row
        for row in replay.since_start(cycle, log)
        if isinstance(row.event, Dosed) and row.event.what == "medicine"
    ]
    if copper:
        found.append(
            say("A medicine was dosed: copper and some antibiotics stop the bacteria. Test before you wait on.")
        )
    return tuple(found)


def first_under(levels: Array, limit: float) -> float | None:
    """The day on which the middle of members (hours × members) first falls under a limit; None where most never do."""
    under = levels < limit
    if under.any(axis=0).mean() < HALF:
        return None
    return float(np.median(under.argmax(axis=0)[under.any(axis=0)])) / HOURS


def lifted(cycle: Begun, day: float) -> Sentence:
    """That carbonate hardness runs out, with the cure that the calendar has on that day."""
    terms = {"day": Term(math.ceil(day), "count")}
    cure = "half a change then"
    if cycle.keeper().buffers is not None:
        cure = "{grams} of sodium bicarbonate then, for {lifts} more"
        terms["grams"] = Term(bicarbonate_g(cycle, table().bicarbonate_lifts_dkh), "small_mass")
        terms["lifts"] = Term(table().bicarbonate_lifts_dkh, "carbonate")
    text = f"Carbonate hardness runs out about day {{day}}: {cure}, as the calendar has it. Without it pH falls and the bacteria stop."
    return say(text, **terms)


def hastens(cycle: Begun, middle: float) -> tuple[Hastens, ...]:
    """What would bring the day nearer, each tried on this tank, the most first."""
    asked = cycle.asked
    tried: list[tuple[Sentence, dict[str, object]]] = []
    if asked.temp_c < 27 and not cycle.animals_in:
        warm = {"temp_c": min(28.0, asked.temp_c + 3)}
        tried.append((say("{temp} while it is empty", temp=Term(warm["temp_c"], "temperature")), dict(warm)))
    more = {"seed_ammonia_oxidisers_mg_l_d": asked.seed_ammonia_oxidisers_mg_l_d + 0.3}
    more["seed_nitrite_oxidisers_mg_l_d"] = asked.seed_nitrite_oxidisers_mg_l_d + 0.3
    worth = 0.3 * cycle.litres
    tried.append((say("running media that turn over {load}", load=Term(worth, "nitrogen_load")), dict(more)))
    if asked.kh_dkh < 6 and not asked.soil:
        tried.append((say("{kh} of carbonate hardness from the start", kh=Term(8.0, "carbonate")), {"kh_dkh": 8.0}))
    full = table().full_dose_mg_l
    if cycle.fishless and asked.full_dose_mg_l_n < full <= cycle.most_proved_mg_l:
        tried.append((say("doses of {dose}", dose=Term(full, "ammonia")), {"full_dose_mg_l_n": full}))
    found = []
    base = single(cycle, asked)
    for words, changes in tried:
        day = single(cycle, replace(asked, **changes))  # type: ignore[arg-type]
        if math.isfinite(day) and day < base - 0.5:
            found.append(Hastens(words, min(base, middle + 60) - day))
    return tuple(sorted(found, key=lambda one: -one.days))


def single(cycle: Begun, asked: Inputs) -> float:
    """The day that one run is done on; infinite for never."""
    tally = tend(asked.state(), asked.around(), cycle.keeper(), asked.run_days).tally
    day = tally.day_done if cycle.fishless else tally.clear_from_day
    return math.inf if math.isnan(day) else float(day)


def cautions(cycle: Begun) -> tuple[Sentence, ...]:
    """What is not sure, or can hurt."""
    found = []
    if cycle.fishless:
        text = "Ammonia burns eyes and lungs: gloves, an open window, and never together with chlorine bleach."
        found.append(say(text))
    if cycle.asked.source_ammonia_mg_l_n > 0:
        text = "New water brings {freed} from its chloramine; a conditioner binds from none to all of it, half is taken here."
        found.append(say(text, freed=Term(cycle.asked.source_ammonia_mg_l_n, "ammonia")))
    if cycle.cycle.seeded_by == "bottle":
        found.append(
            say("A bottle of bacteria holds anything from nothing to a filter: the range is honest, not the label.")
        )
    ph = -math.log10(hydrogen(cycle.asked.state(), cycle.asked.around()))
    if ph < UNSURE_PH:
        text = "At a pH of {ph} bacteria do what they like: this forecast is a guess there."
        found.append(say(text, ph=Term(ph, "ph")))
    wanted = table().dose_of_load * cycle.load_full_mg_l_d
    if cycle.fishless and cycle.most_proved_mg_l < min(wanted or 2.0, 2.0):
        text = "These media can not turn over more than {dose} in a day: a larger dose would prove nothing."
        found.append(say(text, dose=Term(cycle.most_proved_mg_l, "ammonia")))
    return tuple(found)
