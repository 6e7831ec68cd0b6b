"""Internal gear pump: a rotor drives an idler on an offset pin in the head."""

from finegap.core.families.family import Family
from finegap.core.families.internal_gear.drawing import views
from finegap.core.families.internal_gear.features import FEATURES
from finegap.core.families.internal_gear.pictures import PICTURES
from finegap.core.families.internal_gear.presses import PRESSES, SIZES
from finegap.core.families.internal_gear.procedure import DETAILS, STEPS
from finegap.core.families.internal_gear.rules import OPTIONS, REPLACED_WITH, SYMPTOMS
from finegap.core.families.internal_gear.stacks import STACKS

FAMILY = Family(
    key="internal_gear",
    name="Internal gear pump",
    features=(*FEATURES, *SIZES),
    steps=STEPS,
    options=OPTIONS,
    symptoms=SYMPTOMS,
    replaced_with=REPLACED_WITH,
    one_piece=(
        ("rotor_outside", "rotor_teeth"),
        ("idler_teeth", "idler_tips"),
        ("crescent", "head_face"),
        ("shaft_at_bushing", "shaft_at_seal", "shaft_runout"),
    ),
    details=DETAILS,
    stacks=STACKS,
    presses=PRESSES,
    pictures=PICTURES,
    views=views,
    torques=("lock nut", "head bolts"),
    former_rings=("shaft_ring",),
)
