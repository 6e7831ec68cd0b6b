"""Every number of every table in the core, against where it comes from.

Numbers that an independent library or a reference file checks elsewhere are not said again here: units (pint), loads of
discs. “From memory” was not compared with print. Places in drawings and pictures are looked at instead.
"""

import importlib
import math
import unittest
from collections.abc import Mapping
from dataclasses import fields, is_dataclass
from enum import Enum
from fractions import Fraction

from finegap.core.assembly.elastomers import ELASTOMERS, MEDIA
from finegap.core.calculators import CALCULATORS
from finegap.core.entry import FIELDS
from finegap.core.families import FAMILIES
from finegap.core.materials import MATERIALS

INF = math.inf
TABLES = {
    "ISO 286-1:2010, tables of grades and deviations (from memory; pressfit agrees where it has them)": {
        "assembly.fits._STEPS": (3, 6, 10, 18, 30, 50, 80, 120, 180, 250, 315, 400, 500),
        "assembly.fits._GRADES": {
            5: (4, 5, 6, 8, 9, 11, 13, 15, 18, 20, 23, 25, 27),
            6: (6, 8, 9, 11, 13, 16, 19, 22, 25, 29, 32, 36, 40),
            7: (10, 12, 15, 18, 21, 25, 30, 35, 40, 46, 52, 57, 63),
            8: (14, 18, 22, 27, 33, 39, 46, 54, 63, 72, 81, 89, 97),
            9: (25, 30, 36, 43, 52, 62, 74, 87, 100, 115, 130, 140, 155),
            10: (40, 48, 58, 70, 84, 100, 120, 140, 160, 185, 210, 230, 250),
            11: (60, 75, 90, 110, 130, 160, 190, 220, 250, 290, 320, 360, 400),
        },
        "assembly.fits._DELTA_TO": {"k": 8, "m": 8, "n": 8},
        "assembly.fits._DELTA_ELSE": 7,
        "assembly.fits._ODD_HOLES": {("m", 6): (250, 315, -9)},
        "assembly.fits._UPPER": {
            "d": (-20, -30, -40, -50, -65, -80, -100, -120, -145, -170, -190, -210, -230),
            "e": (-14, -20, -25, -32, -40, -50, -60, -72, -85, -100, -110, -125, -135),
            "f": (-6, -10, -13, -16, -20, -25, -30, -36, -43, -50, -56, -62, -68),
            "g": (-2, -4, -5, -6, -7, -9, -10, -12, -14, -15, -17, -18, -20),
            "h": (0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0),
        },
        "assembly.fits._LOWER": {
            "k": (0, 1, 1, 1, 2, 2, 2, 3, 3, 4, 4, 4, 5),
            "m": (2, 4, 6, 7, 8, 9, 11, 13, 15, 17, 20, 21, 23),
            "n": (4, 8, 10, 12, 15, 17, 20, 23, 27, 31, 34, 37, 40),
            "p": (6, 12, 15, 18, 22, 26, 32, 37, 43, 50, 56, 62, 68),
        },
        "assembly.fits._FINE_STEPS": (
            3,
            6,
            10,
            14,
            18,
            24,
            30,
            40,
            50,
            65,
            80,
            100,
            120,
            140,
            160,
            180,
            200,
            225,
            250,
            280,
            315,
            355,
            400,
            450,
            500,
        ),
        "assembly.fits._FINE_LOWER": {
            "r": (10, 15, 19, 23, 23, 28, 28, 34, 34, 41, 43, 51, 54, 63, 65, 68, 77, 80, 84, 94, 98, 108, 114, 126, 132),
            "s": (14, 19, 23, 28, 28, 35, 35, 43, 43, 53, 59, 71, 79, 92, 100, 108, 122, 130, 140, 158, 170, 190, 208, 232, 252),
            "u": (
                18,
                23,
                28,
                33,
                33,
                41,
                48,
                60,
                70,
                87,
                102,
                124,
                144,
                170,
                190,
                210,
                236,
                258,
                284,
                315,
                350,
                390,
                435,
                490,
                540,
            ),
        },
        "assembly.fits._K_GRADES": (5, 6, 7),
    },
    "ISO 3448:1992, table 1 (from memory; iso-vg-01 of the reference file)": {
        "gap.viscosity.GRADES": {
            10: 10.0,
            15: 15.0,
            22: 22.0,
            32: 32.0,
            46: 46.0,
            68: 68.0,
            100: 100.0,
            150: 150.0,
            220: 220.0,
            320: 320.0,
            460: 460.0,
            680: 680.0,
            1000: 1000.0,
            1500: 1500.0,
            2200: 2200.0,
            3200: 3200.0,
            2: 2.2,
            3: 3.2,
            5: 4.6,
            7: 6.8,
        },
        "gap.viscosity.GRADE_C": 40.0,
    },
    "ISO 261, coarse series (from memory; bolt-01 of the reference file has M6 to M36)": {
        "assembly.torque.COARSE_MM": {
            4: 0.7,
            5: 0.8,
            6: 1.0,
            8: 1.25,
            10: 1.5,
            12: 1.75,
            14: 2.0,
            16: 2.0,
            18: 2.5,
            20: 2.5,
            22: 2.5,
            24: 3.0,
            27: 3.0,
            30: 3.5,
            33: 3.5,
            36: 4.0,
        },
    },
    "ISO 898-1:2013, table 3, stress under proof load (from memory)": {
        "assembly.thread_load.PROOF_MPA": {
            "4.6": ((INF, 225.0),),
            "4.8": ((INF, 310.0),),
            "5.6": ((INF, 280.0),),
            "5.8": ((INF, 380.0),),
            "6.8": ((INF, 440.0),),
            "8.8": ((16.0, 580.0), (INF, 600.0)),
            "9.8": ((16.0, 650.0),),
            "10.9": ((INF, 830.0),),
            "12.9": ((INF, 970.0),),
        },
        "assembly.thread_load._LEAST_MM": 3.0,
        "assembly.thread_load._MOST_MM": 39.0,
    },
    "EN 10088-1 and handbooks, modulus of steel (from memory)": {"gap.bend.STEEL_MPA": 206_000.0, "gap.bend._BAR_MPA": 0.1},
    "VDI 2230-1, table A5, friction classes (from memory)": {
        "assembly.torque.FRICTION": {"dry": (0.14, 0.24), "oiled": (0.1, 0.16), "anti-seize": (0.06, 0.12)},
    },
    "ISO 68-1: flanks of 60 degrees; hexagon heads of ISO 4014, common practice": {
        "assembly.torque._COS_FLANK": 0.8660254037844387,
        "assembly.torque._HEAD_MEAN": 1.27,
    },
    "ISO 3601-2 and handbooks (from memory)": {
        "assembly.oring.MOST_FILL": 85.0,
        "assembly.oring.SQUEEZE": {"static": (15.0, 30.0), "moving": (8.0, 20.0)},
        "assembly.oring._STRETCH": ((13.5, 8.0), (39.5, 6.0), (99.0, 5.0), (135.0, 4.0), (INF, 3.0)),
        "assembly.oring._STRONG_SQUEEZE": 40.0,
    },
    "temperatures: common practice, no source; ratings: each row's own source": {
        "assembly.elastomers.ELASTOMERS": {
            "NBR": (-30, 100),
            "HNBR": (-25, 150),
            "FKM": (-15, 200),
            "FFKM": (-10, 260),
            "EPDM": (-45, 130),
            "VMQ": (-55, 200),
            "CR": (-35, 100),
            "PTFE": (-150, 230),
            "PTFE-encapsulated": (-20, 200),
        },
        "assembly.elastomers.MEDIA": {
            "mineral oil": ({"NBR": "+", "HNBR": "+", "FKM": "+", "EPDM": "-", "VMQ": "o", "CR": "o"}, None),
            "mineral grease": ({"NBR": "+", "HNBR": "+", "FKM": "+", "EPDM": "-", "VMQ": "o", "CR": "o"}, None),
            "white oil": ({"NBR": "+", "HNBR": "+", "FKM": "+", "EPDM": "-", "VMQ": "o", "CR": "o"}, None),
            "silicone": ({"NBR": "+", "HNBR": "+", "FKM": "+", "EPDM": "+", "VMQ": "-", "CR": "+"}, None),
            "soap": ({"NBR": "+", "HNBR": "+", "FKM": "+", "EPDM": "+", "VMQ": "+", "CR": "o"}, None),
            "glycerine": ({"NBR": "+", "HNBR": "+", "FKM": "+", "EPDM": "+", "VMQ": "+", "CR": "+"}, None),
            "fat": ({"NBR": "+", "HNBR": "+", "FKM": "+", "EPDM": "-", "VMQ": "o", "CR": "o"}, None),
            "fatty acid": ({"NBR": "o", "HNBR": "o", "FKM": "+", "EPDM": "-", "VMQ": "o", "CR": "-"}, None),
            "sugar": ({"NBR": "+", "HNBR": "+", "FKM": "+", "EPDM": "+", "VMQ": "+", "CR": "+"}, None),
            "water": ({"NBR": "+", "HNBR": "+", "FKM": "o", "EPDM": "+", "VMQ": "o", "CR": "o"}, 80),
            "steam": ({"NBR": "-", "FKM": "-", "EPDM": "+", "VMQ": "-", "CR": "-"}, None),
            "lye": ({"NBR": "o", "HNBR": "o", "FKM": "-", "EPDM": "+", "VMQ": "o", "CR": "+"}, 60),
            "acid": ({"NBR": "o", "HNBR": "o", "FKM": "+", "EPDM": "+", "VMQ": "o", "CR": "o"}, 60),
            "alcohol": ({"NBR": "o", "HNBR": "o", "FKM": "o", "EPDM": "+", "VMQ": "+", "CR": "+"}, 60),
            "ketone": ({"NBR": "-", "HNBR": "-", "FKM": "-", "EPDM": "+", "VMQ": "o", "CR": "-"}, 40),
            "aromatic": ({"NBR": "-", "HNBR": "-", "FKM": "+", "EPDM": "-", "VMQ": "-", "CR": "-"}, 40),
            "fuel": ({"NBR": "+", "HNBR": "+", "FKM": "+", "EPDM": "-", "VMQ": "-", "CR": "o"}, 60),
            "phosphate ester": ({"NBR": "-", "HNBR": "-", "EPDM": "+", "VMQ": "o", "CR": "-"}, None),
            "bitumen": ({"NBR": "o", "FKM": "+", "EPDM": "-", "VMQ": "-", "CR": "-"}, None),
        },
    },
    "EN 1561, EN 1563, EN 10088-1 and -2, EN 10025-2, EN 10283, EN 1982, handbooks (from memory; thermal-cte-01)": {
        "materials._COLD_C": -20.0,
        "materials.MATERIALS": {
            "cast iron": (((-100, 20, 10.0, 10.8), (20, 200, 10.8, 11.7), (200, 400, 11.7, 13.0)), 110000, 0.26, None),
            "ductile iron": (((-20.0, 400, 11.0, 12.5),), 169000, 0.275, 250),
            "steel": (((-20.0, 100, 11.1, 12.2), (100, 300, 11.1, 12.9)), 206000, 0.3, 235),
            "stainless 316": (((-20.0, 100, 15.9, 16.0), (100, 200, 15.9, 16.5), (200, 300, 16.2, 17.0)), 200000, 0.3, 200),
            "duplex stainless": (((-20.0, 100, 13.0, 13.0), (100, 200, 13.0, 13.5), (200, 300, 13.5, 14.0)), 200000, 0.3, 420),
            "tin bronze": (((-20.0, 200, 17.5, 18.5),), 110000, 0.34, 140),
        },
    },
    "DIN 2092 and 2093 (from memory)": {
        "assembly.disc_spring.STEEL_MPA": 206000.0,
        "assembly.disc_spring.STEEL_POISSON": 0.3,
        "assembly.disc_spring._THICKEST_MM": 6.0,
        "assembly.disc_spring._SURE_SHARE": 0.75,
        "assembly.disc_spring._SNAPS": math.sqrt(2),
    },
    "White, Fluid Mechanics: 96/Re between plates, Blasius to 100,000, sharp edges 0.5 and 1; SI units": {
        "gap.slip.ENTRY_EXIT": 1.5,
        "gap.slip._LAMINAR": 96.0,
        "gap.slip._BLASIUS": 0.3164,
        "gap.slip._BLASIUS_TO": 100000.0,
        "gap.slip._TURNS_AT": 2038.8237201000525,
        "gap.slip._BAR": 100000.0,
        "gap.losses.L_MIN": 60000.0,
    },
    "mineral oil near 40 C, handbooks (from memory); plane Couette flow turns at 1,300 to 1,500": {
        "gap.performance.HEAT_J_KG_K": 1900.0,
        "gap.performance._LAYERS_TO": 1000.0,
        "gap.losses.USUAL_KG_M3": 900.0,
    },
    "ASTM D341 and D2161, the scales' ranges (from memory); 0 C is 273.15 K": {
        "gap.viscosity._LEAST": 0.21,
        "gap.viscosity._MOST": 20000000.0,
        "gap.viscosity._KELVIN": 273.15,
        "measuring.temperature.ABSOLUTE_ZERO_C": -273.15,
        "units.LOWEST": {"TEMPERATURE": -273.15},
        "saybolt._UNIVERSAL_BASE_C": 37.77777777777778,
        "saybolt._UNIVERSAL_LEAST_MM2_S": 1.81,
        "saybolt._FUROL": {
            50.0: ((0.4717, 13924.0, -72.59, 6816.0), 48.0),
            98.88888888888889: ((0.4792, 5610.0, 0.0, 2130.0), 50.0),
        },
    },
    "NIST SP 811, exact: inch, pound-force, US gallon of 231 cubic inches, 0 F": {
        "units._INCH": "127/5",
        "units._GALLON": "473176473/125000000",
        "units._ZERO_F": "-160/9",
    },
    "ISO 1 (20 C); JCGM 100 (95 %); ISO 14253-1:2017 (95 % one-sided)": {
        "measuring.temperature.REFERENCE_C": 20.0,
        "measuring.uncertainty.CONFIDENCE": 0.95,
        "measuring.verdict.PROOF": 0.95,
    },
    "common rule of bearing makers, G = 0.005 D B (from memory); a stroke of a hand gun, common practice": {
        "assembly.grease._G_PER_MM2": 0.005,
        "assembly.grease._LEAST_PER_STROKE_G": 0.05,
        "assembly.grease._MOST_PER_STROKE_G": 20.0,
    },
    "common practice, no source: what is usual, odd, near or careful": {
        "assembly.declared._PRESS_FRICTION": (0.08, 0.16),
        "assembly.press._NEAR_LETTING_GO_K": 25.0,
        "assembly.torque.DEFAULT_PASSES": (0.4, 0.7, 1.0),
        "assembly.torque._MOST_SHARE": 2.0,
        "assembly.tightening._LEAST_SHARE": 0.1,
        "assembly.tightening._MOST_SHARE": 3.0,
        "gap.housing._MOST_LASH_MM": 1.0,
        "gap.gasket_pair.MOST_BOUGHT": 2,
        "gap.stock._THIN_UM": 100,
        "materials._COLDEST_PART_C": -40.0,
        "materials._HOTTEST_PART_C": 200.0,
        "entry.FIELDS": {
            "temperature": (-40, 300),
            "casing": (-40, 300),
            "start": (-40, 150),
            "hot": (-40, 350),
            "pressure": (0, 60),
            "speed": (5, 4000),
            "density": (500, 2000),
            "part": (-10, 120),
            "lash": (0, 1),
            "lash_arc": (0, 60),
            "arc": (0, 300),
            "end_play": (0, 1),
            "flow": (0, 5000),
            "discharge": (0, 60),
            "power": (0, 200),
            "running": (-40, 300),
            "bucket": (0.1, 1000),
            "box": (-20, 150),
            "torque": None,
            "wrench_length": (100, 1500),
            "adapter": (0, 500),
            "angle": (0, 180),
            "thickness": (0.01, 3),
            "ten": (1, 100),
        },
        "entry.VISCOSITY_USUAL": (0.2, 500000.0),
        "job_record.NEW_SHARE": 0.1,
        "gap.housing._AGREEMENT": 0.02,
        "gap.mismatch.LEAST_ODD_MM": 0.02,
        "gap.viscosity.FAR_SHARE": 0.5,
        "gap.viscosity.SAME_K": 0.5,
        "measuring.feeler.MOST_LEAVES": 3,
        "measuring.feeler._MARKED_BOTH_WAYS_UM": 4,
        "measuring.plausible._SIZE_SHARE": 0.25,
        "measuring.plausible._GAP_TIMES": 8.0,
        "settle.MOST_REPEATS": 20,
        "measuring.temperature.PART_HALF_WIDTH_K": 2.0,
        "measuring.temperature.EXPANSION_HALF_SHARE": 0.1,
        "wear.lubrication._TOGETHER_DAYS": 14,
    },
    "common practice, no source: packing is run in, the first hour is watched": {
        "proof.first_hour._FLOW_SHARE": 0.05,
        "proof.first_hour._PRESSURE_SHARE": 0.1,
        "proof.first_hour._LEAST_OVERALL": 0.35,
        "proof.first_hour._BEARING_RISE_K": 40.0,
        "proof.run_in.MOST_EIGHTHS": 1.0,
        "proof.run_in._SLIGHT": 0.5,
        "proof.run_in._STEADY_NOTES": 3,
        "proof.run_in._STEADY_MIN": 20.0,
        "proof.run_in._COOLED_K": 5.0,
        "proof.run_in._RISING_K": 5.0,
        "proof.run_in._NEAR_K": 10.0,
        "proof.run_in._DANGER_K": 15.0,
        "proof.run_in._LEAST_TAPS": 3,
        "proof.run_in._LONGEST_H": 72,
        "proof.run_in._BOX_C": (-60.0, 300.0),
        "tasks.turning.CLOCK": ("1", "2", "3", "4", "5", "6", "7", "8", "9", "10", "11", "12"),
    },
    "a decision of ours: how it is shown, and how far a search goes": {
        "assembly.disc_spring._LOOKS": 200,
        "gap.stack_choice._MOST_BOUGHT": 3,
        "gap.stack_choice._HAIR": 1e-06,
        "gap.stock.THICKEST_UM": 50000,
        "gap.stock.MOST_IN_STACK": 60,
        "gap.gasket_pair.MOST_AN_END": 8,
        "gap.gasket_pair.THICKEST_PAIR_UM": 10000,
        "gap.stock._MOST_THICKNESSES": 60,
        "calculators.means._MOST_OF_ONE": 999,
        "calculators.means._WIDEST_MM": 1.0,
        "calculators.means._ALIKE_MM": 0.05,
        "calculators.means._K_OF_GAUGES": 2,
        "gap.heat._LOOKS": 200,
        "gap.heat._SETTLED": 12.0,
        "gap.leaves._HAIR": 1e-06,
        "gap.map._MARGIN_DECADES": 0.4,
        "gap.map._MARGIN_K": 15.0,
        "gap.map._THINNEST_MM2_S": 0.3,
        "gap.map._STEPS_K": (10, 20, 50, 100, 200),
        "gap.map._MOST_TICKS": 8,
        "means.base.SHARES": (1.0, 0.5, 0.0),
        "gap.performance._WIDEST": 10.0,
        "gap.tries._ON_THE_EDGE_MM": 1e-06,
        "gap.shims._MOST_BOUGHT": 2,
        "gap.slip._ROUND": 72,
        "gap.duty_range._DRAWN_K": 5.0,
        "gap.tape.STEP_MM": {"MM": 0.01, "IN": 0.0254, "THOU": 0.0254},
        "gap.tape._LABEL_EVERY": 5,
        "gap.tape._LEAST_MARKS": 10,
        "gap.tape._BEYOND": 1.3,
        "gap.tape._CLOSEST_MM": 0.5,
        "inspection.NOTHING": (0, 0),
        "paste.MOST_ROWS": 400,
        "measuring.readings._FINE_STEP_MM": 0.01,
        "procedure._LONGEST": 400,
        "procedure._MOST_STEPS": 200,
        "quantities._LONGEST": 40,
        "quantities._MOST_HOURS": 9999999,
        "ready._TOLD": 3,
        "sequence._TOLD": 2,
        "formatting._BEYOND_MEASURE": 1000000000.0,
        "formatting._DIGITS": 12,
        "formatting._TAKEN": 0.02,
        "formatting._MOST_MORE": 5,
        "formatting._SAME_MM": 1e-09,
        "wear.forecast._SAME_MM": 1e-12,
        "wear.lubrication._HOURS_OF_A_DAY": 24,
        "wear.lubrication._FORESEEN_DAYS": 7300,
    },
}
"""By source, by name below ``finegap.core``."""

FORMS = {
    "viscosity.first_at": (None, "40 C"),
    "viscosity.second_at": (None, "100 C"),
    "liquid.density": ((300, 3000), ""),
    "kinematic.dynamic": ((0.01, 100000000.0), ""),
    "kinematic.density": ((300, 3000), "900"),
    "arc.hand": (None, "right"),
    "clearance.hand": (None, "right"),
    "lash.hand": (None, "right"),
    "mesh-gap.low": (None, "0"),
    "mesh-gap.difference": (None, "0"),
    "end-gap.expanded": (None, "0.004 mm"),
    "hot-gap.casing": (None, "cast iron"),
    "hot-gap.rotor": (None, "steel"),
    "hot-gap.casing_expansion": ((-10, 200), ""),
    "hot-gap.rotor_expansion": ((-10, 200), ""),
    "hot-gap.head": (None, "cast iron"),
    "hot-gap.head_expansion": ((-10, 200), ""),
    "hot-gap.rotor_minutes": ((0.01, 10000), ""),
    "hot-gap.casing_minutes": ((0.01, 10000), ""),
    "slot.density": ((300, 3000), "900"),
    "slot.wall": ((-100, 100), "0"),
    "annulus.density": ((300, 3000), "900"),
    "annulus.eccentricity": ((0, 1), "0"),
    "performance.speed": ((0.1, 20000), ""),
    "performance.density": ((300, 3000), "900"),
    "performance.test_speed": ((0.1, 20000), ""),
    "nut-factor.friction_thread": ((0.001, 1), "0.12"),
    "nut-factor.friction_head": ((0.001, 1), "0.12"),
    "proof-load.class": (None, "8.8"),
    "bearing-play.inner": ((0.5, 0.6), "0.52"),
    "bearing-play.outer": ((0.5, 0.6), "0.53"),
    "two-doubts.shape_1": (None, "normal, k = 2"),
    "two-doubts.shape_2": (None, "rectangle"),
    "two-doubts.of": (None, "difference"),
    "two-doubts.correlation": ((-1, 1), "0"),
    "bend.modulus": (None, "206000 MPa"),
    "flank-gap.read": (None, "along the axis"),
    "drops.count": ((2, 10000), ""),
    "drop-size.count": ((5, 10000), ""),
    "drop-size.grams": ((0.01, 10000), ""),
    "drop-size.density": ((300, 3000), "900"),
    "drops.seconds": ((0.1, 36000), ""),
    "drops.per_ml": ((5, 100), "20"),
    "run-in.pumping": (None, "20 C"),
    "run-in.drops_low": ((0.1, 1000), "2"),
    "run-in.drops_high": ((0.1, 1000), "10"),
    "run-in.settle": ((1, 600), "10"),
    "bucket.seconds": ((0.5, 36000), ""),
    "fit.fit": (None, "H7/r6"),
    "press-fit.bushing": (None, "tin bronze"),
    "press-fit.seat": (None, "cast iron"),
    "press-fit.friction_low": ((0.001, 1), "0.1"),
    "press-fit.friction_high": ((0.001, 1), "0.16"),
    "press-fit.poisson": ((0, 0.5), ""),
    "press-fit.expansion": ((0.1, 300), ""),
    "packing.rings": ((1, 20), ""),
    "packing.joints": (None, "opposite"),
    "o-ring.use": (None, "static"),
    "o-ring.kind": (None, "ordinary"),
    "adapter.angle": (None, "0"),
    "preload.friction_low": ((0.001, 1), "0.1"),
    "preload.friction_high": ((0.001, 1), "0.16"),
    "order.count": ((1, 60), ""),
    "tang.slots": ((1, 100), ""),
    "tang.tangs": ((1, 100), ""),
    "disc-spring.settles": (None, "0.05 mm"),
    "disc-spring.parallel": ((1, 20), "1"),
    "disc-spring.series": ((1, 40), "1"),
}
"""Bounds of what a form asks for, and what stands in it: what can be at all, and common practice, no source."""


def plain(thing: object) -> object:
    """Numbers and their keys, as nested tuples; of a table not its words."""
    if isinstance(thing, Enum):
        return thing.name
    if isinstance(thing, Fraction):
        return str(thing)
    if isinstance(thing, Mapping):
        return {plain(key): plain(one) for key, one in thing.items()}
    if is_dataclass(thing):
        return tuple(plain(getattr(thing, field.name)) for field in fields(thing))
    return tuple(plain(one) for one in thing) if isinstance(thing, tuple | list) else thing


READ = {
    "assembly.elastomers.ELASTOMERS": lambda: {code: (e.low_c, e.high_c) for code, e in ELASTOMERS.items()},
    "assembly.elastomers.MEDIA": lambda: {key: (dict(m.ratings), m.upto_c) for key, m in MEDIA.items()},
    "entry.FIELDS": lambda: {key: field.usual for key, field in FIELDS.items()},
    "materials.MATERIALS": lambda: {
        name: (
            tuple((s.from_c, s.upto_c, s.low, s.high) for s in m.expansion.spans), m.modulus_mpa, m.poisson, m.yield_mpa,
        )
        for name, m in MATERIALS.items()
    },
}  # fmt: skip
"""Tables that hold words, too: their numbers alone."""


def now(path: str) -> object:
    """A table as the core has it."""
    if path in READ:
        return READ[path]()
    module, name = path.rsplit(".", 1)
    table = getattr(importlib.import_module(f"finegap.core.{module}"), name)
    return tuple(table) if path == "means.base.SHARES" else plain(table)


class Tables(unittest.TestCase):
    maxDiff = None

    def test_every_number_is_its_sources(self):
        for source, tables in TABLES.items():
            for path, expected in tables.items():
                with self.subTest(table=path, source=source):
                    self.assertEqual(now(path), expected)

    def test_no_part_grows_by_nothing(self):
        self.assertEqual(now("gap.heat.NO_PART"), (0.0, (((-INF, INF, 0.0, 0.0, ""),),)))

    def test_bounds_of_the_forms(self):
        asked = {f"{c.key}.{i.key}": (i.number, i.usual) for c in CALCULATORS.values() for i in c.inputs if i.number or i.usual}
        self.assertEqual(asked, FORMS)

    def test_what_is_usual_for_a_family(self):
        """Common practice, no source: a vane pump of this kind lifts a few bar."""
        self.assertEqual({key: dict(f.usual) for key, f in FAMILIES.items() if f.usual}, {"sliding_vane": {"pressure": (0, 4)}})
