"""The page's server: parse a request, load from the store, let the core compute, answer."""
