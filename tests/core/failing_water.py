"""A second, plain writing of the hours after something breaks, for a library's stiff solver: no step of its own.

Only the relations of physics are shared with what it checks; state, events and couplings are written anew, by dictionary.
"""

import numpy as np
from scipy.integrate import solve_ivp
from scipy.optimize import brentq

from loquen.core.physics.chemistry import ammonia_fraction, ph_from_kh_co2
from loquen.core.physics.chemistry.carbonate import CO2_G_MOL, carbon_dioxide_mol_l
from loquen.core.physics.gases import oxygen_saturation_mg_l
from loquen.core.physics.heat import evaporation_l_d, evaporation_loss_w

PARTS = ("T", "V", "L", "O", "G", "A", "B", "C", "Af", "Nf", "Aw", "Nw", "KH", "S", "K", "M", "W", "U")
DEFAULT = {
    "start_hour": 0, "brim_l": None, "pump_dry_l": 0, "set_c": None, "heaters_w": (), "cover_frac": 1, "humidity_frac": 0.5,
    "equipment_w": 0, "top_up": True, "co2_mg_l": 2, "transfer_air_l_h": 0, "decay_mg_h": 0, "plants_night_mg_h": 0,
    "plants_day_mg_h": 0, "lamps_from_h": 10, "lamps_until_h": 18, "protein_frac": 0.45, "ammonia_mg_l_n": 0,
    "nitrite_mg_l_n": 0, "nitrate_mg_l_n": 5, "x_max_mg_l_d": None, "in_filter_frac": 0.8, "filter_l": 5,
    "filter_use_mg_h": 20, "kh_dkh": 6, "salinity_ppt": 0, "altitude_m": 0,
}  # fmt: skip


def balance_co2(temp):
    return carbon_dioxide_mol_l(temp, 600.0) * CO2_G_MOL * 1000


class Water:
    """One run; `p` its keywords, `failures` as they are told."""

    def __init__(self, failures=(), **p):
        self.p, self.failures = {**DEFAULT, **p}, list(failures)
        p = self.p
        share = p["in_filter_frac"]
        a, n = p["capacity_ammonia_mg_l_d"], p["capacity_nitrite_mg_l_d"]
        y = dict.fromkeys(PARTS, 0.0)
        y |= {"T": p["temp_c"], "V": p["volume_l"], "G": max(p["co2_mg_l"], balance_co2(p["temp_c"]))}
        y |= {"A": p["ammonia_mg_l_n"], "B": p["nitrite_mg_l_n"], "C": p["nitrate_mg_l_n"]}
        y |= {"Af": share * a, "Nf": share * n, "Aw": (1 - share) * a, "Nw": (1 - share) * n}
        y |= {"KH": p["kh_dkh"], "S": p["salinity_ppt"]}
        self.y, self.stopped_at, self.inside, self.g, self.dry = y, None, 0.0, 0.0, False
        y["O"] = brentq(lambda o: self.rates(0.0, {**y, "O": o}, ())["O"], 0.01, 30)
        _, used = self.used(0.0, y, ())
        over = y["G"] - balance_co2(y["T"])
        self.g = 0.87 * (p["transfer_running_l_h"] + p["transfer_air_l_h"]) * over / used

    def active(self, hour):
        return [f for f in self.failures if f.get("from_h", 0) <= hour < (f.get("until_h") or np.inf)]

    def lit(self, hour, on):
        clock = (self.p["start_hour"] + hour) % 24
        dark = any(f["kind"] in ("power", "no_lamps") for f in on)
        return self.p["lamps_from_h"] <= clock < self.p["lamps_until_h"] and not dark

    def bacteria(self, y, on):
        """Use of ammonia and nitrite per unit of capacity, an hour; and whether the filter works."""
        ph = ph_from_kh_co2(max(y["KH"], 0.02), max(y["G"], 0.1), y["T"])
        free = ammonia_fraction(ph, y["T"], y["S"]) * y["A"]
        f = 1.08 ** (min(y["T"], 32) - 25) / (1 + 10 ** (2 * (6 - ph))) / 24
        a = f * y["A"] / (0.5 + y["A"]) / (1 + free / 10) * y["KH"] / (y["KH"] + 0.1)
        n = f * y["B"] / (0.5 + y["B"]) / (1 + free / 0.75)
        return (
            a * min(1, 1.125 * y["O"] / (y["O"] + 0.5)),
            n * min(1, 1.25 * y["O"] / (y["O"] + 1)),
            not (self.dry or any(f["kind"] in ("power", "pump", "filter_clogged") for f in on)),
        )

    def rotting(self, y):
        warm = 1.10 ** (y["T"] - 25) / 24
        return 0.7 * warm * y["U"], 0.25 * warm * y["W"]

    def used(self, hour, y, on):
        """Oxygen used, mg/h, with and without what lit plants give."""
        p, lit = self.p, self.lit(hour, on)
        a, n, runs = self.bacteria(y, on)
        use_a, use_n = (y["Af"] * runs + y["Aw"]) * a, (y["Nf"] * runs + y["Nw"]) * n
        u, w = self.rotting(y)
        low = min(1, y["O"] / 0.5)
        found = p["breathing_mg_h"] * 1.83 ** ((y["T"] - p["temp_c"]) / 10) * min(1, y["O"] / 2)
        found += p["volume_l"] * (3.43 * use_a + 1.14 * use_n) + (p["decay_mg_h"] + 1200 * u + 250 * w) * low
        found += 0 if lit else p["plants_night_mg_h"] * low
        return found - (p["plants_day_mg_h"] if lit else 0), found

    def room(self, hour, on):
        for f in on:
            if f["kind"] == "room":
                return float(np.interp(hour - f["from_h"], range(len(f["temps_c"])), f["temps_c"]))
        return self.p["room_c"]

    def rates(self, hour, y, on):
        p, d = self.p, dict.fromkeys(PARTS, 0.0)
        kinds = {f["kind"] for f in on}
        power, room = "power" not in kinds, self.room(hour, on)
        evaporated = evaporation_l_d(p["surface_m2"], y["T"], max(room, 0.0), p["humidity_frac"], p["cover_frac"])
        watts = p["equipment_w"] * power
        for i, w in enumerate(p["heaters_w"]):
            here = {f["kind"] for f in on if f.get("heater") == i}
            share = np.clip((p["set_c"] + 0.25 - y["T"]) / 0.5, 0, 1)
            watts += w * power * (0 if "heater_dead" in here else 1 if "heater_stuck" in here else share)
        watts -= p["ua_w_k"] * (y["T"] - room) + evaporation_loss_w(evaporated, y["T"])
        v = y["V"]
        d["T"] = watts / (4186 / 3600 * v)
        hoses = self.comes_in(y, on, d)
        topped = p["top_up"] and "top_up_empty" not in kinds
        lost = 0 if topped else evaporated / 24
        for name in ("A", "B", "C", "KH", "K", "M", "S"):
            d[name] += lost / v * y[name]
        gains = sum(f["lph"] for f in hoses) - lost
        leaks = sum(f["lph"] for f in on if f["kind"] == "leak" and v > f["down_to_l"])
        over = max(0, gains - leaks) if p["brim_l"] and v >= p["brim_l"] else 0
        d["V"], d["L"] = gains - leaks - over, leaks + over
        pumping = power and "pump" not in kinds and not self.dry
        k = p["transfer_running_l_h"] if pumping else p["transfer_still_l_h"]
        k += p["transfer_air_l_h"] if power and "air" not in kinds else 0
        k += sum(f["transfer_l_h"] for f in on if f["kind"] == "battery_air")
        net, gross = self.used(hour, y, on)
        d["O"] += (k * (oxygen_saturation_mg_l(y["T"], y["S"], p["altitude_m"]) - y["O"]) - net) / v
        d["G"] += (0.87 * k * (balance_co2(y["T"]) - y["G"]) + self.g * gross) / v
        a, n, runs = self.bacteria(y, on)
        dense = p["volume_l"] / v
        use_a, use_n = (y["Af"] * runs + y["Aw"]) * a * dense, (y["Nf"] * runs + y["Nw"]) * n * dense
        u, w = self.rotting(y)
        made = p["load_mg_d"] / 24 / v + (u * p["protein_frac"] * 160 + w * 25) / v
        freed = 0.5 * y["M"]
        d["A"] += made - use_a + freed * 14.007 / 70.906
        d["B"] += use_a - use_n
        d["C"] += use_n
        d["KH"] += 0.20 * made - 0.40 * use_a
        d["U"], d["W"] = -u, -w
        d["K"] -= 0.5 * y["K"]
        d["M"] -= freed
        killed, b = 0.5 * (y["K"] + y["M"]), 0.05 * 1.08 ** (min(y["T"], 32) - 25) / 24
        most = p["x_max_mg_l_d"] or np.inf
        room_a, room_n = (max(0, 1 - (y[f"{x}f"] + y[f"{x}w"]) / most) for x in "AN")
        for name, growth, pace in (("A", 0.60 * room_a, a), ("N", 0.55 * room_n, n)):
            d[f"{name}w"] = (growth * pace - b - killed) * y[f"{name}w"]
            d[f"{name}f"] = (growth * pace - b - killed) * y[f"{name}f"] if runs else 0.0
        if not runs and self.stopped_at is not None and hour >= self.airless_at():
            d["Af"], d["Nf"] = -y["Af"] / 24, -y["Nf"] / 24
        return d

    def comes_in(self, y, on, d):
        """What hoses bring, added to the rates; the hoses."""
        hoses = [f for f in on if f["kind"] == "inflow"]
        for f in hoses:
            share, chlorine = f["lph"] / y["V"], f.get("chlorine_mg_l", 0)
            new = {
                "T": f["c"],
                "O": oxygen_saturation_mg_l(f["c"], f.get("salinity_ppt", 0.0), self.p["altitude_m"]),
            }
            new |= {"G": balance_co2(f["c"]), "A": 0, "B": 0, "C": f.get("nitrate_mg_l_n", 0)}
            new |= {"KH": f.get("kh_dkh", 0), "S": f.get("salinity_ppt", 0)}
            new |= {"K": chlorine * (not f.get("chloramine")), "M": chlorine * bool(f.get("chloramine"))}
            for name, level in new.items():
                d[name] += share * (level - y[name])
        return hoses

    def airless_at(self):
        return self.stopped_at + self.inside * self.p["filter_l"] / self.p["filter_use_mg_h"]

    def turn(self, hour):
        """What happens at once, and whether the filter stops or starts."""
        y = self.y
        for f in self.failures:
            starts = f.get("from_h", 0) == hour
            if f["kind"] == "death" and f.get("until_h") == hour:
                y["W"] = 0.0
            if not starts:
                continue
            if f["kind"] == "overfed":
                y["U"] += f["dry_g"]
            if f["kind"] == "death":
                y["W"] += f["wet_g"]
            if f["kind"] == "media_lost":
                y["Af"], y["Nf"] = y["Af"] * (1 - f["share"]), y["Nf"] * (1 - f["share"])
            if f["kind"] == "dose":
                for name, key in (
                    ("O", "oxygen_mg_l"),
                    ("KH", "kh_dkh"),
                    ("A", "ammonia_mg_l_n"),
                    ("B", "nitrite_mg_l_n"),
                ):
                    y[name] += f.get(key, 0)
            if f["kind"] == "change":
                new = {
                    "T": f["c"],
                    "O": oxygen_saturation_mg_l(f["c"], f.get("salinity_ppt", 0.0), self.p["altitude_m"]),
                }
                new |= {"G": balance_co2(f["c"]), "A": 0, "B": 0, "C": f.get("nitrate_mg_l_n", 0), "K": 0, "M": 0}
                new |= {"KH": f.get("kh_dkh", 0), "S": f.get("salinity_ppt", 0)}
                new["M" if f.get("chloramine") else "K"] = f.get("chlorine_mg_l", 0)
                for name, level in new.items():
                    y[name] += f["share"] * (level - y[name])
        on = self.active(hour)
        runs = self.bacteria(y, on)[2]
        if not runs and self.stopped_at is None:
            self.stopped_at, self.inside = hour, y["O"]
        if runs and self.stopped_at is not None:
            airless = max(0.0, hour - self.airless_at())
            y["A"] += self.p["load_mg_d"] * 0.3 * min(1, airless / 24) / y["V"]
            self.stopped_at = None
        return on

    def stops(self, hours):
        """Every hour at which something may turn by the clock."""
        p = self.p
        times = {float(h) for h in range(hours + 1)}
        times |= {float(f.get(k)) for f in self.failures for k in ("from_h", "until_h") if f.get(k) is not None}
        lamps = [(p[key] - p["start_hour"]) % 24 for key in ("lamps_from_h", "lamps_until_h")]
        times |= {lamp + 24 * day for lamp in lamps for day in range(hours // 24 + 1)}
        return sorted(t for t in times if t <= hours)

    def run(self, hours):
        """The state at every whole hour, as dictionaries; solved anew from one turn to the next."""
        kept, now = [dict(self.y)], 0.0
        for stop in self.stops(hours)[1:]:
            while now < stop:
                now = self.solved(now, stop)
            if stop == int(stop):
                kept.append(dict(self.y))
        return kept

    def solved(self, now, stop):
        on = self.turn(now)
        end = stop
        if self.stopped_at is not None and now < self.airless_at() < stop:
            end = self.airless_at()
        levels = [self.p["pump_dry_l"], self.p["brim_l"], *(f["down_to_l"] for f in on if f["kind"] == "leak")]
        before = self.y["V"]
        ways = [lambda _, y, level=level: y[1] - level for level in levels if level and abs(level - before) > 1e-6]
        for way in ways:
            way.terminal = True
        found = solve_ivp(
            lambda t, y: list(self.rates(t, dict(zip(PARTS, y, strict=True)), on).values()),
            (now, end), list(self.y.values()), method="LSODA", rtol=1e-6, atol=1e-8, events=ways or None, max_step=1.0,
        )  # fmt: skip
        self.y = dict(zip(PARTS, found.y[:, -1], strict=True))
        if found.status == 1:
            # Just past the level that was met.
            moved = self.rates(found.t[-1], self.y, on)["V"]
            self.y["V"] += 1e-9 * np.sign(moved)
            self.dry = self.y["V"] < self.p["pump_dry_l"]
        return float(found.t[-1])
