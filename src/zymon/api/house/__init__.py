"""The house itself, on the wire."""
