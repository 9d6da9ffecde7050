"""``improva bench``: this project's own work against bare libraries, in one run, as ratios."""
