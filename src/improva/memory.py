"""Return memory to the system: glibc would otherwise keep, for each thread, what large pictures once needed."""

from __future__ import annotations

import ctypes

import pyvips

# mallopt(3): parameters and their numbers are those of glibc's malloc.h
M_TRIM_THRESHOLD, M_MMAP_THRESHOLD, M_ARENA_MAX = -1, -3, -8
LARGE_BYTES = 4 << 20
"""Blocks of at least this size are returned to the system as soon as they are freed."""

VIPS_CACHE_BYTES = 32 << 20
"""Size of libvips's own cache: small, because results worth keeping are in our caches."""


def give_back() -> bool:
    """Configure the allocator to return freed memory; False without glibc."""
    pyvips.cache_set_max_mem(VIPS_CACHE_BYTES)
    try:
        mallopt = ctypes.CDLL(None).mallopt
    except (OSError, AttributeError):
        return False
    limits = ((M_MMAP_THRESHOLD, LARGE_BYTES), (M_TRIM_THRESHOLD, 16 * LARGE_BYTES), (M_ARENA_MAX, 2))
    accepted = [mallopt(name, value) for name, value in limits]
    return all(accepted)
