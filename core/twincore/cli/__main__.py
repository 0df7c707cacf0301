"""Run as `python -m twincore.cli`."""

import sys

from twincore.cli import main

sys.exit(main())
