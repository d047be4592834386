"""The made-up workshop: the Wheelhouse, made by the stand-ins with a fixed seed, relative to now.

May import everything; nothing imports it but the command line and the tests.
"""
