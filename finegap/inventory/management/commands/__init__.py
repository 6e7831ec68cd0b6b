"""Commands of the toolbox."""
