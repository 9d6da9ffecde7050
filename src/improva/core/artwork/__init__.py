"""Reading artwork: what a file is, and its pixels in sRGB."""
