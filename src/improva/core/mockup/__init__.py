"""Mock-ups: pictures of a printed blank, from light that was baked once."""
