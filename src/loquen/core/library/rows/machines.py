"""What is built in: filters and their media, heaters, pipes, pumps, glass as it is sold."""

from dataclasses import dataclass
from typing import Literal


@dataclass(frozen=True, slots=True)
class Media:
    key: str
    label: str
    area_m2_l: float
    share_used: float
    source: str


@dataclass(frozen=True, slots=True)
class FilterKind:
    """How a kind of filter moves water; `air_share` is the air it lets out for the water it is rated for, `air_driven`
    that a pump outside the water drives it by air, `spills` that its water comes back over a lip, `rinse_weeks` how long
    its media go between rinses."""

    key: str
    label: str
    flow_share: float
    air_share: float
    air_driven: bool
    spills: bool
    rinse_weeks: float
    source: str


@dataclass(frozen=True, slots=True)
class FilterModel:
    key: str
    label: str
    kind: str
    rated_lph: float
    media_key: str
    media_l: float
    holds_l: float
    watts: float
    source: str


@dataclass(frozen=True, slots=True)
class HeaterModel:
    """A generic heater by its watts and how it is built in."""

    key: str
    label: str
    watts: float
    kind: Literal["tube", "inline", "mat"]
    length_cm: float
    source: str


@dataclass(frozen=True, slots=True)
class Fitting:
    """A part of a pipe run by its loss coefficient K."""

    key: str
    label: str
    k: float
    note: str
    source: str


@dataclass(frozen=True, slots=True)
class Pipe:
    """A pipe by its true bore."""

    key: str
    label: str
    bore_mm: float
    outside_mm: float
    system: Literal["hose", "metric", "waste", "inch"]
    source: str


@dataclass(frozen=True, slots=True)
class PumpModel:
    """A generic return pump by the two ends of its curve."""

    key: str
    label: str
    shutoff_head_m: float
    max_flow_lph: float
    watts: float
    source: str


@dataclass(frozen=True, slots=True)
class StockTank:
    key: str
    length_cm: float
    width_cm: float
    height_cm: float
    pane_mm: float
    support: Literal["three_edges", "cross", "four_edges"]
    source: str
