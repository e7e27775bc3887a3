"""A cache for pure functions: while a text is being written, all but one line ask for the same again."""

from collections.abc import Callable
from functools import lru_cache
from typing import ParamSpec, TypeVar, cast

_Arguments = ParamSpec("_Arguments")
_Result = TypeVar("_Result")
_caches: list[Callable[[], None]] = []


def cached(size: int) -> Callable[[Callable[_Arguments, _Result]], Callable[_Arguments, _Result]]:
    """Cache the last `size` results of a function of hashable values."""

    def decorate(function: Callable[_Arguments, _Result]) -> Callable[_Arguments, _Result]:
        caching = lru_cache(maxsize=size)(function)
        _caches.append(caching.cache_clear)
        return cast(Callable[_Arguments, _Result], caching)

    return decorate


def clear_caches() -> None:
    """Empty every cache, as if all were asked for the first time: for measuring."""
    for clear in _caches:
        clear()
