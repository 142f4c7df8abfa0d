"""Plans that tests start from."""

from dataclasses import replace
from datetime import UTC, datetime

from loquen.core.model.inputs.quantity import as_text
from loquen.core.model.parts.animals import Group
from loquen.core.model.parts.flow import Chamber, Flow, Outlet, RunPart, Sump
from loquen.core.model.parts.heat import Heat
from loquen.core.model.parts.running import Changes, Filter, RunIn
from loquen.core.model.parts.tank import Tank
from loquen.core.model.parts.water import Water
from loquen.core.model.roots.plan import Plan

BARE_BOX = Tank(tank_length_cm=100, tank_width_cm=50, tank_height_cm=50, pane_mm=10, bed="none", freeboard_cm=0)
DISPLAY = replace(BARE_BOX, freeboard_cm=4)
FLOW = Flow(
    way="weir", weir_cm=40, box_length_cm=30, box_width_cm=15, box_lip_cm=4, shutoff_head_m=3.0, pump_max_lph=3000
)
RUN = (RunPart("pipe", "pvc_32", 1, 2.0), RunPart("elbow_90", "pvc_32", 3))
RETURNS = (Outlet("pvc_25", 0.5, 1, 1.0, 3.0),)
SUMP = Sump(sump_length_cm=80, sump_width_cm=40, sump_height_cm=40, return_level_cm=20, intake_cm=8, stand_cm=70)
CHAMBERS = (
    Chamber("settling", 20, 28),
    Chamber("media", 24, 26),
    Chamber("trap", 4, 22),
    Chamber("return", 30, 20),
)


NOW = datetime(2026, 5, 20, 18, tzinfo=UTC)
"""When the logs of these plans end."""


def words(sentence):
    return as_text(sentence, {})


def plan(**parts):
    """A 250 L bare box with ten zebra danios, one canister and a weekly change of half."""
    usual = {
        "name": "test",
        "animals": (Group("zebra_danio", 10),),
        "tank": BARE_BOX,
        "filters": (Filter(media_l=6, rated_lph=1500),),
        "run_in": RunIn("set_up", age_weeks=52),
        "heat": Heat(),
        "water": Water(source_nitrate_mg_l=1.0, disinfectant="none"),
        "changes": Changes(weekdays=("Sat",), change_frac=0.5, target_nitrate_mg_l=9.0),
    }
    return Plan(**{**usual, **parts})


def sumped(**parts):
    """The same fish over a sump of 80 x 40 x 40 cm with four chambers, running 20 cm deep at its pump."""
    usual = {"tank": DISPLAY, "filters": (), "flow": FLOW, "run": RUN, "returns": RETURNS, "sump": SUMP}
    return plan(**{**usual, "chambers": CHAMBERS, **parts})


def with_value(start, path, value):
    """A plan with one entered value changed, written apart from the engine that is tested with it."""
    section, *rest = path.split(".")
    part = getattr(start, section)
    if isinstance(part, tuple):
        row = int(rest[0])
        rows = [replace(old, **{rest[1]: value}) if i == row else old for i, old in enumerate(part)]
        return replace(start, **{section: tuple(rows)})
    return replace(start, **{section: replace(part, **{rest[0]: value})})
