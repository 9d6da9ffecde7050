"""Broken files made of valid ones: the usual mutations of fuzzers, and some that aim at lengths, nesting and numbers."""

from __future__ import annotations

import random
import struct
from collections.abc import Callable

Mutation = Callable[[bytes, random.Random], bytes]

NUMBERS = [0, 1, 2, 127, 128, 255, 256, 32767, 32768, 65535, 65536, 2**24, 2**31 - 1, 2**31, 2**32 - 1, 2**63 - 1, 2**64 - 1]
TOKENS = [
    b"\0", b"\xff" * 4, b"\x1b[2J", b"<svg>", b"<!ENTITY a '&a;&a;'>", b"../../../../etc/passwd", b"[" * 500, b"{" * 500, b"(" * 500,
    b"1e999", b"-1", b"nan", b"inf", b"9" * 400, b'"', b"'", b"\n" * 40, b"\xef\xbb\xbf", "\u202e".encode(), b"=cmd()", b"%n%s",
    b"\x89PNG\r\n\x1a\n", b"II*\0", b"PK\x03\x04", b"%PDF-1.7", b"RIFF", b"url(#f)", b"filter", b"IDAT", b"IEND", b"\xff\xd8", b"\xff\xda",
]  # fmt: skip


def _flip(data: bytes, rng: random.Random) -> bytes:
    out = bytearray(data)
    for _ in range(rng.choice((1, 1, 2, 8, 40))):
        out[rng.randrange(len(out))] ^= 1 << rng.randrange(8)
    return bytes(out)


def _number(data: bytes, rng: random.Random) -> bytes:
    """Put a special number over some bytes: lengths and sizes are what decoders trust."""
    form = rng.choice(("<H", ">H", "<I", ">I", "<Q", ">Q"))
    size = struct.calcsize(form)
    value = rng.choice(NUMBERS) % (1 << 8 * size)
    at = rng.randrange(min(len(data), rng.choice((64, 512, len(data)))))
    return data[:at] + struct.pack(form, value) + data[at + size :]


def _cut(data: bytes, rng: random.Random) -> bytes:
    return data[: rng.randrange(len(data) + 1)]


def _drop(data: bytes, rng: random.Random) -> bytes:
    at, length = rng.randrange(len(data)), rng.randrange(1, 2 + len(data) // 2)
    return data[:at] + data[at + length :]


def _repeat(data: bytes, rng: random.Random) -> bytes:
    at, length = rng.randrange(len(data)), rng.randrange(1, 2 + min(len(data), 4000))
    return data[:at] + data[at : at + length] * rng.choice((2, 3, 20, 200)) + data[at:]


def _insert(data: bytes, rng: random.Random) -> bytes:
    at = rng.randrange(len(data) + 1)
    return data[:at] + rng.choice(TOKENS) * rng.choice((1, 1, 3, 50)) + data[at:]


def _digits(data: bytes, rng: random.Random) -> bytes:
    """Replace a number in a text."""
    places = [i for i, byte in enumerate(data[:20_000]) if 48 <= byte <= 57]
    if not places:
        return _insert(data, rng)
    at = rng.choice(places)
    return data[:at] + rng.choice((b"0", b"-1", b"1e308", b"99999999999", b"0.0000001", b"nan", b"1" * 5000)) + data[at + 1 :]


MUTATIONS: tuple[Mutation, ...] = (_flip, _number, _number, _cut, _drop, _repeat, _insert, _digits)


def mutated(seeds: list[bytes], rng: random.Random) -> bytes:
    """Return a broken file: one to four mutations of a seed, or the parts of two."""
    data = rng.choice(seeds)
    if rng.random() < 0.1:
        other = rng.choice(seeds)
        data = data[: rng.randrange(len(data) + 1)] + other[rng.randrange(len(other) + 1) :]
    for _ in range(rng.choice((1, 1, 1, 2, 4))):
        data = rng.choice(MUTATIONS)(data, rng) if data else b"\0"
    return data[:20_000_000]
