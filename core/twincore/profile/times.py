"""Times as people say them."""

from twincore.profile.values import Number, tidy

MINUTE_S, HOUR_S = 60, 3600


def time_words(seconds: Number) -> str:
    """Seconds in words: up to two minutes in seconds, then minutes, from two hours on hours; nothing is left out."""
    if seconds < 2 * MINUTE_S:
        return f"{_short(seconds)} s"
    hours = 0 if seconds < 2 * HOUR_S else int(seconds // HOUR_S)
    minutes = int((seconds - hours * HOUR_S) // MINUTE_S)
    left = tidy(seconds - hours * HOUR_S - minutes * MINUTE_S)
    parts = [(str(hours), "h"), (str(minutes), "min"), (_short(left), "s")]
    return " ".join(f"{count} {unit}" for count, unit in parts if count != "0")


def _short(seconds: Number) -> str:
    return f"{float(seconds):.10g}"
