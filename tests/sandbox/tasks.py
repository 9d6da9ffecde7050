"""Tasks that exceed their limits, each in its own way. Child processes import this module."""

import os
import time
from pathlib import Path

from improva.core.errors import ArtworkError, SceneError
from improva.sandbox import Limits, Reply, Task

SMALL = Limits(memory_mb=200, cpu_s=1, wall_s=5, output_mb=1)


def _count(data: bytes, times: int = 1) -> Reply:
    return Reply({"bytes": len(data) * times, "process": os.getpid()}, [data[:3], data[3:]])


def _fill_memory(data: bytes, megabytes: int) -> Reply:
    return Reply({"filled": len(bytearray(os.urandom(1) * (megabytes * 1_000_000)))})


def _turn_for_ever(data: bytes) -> Reply:
    while True:
        pass


def _sleep(data: bytes) -> Reply:
    time.sleep(60)
    return Reply()


def _die(data: bytes, signal: int) -> Reply:
    os.kill(os.getpid(), signal)
    return Reply()


def _answer_much(data: bytes) -> Reply:
    return Reply(blobs=[bytes(2_000_000)])


def _write_much(data: bytes, path: str) -> Reply:
    Path(path).write_bytes(bytes(2_000_000))
    return Reply()


def _refuse(data: bytes) -> Reply:
    raise SceneError("This scene is not one.")


def _stumble(data: bytes) -> Reply:
    return Reply({"never": {"here": 1}["there"]})


COUNT = Task(_count, "broken", limits=SMALL)
FILL_MEMORY = Task(_fill_memory, "broken", limits=SMALL)
TURN_FOR_EVER = Task(_turn_for_ever, "broken", limits=SMALL)
SLEEP = Task(_sleep, "broken", limits=Limits(wall_s=0.5))
DIE = Task(_die, "broken", limits=SMALL)
ANSWER_MUCH = Task(_answer_much, "broken", limits=SMALL)
WRITE_MUCH = Task(_write_much, "It cannot be written.", limits=SMALL)
REFUSE = Task(_refuse, "broken", ArtworkError, SMALL)
STUMBLE = Task(_stumble, "This is damaged.", ArtworkError, SMALL)
