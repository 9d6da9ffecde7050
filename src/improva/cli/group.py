"""The command group: common output and error handling of all commands."""

from __future__ import annotations

import json
import sys
from typing import Any

import click

from .. import __version__
from ..core.errors import ImprovaError

as_json_option = click.option("--json", "as_json", is_flag=True, help="Machine-readable.")


class Contract(click.Group):
    """Improva's errors become one line on standard error and exit code 2, like click's own usage errors."""

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
    """Print an answer as JSON, or as readable lines."""
    click.echo(json.dumps(data, ensure_ascii=False, indent=2) if as_json else "\n".join(lines))
