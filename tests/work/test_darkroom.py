import threading

import numpy as np
import pytest

from improva.catalogue import template
from improva.core.errors import BadScene
from improva.scenes import scene
from improva.work.darkroom import Darkroom
from improva.work.room import Kept, Room, megabytes
from tests.conftest import BLANK, art_of, quadrants


def test_what_is_asked_for_by_many_at_once_is_made_once() -> None:
    kept: Kept[int] = Kept(Room(4))
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
    kept: Kept[str] = Kept(Room(2))
    for key in ("a", "b", "a", "c"):
        kept.get(key, lambda key=key: key)  # type: ignore[misc]
    assert kept.get("a", lambda: "made again") == "a"
    assert kept.get("b", lambda: "made again") == "made again"


def test_a_failure_is_not_kept() -> None:
    kept: Kept[int] = Kept(Room(2))
    with pytest.raises(ZeroDivisionError):
        kept.get("key", lambda: 1 // 0)
    assert kept.get("key", lambda: 7) == 7


def test_views_and_proxies_are_kept_ready() -> None:
    darkroom, studio = Darkroom(), scene("straight-tumbler-studio", template(BLANK))
    assert darkroom.view(studio, (160, 160)) is darkroom.view(studio, (160, 160))
    close = darkroom.view(studio, (160, 160), close="print")
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


def test_what_is_kept_weighs_and_the_longest_unused_makes_room() -> None:
    kept: Kept[int] = Kept(Room(10, float))
    for weight in (4, 5):
        kept.get(weight, lambda weight=weight: weight)  # type: ignore[misc]
    kept.get(3, lambda: 3)  # 12 in all: the first goes
    assert kept.get(5, lambda: pytest.fail("was still kept")) == 5
    made = []
    kept.get(4, lambda: made.append(1) or 4)  # type: ignore[func-returns-value]
    assert made == [1]


def test_what_is_too_heavy_for_all_the_room_is_kept_alone() -> None:
    kept: Kept[int] = Kept(Room(10, float))
    kept.get("small", lambda: 1)
    kept.get("huge", lambda: 99)
    assert kept.get("huge", lambda: pytest.fail("was still kept")) == 99
    assert kept.get("small", lambda: 2) == 2  # it had to go


def test_way_is_made_for_what_is_large_before_it_is_made() -> None:
    room = Room(10, float)
    kept: Kept[int] = Kept(room)
    kept.get(4, lambda: 4)
    kept.get(5, lambda: 5)
    seen = []
    kept.get(6, lambda: seen.append(room.held) or 6, expected=6)  # type: ignore[func-returns-value]
    assert seen == [0] and room.held == 6  # of 4 and 5 neither could stay beside it


def test_results_of_all_kinds_share_one_room() -> None:
    room = Room(10, float)
    first, second = Kept[int](room), Kept[int](room)
    first.get("same", lambda: 6)
    second.get("same", lambda: 7)  # another function's result of that name; both together are too much
    assert second.get("same", lambda: pytest.fail("was still kept")) == 7
    assert first.get("same", lambda: 8) == 8


def test_megabytes_are_those_of_the_arrays_within() -> None:
    from improva.core.mockup.scene import Passes

    half, whole = np.zeros((100, 100, 3), np.float16), np.zeros((100, 100, 2), np.float32)
    passes = Passes(half, {"a": half, "b": half}, {"a": whole}, cover=whole[..., 0].copy())
    # the same plane twice over takes its room once
    assert megabytes((None, passes)) == pytest.approx((60_000 + 80_000 + 40_000) / 1e6)


def test_a_look_reads_quick_passes_and_a_listing_picture_the_whole(monkeypatch: pytest.MonkeyPatch) -> None:
    import improva.work.darkroom as module

    opened = []
    real = module.open_scene
    monkeypatch.setattr(module, "open_scene", lambda info, size, cut=None: opened.append(size) or real(info, size, cut))
    darkroom, studio = Darkroom(), scene("straight-tumbler-studio", template(BLANK))
    assert darkroom.view(studio, (600, 450)).info.px == (1350, 1012)
    assert darkroom.view(studio, (640, 480)).info.px == (1350, 1012) and len(opened) == 1  # read once for both
    assert darkroom.view(studio, (1800, 1350)).info.px == (2700, 2025)


def test_mirrored_and_other_colours_are_lit_apart() -> None:
    darkroom, mug = Darkroom(), scene("mug-11oz-studio", template("mug-11oz"))
    plain, flipped = (darkroom.lit(mug, (160, 120), {"table": "Sand"}, mirrored=m) for m in (False, True))
    assert plain is not flipped and np.allclose(plain.plain, flipped.plain[:, ::-1])
    assert darkroom.lit(mug, (160, 120), {"nowhere": "Ink"}) is darkroom.lit(mug, (160, 120), {})  # a part it lacks
