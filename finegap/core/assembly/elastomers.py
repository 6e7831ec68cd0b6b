"""Which elastomer stands which liquid and which lubricant.

Names by ISO 1629. Each row of ratings says where it comes from; temperatures of the elastomers are common practice. Grades differ:
the seal maker's word is the last. What is not in the table is unknown, and unknown means ask.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from finegap.core.formatting import Amount, Amounts, Kind, Sentence
from finegap.core.result_lines import ResultLine, Status

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
    """A kind of liquid or lubricant, and how elastomers stand it.

    ``ratings`` by code: ``+`` stands it, ``o`` stands it with limits, ``-`` is destroyed; they hold up to ``upto_c``, where
    that is ``None`` as far as the elastomer does. ``lubricates`` when it is used at the bench, ``food`` when it may go where
    food is made.
    """

    key: str
    name: str
    source: str
    ratings: Mapping[str, str]
    upto_c: float | None = None
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
        Medium(
            "mineral oil",
            "mineral oil",
            SOURCE,
            {"NBR": "+", "HNBR": "+", "FKM": "+", "EPDM": "-", "VMQ": "o", "CR": "o"},
            lubricates=True,
        ),
        Medium(
            "mineral grease",
            "mineral grease",
            PRACTICE,
            {"NBR": "+", "HNBR": "+", "FKM": "+", "EPDM": "-", "VMQ": "o", "CR": "o"},
            lubricates=True,
        ),
        Medium(
            "white oil",
            "food-grade white oil",
            PRACTICE,
            {"NBR": "+", "HNBR": "+", "FKM": "+", "EPDM": "-", "VMQ": "o", "CR": "o"},
            lubricates=True,
            food=True,
        ),
        Medium(
            "silicone",
            "silicone oil or grease",
            PRACTICE,
            {"NBR": "+", "HNBR": "+", "FKM": "+", "EPDM": "+", "VMQ": "-", "CR": "+"},
            lubricates=True,
            food=True,
        ),
        Medium(
            "soap",
            "soap solution",
            PRACTICE,
            {"NBR": "+", "HNBR": "+", "FKM": "+", "EPDM": "+", "VMQ": "+", "CR": "o"},
            lubricates=True,
            food=True,
        ),
        Medium(
            "glycerine",
            "glycerine or glycol",
            SOURCE,
            {"NBR": "+", "HNBR": "+", "FKM": "+", "EPDM": "+", "VMQ": "+", "CR": "+"},
            lubricates=True,
            food=True,
        ),
        Medium(
            "fat",
            "vegetable oil or fat",
            SOURCE,
            {"NBR": "+", "HNBR": "+", "FKM": "+", "EPDM": "-", "VMQ": "o", "CR": "o"},
            food=True,
        ),
        Medium("fatty acid", "fatty acid", SOURCE, {"NBR": "o", "HNBR": "o", "FKM": "+", "EPDM": "-", "VMQ": "o", "CR": "-"}),
        Medium(
            "sugar",
            "sugar syrup or molasses",
            SOURCE,
            {"NBR": "+", "HNBR": "+", "FKM": "+", "EPDM": "+", "VMQ": "+", "CR": "+"},
            food=True,
        ),
        Medium(
            "water",
            "water up to 80 °C",
            SOURCE,
            {"NBR": "+", "HNBR": "+", "FKM": "o", "EPDM": "+", "VMQ": "o", "CR": "o"},
            upto_c=80,
            food=True,
        ),
        Medium("steam", "steam", SOURCE, {"NBR": "-", "FKM": "-", "EPDM": "+", "VMQ": "-", "CR": "-"}),
        Medium("lye", "dilute lye", SOURCE, {"NBR": "o", "HNBR": "o", "FKM": "-", "EPDM": "+", "VMQ": "o", "CR": "+"}, upto_c=60),
        Medium("acid", "dilute acid", SOURCE, {"NBR": "o", "HNBR": "o", "FKM": "+", "EPDM": "+", "VMQ": "o", "CR": "o"}, upto_c=60),
        Medium("alcohol", "alcohol", SOURCE, {"NBR": "o", "HNBR": "o", "FKM": "o", "EPDM": "+", "VMQ": "+", "CR": "+"}, upto_c=60),
        Medium("ketone", "ketone", SOURCE, {"NBR": "-", "HNBR": "-", "FKM": "-", "EPDM": "+", "VMQ": "o", "CR": "-"}, upto_c=40),
        Medium(
            "aromatic",
            "aromatic solvent",
            SOURCE,
            {"NBR": "-", "HNBR": "-", "FKM": "+", "EPDM": "-", "VMQ": "-", "CR": "-"},
            upto_c=40,
        ),
        Medium(
            "fuel", "petrol or diesel", SOURCE, {"NBR": "+", "HNBR": "+", "FKM": "+", "EPDM": "-", "VMQ": "-", "CR": "o"}, upto_c=60
        ),
        Medium("phosphate ester", "phosphate ester", SOURCE, {"NBR": "-", "HNBR": "-", "EPDM": "+", "VMQ": "o", "CR": "-"}),
        Medium("bitumen", "bitumen", SOURCE, {"NBR": "o", "FKM": "+", "EPDM": "-", "VMQ": "-", "CR": "-"}),
    )
}
"""Above their temperatures the ratings are not known here: water by its row, the others common practice, no source."""

_STANDS_ALL = ("FFKM", "PTFE", ENCAPSULATED)
_STANDS_ALL_SOURCE = "handbooks, from memory"


def elastomer_of(text: str) -> Elastomer | None:
    """The elastomer a sheet, a nameplate or a kit tag names; ``None`` where it is not one known here."""
    return next((e for code, e in ELASTOMERS.items() if code.lower() == text.strip().lower()), None)


def against_liquid(code: str, medium: str, temperature_c: float) -> ResultLine:
    """Whether an elastomer stands the pumped liquid at its temperature.

    ``code`` as written on the sheet, ``medium`` a key of ``MEDIA``; either may be unknown.
    """
    elastomer, liquid = elastomer_of(code), MEDIA.get(medium)
    name = f"{code or 'Elastomer'} in {liquid.name if liquid else 'the liquid'}"
    unknown = _unknown(code, elastomer, liquid, "what kind of liquid it pumps is not said")
    if unknown or elastomer is None:
        return ResultLine(name, unknown, Status.ASK)
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
        return ResultLine(name, words, Status.STOP)
    most = MEDIA[medium].upto_c
    if most is not None and temperature_c > most:
        amounts: Amounts = {"most": Amount(most, Kind.TEMPERATURE), "at": Amount(temperature_c, Kind.TEMPERATURE)}
        return ResultLine(name, Sentence("Known up to {most}; it pumps at {at}: ask the seal maker.", amounts), Status.ASK)
    return _rated(name, elastomer.code, MEDIA[medium])


def against_lubricant(code: str, medium: str) -> ResultLine:
    """Whether an elastomer stands the lubricant on the bench."""
    elastomer, lubricant = elastomer_of(code), MEDIA.get(medium)
    name = f"{code or 'Elastomer'} with {lubricant.name if lubricant else 'the lubricant'}"
    unknown = _unknown(code, elastomer, lubricant, "which lubricant is on the bench is not said")
    if unknown or elastomer is None:
        return ResultLine(name, unknown, Status.ASK)
    return _rated(name, elastomer.code, MEDIA[medium])


def lubricants_for(code: str) -> tuple[str, ...]:
    """Lubricants an elastomer stands, by name."""
    return tuple(m.name for key, m in MEDIA.items() if m.lubricates and against_lubricant(code, key).status is Status.GOOD)


def _unknown(code: str, elastomer: Elastomer | None, medium: Medium | None, what: str) -> str:
    if not code.strip():
        return "The sheet names no elastomer: read the kit tag, and ask."
    if elastomer is None:
        return f"“{code}” is not in the table: ask the seal maker."
    return "" if medium else f"Unknown: {what}. Ask."


def _rated(name: str, code: str, medium: Medium) -> ResultLine:
    stands_all = code in _STANDS_ALL
    rating = "+" if stands_all else medium.ratings.get(code, "")
    amounts: Amounts = {"source": _STANDS_ALL_SOURCE if stands_all else medium.source}
    match rating:
        case "+":
            return ResultLine(name, Sentence("Stands it: {source}.", amounts))
        case "o":
            words = "Stands it with limits, swells or ages: {source}. The seal maker's word decides."
            return ResultLine(name, Sentence(words, amounts), Status.CARE)
        case "-":
            others = [other for other, stands in medium.ratings.items() if stands == "+"]
            words = "Is destroyed by it: {source}." + (" {others} would." if others else "")
            return ResultLine(name, Sentence(words, amounts | {"others": ", ".join(others)}), Status.STOP)
    return ResultLine(name, "Not in the table: ask the seal maker.", Status.ASK)
