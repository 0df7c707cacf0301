"""Run the stand-in."""

from standins.board_port import main

main()
