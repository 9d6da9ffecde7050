"""The path tracer and the denoiser, both from PyPI: Mitsuba 3 and Open Image Denoise."""

from __future__ import annotations

import os
from pathlib import Path
from typing import Any

import numpy as np
from numpy.typing import NDArray

LLVM = Path("/usr/lib/x86_64-linux-gnu/libLLVM.so.19.1")
MAX_SAMPLES_A_WAVE = 12_000_000  # keeps one kernel launch under some 6 GB
MAX_DEPTH = 8
FRAME = 32

Image = NDArray[np.float32]


def mitsuba() -> Any:
    """Mitsuba with its fast variant where Debian's libllvm19 is installed, else its portable one."""
    if LLVM.exists():
        os.environ.setdefault("DRJIT_LIBLLVM_PATH", str(LLVM))
    import mitsuba as mi

    if mi.variant() is None:
        mi.set_variant("llvm_ad_rgb" if LLVM.exists() else "scalar_rgb")
    return mi


mitsuba()  # its transforms exist only once a variant is set


def render(described: dict[str, Any], samples: int, window: tuple[int, int, int, int] | None = None, seed: int = 0) -> Image:
    """Path-trace a scene to linear RGB with albedo and normal guides: (h, w, 9) float32, not denoised.

    ``window`` (x, y, w, h) in px traces only that part of the frame.
    """
    mi = mitsuba()
    film = described["sensor"]["film"]
    if window is not None:
        for key, value in zip(("crop_offset_x", "crop_offset_y", "crop_width", "crop_height"), window, strict=True):
            film[key] = value
    w, h = (window[2], window[3]) if window else (film["width"], film["height"])
    loaded = mi.load_dict(described)
    paths = mi.load_dict({"type": "path", "max_depth": MAX_DEPTH})
    # traced by itself: within an integrator of guides, every path would be traced twice
    guides = mi.load_dict({"type": "aov", "aovs": "albedo:albedo,normal:sh_normal"})
    wave = max(1, min(samples, MAX_SAMPLES_A_WAVE // (w * h)))
    total = np.zeros((h, w, 9), np.float64)
    done = 0
    while done < samples:
        now = min(wave, samples - done)
        for place, integrator in ((slice(0, 3), paths), (slice(3, 9), guides)):
            part = np.array(mi.render(loaded, integrator=integrator, spp=now, seed=seed + done))
            total[..., place] += part[..., : place.stop - place.start] * now
        done += now
    return (total / samples).astype(np.float32)


def denoised(colour: Image, guides: Image) -> Image:
    """Remove the noise of a (h, w, 3) linear image with the guides of :func:`render`."""
    from pyoidn import denoise

    def framed(plane: Image) -> Image:
        # the network sees black beyond the picture, and darkens its edges: it is given a frame of what mirrors them
        pad = min(FRAME, *(side - 1 for side in plane.shape[:2]))
        return np.ascontiguousarray(np.pad(plane, ((pad, pad), (pad, pad), (0, 0)), mode="reflect"))

    albedo, normal = np.clip(guides[..., 3:6], 0, 1), np.clip(guides[..., 6:9], -1, 1)
    clean = np.asarray(denoise(framed(np.maximum(colour, 0)), framed(albedo), framed(normal), hdr=True), np.float32)
    pad = (clean.shape[0] - colour.shape[0]) // 2
    return np.ascontiguousarray(clean[pad : pad + colour.shape[0], pad : pad + colour.shape[1]])
