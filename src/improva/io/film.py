"""Films of a blank that turns once around, looping without a jump."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from fractions import Fraction
from pathlib import Path

import av
import cv2
import numpy as np
from av.video.codeccontext import VideoCodecContext
from av.video.reformatter import Colorspace
from PIL import Image

from ..core.mockup.turntable import FRAMES_A_SECOND, Frame, angles
from ..core.progress import UNWATCHED, Progress
from .atomic import atomic_path

SHARPNESS = "19"
"""x264's constant rate factor. Its makers call 18 to 20 visually lossless."""

BT709, SRGB_CURVE, LIMITED = 1, 13, 1
"""Code points of ITU-T H.273: ColourPrimaries and MatrixCoefficients 1, TransferCharacteristics 13; ranges as libavutil counts."""

WEBP_QUALITY = 80
PALETTE_FRAMES = 8


def write_film(path: Path, frame_at: Callable[[float], Frame], seconds: float, progress: Progress = UNWATCHED) -> int:
    """Write a film atomically; return its number of frames.

    Args:
        path: ends in .mp4 (H.264, 4:2:0, playable from its start), .webp or .gif.
        frame_at: the picture at an angle, (h, w, 3) sRGB in B, G, R order; an odd side loses a pixel in .mp4.
        seconds: how long a turn takes.
        progress: receives the progress, and says whether to stop.
    """
    ending = path.suffix.lower()
    turn = angles(seconds, ending)

    def frames() -> Iterator[Frame]:
        for i, angle in enumerate(turn):
            progress.at(i / len(turn))
            yield frame_at(angle)

    with atomic_path(path) as temporary:
        (_write_mp4 if ending == ".mp4" else _write_stills)(temporary, frames(), ending)
    return len(turn)


def _write_mp4(path: Path, frames: Iterator[Frame], ending: str) -> None:
    rate = Fraction(FRAMES_A_SECOND[ending]).limit_denominator(1000)
    with av.open(str(path), "w", format="mp4", options={"movflags": "+faststart"}) as file:
        stream = file.add_stream("libx264", rate=rate, options={"crf": SHARPNESS, "preset": "veryfast"})
        stream.pix_fmt = "yuv420p"
        _tell_colours(stream.codec_context)
        for i, frame in enumerate(frames):
            if i == 0:
                stream.height, stream.width = frame.shape[0] // 2 * 2, frame.shape[1] // 2 * 2
            even = np.ascontiguousarray(frame[: stream.height, : stream.width])
            shown = av.VideoFrame.from_ndarray(even, format="bgr24")
            file.mux(stream.encode(shown.reformat(format="yuv420p", dst_colorspace=Colorspace.ITU709)))
        file.mux(stream.encode(None))


def _tell_colours(codec: VideoCodecContext) -> None:
    """Set the stream's colour tags: sRGB primaries and curve, BT.709 luma and chroma, limited range."""
    codec.color_primaries, codec.color_trc, codec.colorspace, codec.color_range = BT709, SRGB_CURVE, BT709, LIMITED


def _write_stills(path: Path, frames: Iterator[Frame], ending: str) -> None:
    pictures = (Image.fromarray(cv2.cvtColor(frame, cv2.COLOR_BGR2RGB)) for frame in frames)
    each = round(1000 / FRAMES_A_SECOND[ending])
    if ending == ".webp":
        first = next(pictures)
        first.save(path, "WEBP", save_all=True, append_images=pictures, duration=each, loop=0, quality=WEBP_QUALITY, method=0)
        return
    shown = list(pictures)
    some = shown[:: max(1, len(shown) // PALETTE_FRAMES)]
    strip = Image.new("RGB", (some[0].width // 4, some[0].height // 4 * len(some)))
    for i, picture in enumerate(some):
        strip.paste(picture.resize((some[0].width // 4, some[0].height // 4)), (0, i * (some[0].height // 4)))
    palette = strip.quantize(256, method=Image.Quantize.MEDIANCUT)  # one for all frames, so that nothing flickers
    flat = [picture.quantize(palette=palette, dither=Image.Dither.FLOYDSTEINBERG) for picture in shown]
    flat[0].save(path, "GIF", save_all=True, append_images=flat[1:], duration=each, loop=0, optimize=False)
