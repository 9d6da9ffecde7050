"""Everything that reads or writes a file format: print files, scene packs, films, listing packs, ranges."""
