"""Routes of the planner."""
