import threading

import pytest

from improva.catalogue import template
from improva.core.errors import BadScene
from improva.scenes import scene
from improva.work.darkroom import Darkroom, Kept
from tests.conftest import BLANK, art_of, quadrants


def test_what_is_asked_for_by_many_at_once_is_made_once() -> None:
    kept: Kept[int] = Kept(4)
    made, gate = [], threading.Barrier(6)

    def make() -> int:
        made.append(1)
        return 42

    def ask(results: list[int]) -> None:
        gate.wait()
        results.append(kept.get("key", make))

    results: list[int] = []
    threads = [threading.Thread(target=ask, args=(results,)) for _ in range(6)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert results == [42] * 6 and made == [1]


def test_the_longest_unused_goes_first() -> None:
    kept: Kept[str] = Kept(2)
    for key in ("a", "b", "a", "c"):
        kept.get(key, lambda key=key: key)  # type: ignore[misc]
    assert kept.get("a", lambda: "made again") == "a"
    assert kept.get("b", lambda: "made again") == "made again"


def test_a_failure_is_not_kept() -> None:
    kept: Kept[int] = Kept(2)
    with pytest.raises(ZeroDivisionError):
        kept.get("key", lambda: 1 // 0)
    assert kept.get("key", lambda: 7) == 7


def test_views_and_proxies_are_kept_ready() -> None:
    darkroom, studio = Darkroom(), scene("straight-tumbler-studio", template(BLANK))
    assert darkroom.view(studio, (160, 160)) is darkroom.view(studio, (160, 160))
    close = darkroom.view(studio, (160, 160), close=True)
    far = darkroom.view(studio, (160, 160))
    seen = [v.maps["wrap"].rows.stop - v.maps["wrap"].rows.start for v in (close, far)]
    assert seen[0] > seen[1] * 1.1  # close shows the print larger
    lit = darkroom.lit(studio, (160, 160), {"lid": "Ink"})
    assert lit is darkroom.lit(studio, (160, 160), {"lid": "Ink"})
    assert lit is not darkroom.lit(studio, (160, 160), {"lid": "Pine"})
    art = art_of(quadrants())
    assert darkroom.proxy("hash", lambda: art) is darkroom.proxy("hash", lambda: pytest.fail("opened twice"))


def test_unknown_scenes_are_told() -> None:
    with pytest.raises(BadScene, match="Known: straight-tumbler-studio"):
        scene("moon", template(BLANK))
