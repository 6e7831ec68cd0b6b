"""Proving a pump after its gap was set: turning by hand, running its packing in, and the first hour."""
