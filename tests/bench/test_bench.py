"""The benchmarks at a small scale. Their timings belong to `improva bench`, never to a test."""

from improva.bench import main as benchmarks
from improva.bench import pictures as benchmarks_pictures
from improva.bench import timing
from improva.core.artwork.pixels import Artwork


def test_sample_art_is_a_picture() -> None:
    facts = Artwork.read(benchmarks.sample_art(300, 260)).facts
    assert facts.px == (300, 260) and not facts.has_alpha


def test_a_row_names_both_sides_of_its_ratio() -> None:
    row = timing.row("ours", 0.3, "bare", 0.1, 3.0)
    assert row == {"name": "ours", "seconds": 0.3, "floor": "bare", "floor_seconds": 0.1, "ratio": 3.0, "limit": 3.0}
    calls: list[int] = []
    assert timing.median(lambda: calls.append(1), rounds=3) >= 0 and len(calls) == 4  # one to warm up


def test_memory_is_measured_over_every_scene() -> None:
    assert benchmarks_pictures.plain_art(1) != benchmarks_pictures.plain_art(2)
    assert Artwork.read(benchmarks_pictures.plain_art(3)).facts.px == (1700, 1500)
