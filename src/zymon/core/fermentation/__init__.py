"""The fall of pH in the warm stage: a prior by culture, the logged temperature, and what the readings say."""
