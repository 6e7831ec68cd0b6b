"""The families of pump: declared data the engine reads.

Each folder here is one family and holds ``FAMILY``. Add a folder and it is on the bench; nothing lists it, and nothing asks which
family it has.
"""

from importlib import import_module
from pkgutil import iter_modules

from finegap.core.families.family import Family


def _declared() -> dict[str, Family]:
    folders = sorted(module.name for module in iter_modules(__path__) if module.ispkg)
    families = [import_module(f"{__name__}.{folder}").FAMILY for folder in folders]
    return {family.key: family for family in families}


FAMILIES: dict[str, Family] = _declared()
