"""Whether the board can be had."""

from twincore.choose.criteria.base import Context, Criterion
from twincore.choose.judged import Judged, Reason


class Availability(Criterion):
    """Price, stock and days as last heard from the parts desk (`stock`, `days`, `age_s`), or that nobody asked yet."""

    id = "availability"
    of_the_fit = False

    def judge(self, at: Context) -> Judged:
        """As the parts desk said last."""
        candidate, offer = at.candidate, at.offer
        if offer is None:
            if candidate.status == "discontinued":
                return self.judged([Reason("discontinued", "to check")])
            return self.judged([Reason("not asked", "to check")])
        data = dict(offer)
        if offer.get("unknown"):
            return self.judged([Reason("desk does not know it", "to check", data)])
        if offer["stock"] > 0:
            return self.judged([Reason("in stock", "fits", data)])
        if offer.get("days") is None:
            return self.judged([Reason("cannot be had", "no", data)])
        return self.judged([Reason("to be ordered", "with work", data)])
