"""The Cut: faces, their causes, lines for next time."""
