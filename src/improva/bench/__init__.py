"""``improva bench``: this project against bare libraries, in one run, as ratios."""
