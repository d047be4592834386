"""Every mark of the ledger in one place, with its source: what holds, what fails, and how long either may last.

A figure here is a limit of safety. Figures that differ by jurisdiction are data of the limit profiles instead.
"""

HOUR_S = 3600.0
DAY_S = 86_400.0
SLACK = 1e-9  # of the arithmetic: a limit that is met exactly holds

# Readings ---------------------------------------------------------------------------------------------- practice
GAP_HOURS = 6.0  # a silence up to this is read linearly; a longer one is a gap
HOUSEHOLD_GAP_HOURS = 30.0  # a household reads its thermometer once a day
HOUSEHOLD_MARK_C = {"hang": 15.0, "rest": 15.0, "cure": 4.0, "cold": 4.0}  # at or under which a day's silence is known

# Cold at mixing, salt, curing salt --------------------------------------------------------------------- practice
COLD_MIX_C, WARM_MIX_C = 4.0, 7.0
WARM_MINCE_HOURS = 4.0  # of mince above WARM_MIX_C while it rests
SALT_LEAST, SALT_MINCED, SALT_MOST = 2.0, 2.5, 4.5  # sodium chloride, % of the meat
NITRITE_LEAST, NITRITE_LITTLE = 50.0, 100.0  # mg/kg of sodium nitrite in minced goods
NITRITE_LASTS_DAYS = 30.0  # nitrite alone is used up by then

# Cold while curing, salt in the core ------------------------------------------------------------------- practice
COLD_C, COLD_STRETCH_HOURS, COLD_SUM_HOURS = 5.0, 4.0, 12.0
ROOM_C, ROOM_STRETCH_HOURS = 15.0, 1.0
CORE_LEAST = 0.6  # of the level a core is going to have, before it leaves the cold
CORE_NEVER = 0.4  # under which nobody may sign for it
CURES_ON_C = 5.0  # hanging at or under it, the core goes on taking its salt in the cold

# Warmth after salting ---------------------------------------------------------------------------------- practice
WARM_C, WARM_STRETCH_HOURS, WARM_SUM_HOURS = 15.0, 24.0, 72.0
HOT_C, HOT_STRETCH_HOURS, HOT_FAIL_HOURS = 20.0, 4.0, 24.0
HOT_SUM_HOURS, HOT_SUM_FAIL_HOURS = 24.0, 72.0
TORRID_C, TORRID_HOURS = 28.0, 4.0

# Acid -------------------------------------------------------------------------------------------------- practice
ACID_PH = 5.3
ACID_LOST_PH = 5.5  # a confirmed reading above it in the warm stage takes the acid back
REPEAT_MINUTES = 30.0  # between two readings that confirm each other
BELIEVED_PH = (4.3, 6.8)  # a reading outside never counts

# Dryness of the product -------------------------------------------- 0.92 growth of Listeria monocytogenes; practice
DRY_ACTIVITY, DRY_SOUR_ACTIVITY, DRY_SOUR_PH = 0.92, 0.94, 5.0
NEARLY_DRY_ACTIVITY = 0.95  # up to which it passes with a caution; over it nobody may sign
LEAST_ACTIVITY_SD = 0.01  # of an estimate; it is held to be under its upper value, see `water.UPPER_SDS`

# Laboratory, keeping ----------------------------------------------------------------------------------- practice
LISTERIA_CFU_PER_G = 100.0  # Regulation (EC) 2073/2005, annex I, 1.2 and 1.3
OLD_PH_DAYS = 14.0  # an older pH does not carry “unchilled”
