"""Physical constants used in more than one place, once, with source and unit."""

GAS_CONSTANT_J_MOL_K = 8.314462618  # exact by the definition of the SI
ZERO_CELSIUS_K = 273.15  # exact
SECONDS_PER_DAY = 86_400.0
MEAT_DENSITY_KG_M3 = 1050.0  # stuffed salame and lean muscle; ±20 with the fat share
