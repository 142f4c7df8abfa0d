"""What animals are kept with: beds, plants, foods, lids, panes."""

from dataclasses import dataclass
from typing import Literal

from loquen.core.library.rows.animals import Confidence


@dataclass(frozen=True, slots=True)
class Bed:
    key: str
    label: str
    porosity: float
    displaced_share: float
    bulk_kg_l: float
    fine: bool
    grain_low_mm: float
    grain_high_mm: float
    source: str


@dataclass(frozen=True, slots=True)
class Plant:
    """One kind of plant: what it takes up, the water it grows in, and whom it withstands."""

    key: str
    common: str
    scientific: str
    uptake: str
    light: Literal["low", "middling", "high"]
    temp_low_c: float
    temp_high_c: float
    ph_low: float
    ph_high: float
    gh_high_dgh: float
    salinity_high_ppt: float
    ammonia_high_mg_l: float
    height_cm: float
    rooted: bool
    withstands_grazers: bool
    withstands_diggers: bool
    invasive: bool
    confidence: Confidence
    source: str
    note: str


@dataclass(frozen=True, slots=True)
class PlantCover:
    key: str
    label: str
    n_g_m2_d: float
    low_g_m2_d: float
    high_g_m2_d: float
    source: str


@dataclass(frozen=True, slots=True)
class Food:
    """A food as it is given. `protein_frac` and `plant_frac` are of its dry matter, `dry_frac` of its weight.

    What is `bitten` off or rasped needs to fit no mouth; all else is swallowed in pieces of `piece_mm`. `piece_g` is
    what a cube, wafer or slice weighs, 0 where it is weighed out.
    """

    key: str
    label: str
    form: Literal["dry", "frozen", "fresh", "live"]
    dry_frac: float
    protein_frac: float
    plant_frac: float
    piece_mm: float
    bitten: bool
    sinking: Literal["floats", "slow", "sinks"]
    hard: bool
    coloured: bool
    piece_g: float
    source: str
    note: str


@dataclass(frozen=True, slots=True)
class Culture:
    """A culture of live food: what one of it yields a week once it is ready, and how often it is tended."""

    key: str
    label: str
    food: str
    yield_g_wk: float
    ready_d: int
    tended_d: int
    source: str
    note: str


@dataclass(frozen=True, slots=True)
class Lid:
    """A cover by what it keeps back: vapour, warmth, who would leave, and ultraviolet-B from a lamp above it."""

    key: str
    label: str
    vapour_cover: float
    warm_cover: float
    keeps_in: Literal["nobody", "jumpers", "all"]
    uvb_passes: float
    source: str
