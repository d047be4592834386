"""Which animal a word means: one of the species that the rules know, or none."""

import re

from .parasites import SPECIES

# Words that plainly mean a species; "other" is said, never guessed
PLAIN: dict[str, str] = {
    **{name: name for name in SPECIES},
    "pig": "pork", "hog": "pork", "swine": "pork", "sow": "pork",
    "cow": "beef", "cattle": "beef", "ox": "beef", "bull": "beef", "calf": "veal",
    "deer": "venison", "roe": "venison", "stag": "venison", "elk": "venison", "moose": "venison", "reindeer": "venison",
    "lamb": "sheep", "mutton": "sheep", "kid": "goat",
    "chicken": "poultry", "duck": "poultry", "goose": "poultry", "turkey": "poultry", "hen": "poultry",
    "hare": "rabbit", "boar": "wild boar", "wild pig": "wild boar", "feral pig": "wild boar", "feral hog": "wild boar",
}  # fmt: skip
_CUTS = frozenset((
    "shoulder", "neck", "loin", "leg", "belly", "back", "fat", "fatback", "jowl", "cheek", "round", "eye",
    "brisket", "shank", "fillet", "breast", "breasts", "thigh", "trim", "trimmings", "meat", "lean", "muscle",
    "ham", "coppa", "rib", "ribs", "chuck", "topside", "silverside", "rump", "flank", "hind", "fore", "quarter",
    "of", "the",
))  # fmt: skip


def species_of(word: str) -> str | None:
    """The species a word plainly means; None where it does not. Parameters: word, as typed.

    >>> species_of("Pork shoulder"), species_of("wild_boar"), species_of("fish"), species_of("pork and beef")
    ('pork', 'wild boar', None, None)
    """
    words = re.sub(r"[\s_\-,]+", " ", word.strip().lower()).split(" ")
    while len(words) > 1 and words[-1] in _CUTS:
        words.pop()
    while len(words) > 1 and words[0] in _CUTS:
        words.pop(0)
    phrase = " ".join(words)
    for end in ("", "s"):
        if phrase.endswith(end) and phrase.removesuffix(end) in PLAIN:
            return PLAIN[phrase.removesuffix(end)]
    return None
