"""The steps of an internal gear overhaul, and what a sheet may tell them. Common practice, no source."""

from finegap.core.families.internal_gear.building import BUILD
from finegap.core.families.internal_gear.proving import PROVE, SET
from finegap.core.families.internal_gear.stripping import PREPARE, STRIP

DETAILS = {
    "head_bolts": "number of head bolts",
    "bracket_bolts": "number of bolts, casing to bracket",
    "pump_mass": "mass of the pump",
    "head_mass": "mass of the head with idler and pin",
    "packing_rings": "number of packing rings",
    "elastomer": "elastomer of seals and O-rings",
    "lip": "elastomer of the lip seals, where it is another",
    "faces": "how seal faces are fitted: dry, or film",
}
"""What a sheet may tell the procedure, by key."""

STEPS = (*PREPARE, *STRIP, *BUILD, *SET, *PROVE)
