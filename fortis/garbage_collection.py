"""How often Python looks for garbage."""

import gc


def collect_less_often() -> None:
    """Look for garbage less often than Python does by itself.

    A session of 300 lines is some 15,000 small frozen values in which nothing ever points in a circle. At the
    usual thresholds walking over them takes as long as making them.
    """
    gc.collect()
    gc.freeze()
    gc.set_threshold(50_000, 20, 20)
