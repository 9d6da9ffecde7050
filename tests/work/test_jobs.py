"""Long work: queued, followed, stopped, failed, taken up again."""

import threading
import time
from pathlib import Path
from typing import Any

import pytest

from improva.core.errors import BadOutput
from improva.core.output import Watch
from improva.store import Database, JobRow, JobTable
from improva.work.jobs import Jobs


def wait_for(table: JobTable, job_id: int, *states: str) -> JobRow:
    until = time.monotonic() + 20
    while True:
        row = table.get(job_id)
        assert row is not None and time.monotonic() < until
        if row.state in (states or ("done", "failed", "stopped")):
            return row
        time.sleep(0.01)


@pytest.fixture
def database(tmp_path: Path) -> Database:
    return Database(tmp_path)


def test_a_job_is_done_followed_and_keeps_its_files(database: Database) -> None:
    shares: list[float] = []

    def work(asked: dict[str, Any], watch: Watch) -> list[str]:
        for share in (0.25, 0.5, 0.75):
            watch.at(share)
            shares.append(jobs.table.get(1).share)  # type: ignore[union-attr]
        return [asked["key"]]

    jobs = Jobs(database, {"print": work})
    row = wait_for(jobs.table, jobs.start("print", {"key": "abc"}, "A print", 4, "mug").id)
    assert row.state == "done" and row.files == ["abc"] and row.share == 1 and shares == [0.25, 0.5, 0.75]
    assert [each.id for each in jobs.table.of_pair(4, "mug")] == [row.id] and jobs.table.of_pair(4, "cup") == []
    jobs.close()


@pytest.mark.parametrize(
    ("problem", "told"),
    [(BadOutput("The disk is full."), "The disk is full."), (ZeroDivisionError("x"), "Something went wrong on our side")],
)
def test_a_job_that_fails_says_so_in_a_sentence(database: Database, problem: Exception, told: str) -> None:
    def work(asked: dict[str, Any], watch: Watch) -> list[str]:
        raise problem

    jobs = Jobs(database, {"print": work})
    row = wait_for(jobs.table, jobs.start("print", {}, "A print").id)
    assert row.state == "failed" and row.problem is not None and told in row.problem and row.files == []
    jobs.close()


def test_the_same_is_not_begun_twice_but_again_once_it_has_ended(database: Database) -> None:
    go = threading.Event()
    done: list[int] = []

    def work(asked: dict[str, Any], watch: Watch) -> list[str]:
        assert go.wait(20)
        done.append(asked["n"])
        return []

    jobs = Jobs(database, {"print": work})
    first, second = (jobs.start("print", {"n": 1}, "One") for _ in range(2))
    other = jobs.start("print", {"n": 2}, "Two")
    assert first.id == second.id != other.id
    go.set()
    wait_for(jobs.table, other.id)
    third = jobs.start("print", {"n": 1}, "One")
    wait_for(jobs.table, third.id)
    assert third.id != first.id and done == [1, 2, 1]
    jobs.close()


def test_a_running_job_stops_and_a_waiting_one_never_begins(database: Database) -> None:
    begun: list[int] = []

    def work(asked: dict[str, Any], watch: Watch) -> list[str]:
        begun.append(asked["n"])
        while True:
            watch.at(0.5)
            time.sleep(0.01)

    jobs = Jobs(database, {"print": work})
    running, waiting = jobs.start("print", {"n": 1}, "One"), jobs.start("print", {"n": 2}, "Two")
    wait_for(jobs.table, running.id, "running")
    jobs.table.stop(waiting.id)
    assert wait_for(jobs.table, waiting.id).state == "stopped"
    jobs.table.stop(running.id)
    assert wait_for(jobs.table, running.id).state == "stopped" and begun == [1]
    # asked again after it was stopped, it is a new job
    again = jobs.start("print", {"n": 1}, "One")
    assert again.id not in (running.id, waiting.id)
    jobs.table.stop(again.id)
    wait_for(jobs.table, again.id)
    jobs.close()


def test_what_a_kill_left_is_taken_up_once(database: Database) -> None:
    table = JobTable(database)
    half, waiting, stopping = (table.add("print", {"n": n}, "A print")[0] for n in range(3))
    assert table.claim(half.id) is not None and table.claim(half.id) is None
    table.tell(half.id, 0.4)
    table.claim(stopping.id)
    table.stop(stopping.id)
    done: list[int] = []

    def work(asked: dict[str, Any], watch: Watch) -> list[str]:
        done.append(asked["n"])
        return []

    jobs = Jobs(database, {"print": work})
    assert jobs.take_up() == 2
    wait_for(table, half.id)
    wait_for(table, waiting.id)
    assert sorted(done) == [0, 1] and table.get(stopping.id).state == "stopped"  # type: ignore[union-attr]
    assert Jobs(database, {"print": work}).take_up() == 0
    jobs.close()


def test_parts_of_a_watch_tell_shares_of_the_whole() -> None:
    told: list[float] = []
    watch = Watch(told.append)
    first, second = watch.part(0, 0.4), watch.part(0.4, 1)
    for each in (first, second, second.part(0.5, 1)):
        each.at(0.5)
    assert told == pytest.approx([0.2, 0.7, 0.85])
