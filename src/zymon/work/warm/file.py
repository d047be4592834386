"""A batch in the warm as a warm file: what its forecast rests on, for others to read."""

from zymon.formats.warm_file import WarmFile
from zymon.store import bench, warm
from zymon.store.places import NotFoundError, setpoint_at
from zymon.store.struck import counted

from ..premises import Premises, moment


def warm_file(shop: Premises, batch_id: int) -> WarmFile:
    """A batch's warm stage as a `zymon-warm/1` file. Raises NotFoundError."""
    with shop.db.reading() as session:
        batch = bench.batch(session, batch_id)
        stage = warm.stage(session, batch_id)
        if stage is None:
            raise NotFoundError("refused.not_in_the_warm")
        known = warm.warm_batch(session, stage, shop.now_s)
        ended_s = shop.now_s if known.ended_s is None else known.ended_s
        setpoint = setpoint_at(stage.place, ended_s)
        return WarmFile(
            id=batch.code,
            culture=stage.culture,
            dextrose_percent=stage.dextrose_percent,
            salt_percent=stage.salt_percent,
            start_ph=stage.start_ph,
            stuffed_at=moment(stage.stuffed_s),
            target_ph=stage.target_ph,
            setpoint_c=None if setpoint is None else setpoint.temperature_c,
            temperature=[(moment(stage.stuffed_s + h * 3600), c) for h, c in known.fermentation.temperature],
            ph=[(moment(r.at_s), r.ph) for r in counted(known.readings)],
            limit_profile=batch.profile,
            now=moment(ended_s),
        )
