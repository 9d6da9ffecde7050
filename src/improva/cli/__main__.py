"""``python -m improva.cli``."""

from . import main

main()
