"""Films of a rotation, read back by two readers; they loop without a jump."""

from fractions import Fraction
from pathlib import Path

import av
import cv2
import numpy as np
import pytest
from PIL import Image

from improva.core.errors import OutputError, SceneError, Stopped
from improva.core.mockup.turntable import FRAMES_A_SECOND, angles, check_turns
from improva.core.progress import Progress
from improva.io.film import write_film
from tests.scenery import PRINT, scene_info


def bar(angle: float, w: int = 96, h: int = 64) -> np.ndarray:
    """A picture of a rotating thing, B, G, R: a soft orange spot whose centre moves with the angle."""
    x = (np.arange(w) / w - angle / 360) % 1
    light = np.exp(-(((x - 0.5) / 0.14) ** 2))
    return np.repeat((40 + light[None, :, None] * np.array([20, 90, 180])), h, 0).astype(np.uint8)


@pytest.mark.parametrize("ending", FRAMES_A_SECOND)
def test_a_rotation_goes_around_once_in_even_steps(ending: str) -> None:
    turn = angles(6.0, ending)
    steps = np.diff([*turn, 360.0])
    assert len(turn) == round(6 * FRAMES_A_SECOND[ending]) and turn[0] == 0
    assert np.allclose(steps, steps[0])  # the step from the last frame to the first is like all others


def test_mp4_is_read_by_two_readers(tmp_path: Path) -> None:
    path = tmp_path / "turn.mp4"
    assert write_film(path, bar, 4.0) == 96
    with av.open(str(path)) as file:
        stream = file.streams.video[0]
        frames = [frame.to_ndarray(format="bgr24") for frame in file.decode(stream)]
        assert (stream.codec_context.name, stream.average_rate, stream.codec_context.pix_fmt) == (
            "h264",
            Fraction(24),
            "yuv420p",
        )
    assert len(frames) == 96 and frames[0].shape == (64, 96, 3)
    assert max(np.abs(f.astype(int) - bar(a)).mean() for f, a in zip(frames, angles(4.0, ".mp4"), strict=True)) < 4
    other = cv2.VideoCapture(str(path))
    assert other.get(cv2.CAP_PROP_FRAME_COUNT) == 96 and other.get(cv2.CAP_PROP_FPS) == 24
    assert np.abs(other.read()[1].astype(int) - bar(0)).mean() < 4
    # ITU-T H.273: BT.709's primaries and matrix, sRGB's curve
    assert (stream.codec_context.color_primaries, stream.codec_context.color_trc, stream.codec_context.colorspace) == (1, 13, 1)
    # ISO/IEC 14496-12: a player can start before the whole is there if moov comes before mdat
    data = path.read_bytes()
    assert data.index(b"moov") < data.index(b"mdat")


@pytest.mark.parametrize("ending", [".webp", ".gif"])
def test_animated_pictures_loop_for_ever(tmp_path: Path, ending: str) -> None:
    path = tmp_path / f"turn{ending}"
    count = write_film(path, bar, 4.0)
    with Image.open(path) as film:
        assert getattr(film, "n_frames", 0) == count and film.info["loop"] == 0
        shown, lasted = [], 0
        for i in range(count):
            film.seek(i)
            film.load()
            lasted += film.info["duration"]
            shown.append(np.asarray(film.convert("RGB"))[..., ::-1].astype(int))
    assert lasted == pytest.approx(4000, abs=2)
    assert max(np.abs(f - bar(a)).mean() for f, a in zip(shown, angles(4.0, ending), strict=True)) < 8
    jumps = [np.abs(shown[i] - shown[i - 1]).mean() for i in range(count)]  # the first against the last, too
    assert jumps[0] < 1.6 * np.median(jumps) + 0.5


def test_odd_sizes_lose_a_pixel(tmp_path: Path) -> None:
    write_film(tmp_path / "odd.mp4", lambda angle: bar(angle, 97, 65), 2.0)
    with av.open(str(tmp_path / "odd.mp4")) as file:
        assert (file.streams.video[0].width, file.streams.video[0].height) == (96, 64)


def test_a_film_that_is_stopped_leaves_nothing(tmp_path: Path) -> None:
    asked = iter([False] * 20 + [True] * 1000)
    with pytest.raises(Stopped):
        write_film(tmp_path / "turn.mp4", bar, 4.0, Progress(stopped=lambda: next(asked)))
    assert list(tmp_path.iterdir()) == []


def test_impossible_films_are_reported(tmp_path: Path) -> None:
    with pytest.raises(OutputError, match=r"\.mp4, \.webp or \.gif"):
        write_film(tmp_path / "turn.avi", bar, 6.0)
    with pytest.raises(OutputError, match=r"0\.5 s cannot"):
        angles(0.5, ".mp4")
    with pytest.raises(SceneError, match="does not turn"):
        check_turns(scene_info(PRINT))
