"""Van stock: the vans of a depot, the machines that they look after, what they carry and what they should."""
