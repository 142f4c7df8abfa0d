"""How far a system has come: planned, cycling or running. One story, told by every page."""

from typing import Literal

from loquen.core.model.roots.plan import Plan

Phase = Literal["planned", "cycling", "running"]


def phase(plan: Plan) -> Phase:
    """Planned until somebody says that it is set up; then its filter is brought to life, or has long been running."""
    if plan.run_in.stands == "planned":
        return "planned"
    return "running" if plan.cycle.begun_by == "running" else "cycling"


def animals_in(plan: Plan) -> bool:
    """Whether the plan's animals are in it: nobody is in what is planned, and a young filter may wait for them."""
    if phase(plan) == "planned":
        return False
    begun, stocked = plan.cycle.begun_by, plan.run_in.stocked
    return begun == "animals" or (begun != "empty" and stocked == "now")
