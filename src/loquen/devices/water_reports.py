"""A stand-in for a water company's report service: made-up towns, their reports in Loquen's open layout."""

HEAD = "parameter,value,unit"
AREAS = {
    "marrow_bridge_winter": (
        "Marrow Bridge, winter",
        """name,Marrow Bridge tap,
kind,tap,
total hardness,9.2,dGH
carbonate hardness,5.1,dKH
pH,7.6,
conductivity,455,uS/cm
nitrate,11,mg/L NO3
sodium,14,mg/L
chloride,24,mg/L
temperature,8,C
summer temperature,17,C
disinfectant,chloramine,
disinfectant strength,1.6,mg/L
""",
    ),
    "marrow_bridge_summer": (
        "Marrow Bridge, summer",
        """name,Marrow Bridge tap in summer,
kind,tap,
total hardness,10.4,dGH
carbonate hardness,5.6,dKH
pH,7.7,
conductivity,505,uS/cm
nitrate,16,mg/L NO3
sodium,16,mg/L
chloride,27,mg/L
temperature,17,C
disinfectant,chloramine,
disinfectant strength,2.1,mg/L
""",
    ),
    "fell_end": (
        "Fell End, upland reservoir",
        """name,Fell End tap,
kind,tap,
total hardness,30,mg/L CaCO3
carbonate hardness,18,mg/L CaCO3
pH,7.3,
conductivity,95,uS/cm
nitrate,0.4,mg/L N
sodium,6,mg/L
chloride,9,mg/L
temperature,9,C
disinfectant,chlorine,
disinfectant strength,0.5,mg/L
""",
    ),
}


def areas() -> dict[str, str]:
    """The places that the service knows, by key."""
    return {key: label for key, (label, _) in AREAS.items()}


def report(area: str) -> str:
    """The report of one place as CSV text; raise KeyError for a place that it does not know."""
    return f"{HEAD}\n{AREAS[area][1]}"
