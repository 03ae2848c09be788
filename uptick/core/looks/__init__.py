"""Looks as wholes: carried, begun from, and said in sentences."""
