"""How the panels of a blank are sewn together, and how a design continues from one panel to the next."""
