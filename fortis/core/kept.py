"""Answers of pure functions, kept: while a text is being written, all but one line ask for the same again."""

from collections.abc import Callable
from functools import lru_cache
from typing import ParamSpec, TypeVar, cast

_Asked = ParamSpec("_Asked")
_Answer = TypeVar("_Answer")
_forgetting: list[Callable[[], None]] = []


def kept(most: int) -> Callable[[Callable[_Asked, _Answer]], Callable[_Asked, _Answer]]:
    """Keep the last `most` answers of a function of hashable values."""

    def keep(asked: Callable[_Asked, _Answer]) -> Callable[_Asked, _Answer]:
        keeping = lru_cache(maxsize=most)(asked)
        _forgetting.append(keeping.cache_clear)
        return cast(Callable[_Asked, _Answer], keeping)

    return keep


def forget() -> None:
    """Forget every answer, as if all were asked for the first time: for measuring."""
    for cleared in _forgetting:
        cleared()
