"""Buttons for pages and mails that are not the shop's: links, forms, pictures, HTML without a script, and print."""
