"""Simulated instruments and goods, behind the same open files as real ones; what they make is marked as simulated.

May import the core only.
"""
