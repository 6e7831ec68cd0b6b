"""A piece of what ``tools/soak.py requests`` sends; not found by the test runner by itself."""

import json
import os

from tests.apps.test_generated import MadeUp


class Soaked(MadeUp):
    def test_a_piece(self):
        sent, _, faults = self.send(os.environ["SOAK_ROLE"], int(os.environ["SOAK_EACH"]), int(os.environ["SOAK_ROUND"]))
        print(f"SOAKED {json.dumps([sent, faults])}", flush=True)
