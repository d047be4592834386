"""Tokens by which a device or a browser is known: long, random, kept as their fingerprint only."""

import hashlib
import secrets


def new_token() -> str:
    """A token that nobody guesses: 256 random bits."""
    return secrets.token_urlsafe(32)


def hashed(token: str) -> str:
    """What is kept of a token: whoever reads the file cannot come in with it."""
    return hashlib.sha256(token.encode()).hexdigest()
