"""The Salt station: what lies in salt, when it comes out, what is done to it."""
