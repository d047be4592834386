"""What stands on the labels of packs: read from the sheet of the batch, or typed where there is none."""

from datetime import date, datetime
from zoneinfo import ZoneInfo

from zymon.core.bench.sheet import work
from zymon.core.stock.allergens import Allergen, allergens_in
from zymon.core.stock.label import Ingredient, ingredients
from zymon.formats.labels import Paper
from zymon.formats.pack_labels import PackLabel, pack_labels_pdf
from zymon.formats.recipe_file import SheetModel
from zymon.store import bench
from zymon.store import keep as store
from zymon.store.database import Session
from zymon.store.keep_models import Packed
from zymon.store.places import ClashError, NotFoundError, workshop
from zymon.words import name_of, on_paper

from ..premises import Premises
from .views import Keeps, core_pack

MOST_LABELS = 400


def labels(shop: Premises, pack_ids: list[int], paper: Paper, base_url: str) -> tuple[bytes, str]:
    """One label for each pack that is left; of several, of those that may have one. NotFoundError, ClashError."""
    zone = shop.zone
    with shop.db.reading() as session:
        keeps = Keeps(shop, session)
        own = own_words(session)
        found: list[PackLabel] = []
        for pack_id in dict.fromkeys(pack_ids):
            of = store.pack(session, pack_id)
            against = keeps.why_no_label(of)
            if against is not None and len(pack_ids) > 1:
                continue  # of many, those that may have one
            if against is not None:
                raise ClashError(against.code, **against.values)
            named = ingredients_of(session, of, own)
            pack = core_pack(of)
            best = pack.best_before_s
            holds = keeps.of(of.piece)
            label = PackLabel(
                product=of.piece.batch.product,
                ingredients=tuple((_in_words(one.name), bool(one.allergens)) for one in named),
                contains=tuple(dict.fromkeys(name_of("allergen", a) for one in named for a in one.allergens)),
                lot=f"{of.piece.batch.code} · {of.piece.tag}",
                net_g=of.net_g,
                packed=_day(of.at_s, zone),
                keep=name_of("keep_at", of.keep_at),
                best_before=None if best is None else _day(best, zone),
                by_estimate=on_paper("keeping_unknown") if holds is None else on_paper("by_estimate", keeps=holds),
                url=f"{base_url}t/{of.piece.tag}",
            )
            found += [label] * pack.left
        if not found:
            raise NotFoundError("refused.no_pack_left")
        if len(found) > MOST_LABELS:
            raise ClashError("refused.many_labels", many=MOST_LABELS)
        owner = workshop(session)
        return pack_labels_pdf(found, paper, owner.name if owner else "Zymon"), "labels.pdf"


def _in_words(ingredient: str) -> str:
    """An ingredient as whoever prints the label reads: what the maker named themselves stays as it is."""
    return name_of("species", name_of("text", ingredient))


def _day(at_s: float, zone: ZoneInfo) -> date:
    return datetime.fromtimestamp(at_s, zone).date()


def own_words(session: Session) -> dict[str, tuple[Allergen, ...]]:
    """The maker's own words for allergens."""
    return {w.word: tuple(w.allergens.split(",")) for w in store.allergen_words(session)}  # type: ignore[arg-type] # checked on entry


def ingredients_of(session: Session, packed: Packed, own: dict[str, tuple[Allergen, ...]]) -> tuple[Ingredient, ...]:
    """The ingredients of packs: typed, else of the sheet of their mix; none where neither is there."""
    if packed.ingredients:
        names = [name.strip() for name in packed.ingredients.split(",") if name.strip()]
        return tuple(Ingredient(name, 0.0, allergens_in(name, own)) for name in names)
    making = bench.making_of(session, packed.piece.batch_id)
    if making is None:
        return ()
    mix = next((m for m in making.mixes if packed.piece.tag in {p.tag for p in m.pieces}), None)
    sheet = SheetModel.model_validate_json(making.sheet if mix is None else mix.sheet)
    core = sheet.to_core()
    return ingredients([(core, work(core), sheet.plan.species)], own)
