"""Which gap, and how to set it: the table, heat, and one file per means."""
