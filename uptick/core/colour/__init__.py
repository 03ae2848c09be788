"""Colours, fills and pictures, and how a look is dressed in each state."""
