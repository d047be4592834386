"""What a kilogram of finished goods costs, by the prices on the sheet of its batch."""

from zymon.core.bench.consequences import consequences
from zymon.core.bench.sheet import work
from zymon.formats.recipe_file import SheetModel
from zymon.store import bench as store
from zymon.store.database import Session
from zymon.store.evidence import profile


def finished_price_per_kg(session: Session, batch_id: int) -> float | None:
    """Cost of a finished kilogram of a batch [money/kg]; None where it has no sheet, or its sheet no prices."""
    making = store.making_of(session, batch_id)
    if making is None:
        return None
    sheet = SheetModel.model_validate_json(making.sheet)
    core = sheet.to_core()
    found = consequences(core, work(core), sheet.plan.to_core(), profile(session, making.batch.profile))
    return None if found is None else found.cost_per_finished_kg
