"""The first edition of the ledger, for files of that edition: each stage by itself."""
