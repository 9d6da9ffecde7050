"""Read foreign files in child processes that have limits on memory, time and output."""

from .limits import LimitError, Limits
from .pool import Here, Reader, Sandbox
from .task import Reply, Task

__all__ = ["Here", "LimitError", "Limits", "Reader", "Reply", "Sandbox", "Task"]
