"""The Cut: what a face shows, what is behind it, what to do now and otherwise next time."""
