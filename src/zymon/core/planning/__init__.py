"""What must be started, and when: the chance of all wanted pieces together, and the start for a chosen chance."""
