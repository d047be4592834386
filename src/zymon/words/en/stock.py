"""English sentences by code: packs, how they keep, what the round says of them."""

STOCK: dict[str, str] = {
    "stock.too_warm_max_10_c": "by estimate it keeps at {10:c} at most: put it in the fridge",
    "stock.too_warm_max_5_c": "by estimate it keeps at {5:c} at most: put it in the fridge",
    "stock.too_warm_unknown": "how it keeps is not known: keep it in the fridge",
    "stock.botulism": "a bag without air in the warm can hide botulism",
    "stock.opened_long": "opened more than two weeks ago: smell it, look at it; in doubt not tasted",
    "stock.past": "past its best-before day",
    "stock.no_period": "no best-before day: no period of your own was given",
    "stock.not_packed": "kept whole, not packed",
    "ask.pack_failed": "{tag}: {hurdle} failed. Pack it all the same?",
    "today.stock_opened": "Use up {tag}: opened, until {until_s}",
    "today.stock_past": "Look at {tag}: past its best-before day",
    "today.stock_soon": "Use {tag} soon: best before {until_s}",
    "cost.stock_opened": "an opened piece keeps about two weeks in the fridge",
    "cost.stock_past": "past your own period",
    "cost.stock_soon": "it may wait until that day",
}
