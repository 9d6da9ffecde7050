"""Files that go out: print files at true size, and how they are named and written."""

from .naming import picture_name, print_name
from .print_file import write_print_file
from .writing import beside

__all__ = ["beside", "picture_name", "print_name", "write_print_file"]
