"""What slowing reps say: the nearer to failure, the longer the last rep takes beside the first ones."""

from fortis.core.value import Value


class Slowing(Value):
    """From `times` the usual time of a rep on, so many reps are likely left."""

    times: float
    left: int


SLOWING: tuple[Slowing, ...] = (
    Slowing(times=1.8, left=0),
    Slowing(times=1.45, left=1),
    Slowing(times=1.25, left=2),
    Slowing(times=1.12, left=3),
)
"""Slowest first (common practice of judging by bar speed; a hint, never a measurement)."""
