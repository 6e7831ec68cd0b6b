"""Putting a pump together: fits, stacks, packing, elastomers, torque, grease. Each module one sum or one rule of the work."""
