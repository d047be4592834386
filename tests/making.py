"""A batch made at the Bench through the API: weighed out, thing by thing."""

from fastapi.testclient import TestClient

BY = {"by": "Ida"}


def begin(client: TestClient, sheet: dict, **of_recipe: int) -> dict:
    answer = client.post("/api/weigh-outs", json={"product": "Juniper salame", "sheet": sheet, **of_recipe, **BY})
    assert answer.status_code == 201, answer.text
    return answer.json()


def pour(client: TestClient, weigh_out: dict, key: str, grams: float, uid: str = "", lot: str = ""):
    body = {"uid": uid or f"{weigh_out['id']}-{key}-{grams}-uid", "key": key, "grams": grams, "lot": lot, **BY}
    return client.post(f"/api/weigh-outs/{weigh_out['id']}/entries", json=body)


def pour_all(client: TestClient, weigh_out: dict) -> None:
    for thing in weigh_out["things"]:
        lot = {"meat-0": "SH-11", "curing": "CS-2"}.get(thing["key"], "")
        assert pour(client, weigh_out, thing["key"], round(thing["target_g"], 2), lot=lot).status_code == 201


def made(client: TestClient, sheet: dict, code: str = "J-01") -> dict:
    weigh_out = begin(client, sheet)
    pour_all(client, weigh_out)
    answer = client.post(f"/api/weigh-outs/{weigh_out['id']}/batch", json={"code": code, **BY})
    assert answer.status_code == 201, answer.text
    return answer.json()
