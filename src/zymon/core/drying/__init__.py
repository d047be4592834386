"""The forecast: how a hanging piece dries, and on which day it is done.

`geometry` turns measures into a body, `transport` moves water through meat, casing and air,
`climate` gives what the air was and is likely to be, `priors` what is known before any weighing,
`learn` what the weighings teach, `forecast` the date and its window.
"""
