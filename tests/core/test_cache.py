"""What is cached is worked out once, also where several ask for it at the same moment."""

from concurrent.futures import ThreadPoolExecutor
from threading import Barrier
from time import sleep

import pytest

from fortis.core.cache import cached


def test_what_another_thread_works_out_is_waited_for():
    asked, all_here = [], Barrier(4)

    @cached(8, waited_for=True)
    def slow(number, *, twice=False):
        asked.append(number)
        sleep(0.05)
        return number * (2 if twice else 1)

    def ask(number):
        all_here.wait()
        return slow(number, twice=True)

    with ThreadPoolExecutor(4) as threads:
        assert list(threads.map(ask, [1, 1, 1, 2])) == [2, 2, 2, 4]
    assert sorted(asked) == [1, 2]
    assert slow(1) == 1


def test_what_fails_is_asked_for_again():
    asked = []

    @cached(8, waited_for=True)
    def fails(number):
        asked.append(number)
        raise ValueError(number)

    for _ in range(2):
        with pytest.raises(ValueError, match="7"):
            fails(7)
    assert asked == [7, 7]
