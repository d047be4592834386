"""What is wrong now: at every place by its readings, and with batches and pieces by what the round says of them."""

from collections.abc import Iterable

from zymon.core.alarms import Trouble, troubles
from zymon.core.schedule import when
from zymon.store import alarms as store
from zymon.store.climate import all_readings
from zymon.store.database import Session
from zymon.store.models import Place
from zymon.store.places import places

from ..premises import Premises
from ..today.lines import round_lines

LOOKS_BACK_S = 6 * 3600  # how much of its log tells what is wrong at a place


def of_places(session: Session, now_s: int) -> Iterable[store.Now]:
    """What is wrong with the air of every place."""
    for place in places(session):
        band, _ = store.band_of(session, place.id)
        back_s = max(LOOKS_BACK_S, int(band.for_s) + 3600)
        rows = list(all_readings(session, place.id, now_s - back_s, now_s))
        for one in troubles(band, rows, now_s, store.heard_s(session, place.id)):
            yield _of_place(place, one)


def _of_place(place: Place, one: Trouble) -> store.Now:
    return store.Now(one.kind, place.id, "", f"/hang/{place.id}/climate", one.since_s, one.worst)


def of_goods(shop: Premises, session: Session) -> Iterable[store.Now]:
    """What the round says of goods that cannot wait: an allowance used up, salt to come out today, past the target."""
    now_s = shop.now_s
    by_name = {place.name: place.id for place in places(session)}
    for line in round_lines(shop, session):
        place_id = by_name.get(line.place or "")
        since_s, link = float(min(line.chore.best_s or now_s, now_s)), line.link or "/today"
        if line.title.code == "today.over_allowance":
            yield store.Now("allowance", place_id, str(line.title.values["batch"]), link, since_s, None)
        elif line.title.code == "today.over":
            yield store.Now("past_target", place_id, "", link, float(now_s), None)
        elif (
            line.title.code == "today.out_of_salt"
            and line.chore.elasticity == "firm"
            and when(line.chore, now_s) != "later"
        ):
            yield store.Now("salt_due", place_id, str(line.title.values["tag"]), link, since_s, None)
