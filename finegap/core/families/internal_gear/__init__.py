"""Internal gear pump: a rotor drives an idler on an offset pin in the head."""

from finegap.core.families.internal_gear.features import FEATURES
from finegap.core.families.internal_gear.procedure import STEPS
from finegap.core.families.model import Family

FAMILY = Family("internal_gear", "Internal gear pump", FEATURES, STEPS)
