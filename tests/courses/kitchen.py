"""A maker in a kitchen, in the words of the work: bought, salted, warmed, hung, felt, cut. Time moves by days."""

from dataclasses import dataclass
from datetime import datetime
from typing import Any

from fastapi.testclient import TestClient

from making import begin, pour_all
from support import Clock, iso, words

DAY, HOUR = 86_400, 3600
BY = {"by": "Ida"}


@dataclass
class Place:
    """A place by its id, with its rods or shelves."""

    id: int
    rods: list[int]
    free: int = 1

    def hook(self) -> dict[str, int]:
        """The next free hook."""
        self.free += 1
        return {"rod_id": self.rods[0], "hook": self.free - 1}


class Kitchen:
    """Everything a maker does, through the interface; what is refused is an error of the test."""

    def __init__(self, client: TestClient, clock: Clock) -> None:
        self.client, self.clock = client, clock

    # time, and asking

    def wait(self, days: float = 0.0, hours: float = 0.0) -> None:
        """Let time go by."""
        self.clock.now += round(days * DAY + hours * HOUR)

    def get(self, url: str) -> Any:
        """Look something up."""
        answer = self.client.get(f"/api{url}")
        assert answer.status_code == 200, answer.text
        return answer.json()

    def post(self, url: str, method: str = "POST", **body: Any) -> Any:
        """Enter something."""
        answer = self.client.request(method, f"/api{url}", json={**BY, **body})
        assert answer.status_code in (200, 201), answer.text
        return answer.json()

    def refused(self, url: str, **body: Any) -> str:
        """Enter what cannot be, or is asked about: the answer in words."""
        answer = self.client.post(f"/api{url}", json={**BY, **body})
        assert answer.status_code in (409, 422), answer.text
        return str(answer.json()["detail"])

    def today(self) -> list[str]:
        """What the round of today says is due, in words."""
        return [words(line["title"]) for line in self.get("/today")["due"]]

    # places

    def place(self, name: str, sort: str | None = None, kind: str = "chamber", **setpoint: float) -> Place:
        """A place as the maker has it, hooks or shelf for a dozen; and what its controller is set to, if it has one."""
        hooks = [12] if kind == "chamber" else []
        made = self.post("/places", name=name, sort=sort, kind=kind, hooks_per_rod=hooks, setpoint=setpoint)
        rods = [r["id"] for r in self.get(f"/places/{made['id']}/room")["rods"]] if hooks else []
        return Place(made["id"], rods)

    def reading(self, place: Place, c: float, rh: float) -> None:
        """What thermometer and hygrometer show, typed."""
        self.post(f"/places/{place.id}/readings", temperature_c=c, rh_percent=rh)

    def log(self, place: Place, days: float, c: float, rh: float, hours_apart: float = 2.0) -> None:
        """A logger's file of the last days."""
        now_s, step_s = int(self.clock.now), round(hours_apart * HOUR)
        rows = [f"{iso(t)},{c},{rh}" for t in range(now_s - round(days * DAY), now_s + 1, step_s)]
        file = {"file": ("log.csv", "\n".join(["time,temperature_c,rh_percent", *rows]).encode(), "text/csv")}
        seen = self.client.post("/api/imports/preview", files=file, data={"place_id": str(place.id)})
        assert seen.status_code == 200, seen.text
        self.post(f"/imports/{seen.json()['token']}")

    # bench

    def mince(self, sheet: dict, code: str, **changes: Any) -> dict:
        """Weigh a sheet out, thing by thing, and make the batch."""
        weigh_out = begin(self.client, {**sheet, **changes})
        pour_all(self.client, weigh_out)
        return self.post(f"/weigh-outs/{weigh_out['id']}/batch", code=code)

    def mince_by(self, recipe: dict, sheet: dict, code: str) -> dict:
        """The same by the first version of a recipe."""
        weigh_out = begin(self.client, sheet, recipe_id=recipe["id"], version=1)
        pour_all(self.client, weigh_out)
        return self.post(f"/weigh-outs/{weigh_out['id']}/batch", code=code)

    def stuff(self, batch: dict, *pieces: dict) -> list[dict]:
        """Tag the pieces of a batch."""
        return self.post(f"/batches/{batch['id']}/pieces", pieces=list(pieces))["pieces"]

    # salt

    def salt(
        self, place: Place, family: str, way: str, percent: float, *muscles: tuple[float, float], **more: Any
    ) -> Any:
        """Muscles of (raw g, mm) into salt; gives their cards back."""
        quick = {
            k: more.pop(k) for k in ("code", "product", "species", "curing", "curing_salt", "dose_known") if k in more
        }
        quick = {"code": family[:2].upper() + "-1", "product": family.replace("_", " "), **quick, "family": family}
        body = {"quick": quick, "muscles": [{"raw_g": g, "across_mm": mm} for g, mm in muscles], "geometry": "cylinder",
                "way": way, "percent": percent, "place_id": place.id, "container": "bag", **more}  # fmt: skip
        known = {card["id"] for card in self.get("/salt")["pieces"]}
        return [card for card in self.post("/salt", **body)["pieces"] if card["id"] not in known]

    def note(self, cards: list[dict], kind: str, **more: Any) -> None:
        """Something done to pieces in salt."""
        self.post("/salt/events", kind=kind, pieces=[card["id"] for card in cards], **more)

    def salted(self, card: dict) -> dict:
        """A piece in salt as it is now."""
        return self.get(f"/salt/{card['id']}")["card"]

    # hook

    def hang(self, place: Place, tag: str, kind: str, shape: str, start_g: float | None, **more: Any) -> dict:
        """Hang a piece, by weight where it has a target, else as is said."""
        batch = more.pop("batch", tag.rsplit("-", 1)[0])
        return self.post("/pieces", **self.piece(place, tag, kind, shape, start_g, batch_code=batch, **more))

    def piece(self, place: Place, tag: str, kind: str, shape: str, start_g: float | None, **more: Any) -> dict:
        """A piece as it is declared."""
        return {"tag": tag, "product": tag.rsplit("-", 1)[0], "kind": kind, "shape": shape, "casing": "none",
                "start_weight_g": start_g, "batch_code": tag.rsplit("-", 1)[0],
                **(place.hook() if "hook" not in more else {}), **more}  # fmt: skip

    def preview(self, place: Place, tag: str, kind: str, shape: str, start_g: float | None, **more: Any) -> dict:
        """What the tag would say."""
        body = {**self.piece(place, tag, kind, shape, start_g, hook=1, rod_id=place.rods[0], **more), **BY}
        return self.post(f"/places/{place.id}/tag", **body)

    def look(self, hung: dict) -> dict:
        """A hanging piece as it is now."""
        return self.get(f"/pieces/{hung['card']['id']}")

    def weigh(self, hung: dict, gross_g: float, **more: Any) -> dict:
        """A weight off the scale."""
        return self.post(f"/pieces/{hung['card']['id']}/weighings", gross_g=gross_g, **more)

    def feel(self, hung: dict, rim: str, core: str, smell: str = "clean") -> dict:
        """Fingers and nose."""
        found = {"firm_rim": rim, "firm_core": core, "smell": smell}
        return self.post("/hook-events", kind="inspect", pieces=[hung["card"]["id"]], found=found)

    def down(self, hung: dict, gross_g: float | None = None, **becomes: Any) -> dict:
        """Take a piece down, with its weight or without."""
        body = {"kind": "down", "gross_g": gross_g, "not_weighed": gross_g is None, "sure": True, **becomes}
        return self.post(f"/pieces/{hung['card']['id']}/take-down", **body)

    def become(self, hung: dict, kind: str, how: str = "", **more: Any) -> dict:
        """What a piece becomes after its hook."""
        return self.post(f"/pieces/{hung['card']['id']}/become", kind=kind, how=how, **more)

    # ledger

    def hurdles(self, batch_id: int) -> dict[str, dict]:
        """Every hurdle of a batch by name."""
        return {h["name"]: h for h in self.get(f"/batches/{batch_id}/hurdles")["hurdles"]}


def weeks(answer: dict, hung_s: float) -> tuple[float, float, float]:
    """The window and middle of a date in weeks from a moment."""
    low, mid, high = (datetime.fromisoformat(answer["ready"][k]).timestamp() for k in ("p10", "p50", "p90"))
    return tuple((at - hung_s) / DAY / 7 for at in (low, mid, high))  # type: ignore[return-value]
