"""How every pump stands and what falls due, worked out from the records and kept beside them, so that lists need not work it out.

All of it can be thrown away: it is made anew from the records. What changes in them marks the pump as stale (``due.stale``).
"""
