"""Which elastomer stands which liquid and which lubricant.

Names by ISO 1629. Ratings after ISO/TR 7620 (chemical resistance of rubber materials), from memory; temperatures and the rules
for lubricants are common practice. Grades differ: the seal maker's word is the last. What is not in the table is unknown, and
unknown means ask.
"""

from __future__ import annotations

from dataclasses import dataclass

from finegap.core.reckoned import Line, Stand
from finegap.core.showing import Amount, Kind, Sentence

SOURCE = "ISO/TR 7620, from memory"
PRACTICE = "common practice, no source"


@dataclass(frozen=True)
class Elastomer:
    """A seal material by its ISO 1629 code, with the temperatures it stands in C."""

    code: str
    name: str
    low_c: float
    high_c: float


@dataclass(frozen=True)
class Medium:
    """A kind of liquid or lubricant. ``food`` when it may go where food is made; ``lubricates`` when it is used at the bench."""

    key: str
    name: str
    lubricates: bool = False
    food: bool = False


ENCAPSULATED = "PTFE-encapsulated"

ELASTOMERS = {
    e.code: e
    for e in (
        Elastomer("NBR", "nitrile rubber", -30, 100),
        Elastomer("HNBR", "hydrogenated nitrile rubber", -25, 150),
        Elastomer("FKM", "fluorocarbon rubber", -15, 200),
        Elastomer("FFKM", "perfluorinated rubber", -10, 260),
        Elastomer("EPDM", "ethylene propylene rubber", -45, 130),
        Elastomer("VMQ", "silicone rubber", -55, 200),
        Elastomer("CR", "chloroprene rubber", -35, 100),
        Elastomer("PTFE", "polytetrafluoroethylene", -150, 230),
        Elastomer(ENCAPSULATED, "ring in a PTFE jacket", -20, 200),
    )
}

MEDIA = {
    m.key: m
    for m in (
        Medium("mineral oil", "mineral oil", True),
        Medium("mineral grease", "mineral grease", True),
        Medium("white oil", "food-grade white oil", True, True),
        Medium("silicone", "silicone oil or grease", True, True),
        Medium("soap", "soap solution", True, True),
        Medium("glycerine", "glycerine or glycol", True, True),
        Medium("fat", "vegetable oil or fat", food=True),
        Medium("fatty acid", "fatty acid"),
        Medium("sugar", "sugar syrup or molasses", food=True),
        Medium("water", "water up to 80 °C", food=True),
        Medium("steam", "steam"),
        Medium("lye", "dilute lye"),
        Medium("acid", "dilute acid"),
        Medium("alcohol", "alcohol"),
        Medium("ketone", "ketone"),
        Medium("aromatic", "aromatic solvent"),
        Medium("fuel", "petrol or diesel"),
        Medium("phosphate ester", "phosphate ester"),
        Medium("bitumen", "bitumen"),
    )
}

_RATINGS = {
    # +  stands it, o  stands it with limits, -  is destroyed
    "mineral oil": {"NBR": "+", "HNBR": "+", "FKM": "+", "EPDM": "-", "VMQ": "o", "CR": "o"},
    "mineral grease": {"NBR": "+", "HNBR": "+", "FKM": "+", "EPDM": "-", "VMQ": "o", "CR": "o"},
    "white oil": {"NBR": "+", "HNBR": "+", "FKM": "+", "EPDM": "-", "VMQ": "o", "CR": "o"},
    "silicone": {"NBR": "+", "HNBR": "+", "FKM": "+", "EPDM": "+", "VMQ": "-", "CR": "+"},
    "soap": {"NBR": "+", "HNBR": "+", "FKM": "+", "EPDM": "+", "VMQ": "+", "CR": "o"},
    "glycerine": {"NBR": "+", "HNBR": "+", "FKM": "+", "EPDM": "+", "VMQ": "+", "CR": "+"},
    "fat": {"NBR": "+", "HNBR": "+", "FKM": "+", "EPDM": "-", "VMQ": "o", "CR": "o"},
    "fatty acid": {"NBR": "o", "HNBR": "o", "FKM": "+", "EPDM": "-", "VMQ": "o", "CR": "-"},
    "sugar": {"NBR": "+", "HNBR": "+", "FKM": "+", "EPDM": "+", "VMQ": "+", "CR": "+"},
    "water": {"NBR": "+", "HNBR": "+", "FKM": "o", "EPDM": "+", "VMQ": "o", "CR": "o"},
    "steam": {"NBR": "-", "FKM": "-", "EPDM": "+", "VMQ": "-", "CR": "-"},
    "lye": {"NBR": "o", "HNBR": "o", "FKM": "-", "EPDM": "+", "VMQ": "o", "CR": "+"},
    "acid": {"NBR": "o", "HNBR": "o", "FKM": "+", "EPDM": "+", "VMQ": "o", "CR": "o"},
    "alcohol": {"NBR": "o", "HNBR": "o", "FKM": "o", "EPDM": "+", "VMQ": "+", "CR": "+"},
    "ketone": {"NBR": "-", "HNBR": "-", "FKM": "-", "EPDM": "+", "VMQ": "o", "CR": "-"},
    "aromatic": {"NBR": "-", "HNBR": "-", "FKM": "+", "EPDM": "-", "VMQ": "-", "CR": "-"},
    "fuel": {"NBR": "+", "HNBR": "+", "FKM": "+", "EPDM": "-", "VMQ": "-", "CR": "o"},
    "phosphate ester": {"NBR": "-", "HNBR": "-", "EPDM": "+", "VMQ": "o", "CR": "-"},
    "bitumen": {"NBR": "o", "FKM": "+", "EPDM": "-", "VMQ": "-", "CR": "-"},
}
_STANDS_ALL = ("FFKM", "PTFE", ENCAPSULATED)
_PRACTICE = ("silicone", "soap", "mineral grease", "white oil")


def elastomer_of(text: str) -> Elastomer | None:
    """The elastomer a sheet, a nameplate or a kit tag names; ``None`` where it is not one known here."""
    return next((e for code, e in ELASTOMERS.items() if code.lower() == text.strip().lower()), None)


def against_liquid(code: str, medium: str, temperature_c: float) -> Line:
    """Whether an elastomer stands the pumped liquid at its temperature.

    ``code`` as written on the sheet, ``medium`` a key of ``MEDIA``; either may be unknown.
    """
    elastomer, liquid = elastomer_of(code), MEDIA.get(medium)
    name = f"{code or 'Elastomer'} in {liquid.name if liquid else 'the liquid'}"
    unknown = _unknown(code, elastomer, liquid, "what kind of liquid it pumps is not said")
    if unknown or elastomer is None:
        return Line(name, unknown, Stand.ASK)
    if not elastomer.low_c <= temperature_c <= elastomer.high_c:
        words = Sentence(
            "{code} stands {low} to {high}; it pumps at {at}.",
            {
                "code": code,
                "low": Amount(elastomer.low_c, Kind.TEMPERATURE),
                "high": Amount(elastomer.high_c, Kind.TEMPERATURE),
                "at": Amount(temperature_c, Kind.TEMPERATURE),
            },
        )
        return Line(name, words, Stand.STOP)
    return _rated(name, elastomer.code, medium)


def against_lubricant(code: str, medium: str) -> Line:
    """Whether an elastomer stands the lubricant on the bench."""
    elastomer, lubricant = elastomer_of(code), MEDIA.get(medium)
    name = f"{code or 'Elastomer'} with {lubricant.name if lubricant else 'the lubricant'}"
    unknown = _unknown(code, elastomer, lubricant, "which lubricant is on the bench is not said")
    if unknown or elastomer is None:
        return Line(name, unknown, Stand.ASK)
    return _rated(name, elastomer.code, medium)


def lubricants_for(code: str) -> tuple[str, ...]:
    """Lubricants an elastomer stands, by name."""
    return tuple(m.name for key, m in MEDIA.items() if m.lubricates and against_lubricant(code, key).stand is Stand.GOOD)


def _unknown(code: str, elastomer: Elastomer | None, medium: Medium | None, what: str) -> str:
    if not code.strip():
        return "The sheet names no elastomer: read the kit tag, and ask."
    if elastomer is None:
        return f"“{code}” is not in the table: ask the seal maker."
    return "" if medium else f"Unknown: {what}. Ask."


def _rated(name: str, code: str, medium: str) -> Line:
    rating = "+" if code in _STANDS_ALL else _RATINGS[medium].get(code, "")
    source = PRACTICE if medium in _PRACTICE else SOURCE
    match rating:
        case "+":
            return Line(name, f"Stands it: {source}.")
        case "o":
            return Line(name, f"Stands it with limits, swells or ages: {source}. The seal maker's word decides.", Stand.CARE)
        case "-":
            others = [e for e in _RATINGS[medium] if _RATINGS[medium][e] == "+"]
            instead = f" {', '.join(others)} would." if others else ""
            return Line(name, f"Is destroyed by it: {source}.{instead}", Stand.STOP)
    return Line(name, "Not in the table: ask the seal maker.", Stand.ASK)
