"""The Bench's rules: the sheet, what follows from it, families of goods to start from. Imports the core only."""
