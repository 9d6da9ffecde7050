"""The use cases of Improva: load what is stored, call the core, store the results. No web, no command line."""
