"""How the panels of a blank are sewn, and what each shows of another's design."""
