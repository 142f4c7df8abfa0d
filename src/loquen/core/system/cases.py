"""The policy of named cases: why there is no number, what that means for a check, and where none applies."""

from loquen.core.errors import NamedCase
from loquen.core.graph.nodes import State
from loquen.core.model.inputs.quantity import Sentence, Term, say

CASES: dict[str, tuple[State, str]] = {
    "media_can_not_carry": (
        "short",
        "This media can not carry this load at any ammonia level: {load} is made, {most} is the most it turns over.",
    ),
    "never_mature_enough": (
        "short",
        "Even mature it falls short: {load} is made, {most} is taken at a level they may live in.",
    ),
    "mature_enough": ("holds", "It carries this load today."),
    "fault_inside": (
        "unknown",
        "Loquen failed to work this out and has noted it in its log. Everything else stands.",
    ),
    "failure_untold": ("unknown", "Of a failure of the kind {kind} something is not told that it takes."),
    "not_set_up": ("unknown", "It is planned: once it stands filled, say that it is set up, and its cycle begins."),
    "young_not_begun": (
        "unknown",
        "By its age this filter does not carry its animals yet: say how and when it was begun, and its cycle is forecast.",
    ),
    "bag_not_measured": (
        "measure",
        "Measure conductivity or salinity of the bag's water before it is opened: kinds for salt are often sold in fresh water.",
    ),
    "not_begun": ("unknown", "The filter has long been running: there is no cycle to forecast."),
    "nothing_read": ("unknown", "Too little is read yet."),
    "no_animals": ("unknown", "No animals yet."),
    "one_kind": ("unknown", "Only one kind aboard."),
    "no_crowd_fish": ("unknown", "Only for territorial lake fish; none is aboard."),
    "not_needed": ("unknown", "Does not apply to this tank."),
    "land_untold": ("measure", "What dry place there is has not been told."),
    "no_land": ("unknown", "There is no dry place."),
    "no_shells": ("unknown", "Only for turtles; none is aboard."),
    "not_heated": ("unknown", "This tank is not heated."),
    "curved_pane": (
        "unknown",
        "A curved pane carries its load as a hoop; this plate estimate does not cover it.",
    ),
    "acrylic_pane": ("unknown", "The estimate is for annealed glass; the maker's table decides for acrylic."),
    "braced_edge": ("unknown", "The top edge is braced; it does not bulge."),
    "pane_too_long": (
        "short",
        "More than {limit} times as long as the water is high: no rimless estimate; brace it.",
    ),
    "bulge_not_tabled": (
        "unknown",
        "More than {limit} times as long as the water is high: the bulge is not tabled.",
    ),
    "no_stock_pane": (
        "short",
        "It needs {needed_mm}; no stock pane is that thick. Brace the top or lower the water.",
    ),
    "no_stock_heater": ("short", "No stock heater is large enough; use more of them."),
    "no_changes": ("short", "No day is chosen: without changes nitrate only rises."),
    "no_regime_holds": (
        "short",
        "No regime within reach holds: better change water, less feed or more plants.",
    ),
    "no_stock_tank": ("short", "No tank that is sold is large enough for these animals full grown."),
    "beyond_relation": ("unknown", "These numbers lie outside what the relation covers."),
    "can_not_breathe": (
        "short",
        "The system can not breathe: more oxygen is used than surface, bubbles and falls bring in, even where none is left.",
    ),
    "floor_never_reached": (
        "holds",
        "With all power off the still surface alone keeps oxygen above what they need.",
    ),
    "kh_not_used": ("holds", "It is not used: plants give back what the filter takes."),
    "kh_hardly_used": ("holds", "So little of it is used that it lasts a lifetime."),
    "salt_hardens": ("unknown", "Salt brings hardness of its own, by its make: test it."),
    "filter_follows": ("holds", "So little salt does not slow the filter."),
    "no_membrane": ("unknown", "No reverse osmosis of one's own."),
    "no_container": ("unknown", "No container's size is entered."),
    "topped_up_pure": ("unknown", "Evaporation is topped up with pure water."),
    "siphoned_as_usual": ("unknown", "The usual part for animals that grow, or are grown."),
    "kh_held": ("holds", "Lime in the water gives back what the filter takes."),
    "no_soil": ("unknown", "No active soil that still takes carbonate hardness."),
    "soil_hardly_used": ("holds", "At this change water it lasts a lifetime."),
    "no_regime_warm": (
        "short",
        "Only a change that chills or warms them more than they bear would hold: warm the change water first.",
    ),
    "no_regime_solids": (
        "short",
        "Only a change that moves dissolved solids more than they bear would hold: bring the two waters nearer.",
    ),
    "no_regime_kh": (
        "short",
        "Only a change that moves carbonate hardness more than they bear would hold: soften the change water, or change "
        "little and often.",
    ),
    "not_treated": ("unknown", "The change water is not treated."),
    "no_disinfectant": ("unknown", "No disinfectant in the change water."),
    "no_return": ("short", "There is a sump, but no return brings its water back."),
    "no_sump": ("holds", "No overflow and no sump: the filters move this water."),
    "no_product": ("unknown", "The named salts are weighed."),
    "no_move": ("unknown", "No move to another salinity is planned."),
    "chloramine_stays": ("unknown", "Chloramine does not leave by standing, however long."),
    "dissolves_on": ("unknown", "This water dissolves lime on beyond {most_dkh}, farther than the relation goes."),
    "already_saturated": ("unknown", "This water dissolves no lime as it is."),
    "nothing_poured": ("short", "No water has a part in the mix."),
    "media_take_all": ("holds", "Never: the seeded media take all of it."),
    "source_at_limit": ("short", "The change water itself reads your limit: no trigger works."),
    "no_sump_holds": (
        "short",
        "No length of this sump holds: a higher one, a lower running level or shallower returns.",
    ),
    "no_depth_holds": (
        "short",
        "No depth of the returns helps: {down} come down with their outlets at the surface. A larger sump, or more weir.",
    ),
    "no_fall": (
        "short",
        "The water in the sump stands as high as the tank's: nothing falls, and the drain passes nothing.",
    ),
    "no_trap": ("unknown", "There is no bubble trap in this sump."),
    "nothing_evaporates": ("holds", "Nothing evaporates."),
    "not_in_two_days": ("holds", "Not within two days."),
    "no_uvb_lamp": ("unknown", "This lamp gives no ultraviolet-B."),
    "uvb_points": ("short", "The maker's farther point must lie farther off, with less of it."),
    "no_flow": ("short", "The pump can not lift water that high: nothing flows."),
    "no_share_reaches": ("short", "No mix of these two waters reaches it: it has to lie between them."),
    "no_permeate": ("short", "The feed does not press against what is dissolved in it: no permeate."),
    "heater_too_weak": ("short", "The heater gives no more than is lost: the water does not warm."),
    "room_not_colder": ("holds", "The room is no colder than that: it never gets there."),
    "nothing_taken": ("short", "Nothing takes the waste: no working media, or change water at the limit."),
}
KINDS = {
    "most_dkh": "carbonate",
    "load": "nitrogen_load",
    "most": "nitrogen_load",
    "needed_mm": "thickness",
    "limit": "ratio",
    "down": "volume",
}

ROOM_CASES: dict[str, tuple[State, str]] = {
    "no_tanks_placed": ("unknown", "No tank stands on a rack yet."),
    "no_racks": ("unknown", "No rack yet."),
    "zone_without_tanks": ("unknown", "No tank is on this zone yet."),
    "no_zones": ("unknown", "No tank is on a zone yet."),
    "headers_as_planned": ("holds", "The buckets fall off along the headers as is planned."),
    "more_than_a_header": (
        "short",
        "The far bucket is emptier than any header explains: its emitter or drop is blocked.",
    ),
    "none_by_hand": ("holds", "No tank of a rack is changed by hand."),
    "none_pumped": ("unknown", "No zone is fed from a reservoir."),
    "none_on_the_street": ("holds", "Every zone is fed from the reservoir."),
    "no_loads": ("unknown", "No tank on a zone has a system, or a rise of nitrate entered."),
    "no_hours_allowed": ("short", "No hours are allowed: no zone ever runs."),
    "no_timetable": ("short", "There is no such day."),
    "store_keeps_up": ("holds", "Its heater keeps up with the largest zone: no pulse is too long for it."),
    "street_too_weak": ("short", "With nothing running the street has less than the zone needs."),
    "test_not_lower": ("unknown", "The second reading of the pressure is no lower than the first."),
    "mix_hotter_than_store": ("short", "The mix is to be hotter than the store."),
    "nothing_to_heat": ("holds", "The cold water is as warm as the store."),
    "floor_drains_it": ("holds", "The floor drain takes all of it."),
    "no_fitting_date": ("unknown", "Enter the day on which the cartridges were fitted."),
    "did_not_settle": ("unknown", "These pipes could not be balanced; Loquen has noted it."),
    "impossible_value": ("unknown", "A value of these pipes can not be."),
    "no_water": ("unknown", "It has no water."),
    "outside_as_damp": ("unknown", "The air outside holds as much water: changing it dries nothing."),
    "no_buckets": ("unknown", "No bucket was held under an emitter yet."),
    "nothing_run": ("unknown", "Nothing has run yet."),
    "store_would_empty": (
        "short",
        "There is no such day: the store would fall under its reserve. Mend the timetable first; nothing was sent.",
    ),
    "drain_full": ("short", "The collector runs full."),
    "no_pulse_allowed": ("short", "A pulse of no length is no pulse."),
    "ends_before_it_begins": ("short", "It ends before it begins."),
    "no_source": ("short", "No supply feeds these pipes."),
    "no_such_node": ("unknown", "A pipe leads to a place that is not there."),
    "no_such_link": ("unknown", "There is no such pipe."),
    "twice_named": ("unknown", "Two of these pipes are called the same."),
}
ROUND_CASES: dict[str, tuple[State, str]] = {
    "no_such_day": ("unknown", "There is no such day."),
    "no_such_zone": ("unknown", "There is no such time zone."),
    "no_such_holiday": ("unknown", "A holiday ends on or after its first day, and takes up to 60 days."),
    "no_such_helper": ("unknown", "Nobody of this name does the round."),
    "same_name": ("unknown", "Two who do the round are called the same."),
    "never_both": ("unknown", "No number up to 400 makes that likely: ask for less, or buy grown animals."),
}
GROWOUT_CASES: dict[str, tuple[State, str]] = {
    "broods_unknown": (
        "unknown",
        "How this kind breeds is not in the library: enter the young of a brood and the days between.",
    ),
    "no_tank_chosen": ("unknown", "Choose the tank that it is kept in."),
    "no_female": ("short", "Without a female there are no broods."),
    "no_pair": ("short", "One sex is missing: the line ends with these."),
    "no_births": ("unknown", "No births of this kind are in the register yet."),
    "no_sale_size": ("unknown", "At what size they go is not entered yet."),
    "never_so_long": ("short", "They never grow so long: their adult length is only ever neared."),
    "all_sold": ("holds", "All that are raised are sold."),
    "nothing_raised": ("unknown", "Nothing is raised."),
    "nothing_sold": ("unknown", "Nothing is sold."),
    "no_work": ("unknown", "No work is reckoned."),
    "kept_for_the_line": ("unknown", "Kept for the line: it need not pay."),
}
INAPPLICABLE = {
    "kept_for_the_line",
    "no_births",
    "no_buckets",
    "not_needed",
    "none_pumped",
    "not_heated",
    "no_move",
    "no_crowd_fish",
    "one_kind",
    "no_trap",
    "no_membrane",
    "no_sump",
    "no_disinfectant",
    "chloramine_stays",
}
"""Cases in which a check does not apply to this system at all."""


ALL_CASES = CASES | ROOM_CASES | ROUND_CASES | GROWOUT_CASES


def told_case(case: NamedCase) -> tuple[State, Sentence]:
    """The state and the sentence of a named case; raise KeyError for one without words."""
    state, text = ALL_CASES[case.code]
    terms = {name: Term(float(value), KINDS[name]) for name, value in case.values.items() if name in KINDS}
    return state, say(text, **terms)
