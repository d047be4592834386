"""Zymon: dates you can believe for every hanging piece of cured meat.

Rooms: `core` holds the rules of the job, `formats` the open files, `store` what is kept,
`api` what the screens ask for, `standins` the simulated instruments, `demo` the made-up workshop.
"""

from importlib.metadata import version

__version__ = version("zymon")
