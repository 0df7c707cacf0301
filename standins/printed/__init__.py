"""Printed things that a technician has in hand: a board, a plate and a leaflet, drawn and then worn."""
