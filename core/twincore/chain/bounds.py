"""How large a record and its package may grow: what a job takes is what its package takes."""

MOST_ENTRIES = 5_000
MOST_SAID = 2_000_000
"""Bytes of what the entries of a job say, as JSON, before and after."""
LARGEST_RECORD = 12_000_000
"""Bytes of a job's document: entries and what they add up to, each at most `MOST_SAID`, with what is written around them."""
MOST_VALUES = 600_000
"""Of a job's document, counted by commas and brackets."""
LARGEST_FILE = 20_000_000
"""Bytes of any other file in a package."""
MOST_FILES = 260
LARGEST_PICTURES = 300_000_000
"""Bytes of a job's pictures together."""
LARGEST_PACKAGE = 400_000_000
LARGEST_FOLDED, LARGEST_PLAIN = 100, 500_000
"""How much smaller a file may be in a package than it is, beyond so many bytes: records fold to a tenth, bombs to a thousandth."""
