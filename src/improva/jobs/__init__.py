"""Jobs: long work for workers on this or other machines. No Flask, no web."""
