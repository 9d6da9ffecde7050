"""Work that is worth keeping warm or queueing: decoded artwork, ready views, made files."""
