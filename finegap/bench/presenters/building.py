"""What is on the bench for Build."""

from __future__ import annotations

from finegap.bench import shapes
from finegap.bench.records import Records
from finegap.core.assembly.elastomers import MEDIA
from finegap.core.tasks.picture import picture_view
from finegap.inventory.models import GreaseGun
from finegap.inventory.queries import gun_shapes
from finegap.site.shapes import NamedShape


def building(records: Records) -> shapes.BuildingShape:
    """What is in use, and what there is to choose from."""
    job = records.job
    return shapes.BuildingShape(
        pictures=[picture_view(key, picture) for key, picture in records.job_record.family.pictures.items()],
        lubricant=job.lubricant,
        lubricants=[NamedShape(key, m.name) for key, m in MEDIA.items() if m.lubricates],
        gun=job.gun.tag if job.gun else "",
        guns=gun_shapes(GreaseGun.objects.all()),
    )
