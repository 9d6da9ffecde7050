"""The command itself, and how every part of it answers and fails."""

from __future__ import annotations

import json
import sys
from typing import Any

import click

from .. import __version__
from ..core.errors import ImprovaError

as_json_option = click.option("--json", "as_json", is_flag=True, help="Machine-readable.")


class Contract(click.Group):
    """Errors of ours become one line on standard error and exit 2, like click's own usage errors."""

    def invoke(self, context: click.Context) -> Any:
        """Run a command."""
        try:
            return super().invoke(context)
        except ImprovaError as problem:
            click.echo(f"improva: {problem}", err=True)
            context.exit(2)
        except BrokenPipeError:
            sys.stderr.close()
            context.exit(1)


@click.group(cls=Contract)
@click.version_option(__version__, prog_name="improva")
def main() -> None:
    """Print files that are right and pictures that are believed."""


def tell(data: Any, as_json: bool, lines: list[str]) -> None:
    """Answer as JSON, or as lines to read."""
    click.echo(json.dumps(data, ensure_ascii=False, indent=2) if as_json else "\n".join(lines))
