"""The ledger of a batch's hurdles: each with its limit, its value and how it is known. Imports the core only."""
