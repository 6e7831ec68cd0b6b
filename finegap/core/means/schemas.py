"""Pieces of JSON Schema that the parts of a sheet share; the names are those of the sheet's own definitions."""

LENGTH = {"$ref": "#/$defs/length"}
TEXT = {"$ref": "#/$defs/text"}
RANGE = {"type": "array", "items": LENGTH, "minItems": 2, "maxItems": 2}
THICKNESSES = {"type": "array", "items": LENGTH, "minItems": 1, "maxItems": 40}
FEATURE = {**TEXT, "choices": "feature"}
"""The key of a feature of the family."""
FEATURES = {"type": "array", "items": FEATURE, "minItems": 2, "maxItems": 2}
