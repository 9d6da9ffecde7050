"""``improva serve``: run the web application."""

from __future__ import annotations

import ipaddress
import sys
from pathlib import Path

import click

from ..app.access import LEAST_LENGTH, Password, PasswordError
from .group import main

EVERY_ADDRESS = ("0.0.0.0", "::", "")


def _is_loopback(host: str) -> bool:
    """Return whether a host name or address is reached from this computer alone."""
    try:
        return ipaddress.ip_address(host).is_loopback
    except ValueError:
        return host == "localhost"


def _names_of(host: str, allowed: tuple[str, ...]) -> tuple[str, ...]:
    """Return the host names that requests may carry.

    Raises:
        click.UsageError: the server listens at every address, and none is named.
    """
    if host in EVERY_ADDRESS:
        if not allowed:
            raise click.UsageError(f"With --host {host}, name each address at which the board is opened: --allow-host NAME.")
        return allowed
    return (*allowed, f"[{host}]" if ":" in host else host)


def _set_password(password: Password, file: Path | None) -> None:
    """Set the password from a file, or ask for it where none is set yet. Raises :class:`PasswordError`."""
    if file is not None:
        try:
            lines = file.read_text(encoding="utf-8").splitlines()
        except (OSError, UnicodeDecodeError) as broken:
            raise PasswordError(f"The password cannot be read from '{file}': {broken}.") from broken
        password.set(lines[0] if lines else "")
    elif not password.is_set:
        if not sys.stdin.isatty():
            raise PasswordError(
                "Other computers would reach this board without a login: set a password by --password-file FILE, "
                "or start it in a terminal, which asks for one."
            )
        click.echo(f"Other computers will reach this board. Choose a password of at least {LEAST_LENGTH} characters.")
        password.set(click.prompt("Password", hide_input=True, confirmation_prompt=True))


@main.command()
@click.option(
    "--host", default="127.0.0.1", show_default=True, help="Address to listen at. Beyond this computer, users log in."
)
@click.option("--port", default=8000, show_default=True)
@click.option("--data", "data", type=click.Path(path_type=Path, file_okay=False), default=Path("data"), show_default=True)
@click.option("--allow-host", "allowed", multiple=True, help="A name or address under which the board is opened. Repeatable.")
@click.option(
    "--password-file",
    type=click.Path(path_type=Path, dir_okay=False, exists=True),
    help="Set the password from a file's first line; users log in.",
)
@click.option("--demo", is_flag=True, help="Lay out the demo range on an empty board.")
@click.option("--reload", is_flag=True, help="Start again whenever the code changes; for developers.")
def serve(
    host: str, port: int, data: Path, allowed: tuple[str, ...], password_file: Path | None, demo: bool, reload: bool
) -> None:
    """Serve the web application for a data folder."""
    from ..web.security import Access
    from ..web.server import serve as run

    names = _names_of(host, allowed)
    login = password_file is not None or not all(_is_loopback(name.strip("[]")) for name in names)
    if login:
        _set_password(Password(data), password_file)
    run(host, port, data, Access(names, login), demo, reload)
