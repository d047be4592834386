"""The stock: packs, labels, yield, recall."""
