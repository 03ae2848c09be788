"""The button document: what can be said about one purchase button, and its fields."""
