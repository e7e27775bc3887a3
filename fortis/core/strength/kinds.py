"""The kinds of lifter: three endurances, three bends of the rep curve, three habits of calling reps left."""

import numpy as np

from fortis.core.strength.curve import DEFAULT_CURVE, RepCurve
from fortis.core.strength.observation import USUAL_CALLS, Grid

ENDURANCES: Grid = np.array([DEFAULT_CURVE.endurance * times for times in (0.75, 1.0, 4 / 3)])
BENDS: Grid = np.array([-1.0, 1.0, 5.0])
CALLS: Grid = np.array([0.7, USUAL_CALLS, 1.7])
"""Reps left for each one that is called."""
CURVES = tuple(RepCurve(endurance=float(each), bend=float(bend)) for each in ENDURANCES for bend in BENDS)
_LOG_ENDURANCES: Grid = np.log([curve.endurance for curve in CURVES])
_BENDS: Grid = np.array([curve.bend for curve in CURVES])
_LOG_CALLS: Grid = np.log(CALLS)
ENDURANCE_SPREAD = 0.2
CALLS_SPREAD, CALLS_SPREAD_OF_NOVICES = 0.45, 0.7
"""How far off the usual endurance and calls may be; beginners call more wildly (common practice)."""


def usual_kinds(*, novice: bool = False) -> Grid:
    """How likely each kind of lifter is before anything is known, shape (calls, curves)."""
    endurance = (np.log(ENDURANCES / DEFAULT_CURVE.endurance) / ENDURANCE_SPREAD) ** 2
    bend = np.array([1.0, 0.0, 2.0])
    calls = (np.log(CALLS / USUAL_CALLS) / (CALLS_SPREAD_OF_NOVICES if novice else CALLS_SPREAD)) ** 2
    curves = (endurance[:, None] + bend[None, :]).ravel()
    kinds: Grid = np.exp(-(calls[:, None] + curves[None, :]) / 2)
    kinds /= kinds.sum()
    return kinds


def curve_of(kinds: Grid) -> RepCurve:
    """The rep curve of a lifter who is of each kind as far as it is likely."""
    likely = kinds.sum(axis=0)
    endurance = float(np.exp(likely @ _LOG_ENDURANCES))
    bend = float(likely @ _BENDS)
    return RepCurve(endurance=endurance, bend=bend or np.finfo(float).eps)


def calls_of(kinds: Grid) -> float:
    """How many reps such a lifter has left for each one that is called."""
    return float(np.exp(kinds.sum(axis=1) @ _LOG_CALLS))
