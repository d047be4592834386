"""Whatever is sent to whatever address of the interface: an answer or a clear refusal, never a fault of the server."""

import os
import time
from collections.abc import Iterator
from pathlib import Path

import pytest
import schemathesis
from fastapi.testclient import TestClient
from hypothesis import HealthCheck, given, settings

from shared_demo import copy_of_the_demo, forget_old_air
from zymon.app import make_app
from zymon.settings import Settings
from zymon.work.house.people import make_owner

ROOT = Path(__file__).parents[2]
INTERFACE = schemathesis.openapi.from_path(ROOT / "docs/formats/openapi.json")
IDS = 8
OWNER = {"name": "Ida", "passphrase": "hay and juniper smoke"}
EXAMPLES = int(os.environ.get("ANY_REQUEST_EXAMPLES", "2"))
NEVER_ENDS = "GET /api/follow"  # who follows what happens is told as long as they listen
OPERATIONS = {
    found.ok().label: found.ok() for found in INTERFACE.get_all_operations() if found.ok().label != NEVER_ENDS
}


@pytest.fixture(scope="module")
def workshop(tmp_path_factory: pytest.TempPathFactory) -> Iterator[TestClient]:
    """A workshop with something in every station."""
    file, now = copy_of_the_demo(tmp_path_factory), time.time()
    forget_old_air(file)
    app = make_app(Settings(db=file, max_upload_mb=1), lambda: now)
    make_owner(app.state.context, *OWNER.values())  # so that every right is asked for
    with TestClient(app, base_url="http://localhost") as client:
        yield client
    app.state.context.close()


@pytest.mark.parametrize("label", OPERATIONS)
def test_is_answered_or_refused(workshop: TestClient, label: str) -> None:
    asked = OPERATIONS[label]
    varies = any((asked.path_parameters, asked.query, asked.body))

    @given(asked.as_strategy())
    @settings(
        max_examples=EXAMPLES if varies else 1, suppress_health_check=list(HealthCheck), derandomize=True, database=None
    )
    def send(case: schemathesis.Case) -> None:
        # numbers of things that are there, mostly
        case.path_parameters = {
            k: 1 + v % IDS if isinstance(v, int) else v for k, v in (case.path_parameters or {}).items()
        }
        sent = case.as_transport_kwargs(base_url="http://localhost")
        answer = workshop.request(**{k: v for k, v in sent.items() if k != "cookies"})
        assert answer.status_code < 500, answer.text
        if answer.status_code >= 400:
            assert answer.json()["detail"]  # said in words

    if not workshop.get("/api/door").json()["me"]:  # a request before may have signed the browser out
        make_owner(workshop.app.state.context, *OWNER.values())
        workshop.post("/api/sign-in", json=OWNER).raise_for_status()
    send()
