"""Tools of the repository: formats, screenshots, mutants."""
