"""What is known of a shop: its products, its pages, and what its shoppers signal."""
