"""The server's sentences in English."""

from .advice import ADVICE
from .alarms import ALARMS
from .asked import ASKED
from .cut import CUT
from .fields import FIELDS
from .house import HOUSE
from .imports import IMPORTS
from .ledger import LEDGER
from .names import NAMES as NAMES_IN_SENTENCES
from .paper import PAPER, PAPER_NAMES
from .plan import PLAN
from .refused import REFUSED
from .stock import STOCK
from .story import STORY

__all__ = ["NAMES", "SENTENCES"]

# the tables of the core are in English: their texts are their names
NAMES = NAMES_IN_SENTENCES | PAPER_NAMES | {"field": FIELDS, "text": {}}
SENTENCES = ASKED | ADVICE | ALARMS | CUT | HOUSE | IMPORTS | LEDGER | PAPER | PLAN | REFUSED | STOCK | STORY
