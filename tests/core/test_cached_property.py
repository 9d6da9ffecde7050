import threading
from concurrent.futures import ThreadPoolExecutor

from improva.core.cached_property import cached_property


class Squares:
    def __init__(self, number: int, gate: threading.Barrier | None = None) -> None:
        self.number, self.gate, self.count = number, gate, 0

    @cached_property
    def square(self) -> int:
        """The number's square."""
        self.count += 1
        if self.gate is not None:
            self.gate.wait(10)
        return self.number**2


def test_a_value_is_computed_once_for_each_object() -> None:
    one, other = Squares(3), Squares(4)
    assert [one.square, one.square, other.square] == [9, 9, 16]
    assert (one.count, other.count) == (1, 1)
    assert Squares.square.__doc__ == "The number's square."


def test_two_objects_compute_at_the_same_time() -> None:
    """Each waits for the other, so that a lock on the class would end in an error after ten seconds."""
    gate = threading.Barrier(2)
    with ThreadPoolExecutor(2) as pool:
        found = list(pool.map(lambda number: Squares(number, gate).square, (2, 3)))
    assert found == [4, 9]
