"""What must be started, and when: plans as they are set, what the weeks ahead hold, what has to be bought."""
