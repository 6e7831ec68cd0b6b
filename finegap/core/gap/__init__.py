"""Which gap, and how to set it: the specification table, heat, slip, and the sums of each means."""
