"""Reverse osmosis of one's own: what it makes from this feed, how fast, and what runs to the drain."""

from loquen.core.errors import NamedCase
from loquen.core.graph.judging import at_least
from loquen.core.graph.nodes import Verdict, check, figure
from loquen.core.model.inputs.quantity import of, say
from loquen.core.physics import chemistry


def need_membrane(fitted: bool) -> None:
    if not fitted:
        raise NamedCase("no_membrane")


@figure(
    "It makes of this feed",
    formula="{membrane_l_d} × ({feed_kpa} − 0.07 × solids) ÷ ({membrane_kpa} − 17.5) × 1.03^({feed_c} − 25), solids {feed_us_cm} × "
    "{meter_factor}; {membrane_fitted}",
    source="osmosis",
    kind="volume_per_day",
)
def permeate_l_d(
    membrane_l_d: float,
    feed_kpa: float,
    membrane_kpa: float,
    feed_c: float,
    feed_us_cm: float,
    meter_factor: float,
    membrane_fitted: bool,
) -> float:
    need_membrane(membrane_fitted)
    solids = feed_us_cm * meter_factor
    return 24 * chemistry.permeate_lph(membrane_l_d / 24, feed_kpa, solids, feed_c, membrane_kpa)


@figure(
    "Conductivity of what it makes",
    formula="{feed_us_cm} × (1 − {rejects_frac}); {membrane_fitted}",
    source="osmosis",
    kind="conductivity",
)
def permeate_us_cm(feed_us_cm: float, rejects_frac: float, membrane_fitted: bool) -> float:
    need_membrane(membrane_fitted)
    return feed_us_cm * (1 - rejects_frac)


@figure(
    "GH of what it makes",
    formula="{feed_gh_dgh} × (1 − {rejects_frac}); {membrane_fitted}",
    source="osmosis",
    kind="hardness",
)
def permeate_gh_dgh(feed_gh_dgh: float, rejects_frac: float, membrane_fitted: bool) -> float:
    need_membrane(membrane_fitted)
    return feed_gh_dgh * (1 - rejects_frac)


@figure(
    "KH of what it makes",
    formula="{feed_kh_dkh} × (1 − {rejects_frac}); {membrane_fitted}",
    source="osmosis",
    kind="carbonate",
)
def permeate_kh_dkh(feed_kh_dkh: float, rejects_frac: float, membrane_fitted: bool) -> float:
    need_membrane(membrane_fitted)
    return feed_kh_dkh * (1 - rejects_frac)


@figure(
    "Nitrate of what it makes",
    formula="{feed_nitrate_mg_l} × (1 − {rejects_nitrate_frac}); {membrane_fitted}",
    source="osmosis",
    kind="nitrate",
)
def permeate_nitrate_mg_l(feed_nitrate_mg_l: float, rejects_nitrate_frac: float, membrane_fitted: bool) -> float:
    need_membrane(membrane_fitted)
    return float(chemistry.permeate_mg_l(feed_nitrate_mg_l, rejects_nitrate_frac))


@figure("Hours to fill the store", formula="{store_l} ÷ {permeate_l_d} × 24", source="definition", kind="hours")
def store_h(store_l: float, permeate_l_d: float) -> float:
    return store_l / permeate_l_d * 24


@figure(
    "Purified water a week",
    formula="{change_l_wk} × part of osmosis in the mix ({src_parts}, {src_kind}), + {evaporation_l_d} × 7 where evaporation is "
    "topped up with pure water ({topped_up})",
    source="balance",
    kind="volume_per_week",
)
def pure_l_wk(
    change_l_wk: float,
    src_parts: tuple[float, ...],
    src_kind: tuple[str, ...],
    evaporation_l_d: float,
    topped_up: str,
) -> float:
    total = sum(src_parts)
    own = sum(parts for parts, kind in zip(src_parts, src_kind, strict=True) if kind == "osmosis")
    changed = change_l_wk * own / total if total > 0 else 0.0
    return changed + (evaporation_l_d * 7 if topped_up == "pure" else 0.0)


@figure(
    "Reverse-osmosis water wanted a week",
    formula="{pure_l_wk}, of a membrane that is fitted ({membrane_fitted})",
    source="definition",
    kind="volume_per_week",
)
def osmosis_l_wk(pure_l_wk: float, membrane_fitted: bool) -> float:
    need_membrane(membrane_fitted)
    return pure_l_wk


@figure(
    "Runs to the drain a week", formula="{osmosis_l_wk} × {waste_ratio}", source="osmosis", kind="volume_per_week"
)
def osmosis_waste_l_wk(osmosis_l_wk: float, waste_ratio: float) -> float:
    return osmosis_l_wk * waste_ratio


@check(
    "The membrane makes enough",
    stage="source",
    judges="permeate_l_d",
    mends=("osmosis.membrane_l_d",),
    caution="Chlorine ruins the membrane: carbon before it. Never leave it running where its overflow has no drain.",
)
def membrane_enough(permeate_l_d: float, osmosis_l_wk: float, store_h: float) -> Verdict:
    reason = say(
        "It makes {made} at this pressure and warmth; {wanted} are wanted. The store fills in {hours}.",
        made=of(permeate_l_d, "permeate_l_d"),
        wanted=of(osmosis_l_wk, "osmosis_l_wk"),
        hours=of(store_h, "store_h"),
    )
    return at_least(permeate_l_d, osmosis_l_wk / 7, "volume_per_day", reason)
