"""Plans that tests start from."""

from dataclasses import replace

from loquen.core.model.plan import Changes, Filter, Group, Heat, Plan, Tank, Water

BARE_BOX = Tank(tank_length_cm=100, tank_width_cm=50, tank_height_cm=50, pane_mm=10, bed="none", freeboard_cm=0)


def plan(**parts):
    """A 250 L bare box with ten zebra danios, one canister and a weekly change of half."""
    usual = {
        "name": "test",
        "animals": (Group("zebra_danio", 10),),
        "tank": BARE_BOX,
        "filters": (Filter(media_l=6, rated_lph=1500),),
        "heat": Heat(),
        "water": Water(source_nitrate_mg_l=1.0),
        "changes": Changes(weekdays=("Sat",), change_frac=0.5, target_nitrate_mg_l=9.0),
    }
    return Plan(**{**usual, **parts})


def with_value(start, path, value):
    """A plan with one entered value changed, written apart from the engine that is tested with it."""
    section, *rest = path.split(".")
    part = getattr(start, section)
    if isinstance(part, tuple):
        row = int(rest[0])
        rows = [replace(old, **{rest[1]: value}) if i == row else old for i, old in enumerate(part)]
        return replace(start, **{section: tuple(rows)})
    return replace(start, **{section: replace(part, **{rest[0]: value})})
