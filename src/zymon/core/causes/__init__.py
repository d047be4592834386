"""What is seen on a cut face, what may be behind it by this batch's records, and what to do otherwise next time."""
