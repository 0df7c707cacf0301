"""Match: what stands between an original and a candidate besides settings and behaviour."""

from twincore.match.plugs import PinDifference, pin_differences

__all__ = ["PinDifference", "pin_differences"]
