"""Improva: from artwork and a blank to a print file that is right and pictures that are believed."""

__version__ = "0.2.0"
