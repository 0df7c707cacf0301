"""Run as `python -m standins.parts_desk`."""

from standins.parts_desk import main

main()
