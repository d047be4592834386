"""What each hook does: how much more or less air its pieces got than their batch-mates elsewhere.

A hook's effect is learned from every piece that mostly hung there and was weighed, against the mates of its batch;
partial pooling keeps a hook that has seen one odd piece close to the others.
"""

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from .arrays import Arrays
from .learn import marginal

Array = npt.NDArray[np.float64]

HOOK_SD = 0.22  # how far hooks of a chamber differ, ln of the air; estimate
MATES = 3  # weighed pieces a batch needs before its pieces are set against each other
MOSTLY = 0.7  # share of its time a piece must have hung at a hook to speak for it
MATTERS = 0.05  # a hook that differs by less is left alone


@dataclass(frozen=True)
class HookAir:
    """What is known of a hook: ln of its air against the usual of the place, one standard deviation, pieces."""

    ln_air: float
    sd: float
    pieces: int


def learn_hooks(c: Arrays, information: Array, vector: Array, piece_cov: Array) -> dict[str, HookAir]:
    """What the weighings tell of every hook.

    Parameters: c, the arrays of a place; information (n, p, p) and vector (n, p) of its weighings, from the fit;
    piece_cov (n, p, p), how far pieces differ before any was found unusual.
    """
    weighed = c.w_mask.any(axis=0)
    found = c.tree.mean(information, vector)
    own_information, own_vector = np.zeros(len(c.pieces)), np.zeros(len(c.pieces))
    for batch in np.unique(c.tree.batch_of):
        mine = (c.tree.batch_of == batch) & weighed
        if mine.sum() < MATES:
            continue
        usual = found[mine].mean(axis=0)
        pull = vector[mine] - np.einsum("nij,j->ni", information[mine], usual)
        left, aim = marginal(information[mine], pull, piece_cov[mine])
        own_information[mine], own_vector[mine] = left[:, 0, 0], aim[:, 0]
    sums: dict[str, tuple[float, float, int]] = {}
    for i, piece in enumerate(c.pieces):
        hook = piece.hook_mostly(c.now_s, MOSTLY)
        if hook is not None and own_information[i] > 0:
            a, v, n = sums.get(hook, (0.0, 0.0, 0))
            sums[hook] = (a + float(own_information[i]), v + float(own_vector[i]), n + 1)
    prior = 1 / HOOK_SD**2
    return {hook: HookAir(v / (a + prior), float((a + prior) ** -0.5), n) for hook, (a, v, n) in sums.items()}


def worth_using(hooks: Mapping[str, HookAir]) -> dict[str, float]:
    """ln of the air of the hooks that differ enough to move a date. Parameters: hooks, as learned."""
    return {name: hook.ln_air for name, hook in hooks.items() if abs(hook.ln_air) > MATTERS}
