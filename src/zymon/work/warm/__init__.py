"""The Warm station: batches that ferment, their pH, their allowance, and what is done to them."""
