"""The Bench station on the wire."""
