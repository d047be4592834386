"""The open interface for sensors, scales and meters, and the list of those that are known."""
