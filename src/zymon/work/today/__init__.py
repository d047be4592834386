"""Today's round: what every station wants done, in walking order, and the same as a calendar."""
