"""A job as it is written out, played again, verified and checked a second time."""
