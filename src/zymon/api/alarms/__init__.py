"""Alarms over the wire."""
