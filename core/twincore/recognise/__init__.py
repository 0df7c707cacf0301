"""Recognise: which board carries a marking."""

from twincore.recognise.part_numbers import normal_form, without_look_alikes

__all__ = ["normal_form", "without_look_alikes"]
