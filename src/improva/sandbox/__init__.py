"""Read foreign files in child processes that have limits on memory, time and output."""

from .limits import MB, LimitError, Limits
from .pool import Here, Reader, Sandbox, SandboxError
from .task import Reply, Task

__all__ = ["MB", "Here", "LimitError", "Limits", "Reader", "Reply", "Sandbox", "SandboxError", "Task"]
