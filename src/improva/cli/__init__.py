"""The command line, a module for each command. Options and JSON keys are a contract: see docs/command-line.md."""

from . import (
    backup,
    batch,
    bench,
    check,
    measure,
    mockup,
    prepare,
    press,
    price,
    print_file,
    scenes,
    serve,
    templates,
    turntable,
    worker,
)
from .group import main

__all__ = [
    "backup",
    "batch",
    "bench",
    "check",
    "main",
    "measure",
    "mockup",
    "prepare",
    "press",
    "price",
    "print_file",
    "scenes",
    "serve",
    "templates",
    "turntable",
    "worker",
]
