"""A look drawn: its boxes, its icons, its CSS and markup."""
