"""What an empty cycle of a planned system will come to, before anything is bought."""

import math
from dataclasses import replace
from datetime import UTC, date

from loquen.core.errors import NamedCase
from loquen.core.graph.sheet import Sheet
from loquen.core.model.inputs.quantity import Sentence, Term, say
from loquen.core.model.roots.plan import Plan
from loquen.core.system.cycle.setup import begun, bicarbonate_g
from loquen.core.timeline.tending.keeper import tend

ANY_DAY = date(2000, 1, 1)
COLD_C = 18.0


def empty_cycle(sheet: Sheet[Plan]) -> Sentence | None:
    """How long the filter of a plan takes when it is started empty with ammonia, and what its hardness asks on the way;
    None where there is none to start."""
    plan = sheet.root
    set_up = replace(
        plan, run_in=replace(plan.run_in, stands="set_up"), cycle=replace(plan.cycle, begun_by="empty")
    )
    try:
        cycle = begun(sheet.moved_to(set_up), UTC, ANY_DAY)
    except NamedCase:
        return None
    asked, keeper = cycle.asked, cycle.keeper()
    tended = tend(asked.state(), asked.around(), keeper, asked.run_days)
    day = tended.tally.day_done
    lifted = next((act for act in tended.acts if act.kh_dkh > 0 or act.share > 0), None)
    terms = {"days": Term(float(asked.run_days), "days"), "temp": Term(asked.temp_c, "temperature")}
    if math.isnan(day):
        text = "Started empty with ammonia its filter is not done within {days}"
        text += ": at {temp} bacteria hardly grow. Warm it while it is empty" if asked.temp_c < COLD_C else ""
        return say(text + ", or seed it with media of a running filter.", **terms)
    terms["day"] = Term(round(float(day)), "count")
    text = "Started empty with ammonia its filter is done about day {day}"
    if lifted is not None:
        terms["when"] = Term(lifted.day, "count")
        text += "; carbonate hardness runs out about day {when}: "
        if lifted.kh_dkh > 0:
            terms["grams"] = Term(bicarbonate_g(cycle, lifted.kh_dkh), "small_mass")
            text += "{grams} of sodium bicarbonate then"
        else:
            text += "half a change then"
    return say(text + ". Seeded media halve it.", **terms)
