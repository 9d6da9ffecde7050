"""Turns for expensive pictures: few at a time, in order, and only the newest of each person."""

import threading
from concurrent.futures import ThreadPoolExecutor

import pytest

from improva.app.errors import GivenUpError
from improva.app.turns import Turns
from tests.waiting import wait_until


def test_no_more_run_at_once_than_may() -> None:
    turns, running, most, lock = Turns(2), 0, 0, threading.Lock()

    def render(_: int) -> None:
        nonlocal running, most
        with turns.turn():
            with lock:
                running += 1
                most = max(most, running)
            threading.Event().wait(0.01)
            with lock:
                running -= 1

    with ThreadPoolExecutor(12) as pool:
        list(pool.map(render, range(60)))
    assert most == 2 and running == 0


def test_of_what_waits_for_one_person_only_the_newest_runs_and_others_keep_their_place() -> None:
    turns, order, go = Turns(1), list[str](), threading.Event()

    def render(name: str, person: str) -> str:
        try:
            with turns.turn(person):
                order.append(name)
                assert go.wait(20)
        except GivenUpError:
            return "given up"
        return "rendered"

    with ThreadPoolExecutor(8) as pool:
        first = pool.submit(render, "first", "Anna")
        wait_until(lambda: order == ["first"], 20)
        asked = []
        for name, person in (("old", "Anna"), ("other", "Ben"), ("nobody", ""), ("new", "Anna"), ("nobody too", "")):
            asked.append(pool.submit(render, name, person))
            wait_until(lambda: len(turns._waiting) >= min(len(asked), 4) or asked[0].done(), 20)
        wait_until(lambda: asked[0].done() and len(turns._waiting) == 4, 20)
        go.set()
        ends = [each.result(20) for each in asked]
    assert first.result() == "rendered", "what runs already is finished"
    assert ends == ["given up", "rendered", "rendered", "rendered", "rendered"]
    assert order == ["first", "other", "nobody", "new", "nobody too"]


def test_a_failure_gives_its_turn_back() -> None:
    turns = Turns(1)
    for _ in range(3):
        with pytest.raises(ZeroDivisionError), turns.turn():
            raise ZeroDivisionError
    with turns.turn():
        pass
