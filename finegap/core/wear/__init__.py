"""How fast parts wear, how long they last, and what to order."""
