"""What buttons say: live values, plurals, money, and what narrower texts override."""
