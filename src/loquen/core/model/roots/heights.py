"""Where the glass and the water of a tank stand, for what is reckoned and for what can not be."""


def wall_off_cm(measured: str, pane_mm: float) -> float:
    """What a wall takes off a measure, cm: nothing where it was taken inside."""
    return pane_mm / 10 if measured == "outside" else 0.0


def water_height_cm(fill_by: str, inside_height_cm: float, freeboard_cm: float, part_fill_cm: float) -> float:
    """How high the water stands over the base, cm."""
    return part_fill_cm if fill_by == "height" else inside_height_cm - freeboard_cm
