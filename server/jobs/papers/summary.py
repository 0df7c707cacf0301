"""Printed pages of the front of a job: a summary for the depot, the chain of reasoning."""

from datetime import datetime
from typing import Any

from catalogue.models import BoardPicture
from catalogue.profiles import family_profile
from config.printing import as_pdf
from jobs.cases import case_of
from jobs.models import Job
from jobs.papers.pictures import on_paper
from jobs.steps.recognise.key_view import TITLES, key_shown
from twincore.job.shared.facts import facts_of
from twinshown.refusals import Refused
from twinshown.steps.rule_out.view import rule_out_shown
from twinshown.words.fit import FitWords

SKETCH_WIDTH = 190.0
MOST_PRINTED = 8


def summary_pdf(job: Job, now: datetime) -> bytes:
    """What is asked, what was seen on the board and its machine, with pictures, and which boards it may be, with sketches."""
    key = key_shown(job) if job.family_revision_id else None
    words = FitWords(family_profile(job.family_revision_id), {}) if job.family_revision_id else None
    context = {
        "job": job,
        "printed_at": now,
        "seen": [(TITLES.get(name, name), value) for name, value in key.answers.items()] if key else [],
        "facts": [
            (words.fact(name) if words else name, fact.value, fact.source)
            for name, fact in facts_of(case_of(job)).items()
        ],
        "pictures": _pictures(job),
        "asked": job.state.get("asked"),
        "markings": [
            (each.reason, each.at)
            for each in job.entries.filter(target="original").exclude(reason="").order_by("number")
        ],
        "left": [(each, _sketch(each.sketch)) for each in key.left[:6]] if key else [],
        "left_count": key.left_count if key else 0,
        "question": key.question if key else None,
    }
    return as_pdf("jobs/summary.html", context)


def _pictures(job: Job) -> list[tuple[str, str]]:
    """The job's pictures and the depot's of its original, each with what it shows."""
    said = job.state.get("pictures", {})
    taken = [(each.file, said.get(str(each.name), {}).get("caption", "")) for each in job.pictures.all()[:MOST_PRINTED]]
    kept = BoardPicture.objects.filter(depot=job.depot_id, part_number=job.state.get("original") or "")
    taken += [(each.file, f"{each.of} of {each.part_number}") for each in kept[:MOST_PRINTED]]
    return [(on_paper(file), words) for file, words in taken]


def reasoning_pdf(job: Job, now: datetime) -> bytes:
    """What was said and tested, link by link, and what it did to the suspicion."""
    shown = rule_out_shown(case_of(job))
    if shown is None:
        raise Refused("There is no rule-out data for this kind of machine yet.")
    return as_pdf("jobs/reasoning.html", {"job": job, "printed_at": now, "shown": shown})


def _sketch(traits: dict[str, Any]) -> dict[str, Any]:
    """A board's outline, holes and plugs scaled for the page, y downwards."""
    width, height = traits.get("size_mm", (160, 110))
    scale = SKETCH_WIDTH / 200
    look = traits.get("look", {})
    return {
        "width": width * scale,
        "height": height * scale,
        "colour": look.get("colour", ""),
        "holes": [
            (each["at"][0] * scale, (height - each["at"][1]) * scale, each["diameter_mm"] * scale / 2)
            for each in traits.get("holes", ())
        ],
        "plugs": [
            {"x": (8 + index * 48) * scale, "pins": len(each["pins"]), "name": each["id"]}
            for index, each in enumerate(traits.get("connectors", ())[:4])
        ],
    }
