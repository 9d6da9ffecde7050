"""Pictures of a printed blank: light baked once, any art laid in it."""
