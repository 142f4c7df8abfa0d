"""The tank: what it really holds, what it weighs, whether its panes stand it."""

import math
from dataclasses import dataclass, replace

from loquen.core.data.materials import Material, materials
from loquen.core.errors import NamedCase
from loquen.core.graph.judging import at_least, between, by_practice, caution
from loquen.core.graph.nodes import Verdict, check, figure, step
from loquen.core.library.rows.animals import Species
from loquen.core.library.rows.keeping import Bed
from loquen.core.library.whole import Library
from loquen.core.model.inputs.quantity import Sentence, Term, of, say
from loquen.core.model.roots import heights
from loquen.core.physics import geometry


@figure("Wall taken off", formula="{measured}: 0, or {pane_mm} ÷ 10 when outside", source="definition")
def wall_off_cm(measured: str, pane_mm: float) -> float:
    return heights.wall_off_cm(measured, pane_mm)


@figure("Inside length", formula="{tank_length_cm} − 2 × {wall_off_cm}", source="definition")
def inside_length_cm(tank_length_cm: float, wall_off_cm: float) -> float:
    return tank_length_cm - 2 * wall_off_cm


@figure(
    "Inside width",
    formula="{tank_width_cm} − 2 × {wall_off_cm} ({shape}: round and six-sided tanks follow {inside_length_cm})",
    source="definition",
)
def inside_width_cm(tank_width_cm: float, wall_off_cm: float, shape: str, inside_length_cm: float) -> float:
    if shape in ("cylinder", "quarter_round"):
        return inside_length_cm
    if shape == "hexagon":
        return inside_length_cm * math.sqrt(3) / 2
    return tank_width_cm - 2 * wall_off_cm


@figure("Inside height", formula="{tank_height_cm} − {wall_off_cm}", source="definition")
def inside_height_cm(tank_height_cm: float, wall_off_cm: float) -> float:
    return tank_height_cm - wall_off_cm


@figure(
    "Water height",
    formula="{fill_by}: {inside_height_cm} − {freeboard_cm}, or {part_fill_cm} itself",
    source="definition",
)
def water_height_cm(inside_height_cm: float, fill_by: str, freeboard_cm: float, part_fill_cm: float) -> float:
    return heights.water_height_cm(fill_by, inside_height_cm, freeboard_cm, part_fill_cm)


@figure(
    "Footprint",
    formula="{shape}: area from {inside_length_cm} × {inside_width_cm}, bow {bow_cm}, "
    "notch {notch_length_cm} × {notch_width_cm}, ÷ 10000",
    source="definition",
)
def footprint_m2(
    shape: str,
    inside_length_cm: float,
    inside_width_cm: float,
    bow_cm: float,
    notch_length_cm: float,
    notch_width_cm: float,
) -> float:
    notch = notch_length_cm * notch_width_cm
    return geometry.footprint_cm2(shape, inside_length_cm, inside_width_cm, bow_cm, notch) / 1e4


@figure("Footprint of all tanks", formula="{footprint_m2} × {tank_count}", source="definition")
def display_m2(footprint_m2: float, tank_count: int) -> float:
    return footprint_m2 * tank_count


@figure(
    "Wall around the water",
    formula="{shape}: perimeter from {inside_length_cm} and {inside_width_cm}, bow {bow_cm}",
    source="definition",
)
def perimeter_cm(shape: str, inside_length_cm: float, inside_width_cm: float, bow_cm: float) -> float:
    around = 2 * (inside_length_cm + inside_width_cm)
    lengths = {
        "box": lambda: around,
        "bow_front": lambda: around - inside_length_cm + geometry.arc_length_cm(inside_length_cm, bow_cm),
        "quarter_round": lambda: 2 * inside_length_cm + math.pi * inside_length_cm / 2,
        "cylinder": lambda: math.pi * inside_length_cm,
        "hexagon": lambda: 3 * inside_length_cm,
        "l_shape": lambda: around,
    }
    return lengths[shape]()


@figure("Full to the rim", formula="{footprint_m2} × {inside_height_cm} × 10", source="definition")
def full_volume_l(footprint_m2: float, inside_height_cm: float) -> float:
    return footprint_m2 * inside_height_cm * 10


@figure("Filled to the water line", formula="{footprint_m2} × {water_height_cm} × 10", source="definition")
def filled_volume_l(footprint_m2: float, water_height_cm: float) -> float:
    return footprint_m2 * water_height_cm * 10


@dataclass(frozen=True, slots=True)
class Floor:
    """A part of the floor: its bed, what part it is, and how deep it lies at the front and at the back."""

    bed: Bed
    floor_frac: float
    front_cm: float
    back_cm: float

    @property
    def label(self) -> str:
        return f"{self.bed.label} on {self.floor_frac:.0%}, {self.front_cm:g} to {self.back_cm:g} cm"

    @property
    def depth_cm(self) -> float:
        return 0.0 if self.bed.key == "none" else (self.front_cm + self.back_cm) / 2

    @property
    def deepest_cm(self) -> float:
        return 0.0 if self.bed.key == "none" else max(self.front_cm, self.back_cm)

    def litres(self, footprint_m2: float) -> float:
        return footprint_m2 * self.floor_frac * self.depth_cm * 10


@step()
def floor(
    bed: str,
    bed_front_cm: float,
    bed_back_cm: float,
    patch_bed: tuple[str, ...],
    patch_frac: tuple[float, ...],
    patch_front_cm: tuple[float, ...],
    patch_back_cm: tuple[float, ...],
    library: Library,
) -> tuple[Floor, ...]:
    """Every part of the floor: the bed, and what lies in its place here and there."""
    beds = library.beds
    patches = zip(patch_bed, patch_frac, patch_front_cm, patch_back_cm, strict=True)
    rest = max(0.0, 1 - sum(patch_frac))
    return (Floor(beds[bed], rest, bed_front_cm, bed_back_cm), *(Floor(beds[key], *row) for key, *row in patches))


@figure("Mean depth of the bed", formula="Σ share × (front + back) ÷ 2 of {floor}", source="definition")
def bed_depth_cm(floor: tuple[Floor, ...]) -> float:
    return sum(part.floor_frac * part.depth_cm for part in floor)


@figure("Bed", formula="{footprint_m2} × {bed_depth_cm} × 10", source="definition")
def bed_volume_l(footprint_m2: float, bed_depth_cm: float) -> float:
    return footprint_m2 * bed_depth_cm * 10


@figure(
    "Bags of bed",
    formula="{footprint_m2} × each depth of {floor} × 10 × {tank_count} × (1 + {bed_settling}) ÷ {bag_l}, each rounded up",
    source="practice",
    kind="count",
)
def bed_bags(
    footprint_m2: float, floor: tuple[Floor, ...], tank_count: int, bed_settling: float, bag_l: float
) -> float:
    return sum(
        math.ceil(part.litres(footprint_m2) * tank_count * (1 + bed_settling) / bag_l - 1e-9) for part in floor
    )


@figure(
    "Water the bed displaces", formula="{footprint_m2} × Σ depth × 10 × solid share of {floor}", source="densities"
)
def bed_displaced_l(footprint_m2: float, floor: tuple[Floor, ...]) -> float:
    return sum(part.litres(footprint_m2) * part.bed.displaced_share for part in floor)


@figure("Water the rock displaces", formula="{rock_kg} ÷ {rock_kg_l}", source="densities")
def rock_displaced_l(rock_kg: float, rock_kg_l: float) -> float:
    return rock_kg / rock_kg_l


@figure("Water held in filters", formula="Σ {holds_l}", source="balance")
def held_outside_l(holds_l: tuple[float, ...]) -> float:
    return sum(holds_l)


@figure(
    "Real water",
    formula="({filled_volume_l} − {bed_displaced_l} − {rock_displaced_l} − {wood_l}) × {tank_count} − {bank_displaced_l} "
    "+ {held_outside_l} + {sump_running_l} + {pipes_l}",
    source="balance",
)
def real_volume_l(
    filled_volume_l: float,
    bed_displaced_l: float,
    rock_displaced_l: float,
    wood_l: float,
    tank_count: int,
    bank_displaced_l: float,
    held_outside_l: float,
    sump_running_l: float,
    pipes_l: float,
) -> float:
    display = filled_volume_l - bed_displaced_l - rock_displaced_l - wood_l
    return display * tank_count - bank_displaced_l + held_outside_l + sump_running_l + pipes_l


@step()
def pane_stuff(pane_material: str) -> Material:
    return materials()[pane_material]


@figure(
    "Weight of the panes",
    formula="({perimeter_cm} × {inside_height_cm} + {footprint_m2} × 10000) × {pane_mm} ÷ 10000 × {pane_stuff}",
    source="densities",
)
def panes_kg(
    perimeter_cm: float,
    inside_height_cm: float,
    footprint_m2: float,
    pane_mm: float,
    pane_stuff: Material,
) -> float:
    area_cm2 = perimeter_cm * inside_height_cm + footprint_m2 * 1e4
    return area_cm2 * pane_mm / 10 / 1000 * pane_stuff.density_kg_l


@figure(
    "Weight of the wet bed", formula="{footprint_m2} × Σ depth × 10 × bulk weight of {floor}", source="densities"
)
def bed_kg(footprint_m2: float, floor: tuple[Floor, ...]) -> float:
    return sum(part.litres(footprint_m2) * part.bed.bulk_kg_l for part in floor)


@figure(
    "Weight filled",
    formula="({filled_volume_l} − {bed_volume_l} − {rock_displaced_l} − {wood_l}) × {water_kg_l} "
    "+ {bed_kg} + {rock_kg} + {wood_l} × {wood_kg_l} + {bank_displaced_l} ÷ {tank_count} × ({rock_kg_l} − {water_kg_l}) + {panes_kg}",
    source="densities",
)
def total_mass_kg(
    filled_volume_l: float,
    bed_volume_l: float,
    rock_displaced_l: float,
    wood_l: float,
    water_kg_l: float,
    bed_kg: float,
    rock_kg: float,
    wood_kg_l: float,
    bank_displaced_l: float,
    tank_count: int,
    rock_kg_l: float,
    panes_kg: float,
) -> float:
    water_kg = (filled_volume_l - bed_volume_l - rock_displaced_l - wood_l) * water_kg_l
    bank_kg = bank_displaced_l / tank_count * (rock_kg_l - water_kg_l)
    return water_kg + bed_kg + rock_kg + wood_l * wood_kg_l + bank_kg + panes_kg


@figure("Load on the floor", formula="{total_mass_kg} × 9.80665 ÷ {footprint_m2} ÷ 1000", source="en1991")
def floor_kpa(total_mass_kg: float, footprint_m2: float) -> float:
    side_cm = math.sqrt(footprint_m2) * 100
    return float(geometry.floor_pressure_kpa(total_mass_kg, side_cm, side_cm))


@figure("Longest pane", formula="{shape}: from {inside_length_cm} and bow {bow_cm}", source="definition")
def pane_length_cm(shape: str, inside_length_cm: float, bow_cm: float) -> float:
    if shape == "cylinder":
        raise NamedCase("curved_pane")
    if shape == "bow_front":
        return geometry.arc_length_cm(inside_length_cm, bow_cm)
    return inside_length_cm / 2 if shape == "hexagon" else inside_length_cm


@figure(
    "Pane needed",
    formula="√(β × ρg × {water_height_cm}³ ÷ (19.2 ÷ 3.8)), β for {pane_length_cm} ÷ {water_height_cm}, at most 5 rimless, {support}: tied across, the larger of braced all round and "
    "rimless at half the length; "
    "{pane_material}",
    source="timoshenko",
)
def pane_needed_mm(pane_length_cm: float, water_height_cm: float, support: str, pane_material: str) -> float:
    if pane_material != "glass":
        raise NamedCase("acrylic_pane")
    if support == "four_edges":
        return geometry.pane_thickness_mm(pane_length_cm, water_height_cm, support="four_edges")
    if support == "cross":
        # The tie holds one point of the edge: no better than held all along, nor than a free pane of half the length.
        held = geometry.pane_thickness_mm(pane_length_cm, water_height_cm, support="four_edges")
        return max(held, rimless_mm(pane_length_cm / 2, water_height_cm))
    return rimless_mm(pane_length_cm, water_height_cm)


def rimless_mm(length_cm: float, water_height_cm: float) -> float:
    """A pane with a free top edge. Beyond the table less water never needs more: where the table ends bounds it."""
    height_cm = max(water_height_cm, length_cm / geometry.LONGEST_RIMLESS)
    return geometry.pane_thickness_mm(length_cm, height_cm, support="three_edges")


@figure("Stock thickness", formula="{pane_needed_mm} up to the next one sold", source="timoshenko")
def pane_stock_mm(pane_needed_mm: float, library: Library) -> float:
    for stock in library.stock_panes_mm:
        if stock >= pane_needed_mm:
            return stock
    raise NamedCase("no_stock_pane", needed_mm=pane_needed_mm)


@figure(
    "Bulge of the free top edge",
    formula="α × ρg × {water_height_cm}⁵ ÷ (70000 × {pane_mm}³), α for {pane_length_cm} ÷ {water_height_cm}; {support}",
    source="timoshenko",
)
def pane_bulge_mm(pane_length_cm: float, water_height_cm: float, pane_mm: float, support: str) -> float:
    if support != "three_edges":
        raise NamedCase("braced_edge")
    return geometry.pane_bulge_mm(length_cm=pane_length_cm, water_height_cm=water_height_cm, thickness_mm=pane_mm)


@check(
    "The pane stands the water",
    stage="tank",
    judges="pane_needed_mm",
    mends=("tank.pane_mm", "tank.freeboard_cm"),
    caution="An estimate for annealed float glass with sound edges. A glazier decides; toughened panes can not be drilled.",
)
def pane_holds(
    pane_mm: float,
    pane_needed_mm: float,
    pane_stock_mm: float,
    factory_built: bool,
    pane_leeway_frac: float,
    support: str,
) -> Verdict:
    reason = say(
        "The longest pane needs {needed} for this height of water; {stock} is the next one sold. This is {pane}.",
        needed=of(pane_needed_mm, "pane_needed_mm"),
        stock=of(pane_stock_mm, "pane_stock_mm"),
        pane=of(pane_mm, "pane_mm"),
    )
    verdict = at_least(pane_mm, pane_needed_mm, "thickness", reason, scale=0.5)
    if factory_built and verdict.state == "short":
        text = "Its maker answers for {pane} with the bracing it is sold with; a free pane would need {needed}."
        maker = say(text, **{name: reason.terms[name] for name in ("pane", "needed")})
        return Verdict("tight", verdict.margin, say("by its maker"), maker, verdict.gauge)
    verdict = by_practice(verdict, pane_needed_mm, pane_leeway_frac * pane_needed_mm)
    if support != "cross":
        return verdict
    text = (
        reason.text + " A tie across holds one point of the edge, which no plate table covers: a glazier decides."
    )
    return between(replace(verdict, reason=Sentence(text, reason.terms)), True)


@check(
    "The floor",
    stage="tank",
    judges="floor_kpa",
    caution="Joist direction and position decide; a structural engineer and the local code have the last word.",
)
def floor_bears(floor_kpa: float, floor_design_kpa: float, total_mass_kg: float, floor_alarm_kg: float) -> Verdict:
    terms = {
        "mass": of(total_mass_kg, "total_mass_kg"),
        "load": of(floor_kpa, "floor_kpa"),
        "design": of(floor_design_kpa, "floor_design_kpa"),
    }
    if total_mass_kg < floor_alarm_kg:
        light = say("{mass} is no more than a wardrobe: a sound floor bears it on any wall.", **terms)
        return Verdict("holds", floor_alarm_kg - total_mass_kg, say("light"), light)
    return caution(
        floor_kpa,
        "floor_kpa",
        floor_design_kpa,
        say(
            "{mass} on this footprint is {load}, inside the {design} that homes are commonly designed for.",
            **terms,
        ),
        say(
            "{mass} on this footprint is {load}, beyond the evenly spread {design} of a common floor.",
            **terms,
        ),
    )


@step()
def stalest_floor(floor: tuple[Floor, ...]) -> Floor:
    """The part of the floor that water reaches least: the deepest of fine grain, else the deepest."""
    return max(floor, key=lambda part: (part.bed.fine, part.deepest_cm) if part.deepest_cm else (False, 0.0))


@figure("Deepest of the bed", formula="the deeper end of {stalest_floor}", source="definition")
def bed_deepest_cm(stalest_floor: Floor) -> float:
    return stalest_floor.deepest_cm


@step()
def burrowers(animal: tuple[Species, ...]) -> tuple[str, ...]:
    """Who turns the bed over, by name: animals that live in it, not those that only dig at it."""
    return tuple(dict.fromkeys(kind.common for kind in animal if kind.burrows))


@check("The bed stays open", stage="tank", judges="bed_deepest_cm", mends=("tank.bed_back_cm",))
def bed_open(
    bed_deepest_cm: float,
    stalest_floor: Floor,
    fine_bed_caution_cm: float,
    bed_most_cm: float,
    rooted: bool,
    burrowers: tuple[str, ...],
) -> Verdict:
    limit = fine_bed_caution_cm if stalest_floor.bed.fine and not rooted and not burrowers else bed_most_cm
    depth = of(bed_deepest_cm, "bed_deepest_cm")
    if bed_deepest_cm == 0:
        return Verdict("holds", limit, say("bare"), say("The floor is bare: there is no bed that could go foul."))
    return caution(
        bed_deepest_cm,
        "bed_deepest_cm",
        limit,
        say("{depth} of {bed} lets water through.", depth=depth, bed=stalest_floor.bed.label.lower()),
        say(
            "{depth} of fine sand with nothing rooted in it can hold stagnant pockets: plant it, or keep it shallower.",
            depth=depth,
        ),
    )


@step()
def tank_result(
    full_volume_l: float, real_volume_l: float, sump_running_l: float, total_mass_kg: float, bed_bags: float
) -> Sentence:
    real = "real water, sump and pipes with it, is {real}" if sump_running_l > 0 else "real water is {real}"
    return say(
        "Filled to the rim it would hold {full}; " + real + ". Filled it weighs {mass}; the bed takes {bags} bags.",
        full=of(full_volume_l, "full_volume_l"),
        real=of(real_volume_l, "real_volume_l"),
        mass=of(total_mass_kg, "total_mass_kg"),
        bags=Term(bed_bags, "count", "bed_bags"),
    )
