"""A job taken along: all that its pages are worked out from, for a device that will have no connection."""
