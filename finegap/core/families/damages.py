"""Damage more than one family knows, and what it means whatever the size. Common practice, no source; the maker's manual rules."""

from finegap.core.families.features import Damage
from finegap.core.measuring.verdict import Verdict

POLISHED = Damage("polished", "polished", Verdict.KEEP, "Bright contact with no edge to feel is how it runs in.")
BURR = Damage("burr", "nick or burr", Verdict.WATCH, "Dress it with a stone, never with a file, and look again.")
SCORED = Damage("scored", "scored", Verdict.CHANGE, "Score marks a fingernail catches on carry liquid past and cut the other part.")
PITTED = Damage("pitted", "pitted or corroded", Verdict.CHANGE, "Pits grow, and cut what runs on them.")
CRACKED = Damage("cracked", "cracked or chipped", Verdict.CHANGE, "A crack does not stop, and a chip goes round with the liquid.")
GALLED = Damage("galled", "galled", Verdict.CHANGE, "Metal has been torn out and welded on: it has run without a gap.")
ROUGH = Damage("rough", "rough or noisy", Verdict.CHANGE, "Turned slowly by hand it must not be felt.")
METAL = (POLISHED, BURR, SCORED, PITTED, GALLED)
TEETH = (POLISHED, BURR, SCORED, CRACKED, GALLED)
