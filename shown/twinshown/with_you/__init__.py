"""A job that somebody has along: its pages and its entries without the depot's server, by the same rules."""
