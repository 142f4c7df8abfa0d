"""What the colony brings: broods, young, where they grow and in how many tanks."""

import math

import numpy as np

from loquen.core.errors import NamedCase
from loquen.core.graph.nodes import Verdict, check, figure, step
from loquen.core.growout import broods as relations
from loquen.core.growout.births import Born
from loquen.core.growout.broods import DAYS_A_YEAR
from loquen.core.growout.homes import Home
from loquen.core.growout.young import Growth
from loquen.core.library.rows.animals import Breeding, Species
from loquen.core.model.inputs.quantity import Sentence, Term, of, say

LEAST_START = 0.25
"""A birth length is at most this part of the adult one."""


@figure(
    "Young of a brood",
    formula="{brood_size} as entered, else that of {breeds} × ({mother_cm} ÷ its female's length)^{brood_power}, no more than its most; × {strip_brood_part} "
    "where mouths are stripped: {stripping}",
    source="practice",
    kind="count",
)
def brood_young(
    brood_size: float | None,
    breeds: Breeding | None,
    mother_cm: float,
    brood_power: float,
    stripping: bool,
    strip_brood_part: float,
) -> float:
    if brood_size is not None:
        return brood_size
    if breeds is None:
        raise NamedCase("broods_unknown")
    young: float = min(breeds.brood_high, breeds.brood * (mother_cm / breeds.at_female_cm) ** brood_power)
    return young * strip_brood_part if stripping else young


@step()
def stripping(stripped: bool, breeds: Breeding | None) -> bool:
    """Only mouths can be stripped."""
    return stripped and breeds is not None and breeds.way == "mouthbrooder"


@figure(
    "Days from brood to brood",
    formula="{interval_d} as entered, else that of {breeds}; × {strip_interval_part} where mouths are stripped: {stripping}",
    source="practice",
)
def brood_interval_d(
    interval_d: float | None, breeds: Breeding | None, stripping: bool, strip_interval_part: float
) -> float:
    if interval_d is not None:
        return interval_d
    if breeds is None:
        raise NamedCase("broods_unknown")
    return breeds.interval_d * (strip_interval_part if stripping else 1.0)


@figure(
    "Young a day, as reckoned",
    formula="{females} × {brood_young} × {fertile_frac} ÷ {brood_interval_d}",
    source="balance",
    kind="ratio",
)
def reckoned_per_day(females: int, brood_young: float, brood_interval_d: float, fertile_frac: float) -> float:
    return relations.fry_per_day(females, brood_young, brood_interval_d, fertile_frac)


@figure(
    "Young a day",
    formula="births of the register ({born}) where there are {broods_told} broods, else {reckoned_per_day}; × {broods_part}",
    source="balance",
    kind="ratio",
)
def young_per_day(
    born: Born | None, reckoned_per_day: float | None, broods_told: float, broods_part: float
) -> float:
    if born is not None and born.broods >= broods_told:
        return born.young / born.days * broods_part
    if reckoned_per_day is None:
        raise NamedCase("broods_unknown")
    return reckoned_per_day * broods_part


@step()
def together(breeds: Breeding | None) -> bool:
    """Whether the eggs or young of all females are gathered as one batch."""
    return breeds is not None and breeds.way in ("scatterer", "shrimp")


@figure(
    "Batches a day that come",
    formula="1 ÷ {brood_interval_d} where they are gathered from all females together ({together}), else {young_per_day} ÷ "
    "{brood_young}, or as the register counts them from {broods_told} on: {born}",
    source="balance",
    kind="ratio",
)
def batches_per_day(
    young_per_day: float,
    brood_young: float | None,
    brood_interval_d: float | None,
    together: bool,
    born: Born | None,
    broods_told: float,
) -> float:
    if born is not None and born.broods >= broods_told and born.young:
        return young_per_day * born.broods / born.young
    if brood_young is None or brood_interval_d is None:
        raise NamedCase("broods_unknown")
    if together:
        return 1 / brood_interval_d
    return young_per_day / brood_young if brood_young else 0.0


@figure(
    "Batches a day that are raised",
    formula="{batches_per_day}, at most {taken_month} × 12 ÷ 365.25",
    source="definition",
    kind="ratio",
)
def taken_per_day(batches_per_day: float, taken_month: float | None) -> float:
    return batches_per_day if taken_month is None else min(batches_per_day, taken_month * 12 / DAYS_A_YEAR)


@figure(
    "Young of a batch that are raised",
    formula="{young_per_day} ÷ {batches_per_day}, at most {most_of_batch}, × (1 − {culled_frac})",
    source="definition",
    kind="count",
)
def raised_of_batch(
    young_per_day: float, batches_per_day: float, most_of_batch: float | None, culled_frac: float
) -> float:
    if batches_per_day <= 0:
        return 0.0
    batch = young_per_day / batches_per_day
    return (batch if most_of_batch is None else min(batch, most_of_batch)) * (1 - culled_frac)


@figure(
    "Young a day that are raised",
    formula="{taken_per_day} × {raised_of_batch}",
    source="balance",
    kind="ratio",
)
def kept_per_day(taken_per_day: float, raised_of_batch: float) -> float:
    return taken_per_day * raised_of_batch


@figure(
    "Growth, by the change of this tank",
    formula="{spared_pace} at {spared_change_wk} of the litres really exchanged a week to {ample_pace} at {ample_change_wk}, by the logarithm, of "
    "{tank_there}",
    source="practice",
    kind="share",
)
def pace_frac(
    tank_there: Home | None,
    spared_change_wk: float,
    ample_change_wk: float,
    spared_pace: float,
    ample_pace: float,
) -> float:
    if tank_there is None:
        return 1.0
    change = max(1e-6, tank_there.exchanged_part_wk)
    ends = math.log(spared_change_wk), math.log(ample_change_wk)
    return float(np.interp(math.log(change), ends, (spared_pace, ample_pace)))


@figure(
    "Growth constant here",
    formula="K of {kind} × {pace_frac} × {pace_part}",
    source="bertalanffy1938",
)
def growth_per_year(kind: Species, pace_frac: float, pace_part: float) -> float:
    return kind.growth_per_year * pace_frac * pace_part


@step()
def grows(kind: Species, breeds: Breeding | None, growth_per_year: float) -> Growth:
    start = breeds.start_cm if breeds else kind.adult_length_cm * LEAST_START / 4
    return Growth(kind.adult_length_cm, growth_per_year, min(start, kind.adult_length_cm * LEAST_START))


@step()
def lives(
    stage_d: tuple[float, ...], lives_frac: tuple[float, ...], lives_part: float
) -> tuple[tuple[float, float], ...]:
    """Stages as they are reckoned with: days, and who lives through them."""
    return tuple((days, min(1.0, share * lives_part)) for days, share in zip(stage_d, lives_frac, strict=True))


@figure("Of all young, grown up", formula="product of the shares of {lives}", source="balance")
def reared_all_frac(lives: tuple[tuple[float, float], ...]) -> float:
    return math.prod(share for _, share in lives)


@figure(
    "Age when they are moved to grow on",
    formula="365.25 ÷ K × ln((L∞ − start) ÷ (L∞ − {move_cm})), {grows}",
    source="bertalanffy1938",
)
def moved_d(move_cm: float, grows: Growth) -> float:
    return relations.age_at_length_d(move_cm, grows.adult_length_cm, grows.growth_per_year, grows.start_length_cm)


@figure(
    "A brood has a tank to itself",
    formula="{moved_d}, and {holding_d} more where females are held; none where young stay with the colony: {raised}",
    source="definition",
)
def apart_d(moved_d: float, holding_d: float, raised: str) -> float:
    if raised == "parents":
        return 0.0
    return moved_d + (holding_d if raised == "holding" else 0.0)


@figure("Raising tanks in use", formula="{taken_per_day} × {apart_d}", source="little1961", kind="ratio")
def raising_mean(taken_per_day: float, apart_d: float) -> float:
    return taken_per_day * apart_d


@figure("Raising tanks", formula="{raising_mean}, rounded up", source="little1961", kind="count")
def raising_tanks(raising_mean: float) -> float:
    return float(math.ceil(raising_mean - 1e-9))


@check("Young are safe", stage="broods", mends=("broods.raised",))
def young_safe(raised: str, breeds: Breeding) -> Verdict:
    if raised != "parents" or not breeds.eats_young:
        return Verdict("holds", 1.0, say("they are"), say("Nobody eats them where they are."))
    text = "{kind} eat their young and eggs: left with the colony most are gone in a day, unless it is full of {wants}."
    return Verdict("tight", 0.0, say("they are eaten"), say(text, kind="The parents", wants=breeds.wants))


@check("Stripped or left", stage="broods")
def strip_schools(
    breeds: Breeding | None,
    females: int,
    fertile_frac: float,
    mother_cm: float,
    brood_power: float,
    strip_interval_part: float,
    strip_brood_part: float,
    stripping: bool,
) -> Verdict:
    if breeds is None or breeds.way != "mouthbrooder":
        raise NamedCase("not_needed")
    left = relations.fry_per_day(
        females, breeds.brood * (mother_cm / breeds.at_female_cm) ** brood_power, breeds.interval_d, fertile_frac
    )
    taken = left * strip_brood_part / strip_interval_part
    reason = say(
        "Two schools: left to hold, females bring {left} young a day and the next ones hold too; stripped, {taken}, and some lines "
        "forget how. You {do}.",
        left=Term(left, "ratio"),
        taken=Term(taken, "ratio"),
        do="strip" if stripping else "leave them",
    )
    return Verdict("holds", 1.0, say("stripped") if stripping else say("left to hold"), reason)


@check("Drained, or flowing through", stage="broods", judges="pace_frac")
def raised_in(tank_there: Home, pace_frac: float) -> Verdict:
    """The two ways to change a growing tank, with the litres that its plan pours."""
    through = tank_there.regime in ("pulses", "drip")
    reason = say(
        "Its plan pours {litres} a week and really exchanges {real}. Drained and filled, the same litres exchange {drained}; flowing "
        "through, {through}, with less work and no shock. At that they grow at {pace} of the library's pace, more or less.",
        litres=Term(tank_there.change_l_wk, "volume"),
        real=Term(tank_there.exchanged_part_wk, "share"),
        drained=Term(tank_there.drained_part_wk, "share"),
        through=Term(tank_there.through_part_wk, "share"),
        pace=of(pace_frac, "pace_frac"),
    )
    return Verdict("holds", 0.0, say("flows through") if through else say("drained and filled"), reason)


@check("Births in the register", stage="broods", judges="young_per_day")
def births_told(
    born: Born | None, reckoned_per_day: float | None, broods_told: float, young_per_day: float
) -> Verdict:
    if born is None or born.broods == 0:
        raise NamedCase("no_births")
    terms: dict[str, Term | str] = {
        "broods": Term(born.broods, "count"),
        "young": Term(born.young, "count"),
        "days": Term(born.days, "days"),
        "told": Term(broods_told, "count"),
    }
    if born.broods < broods_told:
        text = "{broods} broods of {young} young in {days}: from {told} on they take the guess's place."
        return Verdict("tight", 0.0, say("too few yet"), say(text, **terms))
    text = "{broods} broods of {young} young in {days} take the guess's place: {real} a day"
    terms["real"] = of(young_per_day, "young_per_day", "ratio")
    if reckoned_per_day is not None:
        text += ", reckoned {guess}"
        terms["guess"] = of(reckoned_per_day, "reckoned_per_day", "ratio")
    return Verdict("holds", 1.0, say("counted"), say(text + ".", **terms))


@step()
def broods_result(
    young_per_day: float, present: float, tanks_needed: float, raising_tanks: float, growing_tanks: float
) -> Sentence:
    return say(
        "{young} young a day come to {present} at a time: {raising} raising and {growing} grow-out tanks, {tanks} with the colony's.",
        young=of(young_per_day, "young_per_day", "ratio"),
        present=of(present, "present", "count"),
        raising=of(raising_tanks, "raising_tanks", "count"),
        growing=of(growing_tanks, "growing_tanks", "count"),
        tanks=of(tanks_needed, "tanks_needed", "count"),
    )
