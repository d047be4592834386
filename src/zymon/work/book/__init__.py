"""The Book: find it, tell it, compare it, own up to it."""
