"""Which gauge is offered: facts of the trade (common practice, no source), against going through every gauge."""

import unittest

from hypothesis import given
from hypothesis import strategies as st

from finegap.core.families.model import FeatureKind
from finegap.core.gauges import Choice, GaugeKind, pick

CABINET = st.lists(
    st.builds(
        Choice,
        tag=st.uuids().map(str),
        kind=st.sampled_from(GaugeKind),
        low_mm=st.sampled_from([0, 25, 50]),
        high_mm=st.sampled_from([50, 75, 150]),
        expanded_mm=st.floats(0.001, 0.1),
        overdue=st.booleans(),
    ),
    max_size=8,
)


class Picking(unittest.TestCase):
    def test_a_bore_is_not_measured_with_an_outside_micrometer(self):
        self.assertFalse(GaugeKind.OUTSIDE.suits(FeatureKind.INTERNAL))
        self.assertFalse(GaugeKind.BORE.suits(FeatureKind.EXTERNAL))
        self.assertTrue(all(GaugeKind.CALIPER.suits(k) for k in (FeatureKind.INTERNAL, FeatureKind.EXTERNAL)))
        self.assertTrue(GaugeKind.FEELER.suits(FeatureKind.GAP))
        self.assertFalse(any(kind.suits(FeatureKind.PAIR) for kind in GaugeKind))

    @given(CABINET, st.sampled_from(FeatureKind), st.floats(1, 150))
    def test_the_one_offered_can_do_it_and_no_better_one_could(self, cabinet, feature, size):
        able = [g for g in cabinet if g.kind.suits(feature) and g.low_mm <= size <= g.high_mm and not g.overdue]
        offered = pick(cabinet, feature, (size, size))
        if not able:
            self.assertEqual(offered, "")
            return
        chosen = next(g for g in able if g.tag == offered)
        self.assertTrue(all(chosen.expanded_mm <= g.expanded_mm for g in able))
