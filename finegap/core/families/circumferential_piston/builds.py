"""Names for builds of a circumferential piston pump, as its steps, stacks and features use them."""

OVERHAUL, ROTORS, CHECK = "overhaul", "rotors", "check"
FLUID_END = (OVERHAUL, ROTORS)
"""Scopes that take the fluid end off; the gear case stays shut in the second."""
