"""Money and numbers as a depot writes them."""

from django.utils import translation
from django.utils.formats import number_format


def money(amount: float, currency: str, locale: str) -> str:
    """An amount with its currency (ISO 4217) before it, grouped and with two decimals as the locale has it: "EUR 1.390,67"."""
    with translation.override(locale):
        written = number_format(round(amount, 2), decimal_pos=2, force_grouping=True)
    return f"{currency} {written}".strip()
