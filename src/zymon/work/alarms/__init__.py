"""Alarms: what is watched, what is wrong now and what it means for the goods, who is told and was told."""
