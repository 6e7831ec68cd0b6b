"""Reading what the works decided for itself."""

from __future__ import annotations

from django.conf import settings
from django.core.files.storage import default_storage

from finegap.core.entry import BARE, SIGNS, bare_unit
from finegap.core.formatting import Units
from finegap.formats.letterhead import Letterhead, Paper
from finegap.works.models import WorksSettings, logo_file
from finegap.works.responses import BareUnitResponse, SettingsResponse


def works_settings() -> WorksSettings:
    """What the works decided for itself; the usual where it has not yet."""
    return WorksSettings.objects.filter(pk=1).first() or WorksSettings()


def zone_of(kept: WorksSettings) -> str:
    """Its time zone, or that of the server."""
    return kept.time_zone or settings.TIME_ZONE


def settings_shape() -> SettingsResponse:
    """The settings of the works, and the units of bare numbers."""
    kept = works_settings()
    by = (kept.by.get_full_name() or kept.by.username) if kept.by else ""
    units = [
        BareUnitResponse(one.name.lower(), *(SIGNS.get(unit, unit) for unit in (bare_unit(one, system) for system in Units)))
        for one in BARE
    ]
    return SettingsResponse(
        kept.name, kept.address, kept.logo, kept.lengths, kept.decimal_mark, kept.date_form, kept.paper, zone_of(kept),
        kept.currency, kept.school, f"{100 * kept.new_share:g}", str(kept.photo_side),
        "" if kept.abandoned_days is None else str(kept.abandoned_days), str(kept.idle_days), str(kept.backup_hours),
        by, kept.at, units,
    )  # fmt: skip


def letterhead(name: str, address: str, logo: str) -> Letterhead:
    """A heading of reports, with the picture read."""
    picture = b""
    if logo and default_storage.exists(logo_file(logo)):
        with default_storage.open(logo_file(logo)) as file:
            picture = file.read()
    return Letterhead(name, address, picture)


def present() -> Letterhead:
    """The heading in force."""
    kept = works_settings()
    return letterhead(kept.name, kept.address, kept.logo)


def paper() -> Paper:
    """What this works prints on."""
    return Paper(works_settings().paper)
