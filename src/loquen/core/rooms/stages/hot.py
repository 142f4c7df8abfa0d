"""The hot store: what it serves, what winter asks of it, and how long it lasts under the largest zone."""

from dataclasses import dataclass

from loquen.core.errors import NamedCase
from loquen.core.graph.nodes import figure, step
from loquen.core.rooms.stores import hot_share_frac, longest_pulse_min, recovery_lph


@dataclass(frozen=True, slots=True)
class HotStore:
    """The hot store as a timetable takes it."""

    capacity_l: float
    usable_frac: float
    hot_c: float
    mix_c: float
    power_w: float
    efficiency_frac: float
    standing_loss_w: float


@step()
def hot_store(
    store_l: float,
    usable_frac: float,
    hot_c: float,
    mixed_c: float,
    hot_w: float,
    hot_yield: float,
    standing_w: float,
) -> HotStore:
    return HotStore(store_l, usable_frac, hot_c, mixed_c, hot_w, hot_yield, standing_w)


@step()
def house_draws(
    house_from_h: tuple[float, ...], house_to_h: tuple[float, ...], house_hot_l: tuple[float, ...]
) -> tuple[tuple[float, float, float], ...]:
    return tuple(zip(house_from_h, house_to_h, house_hot_l, strict=True))


@step()
def allowed_h(window_from_h: tuple[float, ...], window_to_h: tuple[float, ...]) -> tuple[tuple[float, float], ...]:
    if not window_from_h:
        raise NamedCase("no_hours_allowed")
    return tuple(zip(window_from_h, window_to_h, strict=True))


@figure(
    "Winter's hot share of the mix",
    formula="({mixed_c} − {winter_c}) ÷ ({hot_c} − {winter_c})",
    source="balance",
)
def winter_hot_frac(mixed_c: float, winter_c: float, hot_c: float) -> float:
    return hot_share_frac(mix_c=mixed_c, cold_c=winter_c, hot_c=hot_c)


@figure(
    "Hot water made in winter",
    formula="3600 × ({hot_w} × {hot_yield} − {standing_w}) ÷ (4186 × ({hot_c} − {winter_c}))",
    source="balance",
)
def winter_recovery_lph(hot_w: float, hot_yield: float, standing_w: float, hot_c: float, winter_c: float) -> float:
    return recovery_lph(
        power_w=hot_w, cold_c=winter_c, hot_c=hot_c, efficiency_frac=hot_yield, standing_loss_w=standing_w
    )


@figure("The store serves", formula="{store_l} × {usable_frac}", source="practice")
def usable_l(store_l: float, usable_frac: float) -> float:
    return store_l * usable_frac


@figure(
    "Longest pulse by the store",
    formula="60 × ({usable_l} − {reserve_l}) ÷ ({largest_zone_lph} × {winter_hot_frac} − {winter_recovery_lph})",
    source="balance",
)
def store_pulse_min(
    usable_l: float,
    reserve_l: float,
    largest_zone_lph: float,
    winter_hot_frac: float,
    winter_recovery_lph: float,
) -> float:
    found = longest_pulse_min(
        usable_l=usable_l,
        reserve_l=reserve_l,
        hot_lph=largest_zone_lph * winter_hot_frac,
        recovery_lph=winter_recovery_lph,
    )
    if found is None:
        raise NamedCase("store_keeps_up")
    return found


@figure(
    "Hot water a day in winter",
    formula="{street_l_d} × {winter_hot_frac}",
    source="balance",
    kind="volume_per_day",
)
def winter_hot_l_d(street_l_d: float, winter_hot_frac: float) -> float:
    return street_l_d * winter_hot_frac
