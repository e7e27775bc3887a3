"""A cache for pure functions: while a text is being written, all but one line ask for the same again."""

from collections.abc import Callable, Hashable
from functools import lru_cache, wraps
from threading import Lock
from typing import Concatenate, ParamSpec, TypeVar, cast

_Arguments = ParamSpec("_Arguments")
_Result = TypeVar("_Result")
_Self = TypeVar("_Self")
_caches: list[Callable[[], None]] = []


def cached(
    size: int, *, waited_for: bool = False
) -> Callable[[Callable[_Arguments, _Result]], Callable[_Arguments, _Result]]:
    """Cache the last `size` results of a function of hashable values.

    With `waited_for` a result that another thread is working out is waited for, not worked out twice.
    """

    def decorate(function: Callable[_Arguments, _Result]) -> Callable[_Arguments, _Result]:
        caching = lru_cache(maxsize=size)(function)
        _caches.append(caching.cache_clear)
        found = cast(Callable[_Arguments, _Result], caching)
        return _one_at_a_time(found) if waited_for else found

    return decorate


def _one_at_a_time(function: Callable[_Arguments, _Result]) -> Callable[_Arguments, _Result]:
    """The same function, called by one thread at a time for the same arguments."""
    busy: dict[Hashable, tuple[Lock, int]] = {}
    looking = Lock()

    @wraps(function)
    def waiting(*args: _Arguments.args, **given: _Arguments.kwargs) -> _Result:
        key = args, tuple(given.items())
        with looking:
            mine, waiters = busy.get(key, (Lock(), 0))
            busy[key] = mine, waiters + 1
        try:
            with mine:
                return function(*args, **given)
        finally:
            with looking:
                mine, waiters = busy.pop(key)
                if waiters > 1:
                    busy[key] = mine, waiters - 1

    return waiting


def cached_method(
    method: Callable[Concatenate[_Self, _Arguments], _Result],
) -> Callable[Concatenate[_Self, _Arguments], _Result]:
    """Cache what a method returns, by its arguments, for as long as its object lives: it does not change."""
    name = f"{method.__name__} as cached"

    @wraps(method)
    def remembering(self: _Self, *args: _Arguments.args, **given: _Arguments.kwargs) -> _Result:
        known: dict[Hashable, _Result] = vars(self).setdefault(name, {})
        key = args, *given.items()
        if key not in known:
            known[key] = method(self, *args, **given)
        return known[key]

    return cast(Callable[Concatenate[_Self, _Arguments], _Result], remembering)


def clear_caches() -> None:
    """Empty every cache, as if all were asked for the first time: for measuring."""
    for clear in _caches:
        clear()
