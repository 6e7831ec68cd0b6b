"""Pages of the pumps: what each is, what was done to it, what falls due."""
