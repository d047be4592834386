"""The house itself: who may do what in it, and which copies of its record are kept."""
