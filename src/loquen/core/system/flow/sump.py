"""The sump: its chambers and their levels, bubbles, evaporation, and room for hands."""

from itertools import accumulate

from loquen.core.errors import NamedCase
from loquen.core.graph.judging import at_least, at_most
from loquen.core.graph.nodes import Verdict, check, figure, step
from loquen.core.library.rows.machines import Media
from loquen.core.library.whole import Library
from loquen.core.model.inputs.quantity import Sentence, Term, of, say
from loquen.core.physics import heat, hydraulics
from loquen.core.system.flow.returns import need_sump

# Chambers and levels ----------------------------------------------------------------------------


@figure(
    "Length that the other chambers take",
    formula="Σ {chamber_cm} of all but the return ({chamber_kind})",
    source="definition",
)
def others_cm(chamber_cm: tuple[float, ...], chamber_kind: tuple[str, ...]) -> float:
    return sum(length for length, kind in zip(chamber_cm, chamber_kind, strict=True) if kind != "return")


@figure(
    "Chamber's length",
    formula="{chamber_kind}: {chamber_cm}, or what {sump_length_cm} leaves beside {others_cm}",
    source="definition",
    row="chambers",
)
def chamber_run_cm(chamber_kind: str, chamber_cm: float, sump_length_cm: float, others_cm: float) -> float:
    return max(0.0, sump_length_cm - others_cm) if chamber_kind == "return" else chamber_cm


@figure(
    "Water over the baffles",
    formula="(Q ÷ (1.84 × {sump_width_cm}))^(2/3), Q {return_lph}",
    source="francis",
)
def baffle_head_mm(return_lph: float, sump_width_cm: float) -> float:
    return float(hydraulics.weir_head_mm(return_lph, sump_width_cm))


def no_lower_than_next(levels: list[float]) -> tuple[float, ...]:
    """Levels in the order of the flow, each at least that of the chamber it runs into."""
    return tuple(accumulate(reversed(levels), max))[::-1]


@step()
def running_levels_cm(
    chamber_kind: tuple[str, ...],
    baffle_cm: tuple[float, ...],
    baffle_head_mm: float,
    return_level_cm: float,
    sump_height_cm: float,
) -> tuple[float, ...]:
    """Where the water of each chamber stands, pump running: over its own baffle, or held up by a later one."""
    over = [baffle + baffle_head_mm / 10 for baffle in baffle_cm]
    own = [return_level_cm if kind == "return" else level for level, kind in zip(over, chamber_kind, strict=True)]
    return tuple(min(sump_height_cm, level) for level in no_lower_than_next(own))


@figure(
    "Chamber's level",
    formula="number {place} of {running_levels_cm}: its baffle and the water over it, or a later chamber's level "
    "where that is higher",
    source="definition",
    row="chambers",
)
def chamber_level_cm(running_levels_cm: tuple[float, ...], place: int) -> float:
    return running_levels_cm[place - 1]


@figure(
    "Water in the chamber",
    formula="{chamber_run_cm} × {sump_width_cm} × {chamber_level_cm} ÷ 1000",
    source="definition",
    row="chambers",
)
def chamber_l(chamber_run_cm: float, sump_width_cm: float, chamber_level_cm: float) -> float:
    return chamber_run_cm * sump_width_cm * chamber_level_cm / 1000


@figure(
    "Media in the chamber",
    formula="{chamber_l} × {media_fill_frac} in a media chamber ({chamber_kind})",
    source="definition",
    row="chambers",
)
def chamber_media_l(chamber_l: float, media_fill_frac: float, chamber_kind: str) -> float:
    return chamber_l * media_fill_frac if chamber_kind == "media" else 0.0


@figure("Media in the sump", formula="Σ {chamber_media_l}; with a sump: {sumped}", source="definition")
def sump_media_l(chamber_media_l: tuple[float, ...], sumped: bool) -> float:
    return sum(chamber_media_l) if sumped else 0.0


@step()
def sump_media_row(sump_media: str, library: Library) -> Media:
    return library.media[sump_media]


@figure(
    "Media area in the sump, once mature",
    formula="{sump_media_l} × area × share used of {sump_media_row}",
    source="timmons",
)
def sump_media_m2(sump_media_l: float, sump_media_row: Media) -> float:
    return sump_media_l * sump_media_row.area_m2_l * sump_media_row.share_used


@figure("Water in the sump, running", formula="Σ {chamber_l}; with a sump: {sumped}", source="definition")
def sump_running_l(chamber_l: tuple[float, ...], sumped: bool) -> float:
    return sum(chamber_l) if sumped else 0.0


@figure(
    "Footprint of the sump",
    formula="{sump_length_cm} × {sump_width_cm} ÷ 10000; with a sump: {sumped}",
    source="definition",
)
def sump_m2(sump_length_cm: float, sump_width_cm: float, sumped: bool) -> float:
    return sump_length_cm * sump_width_cm / 1e4 if sumped else 0.0


@figure("Open water together", formula="{display_m2} − {land_on_water_m2} + {sump_m2}", source="definition")
def surface_m2(display_m2: float, land_on_water_m2: float, sump_m2: float) -> float:
    return display_m2 - land_on_water_m2 + sump_m2


@figure(
    "The sump's walls and base lose",
    formula="1 ÷ (1 ÷ {outside_film_w_m2k} + {sump_pane_mm} of glass + 1 ÷ {inside_film_w_m2k}) × (2 × ({sump_length_cm} + {sump_width_cm}) × {return_level_cm} ÷ 10000 + {sump_m2}); "
    "with a sump: {sumped}",
    source="film",
)
def sump_w_k(
    sump_pane_mm: float,
    sump_length_cm: float,
    sump_width_cm: float,
    return_level_cm: float,
    sump_m2: float,
    sumped: bool,
    outside_film_w_m2k: float,
    inside_film_w_m2k: float,
) -> float:
    if not sumped:
        return 0.0
    walls_m2 = 2 * (sump_length_cm + sump_width_cm) * return_level_cm / 1e4
    return float(heat.wall_u_w_m2k(sump_pane_mm, "glass", outside_film_w_m2k, inside_film_w_m2k)) * (
        walls_m2 + sump_m2
    )


# Evaporation, bubbles, hands --------------------------------------------------------------------


@figure(
    "Days until the pump draws air",
    formula="({liftable_l} − {topper_l}) ÷ {evaporation_most_l_d}, with the top-up's {topper_l} as well",
    source="balance",
)
def dry_d(liftable_l: float, topper_l: float, evaporation_most_l_d: float) -> float:
    if evaporation_most_l_d <= 0:
        raise NamedCase("nothing_evaporates")
    return liftable_l / evaporation_most_l_d


@figure(
    "Speed down the bubble trap",
    formula="{return_lph} ÷ 3.6 ÷ ({chamber_run_cm} × {sump_width_cm}) of the trap ({chamber_kind})",
    source="definition",
)
def trap_cm_s(
    return_lph: float, chamber_run_cm: tuple[float, ...], sump_width_cm: float, chamber_kind: tuple[str, ...]
) -> float:
    gaps = [run for run, kind in zip(chamber_run_cm, chamber_kind, strict=True) if kind == "trap" and run > 0]
    if not gaps:
        raise NamedCase("no_trap")
    return return_lph / 3.6 / (min(gaps) * sump_width_cm)


@check("Bubbles stay behind", stage="flow", judges="trap_cm_s", mends=("sump.sump_width_cm",))
def bubbles_stay(
    trap_cm_s: float, trap_limit_cm_s: float, trap_gap_cm: float, chamber_cm: tuple[float, ...],
    chamber_kind: tuple[str, ...], sumped: bool,
) -> Verdict:  # fmt: skip
    need_sump(sumped)
    gap = min(length for length, kind in zip(chamber_cm, chamber_kind, strict=True) if kind == "trap")
    terms = {
        "speed": of(trap_cm_s, "trap_cm_s"),
        "limit": Term(trap_limit_cm_s, "speed"),
        "gap": Term(gap, "length"),
        "least": Term(trap_gap_cm, "length"),
    }
    if gap < trap_gap_cm:
        reason = say("The trap's gap of {gap} is narrower than {least}: it clogs and rushes.", **terms)
        return at_least(gap, trap_gap_cm, "length", reason)
    reason = say("Water goes down through the trap at {speed}; bubbles rise against {limit}.", **terms)
    return at_most(trap_cm_s, trap_limit_cm_s, "speed", reason)


@figure(
    "Room over the sump",
    formula="{stand_room_cm} − {sump_height_cm}; with a sump: {sumped}",
    source="definition",
)
def over_sump_cm(stand_room_cm: float, sump_height_cm: float, sumped: bool) -> float:
    need_sump(sumped)
    return stand_room_cm - sump_height_cm


@check(
    "Parts come out under the stand",
    stage="flow",
    judges="over_sump_cm",
    mends=("sump.sump_height_cm",),
)
def parts_come_out(over_sump_cm: float, tallest_part_cm: float) -> Verdict:
    reason = say(
        "{room} stand free over the sump's rim; the tallest part to lift out is {part}.",
        room=of(over_sump_cm, "over_sump_cm"),
        part=Term(tallest_part_cm, "length"),
    )
    return at_least(over_sump_cm, tallest_part_cm, "length", reason)


@check("Evaporation and the pump", stage="flow", judges="dry_d", mends=("sump.topper_l", "sump.intake_cm"))
def pump_stays_wet(dry_d: float, dry_least_d: float, evaporation_most_l_d: float, liftable_l: float) -> Verdict:
    reason = say(
        "{litres} can go before the pump draws air; {rate} evaporate.",
        litres=of(liftable_l, "liftable_l"),
        rate=of(evaporation_most_l_d, "evaporation_most_l_d"),
    )
    return at_least(dry_d, dry_least_d, "days", reason)


@step()
def sump_result(sump_running_l: float, drain_down_l: float, sump_free_l: float, sump_media_l: float) -> Sentence:
    return say(
        "Running, the sump holds {running}, {media} of it media. {down} come down when the power fails; {free} are free.",
        running=of(sump_running_l, "sump_running_l"),
        media=of(sump_media_l, "sump_media_l"),
        down=of(drain_down_l, "drain_down_l"),
        free=of(sump_free_l, "sump_free_l"),
    )
