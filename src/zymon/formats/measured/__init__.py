"""Measurement files: climate, weights and pH as loggers, phones and spreadsheets write them.

Nothing is guessed in silence: what is not plain becomes a question with its choices, and what was understood is said.
`table` makes rows of cells of a file, `heads` tells what a column holds, `numbers` and `times` read a cell,
`understanding` puts the questions, `reading` reads the rows, `writing` writes such files. Imports the core only.
"""
