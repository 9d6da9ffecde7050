"""Long work: queued, reported, stopped, failed, resumed."""

import json
import pickle
import signal
import subprocess
import sys
import threading
import time
from pathlib import Path
from typing import Any

import pytest

from improva.core.errors import OutputError
from improva.core.progress import Progress
from improva.jobs.dispatcher import JobDispatcher
from improva.jobs.queue import JobSignals, QueueError, open_queue
from improva.jobs.worker import Outcome, register_task
from improva.store import Database, JobRow, JobTable, MadeFiles
from tests.waiting import wait_until


def wait_for(table: JobTable, job_id: int, *states: str) -> JobRow:
    def reached() -> JobRow | None:
        row = table.get(job_id)
        assert row is not None
        return row if row.state in (states or ("done", "failed", "stopped")) else None

    row = wait_until(reached, 20)
    assert row is not None
    return row


@pytest.fixture
def database(tmp_path: Path) -> Database:
    return Database(tmp_path)


def test_a_job_reports_progress_and_keeps_its_files(database: Database) -> None:
    go, seen = threading.Event(), []

    def work(parameters: dict[str, Any], extract: dict[str, Any], progress: Progress) -> Outcome:
        for share in (0.25, 0.75):
            progress.at(share)
        assert go.wait(20)
        seen.append(extract)
        made = {
            "key": "abc",
            "artwork_id": 1,
            "template_id": "mug",
            "kind": "print",
            "placement_key": "p",
            "file_name": "a.png",
        }
        return Outcome([parameters["key"]], [made])

    database.connection.execute(
        "INSERT INTO artwork (title, file_name, sha256, facts, traits) VALUES ('A', 'a', 'x', '{}', '{}')"
    )
    jobs = JobDispatcher(database, {"print": work}, lambda kind, parameters: {"for": [kind, parameters["key"]]})
    job = jobs.start("print", {"key": "abc"}, "A print", 4, "mug")
    until = time.monotonic() + 20
    while (row := jobs.table.get(job.id)) is None or row.share != 0.75:
        assert time.monotonic() < until
    assert row.state == "running" and row.attempt == 1
    go.set()
    row = wait_for(jobs.table, job.id)
    assert row.state == "done" and row.files == ["abc"] and row.share == 1 and seen == [{"for": ["print", "abc"]}]
    assert MadeFiles(database).kinds(1, "mug", "p") == {"print"}  # what the worker made is on the board's records
    assert [each.id for each in jobs.table.of_pair(4, "mug")] == [row.id] and jobs.table.of_pair(4, "cup") == []
    jobs.close()


@pytest.mark.parametrize(
    ("problem", "told"),
    [(OutputError("The disk is full."), "The disk is full."), (ZeroDivisionError("x"), "Something went wrong on our side")],
)
def test_a_failed_job_gives_its_reason(database: Database, problem: Exception, told: str) -> None:
    def work(parameters: dict[str, Any], extract: dict[str, Any], progress: Progress) -> Outcome:
        raise problem

    jobs = JobDispatcher(database, {"print": work})
    row = wait_for(jobs.table, jobs.start("print", {}, "A print").id)
    assert row.state == "failed" and row.problem is not None and told in row.problem and row.files == []
    jobs.close()


def test_an_equal_job_does_not_start_twice_until_the_first_has_ended(database: Database) -> None:
    go = threading.Event()
    done: list[int] = []

    def work(parameters: dict[str, Any], extract: dict[str, Any], progress: Progress) -> Outcome:
        assert go.wait(20)
        done.append(parameters["n"])
        return Outcome([])

    jobs = JobDispatcher(database, {"print": work})
    first, second = (jobs.start("print", {"n": 1}, "One") for _ in range(2))
    other = jobs.start("print", {"n": 2}, "Two")
    assert first.id == second.id != other.id
    go.set()
    wait_for(jobs.table, other.id)
    third = jobs.start("print", {"n": 1}, "One")
    wait_for(jobs.table, third.id)
    assert third.id != first.id and done == [1, 2, 1]
    jobs.close()


def test_a_running_job_stops_and_a_waiting_one_never_starts(database: Database) -> None:
    begun: list[int] = []

    def work(parameters: dict[str, Any], extract: dict[str, Any], progress: Progress) -> Outcome:
        begun.append(parameters["n"])
        while True:
            progress.at(0.5)  # raises once the job is stopped

    jobs = JobDispatcher(database, {"print": work})
    running, waiting = jobs.start("print", {"n": 1}, "One"), jobs.start("print", {"n": 2}, "Two")
    wait_for(jobs.table, running.id, "running")
    jobs.table.stop(waiting.id)
    assert wait_for(jobs.table, waiting.id).state == "stopped"
    jobs.table.stop(running.id)
    assert wait_for(jobs.table, running.id).state == "stopped" and begun == [1]
    # requested again after it was stopped, it is a new job
    again = jobs.start("print", {"n": 1}, "One")
    assert again.id not in (running.id, waiting.id)
    jobs.table.stop(again.id)
    wait_for(jobs.table, again.id)
    jobs.close()


def test_a_job_left_by_a_killed_process_is_resumed_once(database: Database) -> None:
    table = JobTable(database)
    half, waiting, stopping = (table.add("print", {"n": n}, "A print")[0] for n in range(3))
    assert table.hand_out(half.id) == 1
    table.tell(half.id, 0.4)
    table.tell(stopping.id, 0.1)
    table.stop(stopping.id)
    done: list[int] = []

    def work(parameters: dict[str, Any], extract: dict[str, Any], progress: Progress) -> Outcome:
        done.append(parameters["n"])
        return Outcome([])

    jobs = JobDispatcher(database, {"print": work})
    assert jobs.take_up() == 2
    wait_for(table, half.id)
    wait_for(table, waiting.id)
    assert sorted(done) == [0, 1] and table.get(stopping.id).state == "stopped"  # type: ignore[union-attr]
    assert JobDispatcher(database, {"print": work}).take_up() == 0
    jobs.close()


def test_a_job_of_a_silent_worker_is_given_to_another_once(database: Database) -> None:
    done: list[int] = []

    def work(parameters: dict[str, Any], extract: dict[str, Any], progress: Progress) -> Outcome:
        done.append(parameters["n"])
        return Outcome([f"made {len(done)}"])

    jobs = JobDispatcher(database, {"print": work}, lease_s=0.5)
    jobs.wake()
    slips = JobSignals(open_queue(None, database.folder))  # somebody takes the first attempt, and is never heard of again
    place = f"{jobs._board} 1 1"
    assert slips.claim(place)
    slips.tell(place, {"state": "running", "share": 0.3, "beat": 1})
    row = wait_for(jobs.table, jobs.start("print", {"n": 1}, "One").id)
    assert row.state == "done" and row.attempt == 2 and done == [1]
    slips.tell(place, {"state": "done", "share": 1, "beat": 9, "files": ["late"], "made": []})  # it was only slow
    assert wait_for(jobs.table, row.id).files == ["made 1"]
    jobs.close()


def test_a_job_that_kills_its_process_is_given_up_and_takes_no_other_with_it(database: Database) -> None:
    """Jobs that only waited while the process was killed are done as often as it takes."""
    table = JobTable(database)
    poison = table.add("print", {"name": "poison"}, "A print")[0]
    others = [table.add("print", {"name": f"good {n}"}, "A print")[0] for n in range(3)]
    command = [sys.executable, "-m", "tests.jobs.poison", str(database.folder)]
    ends = [subprocess.run(command, check=False, timeout=60).returncode for _ in range(4)]
    assert ends == [-signal.SIGKILL] * 3 + [0]
    ended = table.get(poison.id)
    assert ended is not None and ended.state == "failed" and ended.lost == 3 and "3 times" in (ended.problem or "")
    assert [row.state for other in others if (row := table.get(other.id))] == ["done"] * 3
    again = table.add("print", {"name": "poison"}, "A print")
    assert again[1] and again[0].lost == 0, "the seller can start it once more"


def test_a_message_delivered_twice_is_processed_once(tmp_path: Path) -> None:
    done = []

    def work(parameters: dict[str, Any], extract: dict[str, Any], progress: Progress) -> Outcome:
        done.append(parameters["n"])
        return Outcome([])

    queue = open_queue(None, tmp_path)
    take = register_task(queue, {"print": work})
    for _ in range(2):
        take("board 1 1", "print", {"n": 7}, {})
    for _ in range(2):
        queue.execute(queue.dequeue())
    told = JobSignals(queue).newest_report("board 1 1")
    assert done == [7] and told is not None and told["state"] == "done"


@pytest.mark.parametrize("url", ["amqp://somewhere", "redis://127.0.0.1:1/0"])
def test_an_invalid_queue_address_is_reported(url: str, tmp_path: Path) -> None:
    with pytest.raises(QueueError, match="IMPROVA_QUEUE"):
        open_queue(url, tmp_path)


def test_messages_are_plain_data_and_unknown_ones_are_ignored(tmp_path: Path) -> None:
    queue = open_queue(None, tmp_path)
    register_task(queue, None)("place", "print", {"word": "Schneehuhn é", "px": [1, 2]}, {})
    (message,) = queue.storage.enqueued_items()
    assert json.loads(bytes(message))[1].endswith("improva-take") and queue.dequeue().args[2] == {
        "word": "Schneehuhn é",
        "px": [1, 2],
    }
    queue.storage.enqueue(pickle.dumps({"a": 1}))
    with pytest.raises(ValueError):
        queue.dequeue()


def test_progress_of_parts_adds_up_to_the_whole() -> None:
    told: list[float] = []
    progress = Progress(told.append)
    first, second = progress.part(0, 0.4), progress.part(0.4, 1)
    for each in (first, second, second.part(0.5, 1)):
        each.at(0.5)
    assert told == pytest.approx([0.2, 0.7, 0.85])
