"""What is dissolved in water, one phenomenon a file."""

from loquen.core.physics.chemistry.ammonia import (
    ammonia_fraction,
    ammonium_pka,
    chloride_for_nitrite_mg_l,
    nitrite_limit_mg_l,
)
from loquen.core.physics.chemistry.blends import (
    blended,
    gas_saturation_frac,
    permeate_lph,
    permeate_mg_l,
    settled_solids,
    share_for_target,
)
from loquen.core.physics.chemistry.carbonate import (
    aerated_ph,
    lime_ceiling_dkh,
    ph_from_kh_co2,
    saturated_kh_dkh,
    saturation_index,
)
from loquen.core.physics.chemistry.disinfectant import (
    ageing_h,
    chloramine_ammonia_mg_l,
    chlorine_after_mg_l,
    contact_min,
    thiosulfate_mg,
)
from loquen.core.physics.chemistry.minerals import (
    conductivity_us_cm,
    dissolved_solids_mg_l,
    salt_for_degree_mg_l,
    softener_days,
    softener_sodium_mg_l,
)
from loquen.core.physics.chemistry.salinity import (
    density_kg_m3,
    salinity_from_conductivity_ppt,
    salinity_from_sg_ppt,
    salt_conductivity_us_cm,
    salt_to_add_g,
    specific_gravity,
)

__all__ = [
    "aerated_ph",
    "ageing_h",
    "ammonia_fraction",
    "ammonium_pka",
    "blended",
    "chloramine_ammonia_mg_l",
    "chloride_for_nitrite_mg_l",
    "chlorine_after_mg_l",
    "conductivity_us_cm",
    "contact_min",
    "density_kg_m3",
    "dissolved_solids_mg_l",
    "gas_saturation_frac",
    "lime_ceiling_dkh",
    "nitrite_limit_mg_l",
    "permeate_lph",
    "permeate_mg_l",
    "ph_from_kh_co2",
    "salinity_from_conductivity_ppt",
    "salinity_from_sg_ppt",
    "salt_conductivity_us_cm",
    "salt_for_degree_mg_l",
    "salt_to_add_g",
    "saturated_kh_dkh",
    "saturation_index",
    "settled_solids",
    "share_for_target",
    "softener_days",
    "softener_sodium_mg_l",
    "specific_gravity",
    "thiosulfate_mg",
]
