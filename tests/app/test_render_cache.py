import threading
from typing import Any

import numpy as np
import pytest

from improva.app.cache import Memo, SizedLru, size_of
from improva.app.render_cache import RenderCache
from improva.catalogue import template
from improva.core.errors import SceneError
from improva.core.mockup.parallel import ONE_CORE, Cores
from improva.core.mockup.scene import Passes, SceneInfo
from tests.conftest import BLANK, art_of, quadrants
from tests.scenery import scene


def test_a_result_that_many_threads_request_is_computed_once() -> None:
    memo: Memo[int] = Memo(SizedLru(4))
    made, gate = [], threading.Barrier(6)

    def make() -> int:
        made.append(1)
        return 42

    def ask(results: list[int]) -> None:
        gate.wait()
        results.append(memo.get("key", make))

    results: list[int] = []
    threads = [threading.Thread(target=ask, args=(results,)) for _ in range(6)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert results == [42] * 6 and made == [1]


def test_a_result_is_always_either_pending_or_stored() -> None:
    """Between the end of a call and the storing of its result, no other thread may start a second call."""
    for _ in range(1500):
        memo: Memo[int] = Memo(SizedLru(4))
        made, gate = list[int](), threading.Barrier(4)

        def ask(memo: Memo[int] = memo, made: list[int] = made, gate: threading.Barrier = gate) -> None:
            gate.wait()
            memo.get("key", lambda: made.append(1) or len(made))  # type: ignore[func-returns-value]

        threads = [threading.Thread(target=ask) for _ in range(4)]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()
        assert made == [1]


def test_after_a_failure_a_waiting_thread_tries_again() -> None:
    memo: Memo[int] = Memo(SizedLru(2))
    started, results = threading.Event(), list[int]()

    def fail() -> int:
        started.set()
        waiting.wait(0.05)
        raise ZeroDivisionError

    waiting = threading.Event()

    def first() -> None:
        with pytest.raises(ZeroDivisionError):
            memo.get("key", fail)

    def second() -> None:
        started.wait()
        results.append(memo.get("key", lambda: 7))

    threads = [threading.Thread(target=first), threading.Thread(target=second)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert results == [7]


def test_the_least_recently_used_result_is_dropped_first() -> None:
    memo: Memo[str] = Memo(SizedLru(2))
    for key in ("a", "b", "a", "c"):
        memo.get(key, lambda key=key: key)  # type: ignore[misc]
    assert memo.get("a", lambda: "made again") == "a"
    assert memo.get("b", lambda: "made again") == "made again"


def test_a_failure_is_not_cached() -> None:
    memo: Memo[int] = Memo(SizedLru(2))
    with pytest.raises(ZeroDivisionError):
        memo.get("key", lambda: 1 // 0)
    assert memo.get("key", lambda: 7) == 7


def test_views_and_proxies_are_cached() -> None:
    cache, studio = RenderCache(), scene("straight-tumbler-studio", template(BLANK))
    assert cache.view(studio, (160, 160)) is cache.view(studio, (160, 160))
    close = cache.view(studio, (160, 160), close="print")
    far = cache.view(studio, (160, 160))
    seen = [v.maps["wrap"].rows.stop - v.maps["wrap"].rows.start for v in (close, far)]
    assert seen[0] > seen[1] * 1.1  # close shows the print larger
    shaded = cache.shaded_view(studio, (160, 160), {"lid": "Ink"})
    assert shaded is cache.shaded_view(studio, (160, 160), {"lid": "Ink"})
    assert shaded is not cache.shaded_view(studio, (160, 160), {"lid": "Pine"})
    art = art_of(quadrants())
    assert cache.proxy("hash", lambda: art) is cache.proxy("hash", lambda: pytest.fail("opened twice"))


def test_an_unknown_scene_is_reported() -> None:
    with pytest.raises(SceneError, match="Known: straight-tumbler-studio"):
        scene("moon", template(BLANK))


def test_results_count_by_bytes_and_the_least_recently_used_make_room() -> None:
    memo: Memo[int] = Memo(SizedLru(10, int))
    for weight in (4, 5):
        memo.get(weight, lambda weight=weight: weight)  # type: ignore[misc]
    memo.get(3, lambda: 3)  # 12 in all: the first goes
    assert memo.get(5, lambda: pytest.fail("was still kept")) == 5
    made = []
    memo.get(4, lambda: made.append(1) or 4)  # type: ignore[func-returns-value]
    assert made == [1]


def test_a_result_larger_than_the_cache_is_kept_alone() -> None:
    memo: Memo[int] = Memo(SizedLru(10, int))
    memo.get("small", lambda: 1)
    memo.get("huge", lambda: 99)
    assert memo.get("huge", lambda: pytest.fail("was still kept")) == 99
    assert memo.get("small", lambda: 2) == 2  # it had to go


def test_room_is_made_before_a_large_result_is_computed() -> None:
    storage = SizedLru(10, int)
    memo: Memo[int] = Memo(storage)
    memo.get(4, lambda: 4)
    memo.get(5, lambda: 5)
    seen = []
    memo.get(6, lambda: seen.append(storage.size) or 6, expected_size=6)  # type: ignore[func-returns-value]
    assert seen == [0] and storage.size == 6  # of 4 and 5 neither could stay beside it


def test_results_of_all_kinds_share_one_limit() -> None:
    storage = SizedLru(10, int)
    first, second = Memo[int](storage), Memo[int](storage)
    first.get("same", lambda: 6)
    second.get("same", lambda: 7)  # another function's result of that name; both together are too much
    assert second.get("same", lambda: pytest.fail("was still kept")) == 7
    assert first.get("same", lambda: 8) == 8


def test_the_size_of_a_result_is_that_of_its_arrays() -> None:
    half: Any
    half, whole = np.zeros((100, 100, 3), np.float16), np.zeros((100, 100, 2), np.float32)  # packs keep light as half floats
    passes = Passes(half, {"a": half, "b": half}, {"a": whole}, cover=whole[..., 0].copy())
    # the same plane twice over takes its room once
    assert size_of((None, passes)) == 60_000 + 80_000 + 40_000


def test_a_preview_reads_quick_passes_and_a_listing_picture_reads_full_ones(monkeypatch: pytest.MonkeyPatch) -> None:
    import improva.app.render_cache as module

    opened = []
    real = module.open_scene

    def counted(info: SceneInfo, size: tuple[int, int], cut: np.ndarray | None = None, cores: Cores = ONE_CORE) -> Any:
        opened.append(size)
        return real(info, size, cut, cores)

    monkeypatch.setattr(module, "open_scene", counted)
    cache, studio = RenderCache(), scene("straight-tumbler-studio", template(BLANK))
    assert cache.view(studio, (600, 450)).info.px == (1350, 1012)
    assert cache.view(studio, (640, 480)).info.px == (1350, 1012) and len(opened) == 1  # read once for both
    assert cache.view(studio, (1800, 1350)).info.px == (2700, 2025)


def test_mirrored_views_and_other_colours_are_cached_separately() -> None:
    cache, mug = RenderCache(), scene("mug-11oz-studio", template("mug-11oz"))
    plain, flipped = (cache.shaded_view(mug, (160, 120), {"table": "Sand"}, mirrored=m) for m in (False, True))
    assert plain is not flipped and np.allclose(plain.plain, flipped.plain[:, ::-1])
    assert cache.shaded_view(mug, (160, 120), {"nowhere": "Ink"}) is cache.shaded_view(mug, (160, 120), {})  # a part it lacks
