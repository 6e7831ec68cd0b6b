"""The one register of what can be calculated alone, without a job. The page, the API and the shell are made from it."""

from finegap.core.calculators.building import BUILDING
from finegap.core.calculators.cost import COST
from finegap.core.calculators.doubts import DOUBTS
from finegap.core.calculators.gap import GAP
from finegap.core.calculators.handbook import HANDBOOK
from finegap.core.calculators.means import MEANS
from finegap.core.calculators.model import Calculator, Input, TypedInputs
from finegap.core.calculators.proof import PROOF
from finegap.core.errors import FieldError

__all__ = ["CALCULATORS", "Calculator", "Input", "TypedInputs", "calculator"]

CALCULATORS = {c.key: c for c in (*GAP, *MEANS, *COST, *PROOF, *BUILDING, *HANDBOOK, *DOUBTS)}
"""By key: those of the gap first, then those of Prove and of Build."""


def calculator(key: str) -> Calculator:
    """A calculator of the register."""
    if key not in CALCULATORS:
        raise FieldError("sum", f"there is no {key}.", f"Expected one of: {', '.join(CALCULATORS)}.")
    return CALCULATORS[key]
