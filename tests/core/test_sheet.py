"""A spec sheet read from plain values: units may be mixed, and a sheet means the same in either."""

import copy
import math
import unittest

from hypothesis import given, settings
from hypothesis import strategies as st

from finegap.core.errors import FieldError
from finegap.core.gap.housing import ThreadHand, Zero
from finegap.core.means.gaskets import GasketMeans
from finegap.core.means.housing import HousingMeans
from finegap.core.quantities import from_internal, parse
from finegap.core.sheet import read_sheet
from finegap.core.units import Dimension
from tests.apps.base import GASKETS, HOUSING, sheet_data

LENGTH_KEYS = {"new", "minimum", "maximum", "end_clearance", "minus", "plus", "thrust_to_head"}


def in_inches(value, key=""):
    """The same sheet with every length written in inches, to the last digit."""
    if isinstance(value, dict):
        return {k: in_inches(v, k) for k, v in value.items()}
    if isinstance(value, list):
        return [in_inches(v, key) for v in value]
    if key in LENGTH_KEYS and isinstance(value, str):
        mm = parse(value, Dimension.LENGTH, key).value
        return f"{from_internal(mm, Dimension.LENGTH, 'in'):.15f} in"
    return value


class BothUnits(unittest.TestCase):
    @given(
        st.floats(20, 60),
        st.floats(0.001, 0.05),
        st.floats(0.06, 0.4),
        st.floats(0.04, 0.5),
    )
    @settings(max_examples=40)
    def test_millimetres_and_inches_make_the_same_sheet(self, size, spread, wear, clearance):
        data = copy.deepcopy(sheet_data())
        data["features"]["idler_bore"] = {
            "new": [f"{size:.6f} mm", f"{size + spread:.6f} mm"],
            "maximum": f"{size + spread + wear:.6f} mm",
        }
        data["clearance_table"]["rows"][0]["end_clearance"] = f"{clearance:.6f} mm"
        metric, imperial = read_sheet(data), read_sheet(in_inches(data))
        for key, spec in metric.features.items():
            for ours, theirs in zip(spec.new_mm, imperial.features[key].new_mm, strict=True):
                self.assertTrue(math.isclose(ours, theirs, abs_tol=1e-9))
            if spec.limit:
                self.assertAlmostEqual(spec.limit.margin(size), imperial.features[key].limit.margin(size), 9)
        for ours, theirs in zip(metric.rows, imperial.rows, strict=True):
            self.assertAlmostEqual(ours.clearance_mm, theirs.clearance_mm, 9)

    def test_rows_in_saybolt_seconds_and_fahrenheit(self):
        data = sheet_data()
        data["clearance_table"]["rows"][0] |= {"viscosity": ["any lower", "463.46256 SSU"], "temperature": ["-4 F", "248 F"]}
        row = read_sheet(data).rows[0]
        # ASTM D2161 through chemicals (viscosity-scale-01): 100 mm2/s is 463.46 SSU at 100 F
        self.assertAlmostEqual(row.viscosity_mm2_s.high, 100, 4)
        self.assertAlmostEqual(row.temperature_c.low, -20, 9)
        self.assertAlmostEqual(row.temperature_c.high, 120, 9)


class Means(unittest.TestCase):
    def test_a_housing_with_all_it_may_say(self):
        said = HOUSING | {"thread": "left", "zero": "back off", "lash": "0.02 mm"}
        means = read_sheet(sheet_data(adjustment=said)).means
        self.assertIsInstance(means, HousingMeans)
        self.assertEqual((means.housing.hand, means.zero, means.lash_mm), (ThreadHand.LEFT, Zero.BACK_OFF, 0.02))
        # pi * 100 / 2 mm of arc a millimetre is 1.5708 a hundredth; the sheet says 1.57
        self.assertTrue(means.check.agrees)
        wrong = read_sheet(sheet_data(adjustment=HOUSING | {"arc": "1.75 mm"})).means
        self.assertFalse(wrong.check.agrees)
        self.assertAlmostEqual(wrong.check.ratio, 1.75 / (math.pi * 100 / 2 * 0.01))

    def test_gaskets_are_whole_micrometres(self):
        means = read_sheet(sheet_data(adjustment=GASKETS | {"thicknesses": ["0.002 in", "5 thou", "0.25 mm"]})).means
        self.assertIsInstance(means, GasketMeans)
        self.assertEqual(means.sold_um, (51, 127, 250))

    def test_expansion_by_name_or_by_number(self):
        named = read_sheet(sheet_data()).heat
        given_ = read_sheet(sheet_data(heat={"thrust_to_head": "150 mm", "casing": 11.7, "rotor": 4.5})).heat
        self.assertEqual((named.casing.expansion.bounds(100), given_.rotor.expansion.bounds(100)), ((10.8, 11.7), (4.5, 4.5)))
        data = sheet_data()
        del data["heat"]
        self.assertIsNone(read_sheet(data).heat)

    def test_a_feature_the_manual_does_not_print_has_no_size(self):
        data = sheet_data()
        data["features"] = {k: v for k, v in data["features"].items() if k != "idler_pin"}
        spec = read_sheet(data).spec("idler_pin")
        self.assertEqual((spec.limit, spec.new_mm), (None, None))
        data["features"]["bearings"] = {"new": ["1 mm", "2 mm"]}
        with self.assertRaisesRegex(FieldError, "looked at, not measured"):
            read_sheet(data)

    def test_a_limit_finer_than_hundredths_is_shown_so(self):
        sheet = read_sheet(sheet_data())
        self.assertFalse(sheet.features["idler_bore"].fine)
        data = sheet_data()
        data["features"] = data["features"] | {"idler_bore": {"new": ["30.020 mm", "30.04 mm"], "maximum": "30.15 mm"}}
        self.assertTrue(read_sheet(data).features["idler_bore"].fine)
