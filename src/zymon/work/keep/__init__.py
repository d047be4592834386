"""The stock: packs, labels, what goes out; what came of a batch, and where a lot is."""
