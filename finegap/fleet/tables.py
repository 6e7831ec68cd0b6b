"""The table a fleet is filled from."""

from __future__ import annotations

from django.contrib.auth.models import User

from finegap.core.entry import Entry
from finegap.core.errors import FieldError
from finegap.core.formatting import Amount, Amounts, Kind, Sentence
from finegap.fleet.queries import pump_choices
from finegap.formats.tables import Row
from finegap.inventory.many import Table, given
from finegap.pumps.changes import AddPump
from finegap.pumps.services import add_pump
from finegap.sheets.models import Sheet

PUMPS = {
    "Tag": "tag", "What it does": "service", "Place": "location", "Serial": "serial", "Sheet": "sheet", "Material": "material",
    "Liquid": "liquid", "Kind of liquid": "medium", "Hazards": "hazards", "Viscosity": "viscosity", "Temperature": "temperature",
    "Casing": "casing", "Coldest start": "start", "Hottest": "hot", "Density": "density", "Pressure": "pressure", "Speed": "speed",
    "Overhauled every": "overhaul_every", "Hours a week": "hours_per_week", "Wet": "wet", "Built": "build",
}  # fmt: skip
"""As the template names them, and what each is of a pump."""

_YES, _NO = ("yes", "wet", "x"), ("", "no", "dry")


def pumps(actor: User) -> Table:
    """Pumps with their duty, and where one differs from its sheet."""

    def keep(row: Row, entry: Entry) -> Sentence:
        texts = {column: name for column, name in PUMPS.items() if name not in ("wet", "build")}
        cells = given(row, texts, AddPump)
        sheet = Sheet.objects.filter(slug=cells["sheet"]).first() or Sheet.objects.filter(title__iexact=cells["sheet"]).first()
        if sheet is None:
            raise FieldError("Sheet", f"there is no sheet “{cells['sheet']}”.", "Expected one from Sheets, by its title.")
        wet = row["Wet"].casefold()
        if wet not in (*_YES, *_NO):
            raise FieldError("Wet", f"“{row['Wet'][:20]}” is neither.", "Expected yes, no, or nothing.")
        new = AddPump(
            **(cells | {"sheet": sheet.slug}), wet=wet in _YES, build=_built(row["Built"], sheet.slug) if row["Built"] else {}
        )
        pump = add_pump(actor, new, entry)
        # With their units: a file in inches and Fahrenheit, sent while the screen shows others, is seen before anything is kept.
        amounts: Amounts = {
            "sheet": sheet.title,
            "liquid": pump.liquid,
            "viscosity": Amount(pump.viscosity_mm2_s, Kind.VISCOSITY),
            "temperature": Amount(pump.temperature_c, Kind.TEMPERATURE),
            "pressure": Amount(pump.pressure_bar, Kind.PRESSURE),
            "speed": f"{pump.speed_r_min:g} r/min",
        }
        return Sentence("{sheet}; {liquid}, {viscosity} at {temperature}, {pressure}, {speed}", amounts)

    return Table("pumps", tuple(PUMPS), keep)


def _built(text: str, slug: str) -> dict[str, str]:
    """Choices in the words of the page, each after its option: “Shaft seals: single O-ring; Rotors on: keys”."""
    found = pump_choices(slug)
    options = {one.name.casefold(): one for one in found.options} if found else {}
    build = {}
    for part in filter(None, (one.strip() for one in text.split(";"))):
        name, _, choice = (one.strip() for one in part.partition(":"))
        option = options.get(name.casefold())
        if option is None:
            known = ", ".join(one.name for one in options.values()) or "nothing"
            raise FieldError("Built", f"“{name[:40]}” is nothing a pump of this sheet differs in.", f"Expected any of: {known}.")
        key = next((one.key for one in option.choices if choice.casefold() in (one.name.casefold(), one.key)), None)
        if key is None:
            known = ", ".join(one.name for one in option.choices)
            raise FieldError("Built", f"“{choice[:40]}” is not a choice of {option.name.lower()}.", f"Expected one of: {known}.")
        build[option.key] = key
    return build
