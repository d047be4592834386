"""What the screens ask for: one router per station, schemas, and one table of errors.

Belongs here: turning requests into calls of the store and the core, and their answers into schemas.
No SQL, no science. May import store, formats and core.
"""
