"""The house itself: who comes in, what is kept safe, what the workshop is called and where it is reached."""
