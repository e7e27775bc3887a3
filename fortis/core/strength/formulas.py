"""Published formulas for the one-rep max from a load and the reps it allows to failure.

Each takes `w`, the load in any unit, and `r`, the reps to failure (with reps in reserve, reps done plus
reserve), and gives the max in the same unit. Written from memory of the publications named.
"""

from collections.abc import Callable
from math import exp

Formula = Callable[[float, float], float]


def epley(w: float, r: float) -> float:
    """Epley 1985."""
    return w * (1 + r / 30)


def brzycki(w: float, r: float) -> float:
    """Brzycki 1993. Good below 37 reps."""
    return 36 * w / (37 - r)


def lombardi(w: float, r: float) -> float:
    """Lombardi 1989."""
    return float(w * r**0.10)


def oconner(w: float, r: float) -> float:
    """O'Conner, Simmons and O'Shea 1989."""
    return w * (1 + r / 40)


def lander(w: float, r: float) -> float:
    """Lander 1985. Good below 37 reps."""
    return 100 * w / (101.3 - 2.67123 * r)


def mayhew(w: float, r: float) -> float:
    """Mayhew et al. 1992."""
    return 100 * w / (52.2 + 41.9 * exp(-0.055 * r))


def wathan(w: float, r: float) -> float:
    """Wathan 1994."""
    return 100 * w / (48.8 + 53.8 * exp(-0.075 * r))


FORMULAS: dict[str, Formula] = {
    "Epley": epley,
    "Brzycki": brzycki,
    "Lombardi": lombardi,
    "O'Conner": oconner,
    "Lander": lander,
    "Mayhew": mayhew,
    "Wathan": wathan,
}
"""All seven by name."""
