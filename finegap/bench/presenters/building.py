"""What is on the bench for Build."""

from __future__ import annotations

from finegap.bench import shapes
from finegap.bench.facts import Records
from finegap.core.build.elastomers import MEDIA
from finegap.core.tasks.picture import picture_view
from finegap.site.shapes import NamedShape
from finegap.toolbox.models import GreaseGun
from finegap.toolbox.queries import gun_shapes


def building(records: Records) -> shapes.BuildingShape:
    """What is in use, and what there is to choose from."""
    job = records.job
    return shapes.BuildingShape(
        pictures=[picture_view(key, picture) for key, picture in records.facts.family.pictures.items()],
        lubricant=job.lubricant,
        lubricants=[NamedShape(key, m.name) for key, m in MEDIA.items() if m.lubricates],
        gun=job.gun.tag if job.gun else "",
        guns=gun_shapes(GreaseGun.objects.all()),
    )
