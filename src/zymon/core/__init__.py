"""The rules of the job: pure functions and small frozen dataclasses.

Belongs here: formulas, limits, models, judgement. May import numpy and the standard library;
no file, network, database, clock or interface code. Every name stands in `glossary.md`.
"""
