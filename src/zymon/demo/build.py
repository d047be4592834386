"""Builds the Wheelhouse in a database: climate first, then the pieces that dried in it."""

import time
from pathlib import Path

import numpy as np
import numpy.typing as npt

from zymon.core.drying.climate import Log
from zymon.core.drying.history import Piece as CorePiece
from zymon.standins.goods import Nature, scale_reading, true_loss
from zymon.store import hang, places, weighings
from zymon.store.climate import Source, add_readings
from zymon.store.database import Database, Session
from zymon.store.models import ImportReport, JournalLine, Piece, Place, Sent
from zymon.work.as_forecast import core_of_new

from .after import UID, after_the_hook
from .ahead import plan_ahead
from .bench import SALAME, Bowl, lay_recipes, lay_the_bench
from .goods import FINISHED, HANGING, DemoBatch
from .plan import DAY, PEOPLE, PLACES, SEED, TIME_ZONE, WORKSHOP
from .salt import lay_in_salt
from .told import tell
from .warm import fermented, warm_up

Array = npt.NDArray[np.float64]

STEP_S = 300
MADE_ANEW_AFTER_S = 20 * 3600  # a demo older than this no longer looks live


def ensure_demo(file: Path, fresh: bool = False, now_s: int | None = None) -> None:
    """Make the demo workshop unless a recent one is there; one that somebody worked in is never thrown away unasked."""
    now_s = int(time.time()) if now_s is None else now_s
    stamp = file.with_suffix(".made")
    if file.exists() and stamp.exists() and not fresh and now_s - int(stamp.read_text()) < MADE_ANEW_AFTER_S:
        return
    if file.exists() and not fresh and _worked_in(file):
        print("The demo workshop was worked in: it is kept as it is. `zymon demo --fresh` makes it anew.")
        return
    for old in file.parent.glob(f"{file.name}*"):
        old.unlink()
    file.parent.mkdir(parents=True, exist_ok=True)
    print("Making the demo workshop …", flush=True)
    build(file, now_s)
    stamp.write_text(str(now_s))


def _worked_in(file: Path) -> bool:
    db = Database(file)
    with db.reading() as session:
        # whatever is recorded by hand has an identity; the workshop's own past has one of its own
        entered = session.query(Sent).filter(Sent.uid.not_like(f"{UID}%")).first()
        changed = session.query(JournalLine).filter(JournalLine.by.not_in((*PEOPLE, "Zymon"))).first()
    db.close()
    return entered is not None or changed is not None


def build(file: Path, now_s: int) -> None:
    """Make the whole demo workshop in a new file."""
    db = Database(file)
    with db.writing(PEOPLE[0], now_s) as session:
        places.open_workshop(session, WORKSHOP, TIME_ZONE, now_s - int(400 * DAY))
        logs: dict[str, Log] = {}
        stored: dict[str, Place] = {}
        times = np.arange(now_s - now_s % STEP_S - int(365 * DAY), now_s + 1, STEP_S, dtype=np.float64)
        for i, demo in enumerate(PLACES):
            chamber = demo.chamber
            if demo.outage:
                start = now_s - demo.outage[0] * DAY
                chamber = type(chamber)(**{**vars(chamber), "outages": ((start, start + demo.outage[1] * 3600),)})
            c, rh = chamber.log(times, SEED + i)
            made = places.make_place(
                session,
                demo.name,
                demo.kind,
                list(demo.hooks_per_rod),
                demo.hook_spacing_mm,
                (chamber.temperature_c, chamber.rh_percent),
                PEOPLE[0],
                int(times[0]),
            )
            report = ImportReport(
                at_s=now_s,
                by=PEOPLE[0],
                kind="climate",
                file_name="simulated logger",
                sha256="0" * 64,
                place_id=made.id,
                rows_new=len(times),
                rows_same=0,
                rows_conflict=0,
                rows_left_out=0,
            )
            session.add(report)
            session.flush()
            rows = list(zip(times.astype(np.int64).tolist(), c.tolist(), rh.tolist(), strict=True))
            add_readings(session, made.id, rows, Source(import_id=report.id))
            hourly = slice(None, None, 12)
            logs[demo.name], stored[demo.name] = Log(times[hourly], c[hourly], rh[hourly]), made
        first_version, version = lay_recipes(session, now_s)
        for number, batch in enumerate((*FINISHED, *HANGING)):
            maker = _Maker(session, batch, stored[batch.place], logs[batch.place], now_s, SEED * 100 + number)
            if batch.bowl is not None:
                _made_at_the_bench(session, maker, first_version, stored["Warm Cupboard"])
            maker.make()
        session.flush()
        for made in stored.values():
            tell(session, made.id, now_s)
        _mend_a_slip(session)
        lay_the_bench(session, stored["Warm Cupboard"], version, now_s)
        lay_in_salt(session, stored["Salt Fridge"], now_s)
        warm_up(session, stored["Warm Cupboard"], now_s)
    after_the_hook(db, now_s)
    plan_ahead(db, now_s)
    db.close()


def _made_at_the_bench(session: Session, maker: "_Maker", version_id: int, warm: Place) -> None:
    """A batch of the past, as it was weighed out, filled and fermented before it hung."""
    batch, hung_s = maker.batch, maker.hung_s
    assert batch.bowl is not None
    lots = dict(zip(("meat-0", "meat-1", "curing"), batch.bowl, strict=True))
    sheet = SALAME.model_copy(update={"lines": [line for line in SALAME.lines if line.name != "Garlic"]})
    pieces = [(weight_g, float(batch.across_mm or 0)) for weight_g in batch.weights_g]
    made = Bowl(session, version_id, hung_s - (56 * 3600), lots).batch(batch.code, sheet, warm, pieces)
    fermented(session, made, warm, hung_s, batch.bowl[0])


def _mend_a_slip(session: Session) -> None:
    """Two pieces were mixed up at the scale: put right on record."""
    of, other = (hang.piece_of_tag(session, tag) for tag in ("J-21-03", "J-21-05"))
    assert of is not None
    assert other is not None
    last = weighings.standing(other)[-1]
    slip = weighings.NewWeighing(last.gross_g + 11, last.at_s)
    wrong = weighings.add_weighing(session, of, slip, PEOPLE[1], last.at_s)
    weighings.strike_weighing(session, wrong.id, "that was J-21-05", PEOPLE[1], last.at_s + 900)


class _Maker:
    """Makes one batch: its pieces, how they truly dried, and the weighings somebody took."""

    def __init__(self, session: Session, batch: DemoBatch, place: Place, log: Log, now_s: int, seed: int) -> None:
        self.session, self.batch, self.place, self.log, self.now_s = session, batch, place, log, now_s
        self.rng = np.random.default_rng(seed)
        self.natures = [
            Nature(
                batch.luck[0] + float(self.rng.normal(0, 0.07)),
                batch.luck[1] + float(self.rng.normal(0, 0.05)),
                batch.hook_air.get(i, 1.0),
            )
            for i in range(len(batch.weights_g))
        ]

        self.hung_s = self._hung()

    def make(self) -> None:
        """Hang the batch, weigh it along the way, take it down if it is finished."""
        for i in range(len(self.batch.weights_g)):
            self._piece(i, self.hung_s)

    def _declared(self, i: int, hung_s: int) -> hang.NewPiece:
        b = self.batch
        slab = b.shape == "slab"
        wobble = 1.0 if b.kind in ("salame", "thin_sausage") else 1 + 0.03 * ((i * 3) % 5 - 2)
        across = None if b.across_mm is None else round(b.across_mm * wobble)
        return hang.NewPiece(
            tag=f"{b.code}-{i + 1:02d}",
            batch_code=b.code,
            product=b.product,
            kind=b.kind,
            shape=b.shape,
            casing=b.casing,
            fat_percent=b.fat,
            salt_percent=b.salt,
            diameter_mm=None if slab else across,
            thickness_mm=across if slab else None,
            length_mm=b.length_mm,
            start_weight_g=b.weights_g[i],
            tare_g=b.tare_g,
            target_loss_percent=b.target,
            hung_s=hung_s,
        )

    def _core(self, i: int, hung_s: int) -> CorePiece:
        return core_of_new(self._declared(i, hung_s))

    def _days_to_target(self, hung_s: int) -> float:
        middle = len(self.batch.weights_g) // 2
        t, loss = true_loss(self._core(middle, hung_s), self.natures[middle], self.log, 250)
        return float(np.interp(self.batch.target / 100, loss, t)) / DAY

    def _hung(self) -> int:
        days = self.batch.days_hung
        if days is None:
            days = 30.0
            for _ in range(4):
                days = max(1.0, self._days_to_target(int(self.now_s - days * DAY)) - (self.batch.days_to_go or 0.0))
        hung = self.now_s - days * DAY
        return int(hung - (hung % DAY) + 9 * 3600) if days > 1 else int(hung)

    def _piece(self, i: int, hung_s: int) -> None:
        b = self.batch
        core = self._core(i, hung_s)
        time_s, loss = true_loss(core, self.natures[i], self.log, max(1.0, (self.now_s - hung_s) / DAY))
        rod_number, hook = b.first_hook
        rod = self.place.rods[rod_number - 1]
        down_s = None
        if b.finished and i not in b.left_hanging:
            done = float(np.interp(b.target / 100 + 0.004, loss, time_s))
            down_s = int(min(hung_s + done, self.now_s - 3600))
        at_hook = hook + (i if not b.left_hanging else int(i not in b.left_hanging))
        made: Piece = hang.hang_piece(
            self.session, self._declared(i, hung_s), rod.id, at_hook, PEOPLE[i % 2], self.now_s
        )
        end = down_s or self.now_s
        if b.weighed is None or i in b.weighed:
            self._weigh(made, core, time_s, loss, i, end)
        if down_s is not None:
            self._take_down(made, round(core.gross_at(float(np.interp(down_s - hung_s, time_s, loss)))), i, down_s)

    def _take_down(self, made: Piece, gross_g: float, i: int, down_s: int) -> None:
        """Weighed as it comes off its hook; what becomes of it as its batch's plan says."""
        by = PEOPLE[0]
        weighings.add_weighing(self.session, made, weighings.NewWeighing(gross_g, down_s), by, down_s)
        store = next(p for p in places.places(self.session) if p.kind == "store")
        kind, how, days = self.batch.then[i % len(self.batch.then)]
        if kind == "gone":
            hang.take_down(self.session, made, hang.NewState("kept", "", store.id), down_s, by, down_s)
            gone_s = min(int(down_s + days * DAY), self.now_s - 1800)
            hang.become(self.session, made, hang.NewState(kind, how), gone_s, by, gone_s)
        else:
            hang.take_down(self.session, made, hang.NewState(kind, how, store.id), down_s, by, down_s)

    def _weigh(self, made: Piece, core: CorePiece, time_s: Array, loss: Array, i: int, end_s: int) -> None:
        b = self.batch
        taken: list[tuple[int, float]] = []
        days = b.weigh_every_days
        while True:
            # people weigh in the morning or late in the afternoon
            at = int(
                (made.hung_s + days * DAY) // DAY * DAY + float(self.rng.choice([7.6, 8.4, 17.2])) * 3600 + 137 * i
            )
            if at >= end_s - 3600:
                break
            truth = core.gross_at(float(np.interp(at - made.hung_s, time_s, loss)))
            taken.append((at, scale_reading(truth, self.rng)))
            days += b.weigh_every_days * float(self.rng.uniform(0.9, 1.1))
        if b.mistake and b.mistake[0] == i and len(taken) >= b.mistake[1]:
            k = len(taken) - b.mistake[1]
            digits = f"{taken[k][1]:.0f}"
            taken[k] = (taken[k][0], float(digits[1] + digits[0] + digits[2:]))
        for at_s, gross_g in taken:
            weighings.add_weighing(self.session, made, weighings.NewWeighing(gross_g, at_s), PEOPLE[i % 2], at_s)
