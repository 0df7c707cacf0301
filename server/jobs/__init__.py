"""Jobs: one sheet each, filled by entries that are only ever added."""
