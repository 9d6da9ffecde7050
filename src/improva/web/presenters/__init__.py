"""What the application knows, turned into answers: a module for each resource."""
