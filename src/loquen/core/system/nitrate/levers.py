"""What each lever is worth on the settled peak of nitrate, each tried on the plan itself."""

from dataclasses import dataclass, replace

from loquen.core.data.tables import toml
from loquen.core.graph.keys import Missing
from loquen.core.graph.sheet import Sheet
from loquen.core.model.inputs.quantity import Sentence, Term, say
from loquen.core.model.parts.running import Weekday
from loquen.core.model.parts.tank import Planting
from loquen.core.model.roots.plan import Plan
from loquen.core.system.book import sheet_of
from loquen.core.system.changes.regime import Corner

FEED_LESS = 0.75
SHARE_MORE = 0.15
BETTER_SOURCE = 0.5
DAYS: tuple[Weekday, ...] = ("Sat", "Wed", "Mon", "Fri", "Sun", "Tue", "Thu")


@dataclass(frozen=True, slots=True)
class Lever:
    """A lever: the peak it settles at, mg/L N, what it takes off, what it costs in minutes a week, and how it swings.

    Where it is a range, `low_off` to `high_off` is what it may take off.
    """

    key: str
    words: Sentence
    peak: float
    off: float
    low_off: float
    high_off: float
    minutes_wk: float
    money_yr: float
    """More for electricity in a year: change water that has to be warmed."""
    saw: tuple[Corner, ...]
    note: str = ""


def levers(sheet: Sheet[Plan]) -> tuple[Lever, ...]:
    """Every lever that applies, what takes off most for least work first; feeding less, which is free, at the head."""
    found = [*of_the_regime(sheet), *of_plants(sheet), *of_media(sheet)]
    base = peak_of(sheet)
    if base is None:
        return ()
    worth = [lever for lever in found if lever.off > 0.005 * base]
    return tuple(
        sorted(worth, key=lambda lever: (lever.key != "feed", -lever.off / (2 + max(lever.minutes_wk, 0.0))))
    )


def peak_of(sheet: Sheet[Plan]) -> float | None:
    found = sheet.look("peak_nitrate_mg_l")
    return None if isinstance(found, Missing) else float(found)


def tried(
    sheet: Sheet[Plan], key: str, words: Sentence, other: Sheet[Plan], minutes_wk: float | None = None
) -> list[Lever]:
    """A lever as the difference of two sheets; none where either has no peak."""
    base, then = peak_of(sheet), peak_of(other)
    if base is None or then is None:
        return []
    if minutes_wk is None:
        minutes_wk = minutes(other) - minutes(sheet)
    off = base - then
    return [Lever(key, words, then, off, off, off, minutes_wk, money(other) - money(sheet), saw_of(other))]


def minutes(sheet: Sheet[Plan]) -> float:
    found = sheet.look("work_min")
    return 0.0 if isinstance(found, Missing) else float(found)


def money(sheet: Sheet[Plan]) -> float:
    found = sheet.look("electricity_money")
    return 0.0 if isinstance(found, Missing) else float(found)


def saw_of(sheet: Sheet[Plan]) -> tuple[Corner, ...]:
    found = sheet.look("saw_tooth")
    return () if isinstance(found, Missing) else found


def of_the_regime(sheet: Sheet[Plan]) -> list[Lever]:
    """Less food, another change, a larger one, a better source."""
    plan = sheet.root
    found: list[Lever] = []
    rise, made = sheet.look("rise_nitrate_mg_l_d"), sheet.look("made_nitrate_mg_l_d")
    if not isinstance(rise, Missing) and not isinstance(made, Missing):
        # Of what is really made: a quarter less food takes a quarter of that.
        really = float(made) if plan.changes.logged_rise_nitrate_mg_l_d is None else min(float(rise), float(made))
        less = max(0.0, float(rise) - (1 - FEED_LESS) * really)
        other = sheet.changed({"changes.logged_rise_nitrate_mg_l_d": less})
        words = say("Feed a quarter less: at once, and free", rest=Term(FEED_LESS, "share"))
        found += tried(sheet, "feed", words, other, 0.0)
    changes = plan.changes
    if changes.regime == "weekdays" and len(changes.weekdays) < 7:
        more = next(day for day in DAYS if day not in changes.weekdays)
        other = sheet.changed({"changes.weekdays": (*changes.weekdays, more)})
        found += tried(sheet, "another", say("Another change, on {day}", day=more), other)
    if changes.regime in ("weekdays", "every") and changes.change_frac + SHARE_MORE <= 0.9:
        share = changes.change_frac + SHARE_MORE
        other = sheet.changed({"changes.change_frac": share})
        found += tried(sheet, "larger", say("Change {share} each time", share=Term(share, "share")), other)
    source = sheet.look("new_nitrate_mg_l")
    if not isinstance(source, Missing) and float(source) > 0.5 and not plan.sources:
        better = BETTER_SOURCE * float(source)
        other = sheet.changed({"water.source_nitrate_mg_l": better})
        words = say("Change water of {level}: half of it osmosis or rain", level=Term(better, "nitrate"))
        found += tried(sheet, "source", words, other, 0.0)
    return found


def of_plants(sheet: Sheet[Plan]) -> list[Lever]:
    """Plants that are harvested: what is not taken out comes back."""
    plan, now = sheet.root, sheet.look("rise_nitrate_mg_l_d")
    found: list[Lever] = []
    if isinstance(now, Missing):
        return found
    for key, row in toml("nitrate_sinks.toml").items():
        if "plant" not in row or len(plan.planting) >= 24:
            continue
        plant = Planting(row["plant"], row["cover_frac"])
        other = sheet_of(replace(plan, planting=(*plan.planting, plant)), sheet.library)
        taken = float(other.value("plants_mg_d")) - float(sheet.value("plants_mg_d"))
        rise = max(0.0, float(now) - taken / float(sheet.value("real_volume_l")))
        other = other.changed({"changes.logged_rise_nitrate_mg_l_d": rise})
        found += tried(sheet, key, say("{what}", what=capital(row["label"])), other, row["minutes_wk"])
    return found


def of_media(sheet: Sheet[Plan]) -> list[Lever]:
    """Media without oxygen: as much as still goes into the sump's media chamber, else as much again as the filters hold."""
    litres, where = room_l(sheet)
    rise, volume = sheet.look("rise_nitrate_mg_l_d"), float(sheet.value("real_volume_l"))
    if litres < 0.5 or isinstance(rise, Missing):
        return []
    found = []
    base = peak_of(sheet)
    for key, row in toml("nitrate_sinks.toml").items():
        if "value_mg_l_d" not in row or base is None:
            continue
        offs = []
        for name in ("low_mg_l_d", "value_mg_l_d", "high_mg_l_d"):
            left = max(0.0, float(rise) - row[name] * litres / volume)
            other = sheet.changed({"changes.logged_rise_nitrate_mg_l_d": left})
            offs.append((base - (peak_of(other) or base), other))
        text = "{what}, {litres} " + where
        words = say(text, what=capital(row["label"]), litres=Term(litres, "volume"))
        likely = offs[1][1]
        found.append(
            Lever(
                key,
                words,
                base - offs[1][0],
                offs[1][0],
                offs[0][0],
                offs[2][0],
                row["minutes_wk"],
                0.0,
                saw_of(likely),
                row["note"],
            )
        )
    return found


def room_l(sheet: Sheet[Plan]) -> tuple[float, str]:
    """Litres of media that still go in, and where."""
    free = [
        float(sheet.value(f"chambers.{place}.chamber_l")) - float(sheet.value(f"chambers.{place}.chamber_media_l"))
        for place, row in enumerate(sheet.root.chambers)
        if row.chamber_kind == "media" and not isinstance(sheet.look(f"chambers.{place}.chamber_media_l"), Missing)
    ]
    if free and max(free) > 0.5:
        return 0.8 * max(free), "in what the sump's media chamber has free"
    filters = sheet.root.filters
    return (0.5 * sum(row.media_l for row in filters), "in a slow filter beside it") if filters else (0.0, "")


def capital(text: str) -> str:
    return text[:1].upper() + text[1:]
