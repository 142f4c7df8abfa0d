"""What may break, and when: each failure with the keywords that it is told by."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, fields
from typing import Any, TypeVar

from loquen.core.errors import NamedCase, UnknownKey

ENDLESS = float("inf")


@dataclass(frozen=True, slots=True, kw_only=True)
class Failure:
    """Something that breaks at an hour of the run and lasts to another."""

    from_h: float = 0.0
    until_h: float = ENDLESS

    def lasts(self, hour: float) -> bool:
        return self.from_h <= hour < self.until_h


@dataclass(frozen=True, slots=True, kw_only=True)
class Power(Failure):
    """No heater, equipment, pump, air or lamp."""


@dataclass(frozen=True, slots=True, kw_only=True)
class HeaterStuck(Failure):
    """A heater that heats whatever its thermostat says."""

    heater: int


@dataclass(frozen=True, slots=True, kw_only=True)
class HeaterDead(Failure):
    """A heater that does not heat."""

    heater: int


@dataclass(frozen=True, slots=True, kw_only=True)
class Pump(Failure):
    """The pumps stand still: the surface and the filter with them."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Air(Failure):
    """The air pump stands still."""


@dataclass(frozen=True, slots=True, kw_only=True)
class BatteryAir(Failure):
    """A battery's air pump runs, whatever else does not."""

    transfer_l_h: float


@dataclass(frozen=True, slots=True, kw_only=True)
class FilterClogged(Failure):
    """The filter stands still, the surface moves on."""


@dataclass(frozen=True, slots=True, kw_only=True)
class NewWater(Failure):
    """Water that is put in, and what it is like."""

    c: float
    kh_dkh: float = 0.0
    nitrate_mg_l_n: float = 0.0
    salinity_ppt: float = 0.0
    chlorine_mg_l: float = 0.0
    chloramine: bool = False


@dataclass(frozen=True, slots=True, kw_only=True)
class Hose(NewWater):
    """A hose, valve or top-up from the mains that stays open."""

    lph: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Change(NewWater):
    """A water change, at once."""

    share: float


@dataclass(frozen=True, slots=True, kw_only=True)
class TopUpEmpty(Failure):
    """What evaporates is not replaced."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Leaking(Failure):
    """Mixed water that goes to the floor, down to a volume."""

    lph: float
    down_to_l: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Overfed(Failure):
    """Dry food that nothing eats."""

    dry_g: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Death(Failure):
    """A dead animal, until it is found and taken out."""

    wet_g: float


@dataclass(frozen=True, slots=True, kw_only=True)
class MediaLost(Failure):
    """A share of the filter's bacteria, at once."""

    share: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Room(Failure):
    """A room whose temperature goes its own way, hourly from the hour that it begins."""

    temps_c: tuple[float, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class NoLamps(Failure):
    """The lamps stay dark."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Dose(Failure):
    """What is put in at once."""

    oxygen_mg_l: float = 0.0
    kh_dkh: float = 0.0
    ammonia_mg_l_n: float = 0.0
    nitrite_mg_l_n: float = 0.0


KINDS: Mapping[str, type[Failure]] = {
    "power": Power,
    "heater_stuck": HeaterStuck,
    "heater_dead": HeaterDead,
    "pump": Pump,
    "air": Air,
    "battery_air": BatteryAir,
    "filter_clogged": FilterClogged,
    "inflow": Hose,
    "top_up_empty": TopUpEmpty,
    "leak": Leaking,
    "overfed": Overfed,
    "death": Death,
    "media_lost": MediaLost,
    "room": Room,
    "no_lamps": NoLamps,
    "change": Change,
    "dose": Dose,
}

Kind = TypeVar("Kind", bound=Failure)


def failure_of(told: Mapping[str, Any]) -> Failure:
    """A failure as it is told; raise UnknownKey, NamedCase "failure_untold" for a keyword that is missing."""
    kind = told["kind"]
    if kind not in KINDS:
        raise UnknownKey("kinds of failure", kind)
    known = {field.name for field in fields(KINDS[kind])}
    rest = {key: value for key, value in told.items() if key != "kind" and value is not None}
    for key in rest:
        if key not in known:
            raise UnknownKey(f"what a failure of kind {kind} is told by", key)
    plain: dict[str, Any] = {
        key: tuple(map(float, value)) if isinstance(value, list | tuple) else value for key, value in rest.items()
    }
    plain = {key: float(value) if type(value) is int and key != "heater" else value for key, value in plain.items()}
    try:
        return KINDS[kind](**plain)
    except TypeError as fault:
        raise NamedCase("failure_untold", kind=kind) from fault


def of_kind(failures: Sequence[Failure], kind: type[Kind]) -> list[Kind]:
    """Those of a kind."""
    return [failure for failure in failures if isinstance(failure, kind)]
