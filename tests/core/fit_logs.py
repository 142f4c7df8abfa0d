"""Synthetic logs of nitrate: a tank of known truth, read off a colour chart by an eye that errs."""

from itertools import pairwise

import numpy as np

CHART = [0, 5, 10, 20, 40, 80, 160]
MADE, SOURCE = 1.5, 10.0


def read_off(level, chance, blur=0.25):
    """The step of the chart that a blurred level is nearest to."""
    seen = level * np.exp(blur * chance.standard_normal())
    edges = [0, *((a + b) / 2 for a, b in pairwise(CHART))]
    return CHART[max(step for step, edge in enumerate(edges) if seen >= edge)]


def drawn(value, times, chance):
    return value * np.exp(np.log(times) / 1.645 * chance.standard_normal())


def synthetic(chance, weeks_before, weeks_after, effect_of_made, share=0.3, as_n=False):
    """Weekly readings and changes, with a sink from a day on; log, prior and what is true."""
    made, source = drawn(MADE, 1.6, chance), drawn(SOURCE, 1.3, chance)
    level, sink, log = 0.9 * (source + made * 7 / share), weeks_before * 7, []
    for day in range(0, 7 * (weeks_before + weeks_after + 1), 7):
        seen = read_off(level / (4.4268 if as_n else 1), chance)
        log.append({"day": day, "kind": "reading", "value": str(seen), "when": "before the change"})
        log.append({"day": day, "kind": "change", "share": share})
        level += share * (source - level)
        level = max(level + 7 * made * (1 - (effect_of_made if day >= sink else 0)), 0)
    return (
        log,
        prior(sink if weeks_after else None),
        {"made": made, "source": source, "effect": effect_of_made * made},
    )


def prior(sink=None, says="ion"):
    return {
        "made_from_feed_mg_l_d": MADE,
        "made_range_x": 1.6,
        "source_report_mg_l": SOURCE,
        "source_range_x": 1.3,
        "sink_date_day": sink,
        "chart": CHART,
        "kit_says": says,
    }
