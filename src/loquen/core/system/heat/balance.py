"""Water that loses warmth to its room: what evaporates, what a fan adds to it, and where it ends."""

from dataclasses import dataclass, replace

from loquen.core.physics import heat
from loquen.core.system.roots import root
from loquen.core.timeline.process.heat import Surface

HOTTEST_C, COLDEST_C = 45.0, 0.0
NEGLIGIBLE_W, NEGLIGIBLE_K = 1e-9, 1e-6


@dataclass(frozen=True, slots=True)
class OpenWater:
    """Water that evaporates into the room: its surface, the room's humidity, and what a lid keeps back."""

    area_m2: float
    humidity_frac: float
    cover_frac: float
    calm_frac: float
    cover_effect: float

    @property
    def surface(self) -> Surface:
        """The same as what runs through time takes it."""
        return Surface(self.area_m2, self.cover_frac, self.humidity_frac, self.calm_frac, self.cover_effect)

    @property
    def label(self) -> str:
        return f"{self.area_m2:.2f} m², {self.cover_frac:.0%} covered, at {self.humidity_frac:.0%} humidity"

    def litres_d(self, water_c: float, room_c: float, air_m_s: float = 0.0) -> float:
        """Litres a day that evaporate."""
        litres = heat.evaporation_l_d(
            self.area_m2,
            water_c,
            max(room_c, 0.0),
            self.humidity_frac,
            self.cover_frac,
            air_m_s,
            self.calm_frac,
            self.cover_effect,
        )
        return float(litres)

    def watts(self, water_c: float, room_c: float, air_m_s: float = 0.0) -> float:
        """Watts that evaporation takes."""
        return float(heat.evaporation_loss_w(self.litres_d(water_c, room_c, air_m_s), water_c))

    def with_part_under(self, part: "OpenWater", cover_frac: float) -> "OpenWater":
        """All of it, with a part of it under another cover."""
        more = (cover_frac - part.cover_frac) * part.area_m2 / self.area_m2
        # Two shares that cancel leave a rounding beyond 0 or 1.
        return replace(self, cover_frac=min(1.0, max(0.0, self.cover_frac + more)))

    def uncovered(self) -> "OpenWater":
        return replace(self, cover_frac=0.0)

    def at_least_as_humid(self, humidity_frac: float) -> "OpenWater":
        return replace(self, humidity_frac=max(self.humidity_frac, humidity_frac))


@dataclass(frozen=True, slots=True)
class Fan:
    """Air blown over a tank's own water, through its lid, while the water is warmer than it is kept."""

    over: OpenWater
    air_m_s: float

    @property
    def label(self) -> str:
        return f"{self.air_m_s:g} m/s over {self.over.label}" if self.air_m_s else "none"

    def watts(self, water_c: float, room_c: float) -> float:
        """Watts that it takes beside what evaporates in still air, blowing all the time."""
        if self.air_m_s == 0:
            return 0.0
        return self.over.watts(water_c, room_c, self.air_m_s) - self.over.watts(water_c, room_c)

    def litres_d(self, water_c: float, room_c: float) -> float:
        """Litres a day that it evaporates beside what does in still air, blowing all the time."""
        if self.air_m_s == 0:
            return 0.0
        return self.over.litres_d(water_c, room_c, self.air_m_s) - self.over.litres_d(water_c, room_c)

    def at_least_as_humid(self, humidity_frac: float) -> "Fan":
        return replace(self, over=self.over.at_least_as_humid(humidity_frac))

    def part_on(self, excess_w: float, water_c: float, room_c: float) -> float:
        """Part of the time for which it blows, to take out what warms the water beyond what it is kept at."""
        most = self.watts(water_c, room_c)
        return min(1.0, max(0.0, excess_w) / most) if most > 0 else 0.0


def settle_c(
    power_w: float, walls_w_k: float, open_water: OpenWater, room_c: float, fan_over: Fan | None = None
) -> float:
    """Temperature at which walls and evaporation lose what is put in, within 0 to 45 °C."""

    def excess(water_c: float) -> float:
        fanned = fan_over.watts(water_c, room_c) if fan_over else 0.0
        return walls_w_k * (water_c - room_c) + open_water.watts(water_c, room_c) + fanned - power_w

    # Where the walls alone would lose it is too warm, by what evaporates there; less that, it is too cold.
    high = min(HOTTEST_C, room_c + power_w / walls_w_k)
    if high <= COLDEST_C:
        return COLDEST_C
    over_w = excess(high)
    if over_w <= NEGLIGIBLE_W:
        return high
    low = high - over_w / walls_w_k - NEGLIGIBLE_K
    if low <= COLDEST_C:
        low = COLDEST_C
        if excess(low) > 0:
            return low
    return root(excess, low, high)
