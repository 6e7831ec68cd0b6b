"""The families of pump: declared data the engine reads. Add a folder, list it here; nothing else asks which family it has."""

from finegap.core.families.internal_gear import FAMILY as INTERNAL_GEAR
from finegap.core.families.model import Family

FAMILIES: dict[str, Family] = {family.key: family for family in (INTERNAL_GEAR,)}
