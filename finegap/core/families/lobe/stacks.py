"""What a lobe pump is put together of: seals, rotors for each count of lobes and each way they are held, and the cover."""

from finegap.core.families.lobe.phase import LOBES, turned
from finegap.core.families.timed_seals import seals
from finegap.core.families.timed_stacks import COVER, Rotors, rotors

_ROTORS = tuple(
    Rotors(
        "lobe",
        "lobes",
        f"turned by {turned(int(key))} to the first",
        held,
        f"_{key}_{held}",
        {"lobes": (key,), "held": (held,)},
    )
    for key in LOBES.choices
    for held in ("nut", "plate")
)
STACKS = (*seals("lobe"), *(stack for of in _ROTORS for stack in rotors(of)), COVER)
