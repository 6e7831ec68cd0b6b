"""Drawings of a pump: outlines, the parts they are made of, and where the numbers stand round them."""
