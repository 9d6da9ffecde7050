"""Limits of a child process, by setrlimit(2)."""

from __future__ import annotations

import resource
from dataclasses import dataclass
from pathlib import Path

from ..core.errors import ImprovaError

MB = 1_000_000


class LimitError(ImprovaError):
    """A file took more memory or time than a foreign file may."""


@dataclass(frozen=True)
class Limits:
    """What one file may take.

    Attributes:
        memory_mb: memory above that of the process before it starts.
        cpu_s: seconds of processor time.
        wall_s: seconds until the process is killed, whatever it does.
        output_mb: size of all that is returned, and of each file that is written.
    """

    memory_mb: int = 1000
    cpu_s: int = 20
    wall_s: float = 60.0
    output_mb: int = 500

    def impose(self) -> None:
        """Limit this process for its next file. A process that reads several calls this before each."""
        cpu = resource.getrusage(resource.RUSAGE_SELF)
        _limit(resource.RLIMIT_DATA, _data_bytes() + self.memory_mb * MB)
        _limit(resource.RLIMIT_CPU, int(cpu.ru_utime + cpu.ru_stime) + self.cpu_s)
        _limit(resource.RLIMIT_FSIZE, self.output_mb * MB)
        _limit(resource.RLIMIT_CORE, 0)


def _limit(kind: int, most: int) -> None:
    """Set a soft limit, which a later call can raise again."""
    hardest = resource.getrlimit(kind)[1]
    resource.setrlimit(kind, (most if hardest == resource.RLIM_INFINITY else min(most, hardest), hardest))


def _data_bytes() -> int:
    """Return the private writable memory of this process, which RLIMIT_DATA counts: proc(5), VmData."""
    status = Path("/proc/self/status").read_text(encoding="ascii")
    return int(next(line for line in status.splitlines() if line.startswith("VmData:")).split()[1]) * 1024


ORDINARY = Limits()
"""Limits of a picture."""

MEMORY = "This file needs more than {} MB of memory to open, or is damaged: save it smaller, or export it again."
TIME = "This file takes more than {} seconds to open: save it simpler or smaller."
OUTPUT = "This file holds more than {} MB: save it smaller."
