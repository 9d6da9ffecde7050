"""Draws the demo's artworks as SVG: the shop of the Summit Line, an invented mountain railway."""
