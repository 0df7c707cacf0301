"""Parts: what the parts desk says about price, stock and days."""
