"""What is on the bench for Build."""

from __future__ import annotations

from finegap.api.shown import NamedResponse
from finegap.bench import responses
from finegap.bench.compiled import Compiled
from finegap.bench.records import Records
from finegap.core.assembly.elastomers import MEDIA
from finegap.core.tasks.picture import picture_view
from finegap.inventory.models import GreaseGun
from finegap.inventory.queries import gun_responses

_GUNS = Compiled(lambda _: GreaseGun.objects.all())


def building(records: Records) -> responses.BuildingResponse:
    """What is in use, and what there is to choose from."""
    job = records.job
    return responses.BuildingResponse(
        pictures=[picture_view(key, picture) for key, picture in records.job_record.family.pictures.items()],
        lubricant=job.lubricant,
        lubricants=[NamedResponse(key, m.name) for key, m in MEDIA.items() if m.lubricates],
        gun=job.gun.tag if job.gun else "",
        guns=gun_responses(_GUNS()),
    )
