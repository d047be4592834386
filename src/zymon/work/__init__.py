"""What is done: use cases by station, the course of a batch, what is due, what a screen needs of several stations.

Belongs here: everything between a request and the tables that is neither. Shapes of what is entered and shown stand
beside the use case that takes or makes them (`schemas.py`), so that each is written once. May import store, formats,
words, stand-ins' interfaces and core; knows nothing of the web framework.
"""
