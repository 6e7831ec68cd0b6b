"""A spec sheet as it is typed from a printed manual: what is asked, how each cell is read, and what comes out."""
