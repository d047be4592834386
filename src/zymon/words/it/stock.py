"""Italian sentences by code: packs, how they keep, what the round says of them."""

STOCK: dict[str, str] = {
    "stock.too_warm_max_10_c": "per stima si conserva al massimo a {10:c}: metterlo in frigo",
    "stock.too_warm_max_5_c": "per stima si conserva al massimo a {5:c}: metterlo in frigo",
    "stock.too_warm_unknown": "come si conserva non si sa: tenerlo in frigo",
    "stock.botulism": "una busta senz’aria al caldo può nascondere il botulino",
    "stock.opened_long": "aperto da più di due settimane: annusarlo, guardarlo; nel dubbio non si assaggia",
    "stock.past": "oltre il termine di conservazione",
    "stock.no_period": "nessun termine: non è stata data una durata propria",
    "stock.not_packed": "tenuto intero, non confezionato",
    "ask.pack_failed": "{tag}: {hurdle} non superata. Confezionarlo lo stesso?",
    "today.stock_opened": "Finire {tag}: aperto, fino a {until_s}",
    "today.stock_past": "Guardare {tag}: oltre il termine di conservazione",
    "today.stock_soon": "Usare presto {tag}: entro {until_s}",
    "cost.stock_opened": "un pezzo aperto dura circa due settimane in frigo",
    "cost.stock_past": "oltre la durata che vi siete dati",
    "cost.stock_soon": "può aspettare fino a quel giorno",
}
