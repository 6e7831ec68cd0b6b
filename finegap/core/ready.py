"""What a job needs on the bench before anything is opened."""

from __future__ import annotations

from collections.abc import Mapping

from finegap.core.families.family import Family
from finegap.core.formatting import Sentence
from finegap.core.ordering import Order
from finegap.core.procedure import listed

_TOLD = 3


def needs(family: Family, order: Order) -> tuple[tuple[str, str], ...]:
    """Tools, consumables, kits and parts: what it is called, and its kind, each once."""
    items = [(item, "tool") for item in listed(family, "tools")]
    items += [(item, "consumable") for item in listed(family, "consumables")]
    items += [(f"{line.count} × {line.number} {line.name}", "kit" if line.is_kit else "part") for line in order.cover.lines]
    return tuple(dict.fromkeys(items))


def not_ready(wanted: tuple[tuple[str, str], ...], on_hand: Mapping[str, bool]) -> tuple[Sentence, ...]:
    """What is missing, and what nobody has looked for."""
    missing = [item for item, _ in wanted if on_hand.get(item) is False]
    unseen = [item for item, _ in wanted if item not in on_hand]
    return (*_told("Missing: {items}.", missing), *_told("Nobody has looked for: {items}.", unseen))


def _told(words: str, items: list[str]) -> tuple[Sentence, ...]:
    if not items:
        return ()
    more = f" and {len(items) - _TOLD} more" if len(items) > _TOLD else ""
    return (Sentence(words, {"items": ", ".join(items[:_TOLD]) + more}),)
