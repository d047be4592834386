"""Courses of made-up batches as files of the second edition, sound ones and ones with a fault planted in them.

It writes files only and knows nothing of how they are judged: what it planted, it says itself.
"""

import copy
import math
import random
from collections.abc import Callable
from datetime import UTC, datetime, timedelta
from typing import Any

File = dict[str, Any]
START = datetime(2026, 9, 3, 15, tzinfo=UTC)


def iso(moment: datetime) -> str:
    return moment.isoformat().replace("+00:00", "Z")


def log(rng: random.Random, begin: datetime, end: datetime, low: float, high: float) -> list[list[Any]]:
    """Readings at odd times, never more than five hours apart, within a band."""
    rows, t = [], begin
    while t < end:
        rows.append([iso(t), round(rng.uniform(low, high), 2)])
        t += timedelta(hours=rng.uniform(0.3, 5.0))
    return [*rows, [iso(end), round(rng.uniform(low, high), 2)]]


def day(n: float) -> datetime:
    return START + timedelta(days=n)


def _pieces(rng: random.Random, count: int, target: float, now: datetime, **more: Any) -> list[dict[str, Any]]:
    found = []
    for i in range(count):
        start, tare = rng.randint(500, 3000), rng.randint(0, 30)
        done = math.floor(tare + (start - tare) * (1 - target / 100))
        half = round((start + done) / 2, 1)
        weights = [[iso(day(15)), half], [iso(now - timedelta(hours=rng.uniform(2, 40))), done]]
        found.append({"tag": f"p{i}", "start_weight_g": start, "tare_g": tare, "target_loss_percent": target,
                      "weights": weights, "doubtful": [], "taken_down": None, "inspections": [], **more})  # fmt: skip
    return found


def soured(rng: random.Random) -> File:
    """Minced, with a culture, warm, dried to its target."""
    now, meat = day(rng.uniform(45, 70)), rng.randint(2000, 9000)
    lean = round(meat * rng.uniform(0.6, 0.8))
    profile = rng.choice(["us", "eu"])
    nitrite = rng.uniform(101, 156.4 if profile == "us" else 119)
    warm_c = rng.uniform(18, 25)
    return {
        "format": "zymon-batch/2", "id": "planted", "goods": "minced", "family": "salame_cultured", "use": "raw",
        "limit_profile": profile, "now": iso(now),
        "parts": [
            {"name": "lean", "species": "pork", "mass_g": lean, "fat_percent": rng.uniform(4, 12)},
            {"name": "fat", "species": "pork", "mass_g": meat - lean, "fat_percent": rng.uniform(80, 92)},
        ],
        "formulation": {
            "plain_salt_g": meat * rng.uniform(0.025, 0.032), "other_salt_g": 0, "dose_known": True, "belly": False,
            "curing_salts": [{"grams": nitrite * meat / 62_500, "nitrite_fraction": 0.0625, "nitrate_fraction": 0.0}],
        },
        "mix_temperature_c": rng.uniform(-1, 3.9), "parasite": [{"species": "pork", "way": "certified"}],
        "stages": [
            {"kind": "cold", "from": iso(day(0)), "to": iso(day(1)), "temperature": log(rng, day(0), day(1), 0.5, 3.9)},
            {"kind": "warm", "from": iso(day(1)), "to": iso(day(3)),
             "temperature": log(rng, day(1), day(3), warm_c - 1, warm_c + 1)},
            {"kind": "hang", "from": iso(day(3)), "to": None, "temperature": log(rng, day(3), now, 9, 14.9)},
        ],
        "ph": [{"at": iso(day(1 + rng.uniform(0.6, 1.4))), "value": 5.2, "meter": "checked", "repeat_of": None}],
        "pieces": _pieces(rng, rng.randint(1, 4), rng.uniform(35, 40), now),
        "laboratory": [], "corrections": [], "signatures": [],
    }  # fmt: skip


def cured(rng: random.Random) -> File:
    """Whole muscle, in measured salt in the cold, dried to its target, its activity measured."""
    now, meat = day(rng.uniform(70, 110)), rng.randint(800, 4000)
    nitrite = rng.uniform(30, 119)
    return {
        "format": "zymon-batch/2", "id": "planted", "goods": "intact", "family": "coppa", "use": "raw",
        "limit_profile": rng.choice(["us", "eu"]), "now": iso(now),
        "parts": [{"name": "muscle", "species": "pork", "mass_g": meat, "fat_percent": rng.uniform(5, 20)}],
        "formulation": {
            "plain_salt_g": meat * rng.uniform(0.022, 0.035), "other_salt_g": 0, "dose_known": True, "belly": False,
            "curing_salts": [{"grams": nitrite * meat / 62_500, "nitrite_fraction": 0.0625, "nitrate_fraction": 0.04}],
        },
        "mix_temperature_c": None, "parasite": [{"species": "pork", "way": "certified"}],
        "stages": [
            {"kind": "cure", "from": iso(day(0)), "to": iso(day(21)), "way": rng.choice(["measured", "pressed"]),
             "temperature": log(rng, day(0), day(21), 1, 4.4)},
            {"kind": "hang", "from": iso(day(21)), "to": None, "temperature": log(rng, day(21), now, 8, 14.9)},
        ],
        "ph": [], "pieces": _pieces(rng, rng.randint(1, 3), rng.uniform(33, 40), now, core_salt_share=rng.uniform(0.62, 0.99)),
        "laboratory": [{"at": iso(now - timedelta(hours=1)), "what": "water_activity", "value": rng.uniform(0.85, 0.919),
                        "unit": "", "on": "product"}],
        "corrections": [], "signatures": [],
    }  # fmt: skip


def _at_once(of: dict[str, Any], c: float, hours: float, days_in: float) -> None:
    """A stretch at a temperature, read every quarter of an hour, instead of what a stage showed then."""
    begin = datetime.fromisoformat(of["from"]) + timedelta(days=days_in)
    end = begin + timedelta(hours=hours)
    around = timedelta(minutes=1)
    rows = [r for r in of["temperature"] if not begin - around <= datetime.fromisoformat(r[0]) <= end + around]
    edge = rows[0][1]
    rows += [[iso(begin - around), edge], [iso(end + around), edge]]
    rows += [[iso(begin + timedelta(minutes=15 * i)), c] for i in range(int(hours * 4) + 1)]
    rows.append([iso(end), c])
    of["temperature"] = sorted(rows)


def _silent(of: dict[str, Any], days_in: float, hours: float) -> None:
    begin = datetime.fromisoformat(of["from"]) + timedelta(days=days_in)
    end = begin + timedelta(hours=hours)
    of["temperature"] = [r for r in of["temperature"] if not begin < datetime.fromisoformat(r[0]) < end]


def _scaled(file: File, nitrite_mg: float) -> None:
    meat = sum(p["mass_g"] for p in file["parts"])
    file["formulation"]["curing_salts"][0]["grams"] = nitrite_mg * meat / 62_500


def _salt(file: File, percent: float) -> None:
    meat = sum(p["mass_g"] for p in file["parts"])
    file["formulation"]["plain_salt_g"] = meat * percent / 100
    file["formulation"]["curing_salts"][0]["grams"] = 110 * meat / 62_500


def _look(file: File, rim: str, core: str, smell: str) -> None:
    at = datetime.fromisoformat(file["now"]) - timedelta(minutes=5)
    file["pieces"][0]["inspections"].append({"at": iso(at), "rim": rim, "core": core, "smell": smell})


def _lab(file: File, what: str, value: float, unit: str) -> None:
    at = datetime.fromisoformat(file["now"]) - timedelta(hours=3)
    file["laboratory"].append({"at": iso(at), "what": what, "value": value, "unit": unit, "on": "product"})


def _between(file: File, kind: str, days: float, c: float) -> None:
    """A stage pushed in before the hang, which begins so much later."""
    hang = file["stages"][-1]
    begin = datetime.fromisoformat(hang["from"])
    end = begin + timedelta(days=days)
    rows = [[iso(begin + timedelta(hours=2 * i)), c] for i in range(int(days * 12))]
    file["stages"].insert(-1, {"kind": kind, "from": iso(begin), "to": iso(end), "temperature": rows})
    hang["from"] = iso(end)
    hang["temperature"] = [r for r in hang["temperature"] if datetime.fromisoformat(r[0]) >= end]


Plant = Callable[[File], Any]
# what was done to the batch, the hurdle that has to say so, how
MINCED: dict[str, tuple[str, str, Plant]] = {
    "mixed warm": ("cold_mix", "fail", lambda f: f.update(mix_temperature_c=7.3)),
    "mixed unmeasured": ("cold_mix", "unknown", lambda f: f.update(mix_temperature_c=None)),
    "mince left warm": ("cold_mix", "fail", lambda f: _at_once(f["stages"][0], 9.0, 5.0, 0.3)),
    "mince unlogged": ("cold_mix", "unknown", lambda f: f["stages"][0].update(temperature=[])),
    "little salt": ("salt", "fail", lambda f: _salt(f, 1.6)),
    "much nitrite": ("nitrite_in", "fail", lambda f: _scaled(f, 200)),
    "little nitrite": ("nitrite_in", "fail", lambda f: _scaled(f, 45)),
    "no nitrite": ("nitrite_in", "fail", lambda f: f["formulation"].update(curing_salts=[])),
    "nitrite not told": ("nitrite_in", "unknown", lambda f: f["formulation"].update(curing_salts=None)),
    "curing salt by feel": ("nitrite_in", "unknown", lambda f: f["formulation"].update(dose_known=False)),
    "trichinae": ("parasite", "fail", lambda f: f.update(parasite=[{"species": "pork", "way": "none"}])),
    "frozen short": ("parasite", "fail", lambda f: f.update(
        parasite=[{"species": "pork", "way": "frozen", "temperature_c": -20, "days": 12, "thickness_cm": 10}])),
    "parasites not told": ("parasite", "unknown", lambda f: f.update(parasite=[])),
    "frozen boar": ("parasite", "unknown", lambda f: (
        f["parts"][0].update(species="wild boar"),
        f["parasite"].append({"species": "wild boar", "way": "frozen", "temperature_c": -30, "days": 90, "thickness_cm": 5}))),
    "an animal nobody named": ("parasite", "unknown", lambda f: f["parts"][0].update(species=None)),
    "never measured": ("acid", "pending", lambda f: f.update(ph=[])),
    "one strip of paper": ("acid", "pending", lambda f: f["ph"][0].update(meter="unchecked")),
    "a meter in the air": ("acid", "pending", lambda f: f["ph"][0].update(value=3.1)),
    "soured too late": ("degree_hours", "fail", lambda f: (
        f["stages"][1].update(temperature=[[iso(day(1) + timedelta(hours=i)), 33.0] for i in range(48)]),
        f["ph"][0].update(at=iso(day(2.9))))),
    "warm and silent": ("degree_hours", "unknown", lambda f: _silent(f["stages"][1], 0.1, 12)),
    "a short piece": ("target_loss", "pending", lambda f: f["pieces"][0]["weights"][-1].__setitem__(
        1, f["pieces"][0]["start_weight_g"] * 0.9)),
    "a weight in doubt": ("target_loss", "pending", lambda f: f["pieces"][0].update(
        doubtful=[f["pieces"][0]["weights"][-1][0]])),
    "nothing weighed": ("target_loss", "pending", lambda f: [p.update(weights=[]) for p in f["pieces"]]),
    "a target of five": ("dry_enough", "unknown", lambda f: [
        (p.update(target_loss_percent=5), p["weights"].clear(),
         p["weights"].append([iso(day(40)), p["tare_g"] + (p["start_weight_g"] - p["tare_g"]) * 0.945]))
        for p in f["pieces"]]),
    "soft inside": ("evenness", "fail", lambda f: _look(f, "hard", "soft", "clean")),
    "smells": ("evenness", "fail", lambda f: _look(f, "firm", "firm", "off")),
    "salmonella": ("pathogens", "fail", lambda f: _lab(f, "salmonella", 1, "in 25 g")),
    "listeria": ("pathogens", "fail", lambda f: _lab(f, "listeria", 500, "cfu/g")),
    "much nitrite left": ("nitrite_left", "fail", lambda f: _lab(f, "nitrite", 260, "mg/kg")),
    "corrected": ("salt", "pass", lambda f: f["corrections"].append(
        {"hurdle": "salt", "at": f["now"], "by": "Ida", "reason": "typed wrong", "was": "fail"})),
}  # fmt: skip
INTACT: dict[str, tuple[str, str, Plant]] = {
    "warm in salt": ("cold_cure", "fail", lambda f: _at_once(f["stages"][0], 6.5, 5.0, 4)),
    "a room for two hours": ("cold_cure", "fail", lambda f: _at_once(f["stages"][0], 18.0, 2.0, 4)),
    "a door left ajar day by day": ("cold_cure", "fail", lambda f: [
        _at_once(f["stages"][0], 6.5, 3.5, 2 + 2 * i) for i in range(4)]),
    "a silent fridge": ("cold_cure", "unknown", lambda f: _silent(f["stages"][0], 5, 50)),
    "no thermometer": ("cold_cure", "unknown", lambda f: f["stages"][0].update(temperature=[])),
    "no salt noted": ("cold_cure", "unknown", lambda f: f["stages"].pop(0)),
    "out too early": ("core_salt", "unknown", lambda f: [p.update(core_salt_share=0.3) for p in f["pieces"]]),
    "a core nobody knows": ("core_salt", "unknown", lambda f: [p.update(core_salt_share=None) for p in f["pieces"]]),
    "a hot day": ("warmth", "fail", lambda f: _at_once(f["stages"][-1], 23.0, 26.0, 3)),
    "an oven": ("warmth", "fail", lambda f: _at_once(f["stages"][-1], 30.0, 5.0, 3)),
    "a warm day": ("warmth", "unknown", lambda f: _at_once(f["stages"][-1], 18.0, 30.0, 3)),
    "days in the kitchen": ("warmth", "fail", lambda f: _between(f, "room", 2, 22.0)),
    "a silent week": ("warmth", "unknown", lambda f: _silent(f["stages"][-1], 2, 160)),
    "saltpetre on belly": ("nitrate_in", "fail", lambda f: (
        f.update(limit_profile="us"), f["formulation"].update(belly=True))),
    "salt nobody weighed": ("salt", "unknown", lambda f: (
        f["formulation"].update(plain_salt_g=None, dose_known=False), f["stages"][0].update(way="rubbed"))),
    "made without nitrite": ("nitrite_in", "unknown", lambda f: (
        f["formulation"].update(curing_salts=[]), f["formulation"].update(plain_salt_g=f["parts"][0]["mass_g"] * 0.03))),
    "wet": ("dry_enough", "unknown", lambda f: f["laboratory"][0].update(value=0.96)),
}  # fmt: skip


def sound(seed: int, minced: bool) -> File:
    """A batch that nothing stands against. Parameters: seed; minced."""
    rng = random.Random(seed)
    return soured(rng) if minced else cured(rng)


def planted(seed: int, minced: bool, faults: list[str]) -> File:
    """A sound batch with faults planted in it. Parameters: seed; minced; faults, names of the table."""
    file = copy.deepcopy(sound(seed, minced))
    table = MINCED if minced else INTACT
    for name in faults:
        table[name][2](file)
    return file
