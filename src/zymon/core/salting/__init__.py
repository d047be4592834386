"""Whole muscle in salt: the five ways, how far the salt has come, when it comes out. Imports the core only."""
