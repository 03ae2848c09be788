"""Texts filled for real products and laid out where they stand."""
