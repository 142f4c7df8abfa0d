"""The reservoir: water that stands ready at its warmth, how fast it is ready again, and what is in it."""

from dataclasses import dataclass

from loquen.core.graph.nodes import figure, step
from loquen.core.rooms.stores import recovery_lph


@dataclass(frozen=True, slots=True)
class ReservoirStore:
    """The reservoir as a timetable takes it."""

    capacity_l: float
    usable_frac: float
    reserve_l: float
    warm_c: float
    power_w: float
    loss_w: float
    refill_lph: float


@step()
def reservoir_store(
    reservoir_l: float,
    reservoir_usable_frac: float,
    reservoir_reserve_l: float,
    reservoir_c: float,
    reservoir_w: float,
    reservoir_loss_w: float,
    refill_lph: float,
) -> ReservoirStore:
    return ReservoirStore(
        reservoir_l,
        reservoir_usable_frac,
        reservoir_reserve_l,
        reservoir_c,
        reservoir_w,
        reservoir_loss_w,
        refill_lph,
    )


def ready_lph(store: ReservoirStore, cold_c: float) -> float:
    """How fast water is there and warm: its refill, or what its heater warms of it."""
    if cold_c >= store.warm_c:
        return store.refill_lph
    warmed = recovery_lph(power_w=store.power_w, cold_c=cold_c, hot_c=store.warm_c, standing_loss_w=store.loss_w)
    return min(store.refill_lph, warmed)


@figure(
    "Ready again in winter",
    formula="lesser of refill and 3600 × (heater − loss) ÷ (4186 × (warm − {winter_c})), of {reservoir_store}",
    source="balance",
)
def ready_winter_lph(reservoir_store: ReservoirStore, winter_c: float) -> float:
    return ready_lph(reservoir_store, winter_c)


@figure("The pump reaches", formula="{reservoir_l} × {reservoir_usable_frac}", source="definition")
def reservoir_serves_l(reservoir_l: float, reservoir_usable_frac: float) -> float:
    return reservoir_l * reservoir_usable_frac


@dataclass(frozen=True, slots=True)
class Water:
    """What one source brings to a tank: warmth, nitrate as N, carbonate hardness, conductivity."""

    temp_c: float
    nitrate_mg_l: float
    kh_dkh: float
    us_cm: float


@dataclass(frozen=True, slots=True)
class Waters:
    """What the zones are fed, by source."""

    street: Water
    reservoir: Water

    def of(self, fed_from: str) -> Water:
        return self.reservoir if fed_from == "reservoir" else self.street


@step()
def fed_waters(
    mixed_c: float,
    reservoir_c: float,
    supply_nitrate_mg_l: float,
    supply_kh_dkh: float,
    supply_us_cm: float,
    reservoir_purified_frac: float,
    rejects_frac: float,
    added_us_cm: float,
    added_dkh: float,
) -> Waters:
    passes = 1 - reservoir_purified_frac * rejects_frac
    return Waters(
        Water(mixed_c, supply_nitrate_mg_l, supply_kh_dkh, supply_us_cm),
        Water(
            reservoir_c,
            supply_nitrate_mg_l * passes,
            supply_kh_dkh * passes + added_dkh,
            supply_us_cm * passes + added_us_cm,
        ),
    )


@figure(
    "Conductivity of the reservoir",
    formula="{supply_us_cm} × (1 − {reservoir_purified_frac} × {rejects_frac}) + {added_us_cm}",
    source="osmosis",
)
def reservoir_us_cm(
    supply_us_cm: float, reservoir_purified_frac: float, rejects_frac: float, added_us_cm: float
) -> float:
    return supply_us_cm * (1 - reservoir_purified_frac * rejects_frac) + added_us_cm


@figure(
    "Purified for it a day",
    formula="{pumped_l_d} × {reservoir_purified_frac}",
    source="balance",
    kind="volume_per_day",
)
def reservoir_purified_l_d(pumped_l_d: float, reservoir_purified_frac: float) -> float:
    return pumped_l_d * reservoir_purified_frac
