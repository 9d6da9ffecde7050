"""Where scene packs are baked. Authoring only: needs the ``studio`` extra, never imported by Improva."""
