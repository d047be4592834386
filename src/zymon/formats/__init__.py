"""Open formats: the hang file and its forecast, measurement CSV, the shell calculator's documents.

Belongs here: reading, checking and writing files, and turning them into the core's dataclasses.
May import the core and Pydantic; never the store, the web or the clock.
"""
