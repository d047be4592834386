"""The Hang station on the wire."""
