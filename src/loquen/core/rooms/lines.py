"""What a room takes of a system: one line of values from its sheet, where its working can be read."""

from dataclasses import dataclass

from loquen.core.errors import NamedCase
from loquen.core.graph.asking import number
from loquen.core.graph.sheet import Sheet
from loquen.core.model.roots.plan import Plan
from loquen.core.system.heat.energy import running_kwh
from loquen.core.system.told import where_known


@dataclass(frozen=True, slots=True)
class Line:
    """One tank of a system, today's plan with its animals full grown; None where its sheet has no such number.

    `rise_nitrate_mg_l_d` is before any change, and `borne_k` the step in temperature that the most delicate aboard bear.
    """

    system: int
    name: str
    tanks: int
    litres: float
    length_cm: float
    width_cm: float
    height_cm: float
    filled_kg: float
    water_c: float
    low_c: float | None
    high_c: float | None
    rise_nitrate_mg_l_d: float | None
    limit_nitrate_mg_l: float
    used_dkh_d: float | None
    salinity_ppt: float
    borne_k: float | None
    borne_solids_frac: float | None
    us_cm: float | None
    change_l_wk: float | None
    work_min_wk: float | None
    evaporation_l_d: float | None
    year_kwh: float
    animals: int
    shared: bool


def line_of(system: int, sheet: Sheet[Plan]) -> Line:
    """The line of a system, from its sheet; raise NamedCase when it has no water."""
    plan, count = sheet.root, sheet.root.tank.tank_count
    litres = sheet.value("real_volume_l")
    if not litres > 0:
        raise NamedCase("no_water", system=system)
    return Line(
        system=system,
        name=plan.name,
        tanks=count,
        litres=litres / count,
        length_cm=sheet.value("inside_length_cm"),
        width_cm=sheet.value("inside_width_cm"),
        height_cm=sheet.value("inside_height_cm"),
        filled_kg=number(sheet, "total_mass_kg") or litres,
        water_c=sheet.value("water_c"),
        low_c=number(sheet, "animals_low_c"),
        high_c=number(sheet, "animals_high_c"),
        rise_nitrate_mg_l_d=number(sheet, "rise_nitrate_mg_l_d"),
        limit_nitrate_mg_l=plan.changes.target_nitrate_mg_l,
        used_dkh_d=number(sheet, "used_dkh_d"),
        salinity_ppt=where_known(lambda: float(sheet.value("tank_salinity_ppt")), 0.0),
        borne_k=number(sheet, "borne_k"),
        borne_solids_frac=number(sheet, "borne_solids_frac"),
        us_cm=number(sheet, "settled_us_cm"),
        change_l_wk=None if (wk := number(sheet, "change_l_wk")) is None else wk / count,
        work_min_wk=None if (work := number(sheet, "work_min")) is None else work / count,
        evaporation_l_d=None if (damp := number(sheet, "evaporation_l_d")) is None else damp / count,
        year_kwh=running_kwh(sheet) / count,
        animals=sum(group.number for group in plan.animals),
        shared=plan.flow.way != "none" and count > 1,
    )
