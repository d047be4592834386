"""The ledger of a batch's hurdles, and what settles them: signatures, laboratory, parasite steps, limits."""
