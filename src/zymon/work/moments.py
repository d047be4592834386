"""Moments as they are sent: UTC, from whole seconds since 1970."""

from datetime import UTC, datetime


def moment(seconds: float) -> datetime:
    """UTC moment of seconds since 1970."""
    return datetime.fromtimestamp(round(seconds), UTC)
