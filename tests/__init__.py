"""Django's test runner finds the parts: core (no database), apps, browser. References come from outside the project.

Property tests draw the same examples every time, so that a run says the same of the same code. `make fuzz` draws new ones.
"""

import os

from hypothesis import settings

settings.register_profile("repeatable", deadline=None, derandomize=True)
settings.register_profile("fuzz", deadline=None, max_examples=1000)
settings.load_profile("fuzz" if os.environ.get("FINEGAP_FUZZ") else "repeatable")
