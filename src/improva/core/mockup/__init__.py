"""Mock-ups: realistic pictures of a printed blank, computed from prebaked light."""
