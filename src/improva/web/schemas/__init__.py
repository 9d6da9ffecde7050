"""What requests send (In) and what is answered (Out), a module for each resource."""
