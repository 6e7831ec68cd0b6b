"""The trade itself: pure Python, no Django, no files, no clock, no network.

Everything here takes and returns plain values and frozen dataclasses. Lengths are millimetres, angles degrees,
torques newton metres, temperatures degrees Celsius, kinematic viscosities mm2/s, pressures bar; the unit is in the name.
"""

VERSION = "0.12.0"
"""Frozen into each signed record, so that a figure can be traced to the rules that made it."""
